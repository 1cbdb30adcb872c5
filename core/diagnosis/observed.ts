import { QUESTIONS, type TroubleAnswer } from './asking.ts';
import type { Analysis } from '../analysis/report.ts';
import { quantity } from '../quantities/format.ts';
import type { Conditions } from '../results/conditions.ts';
import type { PairResults } from '../results/run.ts';
import type { Best } from './best.ts';
import { fromTable, type Evidence, type Likelihoods } from './evidence.ts';
import { figuresOfResults, type Figure } from './figures.ts';
import type { Symptom } from './question.ts';
import { shapeOf, type CaseTemperatures } from './shapes.ts';
import type { Situation } from './situation.ts';
import type { History } from './suspects.ts';

/** Everything that a diagnosis can be given. */
export type Observed = {
  results?: PairResults | undefined;
  analysis?: Analysis | undefined;
  direction?: 'read' | 'write' | undefined;
  case?: CaseTemperatures | undefined;
  /** Whether the run copied, and to or from what: its rates are those of two disks then. */
  copies?: 'internal' | 'other' | undefined;
  symptoms?: readonly Symptom[] | undefined;
  conditions?: Partial<Conditions> | undefined;
  negotiatedGbps?: number | undefined;
  log?: string | undefined;
  tried?: readonly TroubleAnswer[] | undefined;
  history?: History | undefined;
};

/** What a series of a direction shows better than a figure does. */
const SHOWN_BY = { read: ['read'], write: ['write', 'sustained'] } as const;

const COPY_OF = { read: 'copyOut', write: 'copyIn' } as const;
const COPIED: readonly Figure['of'][] = ['copyIn', 'copyOut'];

/** Lists rates of results as figures of the chain. Where a series was read its own levels stand for what it wrote or read. */
export function figuresOf(observed: Observed): Figure[] {
  const level = levelFigure(observed);
  const { results = {}, copies, direction } = observed;
  const shown: readonly Figure['of'][] = level && direction ? (copies ? COPIED : SHOWN_BY[direction]) : [];
  const written = writtenGB(observed);
  const figures = figuresOfResults(results)
    // How fast another external drive is nobody knows here: only what happens in such a copy is told by it.
    .filter(({ of }) => !shown.includes(of) && !(copies === 'other' && COPIED.includes(of)))
    .map((figure) => (figure.of === 'write' ? { ...figure, ...written } : figure));
  return level && copies !== 'other' ? [level, ...figures] : figures;
}

/** How much was written in all for a figure of writing. */
function writtenGB({ conditions: { testGB, repeats = 1 } = {} }: Observed): Pick<Figure, 'writtenGB'> {
  return testGB === undefined ? {} : { writtenGB: testGB * repeats };
}

const behindCache = ({ stats }: Analysis, observed: Observed): Pick<Figure, 'writtenGB'> => ({
  writtenGB: Math.max(stats.movedGB, writtenGB(observed).writtenGB ?? 0)
});

/** The level that a series has, as a figure. */
function levelFigure(observed: Observed): Figure | undefined {
  const { analysis, direction, copies } = observed;
  if (!analysis?.enough || !direction) return undefined;
  const MBps = firstLevel(analysis);
  if (MBps === undefined) return undefined;
  // An even series shows what the cause makes of the rate; one that changes begins with what the chain can do.
  return {
    of: copies ? COPY_OF[direction] : direction,
    MBps,
    // It may have begun behind the cache already.
    ...(direction === 'write' && !copies && shapeOf(analysis) === 'flat' ? behindCache(analysis, observed) : {}),
    ...(shapeOf(analysis) === 'flat' ? {} : { atFirst: true })
  };
}

/** The level that a series has before anything falls; of a disk the middle of its curve. */
function firstLevel(analysis: Analysis): number | undefined {
  if (analysis.zone) return (analysis.zone.outerMBps + analysis.zone.innerMBps) / 2;
  if (analysis.steps.length > 0 || analysis.throttle) return analysis.plateau[0]?.MBps;
  // Between dips and stops it runs as fast as it can.
  return analysis.irregular || analysis.dips || analysis.dropouts.length > 0
    ? analysis.plateau.reduce((most, { MBps }) => Math.max(most, MBps), 0) || undefined
    : analysis.median || undefined;
}

/** Speeds that a system shows, as outcomes of the question for it. */
function shownSpeed(gbps: number | undefined, best: Best): string | undefined {
  if (gbps === undefined) return undefined;
  if (gbps < 1) return 'usb2';
  if (gbps <= 5) return best.mode === 'usb-5g' ? 'planned' : '5g';
  if (gbps <= 10) return best.mode === 'usb-10g' ? 'planned' : '10g';
  return 'planned';
}

