import { median } from '../results/repeats.ts';
import { kindOfStep, temperatureAt } from './heat-link.ts';
import type { Low } from './levels.ts';
import type { Analysis } from './report.ts';
import { isSawTooth, lengthOf, type Rhythm } from './rhythm.ts';
import { beginS, rateOf, type Work } from './work.ts';

/** A low of a throttle lasts at least so long, s. */
const WARM_LOW_S = 4;
/** Tells whether temperatures speak against a throttle where a rhythm falls. */
export function isCool(work: Work, { lows }: Rhythm): boolean {
  if (!work.temperatures) return false;
  const kinds = lows.map((low) => kindOfStep(beginS(work, low.from), work.temperatures, work.startC).kind);
  return kinds.filter((kind) => kind === 'cache').length > kinds.length / 2;
}

/** Lows that all begin where the drive throttles: it comes and goes too seldom for a rhythm. */
function warmLows(work: Work, lows: readonly Low[]): Analysis['throttle'] {
  const lasting = lows.filter((low) => lengthOf(low, work.signal.x) >= WARM_LOW_S);
  const begins = lasting.map((low) => ({ low, atS: beginS(work, low.from) }));
  const kinds = begins.map(({ atS }) => kindOfStep(atS, work.temperatures, work.startC));
  const [first] = begins;
  if (!first || kinds.some(({ kind }) => kind !== 'throttle')) return null;
  // What it falls from: behind a full cache that is no longer what it began with.
  const { stretches } = work.levels;
  const high = (stretches.filter(({ to }) => to <= first.low.from).at(-1) ?? stretches[0])?.ends ?? 0;
  const gaps = begins.slice(1).map(({ atS }, i) => atS - (begins[i]?.atS ?? 0));
  const atC = kinds[0]?.atC;
  return {
    form: lasting.length > 1 ? 'saw-tooth' : 'plateau',
    ...(gaps.length > 0 ? { periodS: median(gaps) } : {}),
    lowMBps: rateOf(high, work) * median(lasting.map(({ share }) => share)),
    highMBps: rateOf(high, work),
    ...(atC === undefined ? {} : { atC }),
    atS: first.atS
  };
}

/** Finds how a drive holds itself back: up and down, or at one lower level; null where it does not. */
export function throttleOf(
  work: Work,
  rhythm: Rhythm | null,
  steps: Analysis['steps'],
  lows: readonly Low[]
): Analysis['throttle'] {
  if (rhythm && isSawTooth(rhythm) && !isCool(work, rhythm)) {
    const atS = beginS(work, rhythm.from);
    const high = median(
      work.levels.stretches
        .filter(({ from, to }) => !rhythm.lows.some((low) => from >= low.from && to <= low.to))
        .map(({ level }) => level)
    );
    const atC = work.temperatures && temperatureAt(work.temperatures, atS);
    return {
      form: 'saw-tooth',
      periodS: rhythm.periodS,
      lowMBps: rateOf(high, work) * rhythm.share,
      highMBps: rateOf(high, work),
      ...(atC === undefined ? {} : { atC }),
      atS
    };
  }
  const warm = warmLows(work, lows);
  if (warm) return warm;
  const held = steps.find(({ kind }) => kind === 'throttle');
  return held
    ? {
        form: 'plateau',
        lowMBps: held.afterMBps,
        highMBps: held.beforeMBps,
        ...(held.atC === undefined ? {} : { atC: held.atC }),
        atS: held.atS
      }
    : null;
}
