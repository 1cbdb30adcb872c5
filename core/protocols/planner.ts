import { studentT } from '../results/repeats.ts';
import { stopwatchError } from '../results/stopwatch.ts';
import { figure, quantity } from '../quantities/format.ts';
import type { GB, Seconds } from '../quantities/measures.ts';
import type { TestedSubject } from './tested.ts';

/** How far repeats of one test lie apart, as a share. Estimate: 3 % on a machine that does nothing else. */
export const REPEAT_SPREAD = 0.03;
export type AccuracyPlan = { GB: GB; seconds: Seconds; repeats: number; because: string[] };

/** No more repeats than this are asked of anybody. */
const MOST_REPEATS = 20;

/**
 * Plans how large and how often, so that the mean is within a share of the truth at 95 %: a copy must last so long that the hand is worth no
 * more than half of the error, must be twice the memory, and the repeats must narrow what lies between two of them:
 * t(n-1) * spread / sqrt(n) <= the rest of the error.
 * @param within as a share, 0.01 to 0.5
 * @param byHand whether it is timed with a stopwatch
 * @throws RangeError for a share outside of that
 * @example planForAccuracy(0.05, true, testedBuild(anInput(), plan(anInput()))).repeats // 5
 */
// eslint-disable-next-line complexity -- one line for each thing that a test must be larger or longer than
export function planForAccuracy(within: number, byHand: boolean, subject: TestedSubject): AccuracyPlan {
  if (!(within >= 0.01 && within <= 0.5)) throw new RangeError('accuracy must be from 1 to 50 %');
  const because: string[] = [];
  const rate = subject.write?.high ?? subject.read?.high ?? 1000;
  const errorS = byHand ? stopwatchError(false) : 0.01;
  // Half of the error may be the hand's; the two add as squares, so that leaves 0.87 of it to the spread.
  const handS = errorS / (within / 2);
  let seconds = Math.max(handS, 10);
  because.push(
    byHand
      ? `A finger is off by ±${figure(errorS)} s: ${figure(handS)} s or more keep that under ${figure((within / 2) * 100)} %.`
      : 'A tool that times itself needs ten seconds to be past its start.'
  );
  if (byHand && seconds < 20) {
    seconds = 20;
    because.push('Below 20 s no ratio can be claimed.');
  }
  let GB = (rate * seconds) / 1000;
  const memory = subject.host?.memoryGB;
  if (memory !== undefined && GB < 2 * memory) {
    GB = 2 * memory;
    because.push(`Twice the ${quantity(memory, 'GB')} of memory, so that it is the drive that is measured.`);
  }
  GB = Math.ceil(GB);
  const rest = within * Math.sqrt(0.75);
  let repeats = 2;
  while (repeats < MOST_REPEATS && (studentT(repeats - 1) * REPEAT_SPREAD) / Math.sqrt(repeats) > rest) repeats++;
  because.push(
    `Repeats lie about ${REPEAT_SPREAD * 100} % apart (an estimate): ${repeats} of them bring the mean within ±${figure(((studentT(repeats - 1) * REPEAT_SPREAD) / Math.sqrt(repeats)) * 100)} %.`
  );
  return { GB, seconds: (GB * 1000) / rate, repeats, because };
}

/** A case counts as cool when it is this near to where it rests, K. */
export const COOL_WITHIN_K = 2;

/**
 * Tells how long a build cools until the next run may begin: T(t) = T_idle + (T - T_idle) e^(-t/tau), solved for 2 K above rest.
 * @param fromC case when the run ended; where nobody read it, where it would be after a long write
 * @returns 0 where it is cool already; null where nothing is known of its heat
 * @example coolDown({ warm: { idleC: 35, steadyC: 51, timeConstantS: 800 } }, 36) // { seconds: 0, toC: 37 }
 */
export function coolDown(
  subject: Pick<TestedSubject, 'warm'>,
  fromC?: number
): { seconds: Seconds; toC: number } | null {
  if (!subject.warm) return null;
  const { idleC, steadyC, timeConstantS } = subject.warm;
  const above = (fromC ?? steadyC) - idleC;
  const toC = idleC + COOL_WITHIN_K;
  return { seconds: above <= COOL_WITHIN_K ? 0 : timeConstantS * Math.log(above / COOL_WITHIN_K), toC };
}

/** Hours for one pass over a hard disk: 2C / (v_outer + v_inner), which is the capacity over the mean rate. */
export type PassPlan = { passS: Seconds; passes: number; totalS: Seconds; lastStart: string | null };

/**
 * Plans the passes over a whole disk against the last day of a return window.
 * @param lastDay ISO day on which the parcel must leave; the passes must be over the day before
 * @returns null where no rate is forecast
 */
export function planPasses(subject: TestedSubject, passes: number, lastDay?: string): PassPlan | null {
  if (!subject.read) return null;
  const passS = (subject.capacityGB * 1000) / subject.read.typical;
  const totalS = passS * passes;
  const lastStart =
    lastDay === undefined
      ? null
      : new Date(Date.parse(`${lastDay}T00:00:00Z`) - Math.ceil(totalS / 86_400) * 86_400_000)
          .toISOString()
          .slice(0, 10);
  return { passS, passes, totalS, lastStart };
}
