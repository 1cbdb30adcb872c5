import { eventsOf, type RunStretch } from '../analysis/of-run.ts';
import type { Analysis } from '../analysis/report.ts';
import { counted, duration, quantity, rate } from '../quantities/format.ts';
import type { PairResults } from '../results/run.ts';
import type { Diagnosis } from './diagnose.ts';
import { CAUSE_NAMES } from './names.ts';
import { shapeOf, type SeriesShape } from './shapes.ts';

/** What is said first of a run: the sentence, and how it is meant. */
export type RunSentence = { text: string; tone: 'sound' | 'known' | 'fault' | 'open' };

const NOTHING: RunSentence = { text: 'There is nothing to judge yet.', tone: 'open' };

/** What came out, where nothing fell. */
function ratesIn(results: PairResults, stretch: RunStretch | undefined): string {
  const { readMBps, writeMBps, copyInMBps, copyOutMBps } = results;
  // What goes on for minutes tells more than what is over in seconds.
  if (stretch?.analysis.against === 'below' && shapeOf(stretch.analysis) === 'flat')
    return `Over ${duration(stretch.toS - stretch.fromS)} it ${stretch.direction}s at ${rate(stretch.analysis.median)} MB/s`;
  const of = (words: string, MBps: number | undefined) => (MBps === undefined ? '' : `${words} ${rate(MBps)}`);
  const said = [
    of('reads at', readMBps),
    of('writes at', writeMBps),
    of('is copied to at', copyInMBps),
    of('is copied from at', copyOutMBps)
  ].filter(Boolean);
  if (said.length > 0) return `It ${said.join(' and ')} MB/s`;
  return stretch
    ? `It ${stretch.direction === 'read' ? 'reads' : 'writes'} at ${rate(stretch.analysis.median)} MB/s`
    : 'It works';
}

/** Below this much a copy never sees the cache end: what surely fits, in a round figure. */
function safeGB({ cliff, steps }: Analysis): number {
  const low = cliff?.cacheGB.high ?? steps[0]?.atGB ?? 0;
  const step = low >= 100 ? 50 : low >= 20 ? 10 : low >= 4 ? 2 : 1;
  return Math.max(step, Math.floor((low * 0.97) / step) * step);
}

const VERB = { read: 'Reading', write: 'Writing' } as const;

/** The slow places of a disk, in a sentence. */
function placesWords({ weak }: NonNullable<Analysis['zone']>): string {
  const [first] = weak;
  if (!first) return '';
  const [is, at] = weak.length === 1 ? ['is', 'at'] : ['are', 'the first at'];
  return `${counted(weak.length, 'place')} of the disk ${is} slow, ${at} ${Math.round(first.from * 100)} % of it, ${rate(first.MBps)} MB/s.`;
}

const atC = (C: number | undefined): string => (C === undefined ? '' : `, at ${Math.round(C)} °C`);

/** How each shape of a series is told, after the word for its direction. */
const TOLD: Record<SeriesShape, (analysis: Analysis) => string> = {
  flat: () => '',
  'drop-outs': ({ dropouts }) => {
    const longest = dropouts.reduce((most, { forS }) => Math.max(most, forS), 0);
    return `stopped ${dropouts.length === 1 ? 'once' : `${dropouts.length} times`}, for up to ${duration(longest)}.`;
  },
  'weak-places': () => '',
  'saw-tooth': ({ throttle }) =>
    throttle
      ? `went up and down between ${rate(throttle.highMBps)} and ${rate(throttle.lowMBps)} MB/s from ${duration(throttle.atS)} on${atC(throttle.atC)}.`
      : '',
  fall: ({ steps: [step], throttle }) =>
    step
      ? `fell from ${rate(step.beforeMBps)} to ${rate(step.afterMBps)} MB/s after ${quantity(step.atGB, 'GB')}${step.kind === 'throttle' ? atC(step.atC) : ''}.`
      : `fell to ${rate(throttle?.lowMBps ?? 0)} MB/s after ${duration(throttle?.atS ?? 0)}${atC(throttle?.atC)}, and came back.`,
  irregular: ({ irregular }) =>
    `dipped ${irregular?.count ?? 0} times, by ${Math.round((irregular?.depth ?? 0) * 100)} % of the rate around each, at no fixed times.`,
  dips: ({ dips }) =>
    dips ? `dipped every ${duration(dips.periodS)}, by ${Math.round(dips.depth * 100)} % of the rate around it.` : ''
};

