import { fallbacks } from '../plan/fallback.ts';
import { LINK_MODES, type LinkMode } from '../facts/link-modes.ts';
import type { Band } from '../quantities/band.ts';
import { rate } from '../quantities/format.ts';
import type { PlanInput, PlanReport } from '../plan/report.ts';
import type { PairResults } from './run.ts';

/** What a result points to, in a sentence, and what to try in this order. */
export type Cause = { code: 'fell-back' | 'cache-full'; text: string; tries: readonly string[] };

/** Results scatter: what lies so far beside a band still belongs to it. */
const BESIDE = 0.08;
const SEQUENTIAL = { readMBps: 'read', writeMBps: 'write' } as const;
type Sequential = keyof typeof SEQUENTIAL;

/** What to try where a chain fell back: the cheapest and likeliest first. */
function triesFor(mode: LinkMode): readonly string[] {
  if (mode === 'usb2')
    return [
      'another cable: many charging cables carry USB 2.0 only',
      'the plug out, looked at, cleaned and pushed in all the way',
      'another port, without a hub or an adapter in between',
      'a second computer: if it is slow there too, the enclosure is at fault'
    ];
  if (LINK_MODES[mode].carrier === 'usb3' && LINK_MODES[mode].lineGbps <= 5)
    return [
      'another port: USB-A ports and old hubs often do 5 Gb/s only',
      'another cable, marked 10 Gb/s or more and at most 1 m long',
      'without a hub or an adapter in between',
      'a second computer: if it is slow there too, the enclosure is at fault'
    ];
  return [
    'another cable, marked for what the port can do',
    'another port: two ports may share one controller',
    'without a dock, a hub or an adapter in between',
    'a second computer: if it is slow there too, the enclosure is at fault'
  ];
}

const low = (band: Band) => band.low * (1 - BESIDE);
const high = (band: Band) => band.high * (1 + BESIDE);

type Near = { measured: number; band: Band; distance: number };

/** The measured rate that is nearest to a plan's, by its logarithm; undefined where the plan does not explain the rates. */
function nearestTo(
  throughput: PlanReport['throughput'],
  results: PairResults,
  below: readonly Sequential[]
): Near | undefined {
  let nearest: Near | undefined;
  for (const field of Object.keys(SEQUENTIAL) as Sequential[]) {
    const [measured, band] = [results[field], throughput[SEQUENTIAL[field]]];
    if (measured === undefined || !band) continue;
    // Nothing is faster than the chain that it ran on; slower it may be for a second reason.
    if (measured > high(band)) return undefined;
    if (!below.includes(field) || measured < low(band)) continue;
    const distance = Math.abs(Math.log(measured / band.typical));
    if (!nearest || distance < nearest.distance) nearest = { measured, band, distance };
  }
  return nearest;
}

/** The lower mode of the chain that gives what was measured. */
function fellBack(results: PairResults, input: PlanInput, below: readonly Sequential[]): Cause | undefined {
  const matches = fallbacks(input).flatMap((fallback) => {
    const near = nearestTo(fallback.report.throughput, results, below);
    return near ? [{ ...fallback, ...near }] : [];
  });
  const [nearest] = matches.sort((a, b) => a.distance - b.distance);
  if (!nearest) return undefined;
  const { mode, label, when, measured, band } = nearest;
  return {
    code: 'fell-back',
    text: `${rate(measured)} MB/s is what this chain does in ${label} (${rate(band.low)} to ${rate(band.high)} MB/s): it most likely fell back to that. Usual causes: ${when}.`,
    tries: triesFor(mode)
  };
}

/**
 * Finds what a result that is too low points to: the mode of the chain that gives just that, or a full write cache.
 * @returns nothing where it is not too low, or fits no cause that is known here
 * @example causeOf({ writeMBps: 38, readMBps: 40 }, anInput(), plan(anInput()))?.code // 'fell-back'
 */
export function causeOf(results: PairResults, input: PlanInput, report: PlanReport): Cause | undefined {
  const below = (Object.keys(SEQUENTIAL) as Sequential[]).filter((field) => {
    const [measured, band] = [results[field], report.throughput[SEQUENTIAL[field]]];
    return measured !== undefined && band !== null && measured < band.low;
  });
  if (below.length === 0) return undefined;
  const { sustainedWrite } = report.throughput;
  const write = results.writeMBps;
  const fits = sustainedWrite && write !== undefined && write >= low(sustainedWrite) && write <= high(sustainedWrite);
  // Where reading is as forecast, the link is sound, and only the drive itself can hold the write.
  if (fits && report.cache.cliffAtGB && !below.includes('readMBps') && results.readMBps !== undefined)
    return {
      code: 'cache-full',
      text: `${rate(write)} MB/s is what the drive writes once its cache is full (${rate(sustainedWrite.low)} to ${rate(sustainedWrite.high)} MB/s), and it reads as forecast: the link is sound.`,
      tries: [
        'a test of at most 5 GB, after ten minutes of rest with the power on',
        'more free room: a cache that shares the cells shrinks as the drive fills',
        'TRIM, where it gets through; a drive that was written full once stays slow without it'
      ]
    };
  return fellBack(results, input, below);
}
