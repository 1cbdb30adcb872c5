import { draftFrom, readDraft, type Draft, type Field, NEEDED } from '../parts/form/form.ts';
import { readDay } from '../quantities/days.ts';
import type { UnitName } from '../quantities/read.ts';

/** A column of a table file: the field's path, as the contract names it, what people call it, and what may stand in it. */
export type Column = {
  path: string;
  title: string;
  required: boolean;
  unit?: UnitName;
  choices?: readonly string[];
  /** What else people write over such a column. */
  usual?: readonly string[];
};

const lowerFirst = (title: string) => (/^[A-Z][a-z]/.test(title) ? title[0]?.toLowerCase() + title.slice(1) : title);

/** A field of a group under the heading of the group; what the heading says already is not said twice. */
const inGroup = (heading: string, title: string) =>
  !heading || title.toLowerCase().startsWith(heading.toLowerCase()) ? title : `${heading}, ${lowerFirst(title)}`;

const YES_NO = ['yes', 'no'] as const;

function choicesOf(field: Field): readonly string[] | undefined {
  if (field.type === 'yes-no') return YES_NO;
  return field.type === 'choice' || field.type === 'choices' ? field.options.map(({ label }) => label) : undefined;
}

/**
 * Gives the columns of a form: one a field, with its unit in brackets; lists of parts inside a part stand in one cell, as JSON.
 * @example columnsOf(formFields(cableSchema)).find(({ path }) => path === 'lengthM').title // 'Length (m)'
 */
export function columnsOf(fields: readonly Field[], prefix = '', heading = ''): Column[] {
  return fields.flatMap((field): Column[] => {
    const path = `${prefix}${field.key}`;
    const title = inGroup(heading, field.title);
    if (field.type === 'group') return columnsOf(field.fields, `${path}.`, title);
    const unit = 'unit' in field && field.unit ? field.unit : undefined;
    const choices = choicesOf(field);
    return [
      {
        path,
        title: unit ? `${title} (${unit})` : title,
        required: field.required && prefix === '',
        ...(unit ? { unit } : {}),
        ...(choices ? { choices } : {})
      }
    ];
  });
}

/** A cell that a spreadsheet would take for a formula; apostrophes before it are counted so that reading takes exactly one away. */
const RISKY = /^'*\s*[=+\-@\t\r＝＋－＠]/;
const GUARDED = /^'+\s*[=+\-@\t\r＝＋－＠]/;
/**
 * Guards a text against being taken for a formula by a spreadsheet.
 * @example guard('=1+1') // "'=1+1"
 */
export const guard = (cell: string): string => (RISKY.test(cell) ? `'${cell}` : cell);
/** Takes the guard away again. */
export const unguard = (cell: string): string => (GUARDED.test(cell) ? cell.slice(1) : cell);

/**
 * Gives a specification as cells, by path. What is not known is an empty cell. Texts are guarded, numbers are not.
 * @example cellsOf(formFields(cableSchema), { lengthM: 0.5 }).lengthM // '0.5'
 */
export function cellsOf(fields: readonly Field[], spec: Record<string, unknown>, prefix = ''): Record<string, string> {
  const cells: Record<string, string> = {};
  for (const field of fields) {
    const path = `${prefix}${field.key}`;
    const value = spec[field.key];
    if (field.type === 'group') {
      Object.assign(cells, cellsOf(field.fields, (value ?? {}) as Record<string, unknown>, `${path}.`));
      continue;
    }
    if (value === undefined) cells[path] = '';
    else if (field.type === 'list') cells[path] = JSON.stringify(value);
    else if (field.type === 'choices') cells[path] = (value as unknown[]).join('; ');
    else if (field.type === 'yes-no') cells[path] = value ? 'yes' : 'no';
    else cells[path] = field.type === 'text' ? guard(String(value)) : String(value);
  }
  return cells;
}

const YES = new Set(['yes', 'true', '1', 'y', 'x', 'ja', 'oui', 'sí', 'si', 'active', 'aktiv', 'actif', 'activo', '✓']);
const NO = new Set(['no', 'false', '0', 'n', 'nein', 'non', 'none', '-', '–', 'passive', 'passiv', 'passif', 'pasivo']);

/** What a cell becomes in the draft of a form, or what is wrong with it. */
type ReadCell = { draft: Draft } | { error: string };

/** Reads a cell that holds a list as JSON. */
function readListCell(field: Extract<Field, { type: 'list' }>, cell: string, path: string): ReadCell {
  try {
    const rows: unknown = JSON.parse(cell);
    if (Array.isArray(rows) && rows.every((row) => typeof row === 'object' && row !== null))
      return { draft: draftFrom([{ ...field, key: path }], { [path]: rows }) };
  } catch {
    // said below
  }
  return { error: 'This cell must hold a list as JSON.' };
}

