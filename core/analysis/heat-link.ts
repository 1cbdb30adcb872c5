import { THROTTLE } from '../facts/thermal.ts';
import { median } from '../results/repeats.ts';

/** DriveTemperatures beside rates: of the drive as it reports it, °C, by times in s. */
export type DriveTemperatures = { t: Float64Array; C: Float64Array };

/** What a slow-down is taken for. */
export type StepKind = 'cache' | 'throttle' | 'cannot-tell';

/**
 * Where drives begin to throttle, and how warm they are when a cache is full, as normal distributions, °C. The first is where data sheets
 * lie (70 to 90), the second is an estimate from drives in cases.
 */
const AT_THROTTLE = { mean: THROTTLE.startC, deviation: 5 } as const;
const AT_CLIFF = { mean: 58, deviation: 10 } as const;
/** Where this drive begins to throttle is known to about so many K; sensors count in whole degrees and lag. */
const STATED_K = 3;
/** So near to a step its temperature is read, s; where nothing was read so near, within more. */
const NEAR_S = { before: 2.5, after: 1.5 } as const;
const WIDER_S = 10;
const AFTER_S = { from: 20, to: 180 } as const;
/** A drive that holds itself back stays within this of where it began to. */
const HELD_K = 4;
/** Evidence, as a natural logarithm of odds, from which on it is called one or the other. */
const ENOUGH = 1;
/** A drive that lies so far below where it may throttle does not. */
const COLD_BELOW_K = 15;

/** Gives the middle temperature between two moments, °C; undefined where nothing was read. */
export function middleC({ t, C }: DriveTemperatures, fromS: number, toS: number): number | undefined {
  const [from, to] = [indexAfter(t, fromS), indexAfter(t, toS)];
  const read: number[] = [];
  const stride = Math.max(1, Math.floor((to - from) / 500));
  for (let i = from; i < to; i += stride) if (Number.isFinite(C[i])) read.push(C[i] as number);
  return read.length === 0 ? undefined : median(read);
}

/** Gives the temperature at a moment, °C: a small body can warm by several K a second, so it is read close by. */
export const temperatureAt = (temperatures: DriveTemperatures, atS: number): number | undefined =>
  middleC(temperatures, atS - NEAR_S.before, atS + NEAR_S.after) ??
  middleC(temperatures, atS - WIDER_S, atS + WIDER_S / 5);

/** The first index whose time is above a moment. */
function indexAfter(t: Float64Array, s: number): number {
  let [low, high] = [0, t.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((t[middle] as number) > s) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Logarithm of the odds that so warm a drive throttles rather than that its cache is full. */
function oddsAt(atC: number, startC: number | undefined): number {
  if (startC !== undefined) {
    const off = (startC - atC) / STATED_K;
    // At the limit or above; a full cache can fall there too, but seldom just there.
    return off <= 1 ? 4 : off >= 3 ? -5 : 4 - 4.5 * (off - 1);
  }
  if (atC >= AT_THROTTLE.mean) return 4;
  if (atC <= AT_THROTTLE.mean - 2 * COLD_BELOW_K + 10) return -5;
  const throttle = ((atC - AT_THROTTLE.mean) / AT_THROTTLE.deviation) ** 2;
  const cliff = ((atC - AT_CLIFF.mean) / AT_CLIFF.deviation) ** 2;
  return (cliff - throttle) / 2 + Math.log(AT_CLIFF.deviation / AT_THROTTLE.deviation);
}

/**
 * Tells from temperatures what a step down is: a drive throttles at its limit and stays near it, for it is the limit that holds it back;
 * where a cache is full it is as warm as it happens to be, and goes its own way after.
 * @param startC where this drive begins to throttle, where that is known
 * @returns the kind, and the temperature at the step
 */
export function kindOfStep(
  atS: number,
  temperatures: DriveTemperatures | undefined,
  startC: number | undefined
): { kind: StepKind; atC?: number } {
  const atC = temperatures && temperatureAt(temperatures, atS);
  if (temperatures === undefined || atC === undefined) return { kind: 'cannot-tell' };
  const after = middleC(temperatures, atS + AFTER_S.from, atS + AFTER_S.to);
  const held = after === undefined ? 0 : Math.abs(after - atC) <= HELD_K ? 1 : -1;
  const odds = oddsAt(atC, startC) + held * (startC === undefined ? 0.9 : 0.5);
  return { kind: odds >= ENOUGH ? 'throttle' : odds <= -ENOUGH ? 'cache' : 'cannot-tell', atC };
}
