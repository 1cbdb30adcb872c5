import { median } from '../results/repeats.ts';
import type { Series } from '../series/series.ts';
import { curveAt, weakPlaces, zoneCurve, type ZoneCurve } from './disk-zones.ts';
import { kindOfStep, temperatureAt, type StepKind, type DriveTemperatures } from './heat-link.ts';
import { levelsOf, lowsOf, levelSteps, type Levels, type Low, type LevelStep, type LevelStretch } from './levels.ts';
import type { Analysis, AnalyseInput } from './report.ts';
import { isSawTooth, lengthOf, rhythmOf, type Rhythm } from './rhythm.ts';
import { roundsOf } from './rounds.ts';
import { findNothing, signalOf, soundSamples, type SampleRun, type Samples, type Signal } from './signal.ts';
import { intervalOfMean, middleAboveNothing, quantiles } from './statistics.ts';

/** Fewer samples than this tell nothing. */
const ENOUGH = 8;
/** A step is a cliff where what comes after lasts as long: samples, and share of the whole. */
const CLIFF_LASTS = { values: 20, share: 0.1 } as const;
/** A fall at the end that is as deep as the lows before it is one of them, as a logarithm. */
const ALIKE_DEPTH = 0.3;
const KIN_LASTS = 0.25;
/** A low of a throttle lasts at least so long, s. */
const WARM_LOW_S = 4;
/** A start is unsteady while it is so far from what follows, and no longer than this share of the whole. */
const UNSTEADY = { off: Math.log(1.12), most: 0.3 } as const;

/** So many samples of the beginning of a long series are read one by one: a fall there would be lost in its first blocks. */
const HEAD = 1000;
/** A fall in the head counts up to so many blocks, and where what follows is as slow, as a logarithm. */
const LOST_IN = { blocks: 8, off: Math.log(1.15) } as const;

/** Everything that the parts of an analysis are made from. */
type Work = {
  samples: Samples;
  moving: Int32Array;
  signal: Signal;
  levels: Levels;
  /** Natural logarithm of the disk's curve at each sample; undefined where no places are known. */
  trend: Float64Array | undefined;
  temperatures: DriveTemperatures | undefined;
  /** GB moved before the end of each sample. */
  moved: Float64Array;
  direction: AnalyseInput['direction'];
  startC: number | undefined;
};

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

/** The rate of a logarithm that had the disk's curve taken off, by the curve in the middle of what was passed. */
const rateOf = (log: number, { trend, moving }: Pick<Work, 'trend' | 'moving'>, at?: number): number =>
  Math.exp(log + (trend ? (trend[at ?? (moving[moving.length >> 1] as number)] ?? 0) : 0));

/** When a value of the signal begins, s. */
const beginS = ({ samples, signal }: Work, value: number): number => {
  const i = signal.first[value];
  return i === undefined ? (samples.t.at(-1) ?? 0) : (samples.t[i] as number) - (samples.dt[i] as number);
};
/** What was moved before a value of the signal begins, GB. */
const movedAt = ({ moved, signal }: Work, value: number): number => {
  const i = signal.first[value];
  return i === undefined ? (moved.at(-1) ?? 0) : i === 0 ? 0 : (moved[i - 1] as number);
};

function plateausOf(work: Work): Analysis['plateau'] {
  return work.levels.stretches.map(({ from, to, level }) => {
    const middle = work.signal.first[(from + to) >> 1];
    return {
      fromS: beginS(work, from),
      toS: beginS(work, to),
      MBps: rateOf(level, work, middle),
      GB: movedAt(work, to) - movedAt(work, from)
    };
  });
}

/** Tells whether a stretch belongs to lows that come and go, or is one of them that the end cut off. */
function isPassing(work: Work, lows: readonly Low[], rhythm: Rhythm | null): (stretch: LevelStretch) => boolean {
  const { stretches } = work.levels;
  const n = work.signal.y.length;
  const least = Math.max(CLIFF_LASTS.values, n * CLIFF_LASTS.share);
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

/** Steps down that stay, with what they are; and until when. */
function fallsOf(work: Work, all: readonly LevelStep[]): { steps: Analysis['steps']; recovery: Analysis['recovery'] } {
  const steps: Analysis['steps'] = [];
  const recovery: Analysis['recovery'] = [];
  let open: { atS: number; height: number } | undefined;
  for (const { at, before, after } of all) {
    const atS = beginS(work, at);
    if (after < before) {
      const { kind, atC } = kindOf(work, atS, before, after);
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

function kindOf(work: Work, atS: number, before: number, after: number): { kind: StepKind; atC?: number } {
  const said = kindOfStep(atS, work.temperatures, work.startC);
  // What is read fills no cache of the drive.
  return said.kind === 'cache' && (work.direction === 'read' || before - after <= 0)
    ? { ...said, kind: 'cannot-tell' }
    : said;
}

/** Tells whether temperatures speak against a throttle where a rhythm falls. */
function isCool(work: Work, { lows }: Rhythm): boolean {
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
  const high = work.levels.stretches[0]?.ends ?? 0;
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

/** Finds falls at the very beginning of a series that is long enough for blocks. */
function headOf(work: Work): Pick<Analysis, 'steps' | 'plateau'> {
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

function throttleOf(
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

const NOTHING_FOUND = {
  plateau: [],
  steps: [],
  recovery: [],
  dips: null,
  irregular: null,
  start: { unsteadyS: 0 },
  loops: [],
  cliff: null,
  throttle: null
} as const;

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
      ...NOTHING_FOUND,
      plateau: [],
      steps: [],
      recovery: [],
      loops: [],
      dropouts: dropoutsOf(samples, nothing),
      median: all ?? 0,
      interval95: null,
      against: null,
      stats: statsOf(samples, moved, undefined),
      enough: false
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
  const least = stretches.reduce((sum, { from, to }) => sum + to - from, 0) * CLIFF_LASTS.share;
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
