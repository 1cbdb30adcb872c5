import { z } from 'zod';

/** More samples than this are no series of one run: ten a second for a day are 864 000. */
export const MOST_SAMPLES = 1_000_000;

/** The columns of a series beside its time, each with the unit it is kept in. */
export const SERIES_COLUMNS = {
  MBps: { label: 'Rate', unit: 'MB/s' },
  controllerC: { label: 'Drive', unit: '°C' },
  nandC: { label: 'Flash chips', unit: '°C' },
  caseC: { label: 'Case', unit: '°C' },
  positionFraction: { label: 'Position, as a share of the capacity', unit: '' }
} as const;
export type SeriesColumn = keyof typeof SERIES_COLUMNS;
export const SERIES_COLUMN_IDS = Object.keys(SERIES_COLUMNS) as SeriesColumn[];

const column = (min: number, max: number) => z.array(z.number().min(min).max(max)).max(MOST_SAMPLES);

/**
 * What was sampled while a run went on: `t` in s from its beginning, and beside it columns of the same length. `MBps[i]` is the mean over
 * (t[i-1], t[i]], of the first sample over (0, t[0]].
 */
export const seriesSchema = z
  .strictObject({
    t: z.array(z.number().min(0).max(1e8)).min(1).max(MOST_SAMPLES).describe('s'),
    MBps: column(0, 1e6),
    controllerC: column(-60, 200).optional(),
    nandC: column(-60, 200).optional(),
    caseC: column(-60, 200).optional(),
    positionFraction: column(0, 1).optional().describe('0 is the outer edge')
  })
  .superRefine((series, context) => {
    for (const id of SERIES_COLUMN_IDS) {
      const values = series[id];
      if (values && values.length !== series.t.length)
        context.addIssue({
          code: 'custom',
          path: [id],
          message: `has ${values.length} samples, and the time ${series.t.length}`
        });
    }
    const back = goesBackAt(series.t);
    if (back >= 0)
      context.addIssue({
        code: 'custom',
        path: ['t', back],
        message: `goes back in time: ${series.t[back]} s after ${series.t[back - 1]} s`
      });
  });
export type Series = z.infer<typeof seriesSchema>;

/**
 * Finds the first sample that is not later than the one before it; -1 where time goes on.
 * @example goesBackAt([1, 2, 2]) // 2
 */
export function goesBackAt(t: readonly number[]): number {
  for (let i = 1; i < t.length; i++) if (!((t[i] as number) > (t[i - 1] as number))) return i;
  return -1;
}

/**
 * Adds up what was moved, GB: each rate over the time since the sample before.
 * @example movedGB({ t: [10, 20], MBps: [100, 300] }) // 4
 */
export function movedGB({ t, MBps }: Pick<Series, 't' | 'MBps'>): number {
  let moved = 0;
  for (let i = 0; i < t.length; i++) moved += (MBps[i] ?? 0) * ((t[i] as number) - (t[i - 1] ?? 0));
  return moved / 1000;
}

/**
 * Takes a stretch of a series, both ends included.
 * @example sliceSeries({ t: [1, 2, 3], MBps: [5, 6, 7] }, 1, 3).MBps // [6, 7]
 */
export function sliceSeries(series: Series, from: number, to: number): Series {
  const cut: Partial<Record<SeriesColumn | 't', number[]>> = { t: series.t.slice(from, to) };
  for (const id of SERIES_COLUMN_IDS) {
    const values = series[id];
    if (values) cut[id] = values.slice(from, to);
  }
  return cut as Series;
}