/** Says what happened in a stretch, without a cause; empty where nothing did. */
export function whatHappened({ direction, analysis }: RunStretch): string {
  const shape = shapeOf(analysis);
  if (shape === 'weak-places') return analysis.zone ? placesWords(analysis.zone) : '';
  const told = TOLD[shape](analysis);
  return told && `${VERB[direction]} ${told}`;
}

const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
const withoutStop = (text: string): string => text.replace(/\.$/, '');

/** The sentence of a cache that was full. */
const cacheWords = ({ analysis }: RunStretch, { afterMBps, atGB }: Analysis['steps'][number]): string =>
  `Writes fell to ${rate(afterMBps)} MB/s after ${quantity(atGB, 'GB')}: the fast cache was full. Nothing is wrong; a copy below ${quantity(safeGB(analysis), 'GB')} never sees it.`;

/** What a full cache is told beside: both end in a lower rate. */
const HOT: readonly string[] = ['thermal-throttle', 'pad-no-contact'];

/** Says of a cache that was full besides that it is no fault; empty where none was. */
export function cacheToo({ analysis }: RunStretch): string {
  const full = analysis.steps.find(({ kind }) => kind === 'cache') ?? (analysis.cliff ? analysis.steps[0] : undefined);
  return full ? ` Apart from that its fast cache was full after ${quantity(full.atGB, 'GB')}, which is no fault.` : '';
}

/** The sentence of a run that is sound. */
function soundWords(results: PairResults, stretch: RunStretch | undefined): string {
  const both = results.copyInMBps !== undefined || results.copyOutMBps !== undefined;
  return `${ratesIn(results, stretch)}, as fast as ${both ? 'both disks' : 'this chain'} can be. Nothing is wrong.`;
}

/** Whether a cache was full beside what is told first. */
const isBeside = ({ analysis }: RunStretch): boolean =>
  shapeOf(analysis) !== 'fall' && analysis.steps.some(({ kind }) => kind === 'cache');

/** The sentence of a fault that is proven. */
function faultWords(says: string, hot: boolean, results: PairResults, stretch: RunStretch | undefined): string {
  const what = (stretch && whatHappened(stretch)) || `${ratesIn(results, stretch)}.`;
  return `${withoutStop(what)}: ${lowerFirst(says)}${stretch && (hot || isBeside(stretch)) ? cacheToo(stretch) : ''}`;
}

/** The sentence of a cause that is proven. */
function provenWords(
  { causes: [first] }: Diagnosis,
  results: PairResults,
  stretch: RunStretch | undefined
): RunSentence {
  if (!first) return NOTHING;
  if (first.cause === 'healthy') return { text: soundWords(results, stretch), tone: 'sound' };
  const isCache = first.cause === 'slc-cliff';
  const step = stretch?.analysis.steps[0];
  if (isCache && stretch && step) return { text: cacheWords(stretch, step), tone: 'known' };
  const text = faultWords(first.says, HOT.includes(first.cause), results, stretch);
  return { text, tone: isCache ? 'known' : 'fault' };
}

/**
 * Says first what came out of a run: what happened, why, and whether anything is wrong.
 * @param stretch the one that tells most, where there is a series
 */
export function judgedWords(diagnosis: Diagnosis, results: PairResults, stretch?: RunStretch): RunSentence {
  if (diagnosis.known.length === 0) return NOTHING;
  if (diagnosis.state === 'proven') return provenWords(diagnosis, results, stretch);
  const happened = stretch ? whatHappened(stretch) : '';
  const what = happened || `${ratesIn(results, stretch)}.`;
  const also = stretch && isBeside(stretch) ? cacheToo(stretch) : '';
  const [first, second] = diagnosis.causes;
  const name = (one: typeof first) => (one ? (CAUSE_NAMES[one.cause] ?? one.cause) : '');
  const share = (one: typeof first) => `${Math.round((one?.confidence ?? 0) * 100)} %`;
  if (!second) return { text: `${what} Most likely: ${name(first)} (${share(first)} sure).${also}`, tone: 'open' };
  const end = diagnosis.state === 'cannot-tell' ? 'It cannot be told with what there is: ' : 'Most likely: ';
  return {
    text: `${what} ${end}${name(first)} (${share(first)}), or ${name(second)} (${share(second)}).${also}`,
    tone: 'open'
  };
}

/**
 * Says what happened in a run that is of no chain: an internal disk, or something ready-made.
 * @example plainSentence([]) // ''
 */
export function plainSentence(stretches: readonly RunStretch[]): string {
  const said = stretches.map(whatHappened).filter(Boolean);
  if (said.length > 0) return said.slice(0, 2).join(' ');
  return eventsOf(stretches).length === 0 && stretches.some(({ analysis }) => analysis.enough)
    ? 'Its rate stays even.'
    : '';
}
