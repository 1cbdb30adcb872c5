import { changePoints, lineThrough, movedToFit, SHORTEST, type FittedLine } from './change-points.ts';
import { narrower, noiseOf, withoutOutliers, withPhi, type Noise, type Signal } from './signal.ts';
import { middleOf } from './middle.ts';

/** A stretch of one level: values from..to-1 of the signal, with the level at its two ends, as logarithms. */
export type LevelStretch = { from: number; to: number; level: number; begins: number; ends: number };

/** The signal cut into stretches, with what is left over. */
export type Levels = {
  stretches: LevelStretch[];
  noise: Noise;
  /** What each value lies off its stretch, as a logarithm. */
  residual: Float64Array;
};

/** A change by less than this is none: 7 %. The zones of a disk lie 3 to 6.5 % apart. */
const LEAST_JUMP = Math.log(1 / 0.93);
/** So many values beside a change say how high it is. */
const BESIDE = 60;
const MARGIN = 4;
/** A jump counts above so many of its standard errors. */
const SURE = 4;
/** At a first look neighbours are taken to be no more alike than this: a step that is not seen yet makes them look alike. */
const FIRST_LOOK_PHI = 0.4;
/** Half of the middle of what is told apart by eye: levels so near to each other are one. */
const NEAR_END = 30;

const middleIn = (y: Float64Array, from: number, to: number): number => middleOf(y.slice(from, to));

/** Levels and noise of a signal, first with the noise of neighbours, then with what is left over once levels are taken off. */
export function levelsOf(signal: Signal): Levels {
  const { y, x } = signal;
  const first = noiseOf(y);
  const clean = withoutOutliers(y, first);
  const early = noiseOf(clean);
  // Many changes widen what differences say; what is left beside the lines of a first look does not know of them.
  const look = withPhi(early, Math.min(early.phi, FIRST_LOOK_PHI));
  const noise = narrower(early, residualOf(signal, clean, changePoints(x, clean, look), look));
  const points = changePoints(x, clean, noise);
  const jumps = jumpsAt(points, signal, clean, noise);
  const edges = [0, ...jumps, y.length];
  const stretches = edges.slice(1).map((to, i) => stretchOf(clean, edges[i] as number, to));
  return { stretches, noise, residual: residualOf(signal, clean, [...points, ...jumps], noise) };
}

const stretchOf = (y: Float64Array, from: number, to: number): LevelStretch => ({
  from,
  to,
  level: middleIn(y, from, to),
  begins: middleIn(y, from, Math.min(to, from + NEAR_END)),
  ends: middleIn(y, Math.max(from, to - NEAR_END), to)
});

/** Of the points where something changes those where the level jumps; a mere bend is none. Each is moved to where it fits best. */
function jumpsAt(points: readonly number[], { x, y }: Signal, clean: Float64Array, noise: Noise): number[] {
  const edges = withoutSlivers([0, ...points, y.length], clean);
  const cleaned = { x, y: clean };
  const jumps: number[] = [];
  for (let k = 1; k < edges.length - 1; k++) {
    const [before, at, after] = [edges[k - 1] as number, edges[k] as number, edges[k + 1] as number];
    // Values right beside it may belong to the other side: they are left out where there are enough.
    const [here, there] = [at - before, after - at].map((n) => (n >= 3 * MARGIN ? MARGIN : 0)) as [number, number];
    const left = lineThrough(cleaned, Math.max(before, at - BESIDE), at - here, noise);
    const right = lineThrough(cleaned, at + there, Math.min(after, at + BESIDE), noise);
    if (!isJump(x[at] as number, left, right)) continue;
    // Middles of both sides have to say the same: a line overshoots where a curve bends.
    const middles =
      middleIn(clean, at, Math.min(after, at + NEAR_END)) - middleIn(clean, Math.max(before, at - NEAR_END), at);
    const height = right.at(x[at] as number) - left.at(x[at] as number);
    if (middles * height <= 0 || Math.abs(middles) < LEAST_JUMP * 0.8) continue;
    const moved = movedToFit({ x, y }, at, [left, right], noise);
    const least = (jumps.at(-1) ?? 0) + 1;
    jumps.push(Math.max(least, Math.min(after - 1, moved)));
  }
  return jumps;
}

/** A stretch of fewer values than this between two others is looked at twice. */
const SLIVER = 7;

/** Leaves out where a sliver begins that lies between its neighbours: one step, with an outlier beside it. */
function withoutSlivers(edges: readonly number[], clean: Float64Array): number[] {
  return edges.filter((from, k) => {
    const [before, to, after] = [edges[k - 1], edges[k + 1], edges[k + 2]];
    if (before === undefined || to === undefined || after === undefined || to - from >= SLIVER) return true;
    const left = middleIn(clean, Math.max(before, from - NEAR_END), from);
    const here = middleIn(clean, from, to);
    const right = middleIn(clean, to, Math.min(after, to + NEAR_END));
    return (here - left) * (here - right) > 0 && Math.min(Math.abs(here - left), Math.abs(here - right)) >= LEAST_JUMP;
  });
}

function isJump(x: number, left: FittedLine, right: FittedLine): boolean {
  const height = Math.abs(right.at(x) - left.at(x));
  return height >= LEAST_JUMP && height >= SURE * Math.hypot(left.errorAt(x), right.errorAt(x));
}

