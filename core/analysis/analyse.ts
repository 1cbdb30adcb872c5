import { median } from '../results/repeats.ts';
import type { Series } from '../series/series.ts';
import { curveAt, weakPlaces, zoneCurve, type ZoneCurve } from './disk-zones.ts';
import { fallsOf, headOf, isPassing, LEVEL_LASTS } from './falls.ts';
import type { DriveTemperatures } from './heat-link.ts';
import { levelsOf, levelSteps, lowsOf, type Levels, type LevelStep, type Low } from './levels.ts';
import type { Analysis, AnalyseInput } from './report.ts';
import { isSawTooth, lengthOf, rhythmOf, type Rhythm } from './rhythm.ts';
import { roundsOf } from './rounds.ts';
import { findNothing, signalOf, soundSamples, type SampleRun, type Samples } from './signal.ts';
import { intervalOfMean, middleAboveNothing, quantiles } from './statistics.ts';
import { isCool, throttleOf } from './throttle.ts';
import { plateausOf, type Work } from './work.ts';

/** Fewer samples than this tell nothing. */
const ENOUGH = 8;
/** A start is unsteady while it is so far from what follows, and no longer than this share of the whole. */
const UNSTEADY = { off: Math.log(1.12), most: 0.3 } as const;

/** Samples that are not within a run. */
function outside(n: number, runs: readonly SampleRun[]): Int32Array {
  const rest = new Int32Array(n - runs.reduce((sum, { from, to }) => sum + to - from, 0));
  let [at, kept] = [0, 0];
  for (const { from, to } of [...runs, { from: n, to: n }]) {
    for (; at < from; at++) rest[kept++] = at;
    at = to;
  }
  return rest;
}

function temperaturesOf(
  samples: Samples,
  C: readonly (number | undefined)[] | undefined
): DriveTemperatures | undefined {
  if (!C) return undefined;
  const read = new Float64Array(samples.t.length);
  let any = false;
  samples.index.forEach((from, i) => {
    const value = C[from];
    read[i] = value !== undefined && Number.isFinite(value) ? value : NaN;
    any ||= !Number.isNaN(read[i]);
  });
  return any ? { t: samples.t, C: read } : undefined;
}

function movedUpTo({ MBps, dt }: Samples): Float64Array {
  const moved = new Float64Array(MBps.length);
  let sum = 0;
  for (let i = 0; i < moved.length; i++) {
    sum += ((MBps[i] as number) * (dt[i] as number)) / 1000;
    moved[i] = sum;
  }
  return moved;
}

/**
 * The cliff: the first fall that stays and is no throttle, of a write. Cache and what drains from it cannot be told apart by one cliff:
 * what had gone in is the most that the cache holds, and less what may have drained at the rate of afterwards the least.
 */
function cliffOf(work: Work, steps: Analysis['steps']): Analysis['cliff'] {
  const found = steps.find(({ kind }) => kind !== 'throttle');
  if (!found || work.direction === 'read') return null;
  const { atS, atGB, beforeMBps, afterMBps } = found;
  return {
    atS,
    atGB,
    beforeMBps,
    afterMBps,
    cacheGB: { low: atGB * Math.max(0, 1 - afterMBps / beforeMBps), high: atGB }
  };
}

function dipsOf(work: Work, lows: readonly Low[], rhythm: Rhythm | null): Pick<Analysis, 'dips' | 'irregular'> {
  const { x } = work.signal;
  // A rhythm that is no throttle and no clock comes at no fixed times.
  const told = rhythm && (!isSawTooth(rhythm) || !isCool(work, rhythm)) ? rhythm : null;
  const others = lows.filter((low) => !told?.lows.includes(low) && (low.to - low.from > 1 || work.signal.perBlock > 1));
  const time = others.reduce((sum, low) => sum + lengthOf(low, x), 0);
  return {
    dips: told && !isSawTooth(told) ? { periodS: told.periodS, depth: 1 - told.share } : null,
    irregular:
      others.length === 0
        ? null
        : {
            count: others.length,
            depth: 1 - median(others.map(({ share }) => share)),
            shareOfTime: time / Math.max(1e-9, (work.samples.t.at(-1) ?? 0) - (work.samples.t[0] ?? 0))
          }
  };
}

