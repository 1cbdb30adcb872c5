import { draftFrom, readDraft, type Draft, type Field, NEEDED } from '../parts/form/form.ts';
import { unitLike, type UnitName } from '../quantities/read.ts';

/** A column of a table file: the field's path, as the contract names it, and what people call it. */
export type Column = { path: string; title: string; required: boolean; unit?: UnitName };

/**
 * Gives the columns of a form: one a field; lists of parts inside a part stand in one cell, as JSON.
 * @example columnsOf(formFields(cableSchema)).find(({ path }) => path === 'lengthM').title // 'Length, m'
 */
export function columnsOf(fields: readonly Field[], prefix = '', heading = ''): Column[] {
  return fields.flatMap((field): Column[] => {
    const path = `${prefix}${field.key}`;
    const title = heading ? `${heading}, ${field.title}` : field.title;
    const unit = 'unit' in field && field.unit ? `, ${field.unit}` : '';
    if (field.type === 'group') return columnsOf(field.fields, `${path}.`, title);
    return [
      {
        path,
        title: `${title}${unit}`,
        required: field.required && prefix === '',
        ...(unit ? { unit: (field as { unit: UnitName }).unit } : {})
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

const YES = new Set(['yes', 'true', '1', 'y', 'x']);
const NO = new Set(['no', 'false', '0', 'n']);

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

const saysOption = (word: string) => (o: { value: unknown; label: string }) =>
  String(o.value).toLowerCase() === word || o.label.toLowerCase() === word;

/** Reads a cell that holds several choices, apart by semicolons or bars. */
function readChoicesCell(field: Extract<Field, { type: 'choices' }>, cell: string, path: string): ReadCell {
  const words = cell
    .split(/[;|]/)
    .map((word) => word.trim().toLowerCase())
    .filter(Boolean);
  const picked = words.map((word) => field.options.find(saysOption(word)));
  const unknown = words.filter((_, i) => picked[i] === undefined);
  if (unknown.length === 0)
    return { draft: { [path]: picked.flatMap((option) => (option ? [String(option.value)] : [])) } };
  const choices = field.options.map((o) => o.value).join(', ');
  return { error: `“${unknown.join('”, “')}” is not one of the choices: ${choices}.` };
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
      const option = field.options.find(saysOption(cell.toLowerCase()));
      return { draft: { [path]: option ? String(option.value) : cell } };
    }
    default:
      return { draft: { [path]: cell } };
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

const plain = (text: string) => text.toLowerCase().replace(/[^a-z0-9]+/g, '');

/** A heading is a few words; what is longer is no heading. */
const LONGEST_HEADING = 200;

/** `Capacity (GB)`, `Capacity, GB` and `Capacity [GB]`: what is measured, and the unit after it. */
function splitHeading(heading: string): { measured: string; unit: string } | undefined {
  const whole = heading.trim();
  if (whole.length > LONGEST_HEADING) return undefined;
  const inner = /[)\]]$/.test(whole) ? whole.slice(0, -1) : whole;
  const at = Math.max(inner.lastIndexOf(','), inner.lastIndexOf('('), inner.lastIndexOf('['));
  const unit = inner.slice(at + 1).trim();
  return at < 0 || unit === '' || /[)\]]/.test(unit) ? undefined : { measured: inner.slice(0, at).trimEnd(), unit };
}

/**
 * Gives the unit that a heading states for a column, where it is another one than the field's own.
 * @example headingUnit('Length (cm)', { path: 'lengthM', title: 'Length', required: false, unit: 'm' }) // 'cm'
 */
export function headingUnit(heading: string, column: Column | undefined): UnitName | undefined {
  const stated = splitHeading(heading)?.unit;
  const unit = stated && column?.unit ? unitLike(stated, column.unit) : undefined;
  return unit === column?.unit ? undefined : unit;
}

/**
 * Gives a cell with the unit of its heading, where it holds no more than a number.
 * @example withHeadingUnit('50', 'cm') // '50 cm'
 */
export function withHeadingUnit(cell: string, unit: UnitName | undefined): string {
  const number = cell.trim();
  const plainNumber = /^[\d.,\s\u00a0\u202f'’+-]*$/.test(number) && /\d/.test(number) && /[\d.,]$/.test(number);
  return unit && plainNumber ? `${number} ${unit}` : cell;
}

/**
 * Tells which column of a file is which field: by the field's path, then by its title with or without the unit. A column that
 * matches nothing is left out, and said so; the person can assign it.
 * @returns for each heading the path, or null
 * @example matchColumns(['Length'], columnsOf(formFields(cableSchema))) // ['lengthM']
 */
export function matchColumns(headings: readonly string[], columns: readonly Column[]): (string | null)[] {
  const taken = new Set<string>();
  const byName = (name: (column: Column) => string) =>
    new Map(columns.map((column) => [plain(name(column)), column.path]));
  const tries = [
    byName((c) => c.path),
    byName((c) => c.title),
    byName((c) => c.title.split(',')[0] ?? c.title),
    byName((c) => c.path.slice(c.path.lastIndexOf('.') + 1))
  ];
  return headings.map((heading) => {
    const wanted = heading.length > LONGEST_HEADING ? '' : plain(heading);
    if (wanted === '') return null;
    const take = (path: string) => {
      taken.add(path);
      return path;
    };
    for (const names of tries) {
      const path = names.get(wanted);
      if (path !== undefined && !taken.has(path)) return take(path);
    }
    // The same thing in another unit
    const measured = splitHeading(heading)?.measured;
    const column = measured
      ? columns.find(
          (c) =>
            !taken.has(c.path) &&
            headingUnit(heading, c) !== undefined &&
            [
              c.title.split(',')[0] ?? c.title,
              c.title.replace(/,[^,]*$/, ''),
              c.path.replace(/(TB|GB|MBps|Mm|M|W|C)$/, '')
            ].some((name) => plain(name) === plain(measured))
        )
      : undefined;
    return column ? take(column.path) : null;
  });
}
