import type { Analysis } from '../analysis/report.ts';
import { duration, quantity, rate } from '../quantities/format.ts';
import type { Best } from './best.ts';
import type { CauseCode } from './causes.ts';
import { densityBetween, densityOf, fromTable, type Evidence } from './evidence.ts';

/** What a series looks like, by the most telling of what is in it. */
export const SHAPES = ['flat', 'fall', 'saw-tooth', 'dips', 'irregular', 'drop-outs', 'weak-places'] as const;
export type SeriesShape = (typeof SHAPES)[number];

/** How often each shape is seen with a cause, in the order of `SHAPES`; every row adds up to 1. Estimates. */
const EVEN = [0.983, 0.006, 0.002, 0.003, 0.004, 0.0015, 0.0005] as const;
const LOOSE = [0.05, 0.02, 0.01, 0.03, 0.1, 0.78, 0.01] as const;
const BY_CAUSE: Partial<Record<CauseCode, readonly number[]>> = {
  'slc-cliff': [0.05, 0.92, 0.01, 0.007, 0.008, 0.003, 0.002],
  'host-disk-cliff': [0.12, 0.84, 0.01, 0.01, 0.012, 0.005, 0.003],
  'thermal-throttle': [0.03, 0.38, 0.56, 0.015, 0.01, 0.003, 0.002],
  'pad-no-contact': [0.02, 0.33, 0.615, 0.015, 0.015, 0.003, 0.002],
  'drive-nearly-full': [0.3, 0.65, 0.01, 0.01, 0.02, 0.005, 0.005],
  'smr-rewrite': [0.25, 0.6, 0.03, 0.03, 0.06, 0.02, 0.01],
  'weak-surface': [0.04, 0.01, 0.01, 0.03, 0.12, 0.03, 0.76],
  'background-load': [0.08, 0.03, 0.03, 0.1, 0.73, 0.02, 0.01],
  'unstable-link': LOOSE,
  'no-power': LOOSE,
  'bridge-firmware': LOOSE,
  'not-seated': LOOSE
};
/** Without places on the disk, weak ones look like dips that come now and then. */
const WEAK_UNPLACED = [0.06, 0.02, 0.01, 0.05, 0.75, 0.11, 0] as const;

/** So many dips of no fixed time are more than chance. */
const SOME_DIPS = 3;

/** Names the shape of an analysed series. */
export function shapeOf(analysis: Analysis): SeriesShape {
  return TELLING.find(({ is }) => is(analysis))?.shape ?? 'flat';
}

/** Shapes from the most telling one down, with how each is known. */
const TELLING: readonly { shape: SeriesShape; is: (analysis: Analysis) => boolean }[] = [
  { shape: 'drop-outs', is: ({ dropouts }) => dropouts.length > 0 },
  { shape: 'weak-places', is: ({ zone }) => zone !== undefined && zone.weak.length > 0 },
  { shape: 'saw-tooth', is: ({ throttle }) => throttle?.form === 'saw-tooth' },
  { shape: 'fall', is: ({ steps, throttle }) => steps.length > 0 || throttle !== null },
  { shape: 'dips', is: ({ dips }) => dips !== null },
  { shape: 'irregular', is: ({ irregular }) => irregular !== null && irregular.count >= SOME_DIPS }
];

const SHAPE_WORDS: Record<SeriesShape, (analysis: Analysis) => string> = {
  flat: () => 'Its rate stays even.',
  fall: ({ steps: [step, ...more] }) =>
    step
      ? `It falls ${more.length === 0 ? 'once,' : `${more.length + 1} times, first`} from ${rate(step.beforeMBps)} to ${rate(step.afterMBps)} MB/s, after ${quantity(step.atGB, 'GB')}.`
      : 'It falls, and comes back.',
  'saw-tooth': ({ throttle }) =>
    throttle
      ? `It goes up and down between ${rate(throttle.highMBps)} and ${rate(throttle.lowMBps)} MB/s, every ${duration(throttle.periodS ?? 0)}.`
      : '',
  dips: ({ dips }) =>
    dips ? `It dips every ${duration(dips.periodS)}, by ${Math.round(dips.depth * 100)} % of the rate around it.` : '',
  irregular: ({ irregular }) => `It dips ${irregular?.count ?? 0} times, at no fixed times.`,
  'drop-outs': ({ dropouts }) =>
    dropouts.length === 1
      ? 'It stops once, and nothing moves.'
      : `It stops ${dropouts.length} times, and nothing moves.`,
  'weak-places': ({ zone }) =>
    zone?.weak.length === 1
      ? 'One place of the disk is slow.'
      : `${zone?.weak.length ?? 0} places of the disk are slow.`
};

/** Causes that show while something is written, and not while it is read. */
const OF_WRITING: readonly CauseCode[] = ['slc-cliff', 'drive-nearly-full', 'smr-rewrite'];