/** How long the start is away from the level that follows, s. A fall at the start is a step of its own. */
function unsteadyStart(work: Work, steps: readonly LevelStep[]): number {
  const { y, x } = work.signal;
  const first = steps.find(({ at, before, after }) => after < before && at > 5)?.at ?? y.length;
  const most = Math.min(first, Math.floor(y.length * UNSTEADY.most));
  if (most < 3) return 0;
  const level = median(Array.from(y.subarray(Math.floor(most / 2), Math.max(first, most))));
  const far = Math.max(UNSTEADY.off, 3 * work.levels.noise.one);
  let until = 0;
  // Three in a row that are near end it.
  for (let i = 0, near = 0; i < most && near < 3; i++) {
    if (Math.abs((y[i] as number) - level) > far) {
      near = 0;
      until = i + 1;
    } else near += 1;
  }
  return until === 0 ? 0 : (x[until] ?? 0) - ((work.samples.t[0] ?? 0) - (work.samples.dt[0] ?? 0));
}

function zoneOf(work: Work, curve: ZoneCurve | null, position: (i: number) => number): Analysis['zone'] {
  if (!curve) return undefined;
  return {
    outerMBps: Math.exp(curveAt(curve, curve.from)),
    innerMBps: Math.exp(curveAt(curve, curve.to)),
    weak: weakPlaces(work.samples, work.moving, position, curve)
  };
}

/** The settled rate, MB/s: the highest level that lasts for a tenth of the time; before a fall that is the one before it. */
function settledRate(plateau: Analysis['plateau'], middle: number): number {
  const whole = plateau.reduce((sum, { fromS, toS }) => sum + toS - fromS, 0);
  const lasting = plateau.filter(({ fromS, toS }) => toS - fromS >= whole / 10).map(({ MBps }) => MBps);
  return lasting.length === 0 ? middle : Math.max(...lasting);
}

/** What is told of a series that is too short to tell anything. */
const nothingFound = (): Omit<Analysis, 'dropouts' | 'median' | 'stats'> => ({
  plateau: [],
  steps: [],
  recovery: [],
  dips: null,
  irregular: null,
  start: { unsteadyS: 0 },
  loops: [],
  cliff: null,
  throttle: null,
  interval95: null,
  against: null,
  enough: false
});

function statsOf(samples: Samples, moved: Float64Array, levels: Levels | undefined): Analysis['stats'] {
  const [lowMBps = 0, highMBps = 0] = quantiles(samples.MBps, [0.05, 0.95]);
  const seconds = samples.dt.reduce((sum, value) => sum + value, 0);
  const movedGB = moved.at(-1) ?? 0;
  return {
    samples: samples.t.length,
    refused: samples.refused,
    seconds,
    movedGB,
    meanMBps: seconds > 0 ? (movedGB * 1000) / seconds : 0,
    lowMBps,
    highMBps,
    noise: levels?.noise.one ?? 0,
    alike: levels?.noise.phi ?? 0
  };
}

/** A stop is no shorter than this, s: between two files nothing moves for a moment. */
const STOPS_S = 0.5;

const dropoutsOf = ({ t, dt }: Samples, runs: readonly SampleRun[]): Analysis['dropouts'] =>
  runs
    .map(({ from, to }) => {
      const atS = (t[from] as number) - (dt[from] as number);
      return { atS, forS: (t[to - 1] as number) - atS };
    })
    .filter(({ forS }) => forS >= STOPS_S);

/**
 * Reads a series: its levels and where they change, what the changes are, what comes and goes, where nothing moved, and on a disk which
 * places are slow. Rates are taken by their logarithms. Samples that are none are left out and counted.
 * @param input series in s and MB/s; which way the data went; the forecast in MB/s
 * @throws RangeError above a million samples
 * @example analyse({ series: { t: [1, 2], MBps: [100, 100] }, direction: 'read' }).enough // false
 */
