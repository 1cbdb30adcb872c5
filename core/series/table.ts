import { SERIES_COLUMN_IDS, SERIES_COLUMNS, type Series } from './series.ts';

/** Heads of the columns of a series in a table of its own, each with its unit. */
export const seriesHeads = (series: Series): string[] => [
  'Time, s',
  ...SERIES_COLUMN_IDS.filter((id) => series[id]).map((id) =>
    SERIES_COLUMNS[id].unit === ''
      ? SERIES_COLUMNS[id].label
      : `${SERIES_COLUMNS[id].label}, ${SERIES_COLUMNS[id].unit}`
  )
];

/**
 * Writes a series out as CSV: a line of heads, then a line a sample, decimal point, CRLF (RFC 4180). Only numbers and our own heads stand in
 * it, so no cell can be a formula.
 * @param simulated then every line says so, in a column of its own
 * @example seriesCsv({ t: [1], MBps: [950] }, false).includes('1,950') // true
 */
export function seriesCsv(series: Series, simulated: boolean): string {
  const columns = SERIES_COLUMN_IDS.filter((id) => series[id]);
  const heads = [...seriesHeads(series), ...(simulated ? ['Source'] : [])];
  const lines = [heads.map((head) => (head.includes(',') ? `"${head}"` : head)).join(',')];
  for (let i = 0; i < series.t.length; i++) {
    const cells = [series.t[i], ...columns.map((id) => series[id]?.[i])].map(String);
    if (simulated) cells.push('simulated');
    lines.push(cells.join(','));
  }
  return `${lines.join('\r\n')}\r\n`;
}
