import { readQuantity, type Suggestion, type UnitName } from '../../quantities/read.ts';

/** A form as data, made from a schema: one list of fields, groups and lists nested. */
export type Field = {
  key: string;
  title: string;
  required: boolean;
  group?: string;
  first?: boolean;
  description?: string;
} & (
  | { type: 'quantity'; unit: UnitName; min: number; max: number; integer: boolean }
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

/** A specification as the text of its inputs. */
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
    else if (value !== undefined) draft[at] = field.type === 'yes-no' ? (value ? 'yes' : 'no') : String(value);
  }
  return draft;
}

/**
 * Reads the inputs into a specification. What is empty is left out; what cannot be read is an error beside its field, and every
 * other field is still read. Whether the whole holds together is for the schema to say.
 */
export function readDraft(fields: readonly Field[], draft: Draft, path = ''): Read {
  const spec: Record<string, unknown> = {};
  const errors: Record<string, FormError> = {};
  for (const field of fields) {
    const at = join(path, field.key);
    if (field.type === 'group') {
      const inner = readDraft(field.fields, draft, at);
      const empty =
        Object.keys(inner.spec).length === 0 && Object.values(inner.errors).every((e) => e.message === NEEDED);
      // A group left empty is not given; its own needed fields count once one of them is filled in.
      if (empty && !field.required) continue;
      spec[field.key] = field.fields.every((f, i) => f.key === String(i))
        ? field.fields.map((f) => inner.spec[f.key])
        : inner.spec;
      Object.assign(errors, inner.errors);
      continue;
    }
    if (field.type === 'list') {
      const count = Number(draft[at] ?? 0);
      if (count === 0) {
        if (field.required) errors[at] = plain(`At least one ${field.item} is needed.`);
        continue;
      }
      const rows = Array.from({ length: count }, (_, i) => readDraft(field.fields, draft, join(at, String(i))));
      spec[field.key] = rows.map((row) => ({ ...row.spec, ...field.fixed }));
      for (const row of rows) Object.assign(errors, row.errors);
      continue;
    }
    const typed = draft[at];
    if (field.type === 'choices') {
      const picked = Array.isArray(typed) ? typed : [];
      if (picked.length === 0) {
        if (field.required) errors[at] = plain('At least one is needed.');
      } else
        spec[field.key] = [...new Set(picked)].flatMap((value) =>
          field.options.filter((o) => String(o.value) === value).map((o) => o.value)
        );
      continue;
    }
    const text = typeof typed === 'string' ? typed.trim() : '';
    if (text === '') {
      if (field.required) errors[at] = plain(NEEDED);
      continue;
    }
    if (field.type === 'yes-no') spec[field.key] = text === 'yes';
    else if (field.type === 'choice') {
      const option = field.options.find((o) => String(o.value) === text);
      if (option) spec[field.key] = option.value;
      else errors[at] = plain('This is not one of the choices.');
    } else if (field.type === 'text') {
      if (field.day && !isDay(text)) errors[at] = plain('This must be a day such as 2026-12-01.');
      else spec[field.key] = text;
    } else {
      const reading = readQuantity(text, { unit: field.unit, min: field.min, max: field.max });
      if (!reading.ok) errors[at] = { message: reading.message, suggestions: reading.suggestions };
      else if (field.integer && !Number.isInteger(reading.value)) errors[at] = plain('This must be a whole number.');
      else spec[field.key] = reading.value;
    }
  }
  return { spec, errors };
}

/** The draft without one row of a list; the later ones move up. */
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

/** Whether a text is a day of the calendar, year-month-day. */
export function isDay(text: string): boolean {
  const day = new Date(`${text}T00:00:00Z`);
  return /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(day.getTime()) && day.toISOString().startsWith(text);
}

export const NEEDED = 'This is needed.';