function shapeEvidence(analysis: Analysis, direction: 'read' | 'write'): Evidence {
  const shape = shapeOf(analysis);
  const index = SHAPES.indexOf(shape);
  return {
    code: 'shape',
    says: SHAPE_WORDS[shape](analysis),
    given: (cause) => {
      if (direction === 'read' && OF_WRITING.includes(cause)) return EVEN[index] ?? 0;
      const row = cause === 'weak-surface' && !analysis.zone ? WEAK_UNPLACED : (BY_CAUSE[cause] ?? EVEN);
      return Math.max(0.0005, row[index] ?? 0);
    }
  };
}

/** What a fall is called by its temperature, by cause: cache, throttle, cannot tell. */
const KINDS: Partial<Record<CauseCode, readonly [number, number, number]>> = {
  'slc-cliff': [0.9, 0.02, 0.08],
  'drive-nearly-full': [0.88, 0.03, 0.09],
  'host-disk-cliff': [0.8, 0.03, 0.17],
  'smr-rewrite': [0.75, 0.05, 0.2],
  'thermal-throttle': [0.01, 0.96, 0.03],
  'pad-no-contact': [0.01, 0.96, 0.03]
};
const ANY_KIND = [0.45, 0.1, 0.45] as const;

function kindEvidence(step: Analysis['steps'][number], direction: 'read' | 'write'): Evidence[] {
  if (step.atC === undefined) return [];
  // What is read falls for no cache of the drive: the analysis says so only by leaving it open.
  const index =
    step.kind === 'cache' || (direction === 'read' && step.kind === 'cannot-tell')
      ? 0
      : step.kind === 'throttle'
        ? 1
        : 2;
  const says = {
    cache: `The drive was at ${Math.round(step.atC)} °C then, too cool to throttle.`,
    throttle: `The drive was at its limit then, ${Math.round(step.atC)} °C.`,
    'cannot-tell': `The drive was at ${Math.round(step.atC)} °C then.`
  }[step.kind];
  return [{ code: 'warm-then', says, given: (cause) => (KINDS[cause] ?? ANY_KIND)[index] ?? 0.3 }];
}

/** Nothing is known of where else a fall comes: anywhere between 1 GB and 3 TB. */
const ANYWHERE = 1 / Math.log(3000);
const ANY_LEVEL = 0.3;
/** A computer's own disk is seldom slower than this, MB/s. */
const SLOWEST_INTERNAL = 60;

/** Where a write falls, against the cache of the forecast; and how far, against the rate after it. */
function fallEvidence(step: Analysis['steps'][number], best: Best, direction: 'read' | 'write'): Evidence[] {
  const { atGB, beforeMBps, afterMBps } = step;
  if (direction === 'read')
    return [
      fromTable('read-falls', 'It falls while it is read.', {
        usual: 0.3,
        given: {
          'slc-cliff': 0.003,
          'drive-nearly-full': 0.003,
          'smr-rewrite': 0.003,
          'host-disk-cliff': 1,
          'thermal-throttle': 0.6,
          'pad-no-contact': 0.6
        }
      })
    ];
  const { cliffGB, post } = best;
  const share = afterMBps / beforeMBps;
  const where = (cause: CauseCode): number => {
    if (!cliffGB || atGB <= 0) return ANYWHERE;
    // A cliff that is known by its end only is known within that end.
    const known = cliffGB.high < cliffGB.typical * 4 ? cliffGB.high : cliffGB.typical * 1.2;
    if (cause === 'slc-cliff') return densityBetween(atGB, cliffGB.low * 0.75, known * 1.2, 0.12);
    if (cause === 'drive-nearly-full') return densityBetween(atGB, cliffGB.typical * 0.01, cliffGB.low * 0.7, 0.2);
    return ANYWHERE;
  };
  const level = (cause: CauseCode): number => {
    switch (cause) {
      case 'slc-cliff':
        return post ? densityBetween(afterMBps, post.low * 0.85, post.high * 1.1, 0.1) : ANY_LEVEL;
      case 'drive-nearly-full':
        return post ? densityBetween(afterMBps, post.low * 0.3, post.typical * 0.95, 0.1) : ANY_LEVEL;
      case 'smr-rewrite':
        return densityBetween(afterMBps, 10, 45, 0.1);
      case 'thermal-throttle':
      case 'pad-no-contact':
        return densityBetween(share, 0.2, 0.8, 0.08);
      case 'host-disk-cliff':
        return densityBetween(share, 0.1, 0.75, 0.08) * (afterMBps < SLOWEST_INTERNAL ? 0.1 : 1);
      default:
        return ANY_LEVEL;
    }
  };
  const forecast = cliffGB ? `, forecast after ${quantity(cliffGB.low, 'GB')} to ${quantity(cliffGB.high, 'GB')}` : '';
  return [
    {
      code: 'where-it-falls',
      says: `The fall comes after ${quantity(atGB, 'GB')}${forecast}; then it goes on at ${rate(afterMBps)} MB/s${post ? `, forecast ${rate(post.low)} to ${rate(post.high)}` : ''}.`,
      given: (cause) => Math.max(0.002, where(cause)) * Math.max(0.02, level(cause))
    }
  ];
}

