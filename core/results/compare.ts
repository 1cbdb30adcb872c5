import { positionInBand, type Band, type BandPosition } from '../quantities/band.ts';
import { rate } from '../quantities/format.ts';
import type { PlanReport } from '../plan/report.ts';
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

/**
 * Gives the result in a sentence; a percentage never stands without its baseline.
 * @example comparisonSentence({ field: 'readMBps', measured: 1000, band: { low: 900, typical: 1000, high: 1070 }, place: 'within', percentOfTypical: 100 }).includes('inside') // true
 */
export function comparisonSentence(row: Comparison): string {
  const what = RESULT_LABEL[row.field];
  const range = `${rate(row.band.low)} – ${rate(row.band.high)} MB/s`;
  if (row.place === 'within') return `${what}: ${rate(row.measured)} MB/s, inside the forecast of ${range}.`;
  const edge = row.place === 'below' ? row.band.low : row.band.high;
  const percent = Math.round(Math.abs(row.measured / edge - 1) * 100);
  return `${what}: ${rate(row.measured)} MB/s, ${percent} % ${row.place} the ${row.place === 'below' ? 'low' : 'high'} end of the forecast ${range} (one result).`;
}