/** What is left of a signal once the lines between all points are taken off. */
function residualOf({ x, y }: Signal, clean: Float64Array, points: readonly number[], noise: Noise): Float64Array {
  const edges = [...new Set([0, ...points, y.length])].sort((a, b) => a - b);
  const residual = new Float64Array(y.length);
  for (let k = 1; k < edges.length; k++) {
    const [from, to] = [edges[k - 1] as number, edges[k] as number];
    if (to <= from) continue;
    const line = lineThrough({ x, y: clean }, from, to, noise);
    for (let i = from; i < to; i++) residual[i] = (y[i] as number) - line.at(x[i] as number);
  }
  return residual;
}

/** A time of a lower rate that comes back: values from..to-1, and what is left of the rate around it, as a share. */
export type Low = { from: number; to: number; share: number };

/** Comes back to within this of where it left, as a logarithm. */
const COMES_BACK = Math.log(1.2);
/** A low lasts for less than this share of the whole; else it is a step, and a recovery. */
const LOW_LASTS = 0.3;
/** A short dip is below this share of what is around it, and this many deviations. */
const DIP = { share: 0.8, deviations: 4 } as const;

/** Finds the lows: stretches between a fall and a rise of the same height, and dips that are too short to be stretches. */
export function lowsOf({ stretches, residual, noise }: Levels): Low[] {
  const lows: Low[] = [];
  const longest = residual.length * LOW_LASTS;
  for (let i = 1; i < stretches.length - 1; i++) {
    const [before, here] = [stretches[i - 1] as LevelStretch, stretches[i] as LevelStretch];
    if (here.begins > before.ends - LEAST_JUMP) continue;
    // Several steps down before it comes back are one low.
    const back = stretches.findIndex((later, k) => k > i && Math.abs(later.begins - before.ends) <= COMES_BACK);
    const to = stretches[back]?.from ?? Infinity;
    if (to - here.from > longest) continue;
    lows.push({ from: here.from, to, share: Math.exp(here.level - before.ends) });
    i = back - 1;
  }
  return [...lows, ...dipsBeside(lows, residual, noise)].sort((a, b) => a.from - b.from);
}

/** Dips that are too short to be stretches, where no low is. */
function dipsBeside(lows: readonly Low[], residual: Float64Array, noise: Noise): Low[] {
  const dips: Low[] = [];
  const limit = Math.min(Math.log(DIP.share), -DIP.deviations * noise.one);
  let from = -1;
  for (let i = 0; i <= residual.length; i++) {
    const below = i < residual.length && (residual[i] as number) < limit;
    if (below && from < 0) from = i;
    if (!below && from >= 0) {
      if (!lows.some((low) => from < low.to && i > low.from))
        dips.push({ from, to: i, share: Math.exp(middleIn(residual, from, i)) });
      from = -1;
    }
  }
  return dips;
}

/** A change that stays, at value `at`: from one level to another, both as logarithms. */
export type LevelStep = { at: number; before: number; after: number };

/** Several stretches that are one level: its ends, and how many values it has. */
type Group = { from: number; values: number; begins: number; ends: number };
/** A level of fewer values than this, between two that are alike, comes and goes. */
const GOES_AGAIN = 20;

/** What a group is away from both of its neighbours, where these are nearer to each other than to it; else null. */
function standsOut(before: Group, group: Group, after: Group): boolean {
  const [left, right] = [group.begins - before.ends, group.ends - after.begins];
  return left * right > 0 && Math.abs(before.ends - after.begins) < Math.min(Math.abs(left), Math.abs(right));
}

/**
 * Finds the changes that stay: between levels that are no lows and do not come and go. Falls and rises in order.
 * @param passing stretches that belong to something that comes and goes
 */
export function levelSteps(
  stretches: readonly LevelStretch[],
  passing: (stretch: LevelStretch) => boolean
): LevelStep[] {
  let groups: Group[] = stretches
    .filter((stretch) => !passing(stretch))
    .map(({ from, to, begins, ends }) => ({ from, values: to - from, begins, ends }));
  for (let before = Infinity; groups.length < before;) {
    before = groups.length;
    groups = joined(
      groups.filter((group, i) => {
        const [left, right] = [groups[i - 1], groups[i + 1]];
        return !(left && right && group.values < GOES_AGAIN && standsOut(left, group, right));
      })
    );
  }
  // What is over after a few values is a start, and not a level.
  if (groups[0] && groups[0].values < SHORTEST * 2) groups.shift();
  return groups.slice(1).flatMap((group, i) => {
    const last = groups[i] as Group;
    const stays = group.values >= SHORTEST * 2 || i < groups.length - 2;
    return stays ? [{ at: group.from, before: last.ends, after: group.begins }] : [];
  });
}

/** Takes neighbours of one level together. */
function joined(groups: readonly Group[]): Group[] {
  const out: Group[] = [];
  for (const group of groups) {
    const last = out.at(-1);
    if (last && Math.abs(group.begins - last.ends) < LEAST_JUMP) {
      out[out.length - 1] = { ...last, values: last.values + group.values, ends: group.ends };
    } else out.push(group);
  }
  return out;
}
