import type { Knex } from 'knex';
import { z } from 'zod';
import { conditionsSchema, type Conditions } from '#core/results/conditions';
import { pairResultsSchema, type PairResults } from '#core/results/run';
import type { MeasuredRun } from '#core/results/measured';
import type { LinkMode } from '#core/facts/link-modes';
import type { ChainIds } from '#core/build/chain-key';
import { change, newId, type ChangeResult } from '../db/change';
import { notFound } from '../problems/problem';

/** Which things were measured: by id and by the name they had. */
export const chainSchema = z.strictObject({
  host: z.string(),
  port: z.string(),
  cable: z.string().optional(),
  enclosure: z.string(),
  drive: z.string(),
  os: z.string(),
  mode: z.custom<LinkMode>().nullable(),
  ids: z.record(z.string(), z.string())
});

export const storedRunSchema = z.strictObject({
  id: z.string(),
  version: z.number(),
  buildId: z.string(),
  protocol: z.literal('pair-check'),
  date: z.string(),
  simulated: z.boolean(),
  results: pairResultsSchema,
  conditions: conditionsSchema,
  chain: chainSchema,
  accepted: z.array(z.string())
});
export type StoredRun = z.infer<typeof storedRunSchema>;
type By = { by: string; at: string };

const fromRow = (row: Record<string, unknown>): StoredRun =>
  storedRunSchema.parse({
    id: row.id,
    version: row.version,
    buildId: row.build_id,
    protocol: row.protocol,
    date: row.date,
    simulated: row.simulated === 1,
    results: row.results,
    conditions: row.conditions,
    chain: row.chain,
    accepted: row.accepted
  });

/** More results than this nobody plans with. */
const MOST_RUNS = 5000;

/** Newest first. */
export async function listRuns(db: Knex, args: { crateId: string; buildId?: string }): Promise<StoredRun[]> {
  const where = { crate_id: args.crateId, ...(args.buildId ? { build_id: args.buildId } : {}) };
  return (await db('runs').where(where).orderBy('date', 'desc').orderBy('id', 'desc')).map(fromRow);
}

/** A result and the models it was measured on, newest first. */
export type MeasuredOn = {
  hostId: string;
  portId: string;
  enclosureId: string;
  driveId: string;
  readMBps?: number;
  writeMBps?: number;
  date: string;
  simulated: boolean;
};

/** The newest results of a crate with what they were measured on, so that a plan elsewhere can stand beside them. */
export async function measuredOn(db: Knex, crateId: string): Promise<MeasuredOn[]> {
  const rows = (await db('runs')
    .where({ crate_id: crateId })
    .orderBy('date', 'desc')
    .orderBy('id', 'desc')
    .limit(500)
    .select('results', 'chain', 'date', 'simulated')) as {
    results: PairResults;
    chain: z.infer<typeof chainSchema>;
    date: string;
    simulated: number;
  }[];
  return rows.flatMap(({ results, chain, date, simulated }) => {
    const { hostId, portId, enclosureId, driveId } = chain.ids;
    if (!hostId || !portId || !enclosureId || !driveId) return [];
    const { readMBps, writeMBps } = results;
    return [
      {
        hostId,
        portId,
        enclosureId,
        driveId,
        ...(readMBps === undefined ? {} : { readMBps }),
        ...(writeMBps === undefined ? {} : { writeMBps }),
        date,
        simulated: simulated === 1
      }
    ];
  });
}

export type NewRun = {
  date: string;
  results: PairResults;
  conditions: Conditions;
  chain: z.infer<typeof chainSchema>;
  simulated: boolean;
  accepted: string[];
};

export function createRun(
  db: Knex,
  args: { crateId: string; buildId: string; tag: string; run: NewRun } & By
): Promise<ChangeResult> {
  const { crateId, buildId, tag, run, by, at } = args;
  const event = { kind: 'measured', message: `Entered a ${run.simulated ? 'simulated ' : ''}speed check of ${tag}.` };
  return change(db, {
    action: 'insert',
    table: 'runs',
    crateId,
    id: newId(),
    by,
    at,
    event,
    row: { build_id: buildId, protocol: 'pair-check', ...run }
  });
}

export async function deleteRun(
  db: Knex,
  args: { crateId: string; buildId: string; id: string; version: number } & By
): Promise<ChangeResult> {
  const { crateId, buildId, id, version, by, at } = args;
  if (!(await db('runs').where({ crate_id: crateId, build_id: buildId, id }).first('id'))) throw notFound('run');
  return change(db, {
    action: 'delete',
    table: 'runs',
    crateId,
    id,
    version,
    by,
    at,
    event: { kind: 'deleted', message: 'Deleted a speed check.' }
  });
}

/**
 * The results that may stand in the place of a forecast, newest first: none that was kept against an alarm, and simulated ones only
 * where they are asked for (a demo crate).
 * @param args.driveIds only of these drives
 */
export async function countingRuns(
  db: Knex,
  args: { crateId: string; simulated: boolean; driveIds?: readonly string[] }
): Promise<{ ids: ChainIds; run: MeasuredRun }[]> {
  const query = db('runs')
    .where({ crate_id: args.crateId })
    .orderBy('date', 'desc')
    .orderBy('id', 'desc')
    .limit(MOST_RUNS)
    .select('results', 'chain', 'date', 'simulated', 'accepted');
  if (!args.simulated) query.where('simulated', false);
  if (args.driveIds) {
    if (args.driveIds.length === 0) return [];
    const places = args.driveIds.map(() => '?').join(', ');
    query.whereRaw(`json_value(chain, '$.ids.driveId') in (${places})`, [...args.driveIds]);
  }
  const rows = (await query) as {
    results: PairResults;
    chain: z.infer<typeof chainSchema>;
    date: string;
    simulated: number;
    accepted: string[];
  }[];
  return rows.flatMap(({ results, chain, date, simulated, accepted }) => {
    const { hostId, portId, cableId, enclosureId, driveId } = chain.ids;
    if (accepted.length > 0 || !hostId || !portId || !enclosureId || !driveId) return [];
    return [
      {
        ids: { hostId, portId, cableId, enclosureId, driveId },
        run: { date, simulated: simulated === 1, results }
      }
    ];
  });
}
