import { positionInBand, type Band, type BandPosition } from '../quantities/band.ts';
import { figure, rate } from '../quantities/format.ts';
import type { PlanReport } from '../plan/report.ts';
import { intervalOf } from './repeats.ts';
import type { PairResults } from './run.ts';
import type { ResultField } from './run-fields.ts';

export type Comparison = {
  field: ResultField;
  measured: number;
  band: Band;
  place: BandPosition;
  percentOfTypical: number;
};

export const RESULT_LABEL: Record<ResultField, string> = {
  readMBps: 'Read',
  writeMBps: 'Write',
  random4kReadMBps: 'Random 4 KiB read',
  random4kWriteMBps: 'Random 4 KiB write',
  sustainedWriteMBps: 'Write after the cache'
};

export const BAND_OF = {
  readMBps: 'read',
  writeMBps: 'write',
  random4kReadMBps: 'random4kRead',
  random4kWriteMBps: 'random4kWrite',
  sustainedWriteMBps: 'sustainedWrite'
} as const satisfies Record<ResultField, keyof PlanReport['throughput']>;

/**
 * Lists each measured figure beside its predicted band; figures without a prediction are left out.
 * @example compareWithPlan({}, plan(anInput())) // []
 */
export function compareWithPlan(results: PairResults, report: PlanReport): Comparison[] {
  const rows: Comparison[] = [];
  for (const field of Object.keys(BAND_OF) as ResultField[]) {
    const measured = results[field];
    const band = report.throughput[BAND_OF[field]];
    if (measured === undefined || !band) continue;
    rows.push({
      field,
      measured,
      band,
      place: positionInBand(measured, band),
      percentOfTypical: (100 * measured) / band.typical
    });
  }
  return rows;
}

/** How far repeats of a result scatter, beside an edge of the forecast: in percent, at 95 %. */
function scatterWords(repeats: readonly number[], edge: number): string {
  const interval = intervalOf(repeats);
  if (!interval) return 'one result: how far it scatters is not known';
  const [low, high] = [interval.low / edge - 1, interval.high / edge - 1];
  const percents = [Math.abs(low) * 100, Math.abs(high) * 100].sort((a, b) => a - b).map(figure);
  if (low < 0 !== high < 0) return `${interval.n} repeats: no more than their error at 95 %`;
  return `${interval.n} repeats: ${percents[0]} to ${percents[1]} % at 95 %, more than their error`;
}

/**
 * Gives the result in a sentence; a percentage never stands without its baseline and without what is uncertain about it.
 * @param repeats rates that the result was made from, MB/s
 * @example comparisonSentence({ field: 'readMBps', measured: 1000, band: { low: 900, typical: 1000, high: 1070 }, place: 'within', percentOfTypical: 100 }).includes('inside') // true
 */
export function comparisonSentence(row: Comparison, repeats: readonly number[] = []): string {
  const what = RESULT_LABEL[row.field];
  const range = `${rate(row.band.low)} – ${rate(row.band.high)} MB/s`;
  if (row.place === 'within') return `${what}: ${rate(row.measured)} MB/s, inside the forecast of ${range}.`;
  const edge = row.place === 'below' ? row.band.low : row.band.high;
  const percent = Math.round(Math.abs(row.measured / edge - 1) * 100);
  return `${what}: ${rate(row.measured)} MB/s, ${percent} % ${row.place} the ${row.place === 'below' ? 'low' : 'high'} end of the forecast ${range} (${scatterWords(repeats, edge)}).`;
}

/**
 * Lists the rates that a figure of a result was made from, MB/s.
 * @example repeatsBehind('readMBps', { repeats: [{ what: 'read', MBps: 900 }] }) // [900]
 */
export const repeatsBehind = (field: ResultField, { repeats = [] }: PairResults): number[] => {
  const what = field === 'readMBps' ? 'read' : field === 'writeMBps' ? 'write' : undefined;
  return repeats.flatMap((one) => (one.what === what && one.MBps !== undefined ? [one.MBps] : []));
};
