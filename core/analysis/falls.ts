import { kindOfStep, type StepKind } from './heat-link.ts';
import { levelsOf, levelSteps, lowsOf, type LevelStep, type LevelStretch, type Low } from './levels.ts';
import type { Analysis } from './report.ts';
import type { Rhythm } from './rhythm.ts';
import { signalOf } from './signal.ts';
import { beginS, movedAt, plateausOf, rateOf, type Work } from './work.ts';

/** A low that lasts shorter than this is no level of its own: values, and share of the whole. */
export const LEVEL_LASTS = { values: 20, share: 0.1 } as const;
/** A fall at the end that is as deep as the lows before it is one of them, as a logarithm. */
const ALIKE_DEPTH = 0.3;
/** One as deep as the others may last so long, a share of the whole. */
const KIN_LASTS = 0.25;

/** So many samples of the beginning of a long series are read one by one: a fall there would be lost in its first blocks. */
const HEAD = 1000;
/** A fall in the head counts up to so many blocks, and where what follows is as slow, as a logarithm. */
const LOST_IN = { blocks: 8, off: Math.log(1.15) } as const;

/** Tells whether a stretch belongs to lows that come and go, or is one of them that the end cut off. */
export function isPassing(work: Work, lows: readonly Low[], rhythm: Rhythm | null): (stretch: LevelStretch) => boolean {
  const { stretches } = work.levels;
  const n = work.signal.y.length;
  const least = Math.max(LEVEL_LASTS.values, n * LEVEL_LASTS.share);
  const brief = lows.filter((low) => low.to - low.from < least);
  // One that lasts longer than the others, and is as deep as they are, is one of them.
  const kin = ({ share }: Low) =>
    brief.filter((low) => Math.abs(Math.log(low.share / share)) < ALIKE_DEPTH).length >= 2;
  const short = lows.filter(
    (low) => rhythm?.lows.includes(low) || brief.includes(low) || (low.to - low.from < n * KIN_LASTS && kin(low))
  );
  const within = ({ from, to }: LevelStretch) => short.some((low) => from >= low.from && to <= low.to);
  const longest = short.reduce((most, { from, to }) => Math.max(most, to - from), 0);
  const last = stretches.at(-1);
  const before = stretches.at(-2);
  const alike =
    last && before
      ? short.some(({ share }) => Math.abs(last.begins - before.ends - Math.log(share)) < ALIKE_DEPTH)
      : false;
  return (stretch) =>
    within(stretch) || (stretch === last && alike && stretch.to - stretch.from <= Math.max(least / 2, 2 * longest));
}

/** Lists steps down that stay, with what they are; and until when. */
export function fallsOf(
  work: Work,
  all: readonly LevelStep[]
): { steps: Analysis['steps']; recovery: Analysis['recovery'] } {
  const steps: Analysis['steps'] = [];
  const recovery: Analysis['recovery'] = [];
  let open: { atS: number; height: number } | undefined;
  for (const { at, before, after } of all) {
    const atS = beginS(work, at);
    if (after < before) {
      const { kind, atC } = kindOf(work, atS);
      steps.push({
        atS,
        atGB: movedAt(work, at),
        kind,
        beforeMBps: rateOf(before, work, work.signal.first[at]),
        afterMBps: rateOf(after, work, work.signal.first[at]),
        ...(atC === undefined ? {} : { atC })
      });
      open ??= { atS, height: before - after };
    } else if (open && after - before >= open.height / 2) {
      recovery.push({ fromS: open.atS, toS: atS });
      open = undefined;
    }
  }
  return { steps, recovery };
}

/** What a fall is. What is read fills no cache of the drive. */
function kindOf(work: Work, atS: number): { kind: StepKind; atC?: number } {
  const said = kindOfStep(atS, work.temperatures, work.startC);
  return said.kind === 'cache' && work.direction === 'read' ? { ...said, kind: 'cannot-tell' } : said;
}

/** Finds falls at the very beginning of a series that is long enough for blocks. */
export function headOf(work: Work): Pick<Analysis, 'steps' | 'plateau'> {
  const { signal, levels, moving, samples, trend } = work;
  const follows = levels.stretches.find(({ to }) => to > LOST_IN.blocks);
  if (signal.perBlock === 1 || !follows) return { steps: [], plateau: [] };
  const own = signalOf(samples, moving.subarray(0, HEAD), trend);
  const head: Work = { ...work, signal: own, levels: levelsOf(own) };
  const lows = lowsOf(head.levels);
  const until = beginS(work, Math.min(LOST_IN.blocks, signal.y.length - 1));
  const found = levelSteps(head.levels.stretches, isPassing(head, lows, null)).filter(
    ({ at, before, after }) =>
      after < before && beginS(head, at) < until && Math.abs(after - follows.begins) < LOST_IN.off
  );
  const steps = fallsOf(head, found).steps;
  const plateau = plateausOf(head).filter(({ toS }) => steps.some(({ atS }) => toS <= atS));
  return { steps, plateau };
}
