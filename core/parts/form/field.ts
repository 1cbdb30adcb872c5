import { z } from 'zod';
import type { UnitName } from '../../quantities/read.ts';

/**
 * What a form, a table head and the JSON Schema say about a field beside its type. `group` gathers fields under one
 * heading; `first` marks what is asked before everything else.
 */
export type FieldMeta = {
  title: string;
  unit?: UnitName;
  group?: string;
  first?: boolean;
  description?: string;
  labels?: Record<string, string>;
};

/** Gives a measured value in a given unit, with the range in which it is believable. */
// eslint-disable-next-line max-params -- a row of a schema: title, unit, range
export function measure(title: string, unit: UnitName, min: number, max: number, more: Partial<FieldMeta> = {}) {
  return z
    .number()
    .min(min)
    .max(max)
    .meta({ title, unit, ...more });
}

/** Makes a field with a choice of words. */
export function choice<const T extends readonly [string, ...string[]]>(
  title: string,
  values: T,
  more: Partial<FieldMeta> = {}
) {
  return z.enum(values).meta({ title, ...more });
}

/** Choices whose wire form is a number, such as M.2 lengths. */
export function numberChoice<const T extends readonly [number, ...number[]]>(
  title: string,
  values: T,
  more: Partial<FieldMeta> = {}
) {
  return z.literal(values).meta({ title, ...more });
}

/** Makes a field that is yes or no. */
export function yesNo(title: string, more: Partial<FieldMeta> = {}) {
  return z.boolean().meta({ title, ...more });
}

/**
 * One line with something visible in it: blanks, then a visible character, then anything but control characters. In this order, so
 * that no two parts of the pattern can share a character and it takes one pass.
 */
const VISIBLE_LINE = // eslint-disable-next-line no-control-regex
  /^(?:(?![\u0000-\u001f\u007f])\s)*[^\s\u0000-\u001f\u007f][^\u0000-\u001f\u007f]*$/;

/**
 * Gives control characters have no place in a name; everything else is the person's own affair. Its length is looked at first.
 * @example text('Name', 10).safeParse('a'.repeat(11)).success // false
 */
export function text(title: string, max: number, more: Partial<FieldMeta> = {}) {
  return z
    .string()
    .min(1, { abort: true })
    .max(max, { abort: true })
    .regex(VISIBLE_LINE, 'must hold visible text on one line')
    .meta({ title, ...more });
}

/** Makes the field for the name of a part. */
export const name = () => text('Name', 120, { first: true });

/**
 * Gives uLIDs, 26 characters of Crockford's base 32.
 * @example id().safeParse('short').success // false
 */
export const id = () => z.string().regex(/^[0-9A-HJKMNP-TV-Z]{26}$/, 'is not an id');
/**
 * Makes a field for a day, year-month-day.
 * @example isoDate().safeParse('2026-02-30').success // false
 */
export const isoDate = () => z.iso.date();

/**
 * Gives a day later than this one by more than the time zones of the world is a slip of the pen.
 * @example isAhead('2026-11-29', '2026-11-27') // true
 */
export const isAhead = (date: string, today: string): boolean => Date.parse(date) - Date.parse(today) > 86_400_000;
