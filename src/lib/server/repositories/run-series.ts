import { promisify } from 'node:util';
import { brotliCompress, brotliDecompress, constants } from 'node:zlib';
import type { Knex } from 'knex';
import { z } from 'zod';
import { PROTOCOL_WORKS } from '#core/protocols/phase';
import { packSeries, unpackSeries } from '#core/series/pack';
import { movedGB, SERIES_COLUMN_IDS, type Series, type SeriesColumn } from '#core/series/series';
import { change, newId } from '../db/change';
import { notFound } from '../problems/problem';
import { keepFile, SERIES_TYPE } from './attachments';

const compress = promisify(brotliCompress);
const decompress = promisify(brotliDecompress);

/** What a run says of its series without reading it. */
export const seriesMetaSchema = z.strictObject({
  fileId: z.string(),
  samples: z.number(),
  seconds: z.number(),
  columns: z.array(z.string()),
  movedGB: z.number(),
  phases: z
    .array(
      z.strictObject({
        label: z.string().max(120),
        fromS: z.number(),
        toS: z.number(),
        work: z.enum(PROTOCOL_WORKS).optional()
      })
    )
    .max(500)
    .optional()
    .describe('steps of the protocol, where it is known when each was')
});
export type SeriesMeta = z.infer<typeof seriesMetaSchema>;

/** Name of the file that a series is kept as, beside the pictures of its run. */
const FILE_NAME = 'series.br';
/** A series of a million samples and six columns packs into less than this; what unpacks to more is none. */
const LARGEST = 64_000_000;

type By = { by: string; at: string };

/**
 * Packs a series into a content of the crate; `attach` then hangs it on its run, once that is there. It so comes into backups and bundles,
 * goes with its run, and comes back with it, as every file.
 */
export async function keepSeries(
  trx: Knex.Transaction,
  args: {
    crateId: string;
    runId: string;
    series: Series;
    phases?: SeriesMeta['phases'];
    group: string;
  } & By
): Promise<{ meta: SeriesMeta; attach: () => Promise<void> }> {
  const { crateId, runId, series, phases, group, by, at } = args;
  const packed = await compress(packSeries(series), {
    params: { [constants.BROTLI_PARAM_QUALITY]: 5, [constants.BROTLI_PARAM_MODE]: constants.BROTLI_MODE_GENERIC }
  });
  const sha256 = await keepFile(trx, crateId, packed);
  const fileId = newId();
  const meta: SeriesMeta = {
    fileId,
    samples: series.t.length,
    seconds: series.t.at(-1) ?? 0,
    columns: SERIES_COLUMN_IDS.filter((id) => series[id]),
    movedGB: movedGB(series),
    ...(phases ? { phases } : {})
  };
  const attach = async () => {
    await change(trx, {
      action: 'insert',
      table: 'attachments',
      crateId,
      id: fileId,
      by,
      at,
      group,
      event: null,
      row: {
        subject_table: 'runs',
        subject_id: runId,
        name: FILE_NAME,
        type: SERIES_TYPE,
        size: packed.length,
        sha256
      }
    });
  };
  return { meta, attach };
}

/** Reads a kept series. @throws Problem `not-found` where its content is gone */
export async function readSeries(db: Knex, args: { crateId: string; fileId: string }): Promise<Series> {
  const file = (await db('attachments as a')
    .join('files as f', (on) => on.on('f.crate_id', 'a.crate_id').andOn('f.sha256', 'a.sha256'))
    .where({ 'a.crate_id': args.crateId, 'a.id': args.fileId, 'a.type': SERIES_TYPE })
    .first('f.content')) as { content: Buffer } | undefined;
  if (!file) throw notFound('series');
  try {
    return unpackSeries(await decompress(file.content, { maxOutputLength: LARGEST }));
  } catch {
    // Somebody put something else there, through a bundle of their own making.
    throw notFound('series');
  }
}

/** Appends what the rig has sampled. @returns false where the run is gone */
export async function appendSamples(
  db: Knex,
  args: { crateId: string; runId: string; first: number; samples: Series }
): Promise<boolean> {
  const { crateId, runId, first, samples } = args;
  if (!(await db('runs').where({ crate_id: crateId, id: runId }).first('id'))) return false;
  await db('run_samples')
    .insert({ run_id: runId, first, count: samples.t.length, crate_id: crateId, samples: JSON.stringify(samples) })
    // The same ones once more, where the answer to the first time was lost.
    .onConflict(['run_id', 'first'])
    .merge();
  return true;
}

/** What the rig has sampled from an index on, as far as it is kept. */
export async function samplesFrom(
  db: Knex,
  args: { runId: string; from: number; limit?: number }
): Promise<{ first: number; samples: Series }[]> {
  const { runId, from, limit = 50 } = args;
  const rows = (await db('run_samples')
    .where({ run_id: runId })
    .whereRaw('first + count > ?', [from])
    .orderBy('first')
    .limit(limit)
    .select('first', 'samples')) as { first: number; samples: string }[];
  return rows.map(({ first, samples }) => ({ first: Number(first), samples: JSON.parse(samples) as Series }));
}

/** All that the rig has sampled, in one; undefined where there is nothing. */
export async function sampledSoFar(db: Knex, runId: string): Promise<Series | undefined> {
  const pieces = await samplesFrom(db, { runId, from: 0, limit: 100_000 });
  const [head] = pieces;
  if (!head) return undefined;
  const whole: Partial<Record<SeriesColumn | 't', number[]>> = {};
  for (const id of ['t', ...SERIES_COLUMN_IDS] as const) {
    if (!head.samples[id]) continue;
    const column: number[] = [];
    for (const { first, samples } of pieces) {
      // Pieces that lie over each other were sent twice.
      const skip = Math.max(0, column.length - first);
      for (const value of (samples[id] ?? []).slice(skip)) column.push(value);
    }
    whole[id] = column;
  }
  return whole as Series;
}

export const forgetSamples = (db: Knex, runId: string): Promise<number> =>
  db('run_samples').where({ run_id: runId }).delete();