/** Answers that conditions give by themselves. */
const IMPLIED: readonly ((conditions: Partial<Conditions>) => readonly [string, string] | undefined)[] = [
  ({ writeCache }) =>
    writeCache === 'performance'
      ? ['policy', 'better']
      : writeCache === 'quick-removal'
        ? ['policy', 'quick']
        : undefined,
  ({ fillPercent }) => (fillPercent === undefined ? undefined : ['how-full', fillPercent >= 90 ? 'full' : 'room']),
  ({ encrypted }) => (encrypted === undefined ? undefined : ['encrypted-volume', encrypted ? 'yes' : 'no'])
];

/** Finds the answers that conditions, parts and the shown speed give by themselves: outcomes by question. */
export function impliedAnswers(
  { conditions = {}, negotiatedGbps }: Observed,
  at: Situation,
  best: Best
): Map<string, string> {
  const implied = new Map<string, string>();
  for (const { code, known, applies } of QUESTIONS) {
    const said = (applies?.(at) ?? true) ? known?.({ ...at, results: undefined }) : undefined;
    if (said !== undefined) implied.set(code, said);
  }
  const speed = shownSpeed(negotiatedGbps, best);
  if (speed !== undefined) implied.set('listed-speed', speed);
  for (const of of IMPLIED) {
    const said = of(conditions);
    if (said) implied.set(...said);
  }
  return implied;
}

/** A test of a few numbers writes no more than its cache holds, mostly. */
const SHORT_TEST = { unknown: 0.3, within: 0.03, beyond: 0.6 } as const;

/** Makes evidence of whether what was written can have filled the cache at all. */
export function sizeEvidence({ conditions = {}, results, analysis }: Observed, best: Best): Evidence[] {
  if (analysis?.enough || results?.writeMBps === undefined || !best.cliffGB) return [];
  const { testGB, repeats = 1 } = conditions;
  const evidence = (says: string, share: number) => [
    fromTable('test-size', says, { usual: 0.6, given: { 'slc-cliff': share } })
  ];
  if (testGB === undefined)
    return evidence('How much was written is not known; most such tests stay within the cache.', SHORT_TEST.unknown);
  const written = testGB * repeats;
  return written < best.cliffGB.low * 0.8
    ? evidence(`No more than ${quantity(written, 'GB')} was written, less than the cache holds.`, SHORT_TEST.within)
    : evidence(`${quantity(written, 'GB')} was written, more than the cache may hold.`, SHORT_TEST.beyond);
}

/** What conditions and parts say that no question asks for. */
const SAID: readonly {
  code: string;
  says: string;
  is: (conditions: Partial<Conditions>, at: Situation) => boolean;
  likelihoods: Likelihoods;
}[] = [
  {
    code: 'shingled',
    says: 'The disk is a shingled one.',
    is: (_conditions, { hands }) => hands.input.drive.disk?.recording === 'smr',
    likelihoods: { usual: 0.25, given: { 'smr-rewrite': 0.9 } }
  },
  {
    code: 'indexing',
    says: 'It was still being indexed.',
    is: ({ indexing }) => indexing === true,
    likelihoods: { usual: 0.15, given: { 'background-load': 0.7 } }
  },
  {
    code: 'not-indexing',
    says: 'It was not being indexed.',
    is: ({ indexing }) => indexing === false,
    likelihoods: { usual: 0.8, given: { 'background-load': 0.4 } }
  },
  {
    code: 'from-memory',
    says: 'The data came from memory, not from a disk.',
    is: ({ source }) => source === 'memory',
    likelihoods: { usual: 0.6, given: { 'host-disk-cliff': 0.02 } }
  },
  {
    code: 'with-internal',
    says: 'The computer’s own disk was the other side.',
    is: ({ source, target }) => source === 'internal' || target === 'internal',
    likelihoods: { usual: 0.4, given: { 'host-disk-cliff': 0.9 } }
  }
];

/** Makes evidence of conditions and parts. */
export const conditionsEvidence = ({ conditions = {} }: Observed, at: Situation): Evidence[] =>
  SAID.filter(({ is }) => is(conditions, at)).map(({ code, says, likelihoods }) => fromTable(code, says, likelihoods));

/** Finds questions that something that was measured answers better. */
export function covered(observed: Observed): Set<string> {
  const figures = figuresOf(observed);
  const [read, write] = (['read', 'write'] as const).map((of) => figures.some((figure) => figure.of === of));
  const codes = new Set<string>();
  if (read) codes.add('reads-at');
  if (read && write) codes.add('read-or-write');
  if (observed.analysis?.enough) codes.add('how-it-falls');
  return codes;
}