type Option = { value: string | number; label: string };
const squeezed = (text: string) => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');

/** Finds the choice that a word means: by its value or label, as a number (“Gen 4” of 2, 3, 4, 5), or as the one that begins with it. */
function optionSaid(options: readonly Option[], word: string): Option | undefined {
  const wanted = squeezed(word);
  if (wanted === '' || word.length > LONGEST_WORD) return undefined;
  const same = options.find((o) => squeezed(String(o.value)) === wanted || squeezed(o.label) === wanted);
  if (same) return same;
  const number = /^\D*(\d+(?:\.\d+)?)\D*$/.exec(word)?.[1];
  const numbered = number === undefined ? undefined : options.find((o) => o.value === Number(number));
  if (numbered) return numbered;
  const beginning = wanted.length < 2 ? [] : options.filter((o) => squeezed(o.label).startsWith(wanted));
  return beginning.length === 1 ? beginning[0] : undefined;
}

/** No choice has a longer word than this. */
const LONGEST_WORD = 100;

const notAChoice = (words: readonly string[], options: readonly Option[]) =>
  `“${words.map((word) => word.slice(0, 60)).join('”, “')}” is not one of the choices: ${options.map((o) => o.label).join(', ')}.`;

/** Reads a cell that holds several choices, apart by semicolons or bars. */
function readChoicesCell(field: Extract<Field, { type: 'choices' }>, cell: string, path: string): ReadCell {
  const apart = (separator: RegExp) =>
    cell
      .split(separator)
      .map((word) => word.trim())
      .filter(Boolean);
  // A comma may stand inside the word of a choice; where every word between commas is one, they part them.
  const known = (words: readonly string[]) => words.every((word) => optionSaid(field.options, word));
  const byComma = apart(/[;|,]/);
  const words = known(byComma) ? byComma : apart(/[;|]/);
  const unknown = words.filter((word) => !optionSaid(field.options, word));
  if (unknown.length > 0) return { error: notAChoice(unknown, field.options) };
  return { draft: { [path]: words.flatMap((word) => String(optionSaid(field.options, word)?.value ?? word)) } };
}

function readYesNoCell(cell: string, path: string): ReadCell {
  const word = cell.toLowerCase();
  if (YES.has(word)) return { draft: { [path]: 'yes' } };
  return NO.has(word) ? { draft: { [path]: 'no' } } : { error: `“${cell}” is neither yes nor no.` };
}

function readCell(field: Exclude<Field, { type: 'group' }>, cell: string, path: string): ReadCell {
  switch (field.type) {
    case 'list':
      return readListCell(field, cell, path);
    case 'choices':
      return readChoicesCell(field, cell, path);
    case 'yes-no':
      return readYesNoCell(cell, path);
    case 'choice': {
      const option = optionSaid(field.options, cell);
      return option ? { draft: { [path]: String(option.value) } } : { error: notAChoice([cell], field.options) };
    }
    default:
      return { draft: { [path]: field.type === 'text' && field.day ? (readDay(cell) ?? cell) : cell } };
  }
}

/** Writes the cells of a row as the text of inputs; what is wrong with a cell goes to `errors`. */
function draftOf(
  fields: readonly Field[],
  cells: Readonly<Record<string, string>>,
  prefix: string,
  errors: Record<string, string>
): Draft {
  const draft: Draft = {};
  for (const field of fields) {
    const path = `${prefix}${field.key}`;
    if (field.type === 'group') {
      Object.assign(draft, draftOf(field.fields, cells, `${path}.`, errors));
      continue;
    }
    const cell = unguard((cells[path] ?? '').trim());
    if (cell === '') continue;
    const read = readCell(field, cell, path);
    if ('error' in read) errors[path] = read.error;
    else Object.assign(draft, read.draft);
  }
  return draft;
}

/**
 * Gives one row of a table file into a specification, with what is wrong beside its column.
 * @example readRow(formFields(cableSchema), { lengthM: '50 cm' }).spec.lengthM // 0.5
 */
export function readRow(
  fields: readonly Field[],
  cells: Readonly<Record<string, string>>
): { spec: Record<string, unknown>; errors: Record<string, string> } {
  const errors: Record<string, string> = {};
  const draft = draftOf(fields, cells, '', errors);
  const read = readDraft(fields, draft);
  for (const [path, { message, suggestions }] of Object.entries(read.errors))
    errors[path] ??=
      message === NEEDED
        ? 'This cell is needed.'
        : suggestions.length > 0 && !/meant\?/.test(message)
          ? `${message} Meant ${suggestions.map((s) => s.text).join(' or ')}?`
          : message;
  return { spec: read.spec, errors };
}