/** Weak places are few and deep; what else uses a disk comes more often, and takes half. Estimates. */
const FEW_PLACES = 5;
const DEEP = 0.42;

function placesEvidence({ zone, stats }: Analysis): Evidence[] {
  if (!zone || zone.weak.length === 0) return [];
  const few = zone.weak.length <= FEW_PLACES;
  const middle = (zone.outerMBps + zone.innerMBps) / 2 || stats.meanMBps;
  const deep = zone.weak.filter(({ MBps }) => MBps < DEEP * middle).length > zone.weak.length / 2;
  return [
    fromTable('how-many-places', `There are ${few ? 'few' : 'many'} slow places.`, {
      usual: 0.5,
      given: { 'weak-surface': few ? 0.85 : 0.15, 'background-load': few ? 0.25 : 0.75 }
    }),
    fromTable(
      'how-deep',
      deep ? 'The slow places are very slow.' : 'The slow places are about half as fast as the disk around them.',
      {
        usual: 0.5,
        given: { 'weak-surface': deep ? 0.85 : 0.15, 'background-load': deep ? 0.15 : 0.85 }
      }
    )
  ];
}

/** How soon a drive throttles, s: as logarithms; with contact to its case, and without. Estimates. */
const SOON = { contact: { s: 330, deviation: 0.75 }, none: { s: 65, deviation: 0.55 } } as const;
/** How much warmer the case is by then, K. Estimates. */
const CASE_RISE = { contact: { K: 20, deviation: 8 }, none: { K: 5, deviation: 4 } } as const;

/**
 * Tells a pad that does not touch from a case that gives off too little: by how soon it throttles, and how warm the case is by then.
 * @param caseRiseK of the case from the start up to the throttle; undefined where nobody measured it
 */
function contactEvidence(atS: number, caseRiseK: number | undefined): Evidence[] {
  const soon = ({ s, deviation }: { s: number; deviation: number }) =>
    densityOf(Math.log(Math.max(1, atS) / s), deviation);
  const evidence: Evidence[] = [
    fromTable('how-soon', `It begins to throttle after ${duration(atS)}.`, {
      usual: 0.2,
      given: { 'thermal-throttle': soon(SOON.contact), 'pad-no-contact': soon(SOON.none) }
    })
  ];
  if (caseRiseK === undefined) return evidence;
  const rise = ({ K, deviation }: { K: number; deviation: number }) =>
    densityOf((caseRiseK - K) / deviation, 1) / deviation;
  const warm = caseRiseK < (CASE_RISE.contact.K + CASE_RISE.none.K) / 2 ? 'only ' : '';
  evidence.push(
    fromTable('case-then', `The case is ${warm}${Math.round(caseRiseK)} K warmer than at the start by then.`, {
      usual: 0.02,
      given: { 'thermal-throttle': rise(CASE_RISE.contact), 'pad-no-contact': rise(CASE_RISE.none) }
    })
  );
  return evidence;
}

/** Case temperatures of a series, by the time from its beginning. */
export type CaseTemperatures = { t: readonly number[]; caseC: readonly number[] };

function caseRise(temperatures: CaseTemperatures | undefined, atS: number): number | undefined {
  if (!temperatures) return undefined;
  const { t, caseC } = temperatures;
  const at = t.findIndex((s) => s >= atS);
  const [first, then] = [caseC[0], caseC[at]];
  return first === undefined || then === undefined ? undefined : then - first;
}

/**
 * Makes evidence of an analysed series: its shape, and of a fall where, how far and how warm it was.
 * @param temperatures of the case, where they were measured
 */
export function seriesEvidence(
  analysis: Analysis,
  direction: 'read' | 'write',
  best: Best,
  temperatures?: CaseTemperatures
): Evidence[] {
  if (!analysis.enough) return [];
  const evidence = [shapeEvidence(analysis, direction), ...placesEvidence(analysis)];
  const [step] = analysis.steps;
  const { throttle } = analysis;
  const shape = shapeOf(analysis);
  if (shape === 'fall' && step) evidence.push(...kindEvidence(step, direction), ...fallEvidence(step, best, direction));
  if (throttle && (shape === 'saw-tooth' || shape === 'fall'))
    evidence.push(...contactEvidence(throttle.atS, caseRise(temperatures, throttle.atS)));
  return evidence;
}
