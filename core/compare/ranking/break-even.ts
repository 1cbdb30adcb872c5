import { addDays } from '../../quantities/days.ts';

export type BreakEven = {
  /** Paid more than for the other, in the currency of both. */
  extra: number;
  hoursAYear: number;
  /** What an hour saved costs if the difference is written off in one year; null where none is saved. */
  perHour: number | null;
  /** The day on which the hours saved have paid the difference; null where that takes more than ten years or never comes. */
  date: string | null;
};

const DAYS = 365;
const LONGEST_DAYS = 10 * DAYS;

/** What the faster of two ways costs more and saves. */
type Difference = {
  extra: number;
  /** In one run of the job. */
  secondsSaved: number;
  perDay: number;
  /** What an hour is worth, in the currency of `extra`; undefined where the person does not say. */
  hourValue: number | undefined;
  /** ISO date on which it begins to be used. */
  from: string;
};

/**
 * Finds when the dearer and faster of two ways has paid for itself.
 * @example breakEven({ extra: 60, secondsSaved: 360, perDay: 2, hourValue: 15, from: '2026-11-26' }).date // '2026-12-16'
 */
export function breakEven({ extra, secondsSaved, perDay, hourValue, from }: Difference): BreakEven {
  const hoursADay = (secondsSaved * perDay) / 3600;
  const hoursAYear = hoursADay * DAYS;
  const perHour = hoursAYear > 0 && extra > 0 ? extra / hoursAYear : null;
  let date: string | null = null;
  if (extra <= 0) date = hoursADay >= 0 ? from : null;
  else if (hourValue !== undefined && hourValue > 0 && hoursADay > 0) {
    const days = Math.ceil(extra / (hourValue * hoursADay));
    if (days <= LONGEST_DAYS) date = addDays(from, days);
  }
  return { extra, hoursAYear, perHour, date };
}
