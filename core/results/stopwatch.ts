import { ratioOf, type Ratio } from './repeats.ts';
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

/** Below this a hand is worth too little for a ratio, s. */
export const RATIO_FROM_S = 20;

/**
 * Compares two copies timed by hand; their errors add as squares.
 * @returns null where one of them took less than 20 s: then no ratio is claimed
 * @example timedRatio({ GB: 1, seconds: 5 }, { GB: 1, seconds: 5 }, 'before') // null
 */
export function timedRatio(
  one: { GB: GB; seconds: Seconds },
  other: { GB: GB; seconds: Seconds },
  baseline: string
): Ratio | null {
  if (one.seconds < RATIO_FROM_S || other.seconds < RATIO_FROM_S) return null;
  const of = ({ GB, seconds }: { GB: GB; seconds: Seconds }) => ({
    value: (GB * 1000) / seconds,
    error: stopwatchError(false) / seconds
  });
  return ratioOf(of(one), of(other), baseline);
}

/** A copy that fell off a cache, as far as it is known: the rates before and after it, MB/s, and how much went before, GB. */
export type FallOff = {
  GB: GB;
  seconds: Seconds;
  fast?: MBps | undefined;
  slow?: MBps | undefined;
  cliffGB?: GB | undefined;
};
export type FallOffFound = { fast: Around; slow: Around; cliffGB: Around };
type Around = { value: number; low: number; high: number };

/**
 * Works out of a copy that fell off a cache what is not known, from size, time and two of the three others: seconds = cliff / fast + (size -
 * cliff) / slow. The error of the hand, and 2 % of each rate that was read off a screen, go with it: the worst of all corners.
 * @throws RangeError where fewer than two are known, or no cliff explains size and time
 * @example solveFallOff({ GB: 400, seconds: 700, fast: 1000, slow: 500 }).cliffGB.value // 100
 */
export function solveFallOff(copy: FallOff): FallOffFound {
  const known = [copy.fast, copy.slow, copy.cliffGB].filter((value) => value !== undefined).length;
  if (known < 2) throw new RangeError('two of rate before, rate after and size of the cache must be known');
  const typical = solvedAt(copy);
  if (!typical) throw new RangeError('no cache explains this size and time with these rates');
  const errorS = stopwatchError(false);
  const corners = [-1, 1].flatMap((t) =>
    [-1, 1].flatMap((f) =>
      [-1, 1].flatMap((s) => {
        const corner = solvedAt({
          ...copy,
          seconds: copy.seconds + t * errorS,
          ...(copy.fast === undefined ? {} : { fast: copy.fast * (1 + f * 0.02) }),
          ...(copy.slow === undefined ? {} : { slow: copy.slow * (1 + s * 0.02) })
        });
        return corner ? [corner] : [];
      })
    )
  );
  const around = (key: 'fast' | 'slow' | 'cliffGB'): Around => {
    const values = [typical, ...corners].map((corner) => corner[key]);
    return { value: typical[key], low: Math.min(...values), high: Math.max(...values) };
  };
  return { fast: around('fast'), slow: around('slow'), cliffGB: around('cliffGB') };
}

// eslint-disable-next-line complexity -- three ways to solve one equation, each with what bounds it
function solvedAt({
  GB,
  seconds,
  fast,
  slow,
  cliffGB
}: FallOff): { fast: number; slow: number; cliffGB: number } | null {
  const size = GB * 1000;
  if (fast !== undefined && slow !== undefined) {
    // seconds = c / fast + (size - c) / slow, for c
    const cliff = (seconds - size / slow) / (1 / fast - 1 / slow);
    const found = cliff / 1000;
    return Number.isFinite(found) && found >= 0 && found <= GB ? { fast, slow, cliffGB: found } : null;
  }
  const before = (cliffGB ?? 0) * 1000;
  if (before <= 0 || before >= size) return null;
  if (fast !== undefined) {
    const found = (size - before) / (seconds - before / fast);
    return found > 0 && Number.isFinite(found) && found <= fast ? { fast, slow: found, cliffGB: before / 1000 } : null;
  }
  if (slow === undefined) return null;
  const found = before / (seconds - (size - before) / slow);
  return found > 0 && Number.isFinite(found) && found >= slow ? { fast: found, slow, cliffGB: before / 1000 } : null;
}