export function analyse(input: Omit<AnalyseInput, 'series'> & { series: Series }): Analysis {
  const { series, direction, predicted, startC } = input;
  const samples = soundSamples(series.t, series.MBps);
  const middle = middleAboveNothing(samples.MBps);
  const nothing = findNothing(samples.MBps, middle);
  const moving = outside(samples.t.length, nothing);
  const moved = movedUpTo(samples);
  const [all] = quantiles(samples.MBps, [0.5]);
  if (moving.length < ENOUGH)
    return {
      ...nothingFound(),
      dropouts: dropoutsOf(samples, nothing),
      median: all ?? 0,
      stats: statsOf(samples, moved, undefined)
    };
  const position = (i: number) => series.positionFraction?.[samples.index[i] as number] ?? NaN;
  const curve = series.positionFraction ? curveOf(samples, moving, position) : null;
  const trend = curve ? samples.MBps.map((_, i) => curveAt(curve, position(i))) : undefined;
  const signal = signalOf(samples, moving, trend);
  const work: Work = {
    samples,
    moving,
    signal,
    levels: levelsOf(signal),
    trend,
    temperatures: temperaturesOf(samples, series.controllerC),
    moved,
    direction,
    startC
  };
  return { ...found(work, curve, position, predicted), ...roundsIn(work, nothing) };
}

/** A fall by this much that stays is no curve of a disk, as a logarithm. */
const NO_CURVE = Math.log(1 / 0.8);

/** The curve of a disk, where no other fall cuts it in two. */
function curveOf(samples: Samples, moving: Int32Array, position: (i: number) => number): ZoneCurve | null {
  const { stretches } = levelsOf(signalOf(samples, moving));
  const least = stretches.reduce((sum, { from, to }) => sum + to - from, 0) * LEVEL_LASTS.share;
  const lasting = levelSteps(stretches, ({ from, to }) => to - from < least);
  return lasting.some(({ before, after }) => before - after > NO_CURVE) ? null : zoneCurve(samples, moving, position);
}

/** Rounds between pauses: what looks like drop-outs then is none. */
function roundsIn({ samples, moved }: Work, nothing: readonly SampleRun[]): Pick<Analysis, 'loops' | 'dropouts'> {
  const loops = roundsOf(samples, moved, nothing);
  return { loops, dropouts: loops.length > 0 ? [] : dropoutsOf(samples, nothing) };
}

function found(
  work: Work,
  curve: ZoneCurve | null,
  position: (i: number) => number,
  predicted: AnalyseInput['predicted']
): Omit<Analysis, 'dropouts' | 'loops'> {
  const { samples, signal, levels, moving, moved } = work;
  const lows = lowsOf(levels);
  const rhythm = rhythmOf(lows, signal, (signal.x.at(-1) ?? 0) - (signal.x[0] ?? 0));
  const all = levelSteps(levels.stretches, isPassing(work, lows, rhythm));
  const falls = fallsOf(work, all);
  const head = headOf(work);
  const steps = [...head.steps, ...falls.steps];
  const { recovery } = falls;
  const begun = head.steps.at(-1)?.atS ?? 0;
  const plateau = [
    ...head.plateau,
    ...plateausOf(work)
      .filter(({ toS }) => toS > begun)
      .map((one, i) => (i === 0 && begun > 0 ? { ...one, fromS: begun } : one))
  ];
  const zone = zoneOf(work, curve, position);
  const [middle = 0] = quantiles(samples.MBps, [0.5]);
  const settled = settledRate(plateau, middle);
  return {
    plateau,
    steps,
    recovery,
    ...dipsOf(work, lows, rhythm),
    start: { unsteadyS: unsteadyStart(work, all) },
    cliff: cliffOf(work, steps),
    throttle: throttleOf(work, rhythm, steps, lows),
    ...(zone ? { zone } : {}),
    median: middle,
    interval95: intervalOfMean(samples, moving),
    against: predicted ? (settled < predicted.low ? 'below' : settled > predicted.high ? 'above' : 'inside') : null,
    stats: statsOf(samples, moved, levels),
    enough: true
  };
}
