import { figure } from './format.ts';

/** Days of the Gregorian year, on average. */
const YEAR_DAYS = 365.25;
const UNITS = { hour: 1 / 24, day: 1, week: 7, month: YEAR_DAYS / 12, year: YEAR_DAYS } as const;
type Span = keyof typeof UNITS;
const ALONE: Record<string, Span> = { hourly: 'hour', daily: 'day', weekly: 'week', monthly: 'month', yearly: 'year' };
const COUNT: Record<string, number> = { once: 1, twice: 2, 'three times': 3, 'four times': 4 };

/** Whether a text says how often; the message says how to. */
export type OftenReading = { ok: true; perDay: number } | { ok: false; message: string };

const HOW = 'Write it like 2 a day, 1 a week or 3 a month.';

/**
 * Reads how often something is done, as times a day. A number alone is a day's.
 * @example readOften('2 a week') // { ok: true, perDay: 2 / 7 }
 */
export function readOften(text: string): OftenReading {
  const typed = text.trim().toLowerCase().replace(/\s+/g, ' ').slice(0, 60);
  const alone = ALONE[typed];
  if (alone) return { ok: true, perDay: 1 / UNITS[alone] };
  const word = Object.keys(COUNT).find((one) => typed.startsWith(one));
  const number = word ?? /^\d+(?:[.,]\d+)?/.exec(typed)?.[0];
  if (number === undefined) return { ok: false, message: `“${text.trim().slice(0, 40)}” says no number. ${HOW}` };
  const times = COUNT[number] ?? Number(number.replace(',', '.'));
  const rest = typed.slice(number.length).replace(/^ ?(?:times|x)(?= )/, '');
  const span =
    rest.trim() === '' ? 'day' : /^(?: ?(?:a|an|per|each|every) |\/ ?)(hour|day|week|month|year)s?$/.exec(rest)?.[1];
  if (span === undefined) return { ok: false, message: `“${text.trim().slice(0, 40)}” is no rhythm. ${HOW}` };
  const perDay = times / UNITS[span as Span];
  return perDay <= 10_000 ? { ok: true, perDay } : { ok: false, message: 'That is more than 10000 a day.' };
}

/**
 * Says how often something is done, in the span in which it is done at least once.
 * @example often(1 / 7) // '1 a week'
 */
export function often(perDay: number): string {
  if (perDay <= 0) return 'never';
  const spans = ['day', 'week', 'month', 'year'] as const;
  const span = spans.find((one) => perDay * UNITS[one] >= 0.95) ?? 'year';
  return `${figure(perDay * UNITS[span])} a ${span}`;
}
