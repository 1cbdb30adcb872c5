import { often, readOften } from '../../quantities/often.ts';
import { readQuantity, type Suggestion, type UnitName } from '../../quantities/read.ts';

/** A form as data, made from a schema: one list of fields, groups and lists nested. */
export type Field = {
  key: string;
  title: string;
  required: boolean;
  group?: string;
  first?: boolean;
  description?: string;
} &
  /** `often`: times a day, typed as 2 a week; `percentTo`: the field that takes a percentage instead. */
  (
    | {
        type: 'quantity';
        unit: UnitName;
        min: number;
        max: number;
        integer: boolean;
        often?: boolean;
        percentTo?: string;
      }
    | { type: 'choice'; options: { value: string | number; label: string }[]; unit?: UnitName }
    | { type: 'choices'; options: { value: string | number; label: string }[] }
    | { type: 'yes-no' }
    /** `day`: a date; `lines`: more than one line; `suggestions`: what was typed here before. */
    | { type: 'text'; maxLength: number; day?: boolean; lines?: boolean; suggestions?: readonly string[] }
    | { type: 'group'; fields: Field[] }
    | { type: 'list'; fields: Field[]; item: string; fixed?: Record<string, unknown> }
  );

/** What stands in the inputs, by path (`flash.cacheGB`, `ports.0.label`); lists hold how many rows they have. */
export type Draft = Record<string, string | string[] | number>;
export type FormError = { message: string; suggestions: Suggestion[] };
export type Read = { spec: Record<string, unknown>; errors: Record<string, FormError> };

const join = (path: string, key: string) => (path ? `${path}.${key}` : key);
const plain = (message: string): FormError => ({ message, suggestions: [] });

/**
 * Gives a specification as the text of its inputs.
 * @example draftFrom(formFields(cableSchema), { lengthM: 0.5 }).lengthM // '0.5'
 */
export function draftFrom(fields: readonly Field[], spec: Record<string, unknown>, path = ''): Draft {
  const draft: Draft = {};
  for (const field of fields) {
    const at = join(path, field.key);
    const value = spec[field.key];
    if (field.type === 'group')
      Object.assign(draft, draftFrom(field.fields, (value ?? {}) as Record<string, unknown>, at));
    else if (field.type === 'list') {
      const rows = (value ?? []) as Record<string, unknown>[];
      draft[at] = rows.length;
      rows.forEach((row, i) => Object.assign(draft, draftFrom(field.fields, row, join(at, String(i)))));
    } else if (field.type === 'choices') draft[at] = ((value ?? []) as unknown[]).map(String);
    else if (value !== undefined) draft[at] = textOf(field, value);
  }
  return draft;
}

function textOf(field: Field, value: unknown): string {
  if (field.type === 'yes-no') return value ? 'yes' : 'no';
  if (field.type !== 'quantity' || !field.often) return String(value);
  const said = often(Number(value));
  const read = readOften(said);
  // What is shown is read again when it is saved: rounded words would change a number that nobody touched.
  return read.ok && read.perDay === value ? said : `${String(value)} a day`;
}

/** What was read so far, by the fields of one level. */
type Level = { spec: Record<string, unknown>; errors: Record<string, FormError> };

/** Reads a group. One left empty is not given; its own needed fields count once one of them is filled in. */
function readGroup(field: Extract<Field, { type: 'group' }>, draft: Draft, at: string, into: Level): void {
  const inner = readDraft(field.fields, draft, at);
  const untouched = Object.values(inner.errors).every((e) => e.message === NEEDED);
  if (Object.keys(inner.spec).length === 0 && untouched && !field.required) return;
  const isTuple = field.fields.every((f, i) => f.key === String(i));
  into.spec[field.key] = isTuple ? field.fields.map((f) => inner.spec[f.key]) : inner.spec;
  Object.assign(into.errors, inner.errors);
}

function readList(field: Extract<Field, { type: 'list' }>, draft: Draft, at: string, into: Level): void {
  const count = Number(draft[at] ?? 0);
  if (count === 0) {
    if (field.required) into.errors[at] = plain(`At least one ${field.item} is needed.`);
    return;
  }
  const rows = Array.from({ length: count }, (_, i) => readDraft(field.fields, draft, join(at, String(i))));
  into.spec[field.key] = rows.map((row) => ({ ...row.spec, ...field.fixed }));
  for (const row of rows) Object.assign(into.errors, row.errors);
}

