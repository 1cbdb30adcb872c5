import type { GB, MBps, Seconds } from '../quantities/measures.ts';

/** Reaction of a person at each end, 95 %, s. */
const REACTION_S = 0.2;
/** A time read to whole seconds lies evenly within half a second: this is its standard deviation, s. */
const ROUNDING_SD_S = 1 / Math.sqrt(12);
const AT_95 = 1.96;

export type Timed = { MBps: MBps; low: MBps; high: MBps; errorS: Seconds; percent: number };

/**
 * Tells how far off a hand-stopped time is, 95 %: reaction at both ends and, where it was read to whole seconds, rounding, as the root
 * of their squares. 0.63 s with rounding, 0.28 s without.
 */
export function stopwatchError(wholeSeconds: boolean): Seconds {
  const reaction = REACTION_S / AT_95;
  return AT_95 * Math.sqrt(2 * reaction ** 2 + (wholeSeconds ? ROUNDING_SD_S ** 2 : 0));
}

/**
 * Gives the rate of a copy that was timed by hand, with what the hand is worth.
 * @throws RangeError for a size or a time that is not above 0
 * @example timedRate(10, 100, false).MBps // 100
 */
export function timedRate(size: GB, seconds: Seconds, wholeSeconds: boolean): Timed {
  if (!(size > 0) || !(seconds > 0)) throw new RangeError('size and time must be above 0');
  const errorS = stopwatchError(wholeSeconds);
  const rate = (s: number) => (size * 1000) / s;
  return {
    MBps: rate(seconds),
    low: rate(seconds + errorS),
    high: rate(Math.max(seconds - errorS, seconds / 10)),
    errorS,
    percent: (100 * errorS) / seconds
  };
}
