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

/**
 * When the dearer and faster of two ways has paid for itself.
 * @param secondsSaved in one run of the job
 * @param hourValue what an hour is worth, in the currency of `extra`; undefined where the person does not say
 * @param from ISO date on which it begins to be used
 */
export function breakEven(
  extra: number,
  secondsSaved: number,
  perDay: number,
  hourValue: number | undefined,
  from: string
): BreakEven {
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