function readChoices(field: Extract<Field, { type: 'choices' }>, draft: Draft, at: string, into: Level): void {
  const typed = draft[at];
  const picked = Array.isArray(typed) ? typed : [];
  if (picked.length === 0) {
    if (field.required) into.errors[at] = plain('At least one is needed.');
    return;
  }
  into.spec[field.key] = [...new Set(picked)].flatMap((value) =>
    field.options.filter((o) => String(o.value) === value).map((o) => o.value)
  );
}

type Typed = Exclude<Field, { type: 'group' | 'list' | 'choices' }>;

/** Reads an input that holds a number, with its unit or its rhythm. */
function readNumberField(
  field: Extract<Field, { type: 'quantity' }>,
  text: string
): { value: unknown } | { error: FormError } {
  if (field.often) {
    const read = readOften(text);
    return read.ok ? { value: read.perDay } : { error: plain(read.message) };
  }
  if (field.percentTo && text.endsWith('%'))
    return { error: plain(`This is an amount; a percentage goes into “${field.percentTo}”.`) };
  const reading = readQuantity(text, { unit: field.unit, min: field.min, max: field.max });
  if (!reading.ok) return { error: { message: reading.message, suggestions: reading.suggestions } };
  return field.integer && !Number.isInteger(reading.value)
    ? { error: plain('This must be a whole number.') }
    : { value: reading.value };
}

/** Reads one input that holds a text. @returns the value, or the error */
function readTyped(field: Typed, text: string): { value: unknown } | { error: FormError } {
  switch (field.type) {
    case 'yes-no':
      return { value: text === 'yes' };
    case 'choice': {
      const option = field.options.find((o) => String(o.value) === text);
      return option ? { value: option.value } : { error: plain('This is not one of the choices.') };
    }
    case 'text':
      return field.day && !isDay(text) ? { error: plain('This must be a day such as 2026-12-01.') } : { value: text };
    case 'quantity':
      return readNumberField(field, text);
  }
}

/**
 * Reads the inputs into a specification. What is empty is left out; what cannot be read is an error beside its field, and every
 * other field is still read. Whether the whole holds together is for the schema to say.
 * @param path of the level that is read, empty at the top
 * @example readDraft(formFields(cableSchema), { lengthM: '50 cm' }).spec.lengthM // 0.5
 */
export function readDraft(fields: readonly Field[], draft: Draft, path = ''): Read {
  const into: Level = { spec: {}, errors: {} };
  for (const field of fields) {
    const at = join(path, field.key);
    if (field.type === 'group') readGroup(field, draft, at, into);
    else if (field.type === 'list') readList(field, draft, at, into);
    else if (field.type === 'choices') readChoices(field, draft, at, into);
    else {
      const typed = draft[at];
      const text = typeof typed === 'string' ? typed.trim() : '';
      const read = text === '' ? undefined : readTyped(field, text);
      if (!read) {
        if (field.required) into.errors[at] = plain(NEEDED);
      } else if ('error' in read) into.errors[at] = read.error;
      else into.spec[field.key] = read.value;
    }
  }
  return into;
}

/**
 * Gives the draft without one row of a list; the later ones move up.
 * @example withoutRow({ pads: 2, 'pads.0.a': 'x', 'pads.1.a': 'y' }, 'pads', 0) // { pads: 1, 'pads.0.a': 'y' }
 */
export function withoutRow(draft: Draft, listPath: string, row: number): Draft {
  const next: Draft = {};
  for (const [path, value] of Object.entries(draft)) {
    const inside = path.startsWith(`${listPath}.`) ? /^(\d+)\.(.*)$/.exec(path.slice(listPath.length + 1)) : null;
    if (!inside) next[path] = value;
    else if (Number(inside[1]) < row) next[path] = value;
    else if (Number(inside[1]) > row) next[`${listPath}.${Number(inside[1]) - 1}.${inside[2]}`] = value;
  }
  next[listPath] = Number(draft[listPath]) - 1;
  return next;
}

/** Tells whether a text is a day of the calendar, year-month-day. */
export function isDay(text: string): boolean {
  const day = new Date(`${text}T00:00:00Z`);
  return /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(day.getTime()) && day.toISOString().startsWith(text);
}

export const NEEDED = 'This is needed.';
