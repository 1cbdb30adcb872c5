/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices below the length of the column: a loop over every sample */
import { SERIES_COLUMN_IDS, type Series, type SeriesColumn } from './series.ts';

/** Samples of one bucket that are kept of a column: where it begins and ends, and its lowest and highest. */
const KEPT_OF_BUCKET = 4;

/**
 * Picks samples so that a drawing of a column at that resolution looks as if all were drawn: of every bucket of time the first, the last,
 * the lowest and the highest (M4: U. Jugel and others, "M4: a visualization-oriented time series data aggregation", VLDB 2014). So no peak
 * and no dip is lost, however short.
 * @param buckets at least 1
 * @returns indices, rising, each once
 */
function bucketExtremes(t: readonly number[], values: readonly number[], buckets: number, into: Set<number>): void {
  const begin = t[0]!;
  const width = (t[t.length - 1]! - begin) / buckets;
  const bucketOf = (i: number) => (width > 0 ? Math.min(buckets - 1, Math.floor((t[i]! - begin) / width)) : 0);
  let from = 0;
  while (from < t.length) {
    const bucket = bucketOf(from);
    let [low, high] = [from, from];
    let to = from;
    for (; to < t.length && bucketOf(to) === bucket; to++) {
      if (values[to]! < values[low]!) low = to;
      if (values[to]! > values[high]!) high = to;
    }
    into
      .add(from)
      .add(low)
      .add(high)
      .add(to - 1);
    from = to;
  }
}

/**
 * Gives a series with at most about this many samples that still shows every peak and every dip of the rate, and the ends of the others.
 * A shorter one comes back as it is. Rates are picked, never averaged: what is drawn was measured.
 * @param points how many may be drawn, at least 8
 * @throws RangeError for fewer than 8 points
 * @example reduceSeries({ t: [1, 2], MBps: [5, 6] }, 100).t.length // 2
 */
export function reduceSeries(series: Series, points: number): Series {
  if (!(points >= 8)) throw new RangeError('a drawing needs at least 8 points');
  if (series.t.length <= points) return series;
  const kept = new Set<number>();
  bucketExtremes(series.t, series.MBps, Math.max(1, Math.floor(points / KEPT_OF_BUCKET)), kept);
  // Temperatures are slow: a tenth of the points shows their highest and lowest.
  const others = SERIES_COLUMN_IDS.filter((id) => id !== 'MBps' && id !== 'positionFraction' && series[id]);
  for (const id of others) bucketExtremes(series.t, series[id]!, Math.max(1, Math.floor(points / 40)), kept);
  const order = [...kept].sort((a, b) => a - b);
  const reduced: Partial<Record<SeriesColumn | 't', number[]>> = { t: order.map((i) => series.t[i]!) };
  for (const id of SERIES_COLUMN_IDS) {
    const values = series[id];
    if (values) reduced[id] = order.map((i) => values[i]!);
  }
  return reduced as Series;
}
