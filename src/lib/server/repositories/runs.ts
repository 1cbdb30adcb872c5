import type { Knex } from 'knex';
import { z } from 'zod';
import { conditionsSchema, type Conditions } from '#core/results/conditions';
import { PROTOCOL_LABEL } from '#core/results/newest';
import { PROTOCOL_IDS, type ProtocolId } from '#core/results/protocol-ids';
import { foundSchema, type FoundLater } from '#core/diagnosis/found';
import { resultsSchema, type PairResults } from '#core/results/run';
import { settingsSchema, type Settings } from '#core/results/settings';
import type { MeasuredRun } from '#core/results/measured';
import type { LinkMode } from '#core/facts/link-modes';
import type { ChainIds } from '#core/build/chain-key';
import { SIMULATED_FAULTS } from '#core/simulate/faults';
import type { Series } from '#core/series/series';
import { planInputSchema } from '#core/plan/report';
import { phaseSchema } from '#core/protocols/phase';
import { partOfList, type Part, type PartOf } from './keyset';
import { likeWords } from './like';
import { change, newId, type ChangeResult } from '../db/change';
import { writing } from '../db/writing';
import { notFound, Problem } from '../problems/problem';
import { deleteFilesOf } from './attachments';
import { keepSeries, seriesMetaSchema, type SeriesMeta } from './run-series';

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
export type Chain = z.infer<typeof chainSchema>;

/** How a run on the stand-in rig goes on. `paused` may be resumed: it was cancelled, or broken off. */
export const rigStateSchema = z.strictObject({
  state: z.enum(['running', 'paused', 'done', 'ended']),
  taskId: z.string().nullable(),
  seed: z.number(),
  speed: z.number(),
  fault: z.enum(SIMULATED_FAULTS).nullable(),
  sampled: z.number().describe('samples that are kept'),
  atS: z.number().describe('how far it is, s of the run'),
  wantedS: z.number().describe('how long it takes about'),
  buildVersion: z.number().describe('of the build when it began'),
  why: z.string().nullable().describe('why it is not running, in a sentence')
});
export type RigState = z.infer<typeof rigStateSchema>;

/** What the rig keeps beside its state, so that it can go on with the very parts it began with. */
export const rigRowSchema = rigStateSchema.extend({
  input: planInputSchema,
  phases: z.array(phaseSchema).max(500),
  boundedGB: z.number().optional(),
  otherRates: z.strictObject({ readMBps: z.number(), writeMBps: z.number() }).optional()
});
export type RigRow = z.infer<typeof rigRowSchema>;

export const storedRunSchema = z.strictObject({
  id: z.string(),
  version: z.number(),
  buildId: z.string().nullable(),
  hostId: z.string().nullable(),
  modelId: z.string().nullable(),
  protocol: z.enum(PROTOCOL_IDS),
  date: z.string(),
  at: z.string().describe('when it was kept'),
  simulated: z.boolean(),
  results: resultsSchema,
  conditions: conditionsSchema,
  chain: chainSchema,
  accepted: z.array(z.string()),
  settings: settingsSchema.nullable(),
  series: seriesMetaSchema.nullable(),
  rig: rigStateSchema.nullable(),
  found: foundSchema.nullable().describe('what was found out about it afterwards')
});
export type StoredRun = z.infer<typeof storedRunSchema>;
type By = { by: string; at: string };

export const runFromRow = (row: Record<string, unknown>): StoredRun =>
  storedRunSchema.parse({
    id: row.id,
    version: row.version,
    buildId: row.build_id ?? null,
    hostId: row.host_id ?? null,
    modelId: row.model_id ?? null,
    protocol: row.protocol,
    date: row.date,
    at: row.created_at,
    simulated: row.simulated === 1,
    results: row.results,
    conditions: row.conditions,
    chain: row.chain,
    accepted: row.accepted,
    settings: row.settings ?? null,
    series: row.series ?? null,
    // What the rig keeps for itself beside its state stays here.
    rig: row.rig ? rigOf(row.rig as Record<string, unknown>) : null,
    found: row.found ?? null
  });
function rigOf({
  input: _input,
  phases: _phases,
  otherRates: _other,
  boundedGB: _bounded,
  ...state
}: Record<string, unknown>) {
  return state;
}

/** More results than this nobody plans with. */
const MOST_RUNS = 5000;

export type RunFilter = {
  crateId: string;
  buildId?: string | undefined;
  buildIds?: readonly string[] | undefined;
  hostId?: string | undefined;
  modelId?: string | undefined;
  protocol?: ProtocolId | undefined;
  limit?: number | undefined;
};

const runsOf = (db: Knex, { crateId, buildId, buildIds, hostId, modelId, protocol }: RunFilter): Knex.QueryBuilder =>
  db('runs')
    .where({
      crate_id: crateId,
      ...(buildId ? { build_id: buildId } : {}),
      ...(hostId ? { host_id: hostId } : {}),
      ...(modelId ? { model_id: modelId } : {}),
      ...(protocol ? { protocol } : {})
    })
    .where((only) => void (buildIds && only.whereIn('build_id', [...buildIds])));

const NEWEST_FIRST = [
  ['date', 'desc'],
  ['id', 'desc']
] as const;

/** Newest first. */
export async function listRuns(db: Knex, filter: RunFilter): Promise<StoredRun[]> {
  const query = runsOf(db, filter);
  for (const [column, way] of NEWEST_FIRST) query.orderBy(column, way);
  if (filter.limit) query.limit(filter.limit);
  return (await query).map(runFromRow);
}

/** Part of the results of a crate, newest first. */
export const runsAfter = (db: Knex, { limit, after, ...filter }: RunFilter & Part): Promise<PartOf<StoredRun>> =>
  partOfList(runsOf(db, filter), NEWEST_FIRST, { limit, after }, runFromRow);

/** What the table of results can be sorted by: the newest first, the fastest first, or by what was measured. */
const RUN_ORDER = {
  date: [['runs.date', 'desc']],
  write: [['runs.write_MBps', 'desc']],
  of: [["coalesce(builds.tag, json_value(runs.chain, '$.drive'))", 'asc']]
} as const;
export type RunSort = keyof typeof RUN_ORDER;
export const RUN_SORTS = Object.keys(RUN_ORDER) as [RunSort, ...RunSort[]];

/** One page of the results of a crate, each with the build it is of. Words are looked for in builds, drives and ways of measuring. */
export async function runTable(
  db: Knex,
  args: {
    crateId: string;
    protocol?: ProtocolId | undefined;
    find: string;
    sort: RunSort;
    page: number;
    size: number;
  }
): Promise<{ rows: (StoredRun & { tag: string | null; name: string | null })[]; total: number; all: number }> {
  const { crateId, protocol, find, sort, page, size } = args;
  const joined = () => db('runs').leftJoin('builds', 'builds.id', 'runs.build_id');
  const narrowed = (from: Knex.QueryBuilder) => {
    const rows = from.where({ 'runs.crate_id': crateId });
    if (protocol) rows.where({ protocol });
    for (const like of likeWords(find)) {
      const word = like.slice(1, -1).replaceAll('\\', '');
      const ways = PROTOCOL_IDS.filter((id) => PROTOCOL_LABEL[id].includes(word));
      rows.where((any) =>
        any
          .whereRaw("lower(concat_ws(' ', builds.tag, builds.name, json_value(runs.chain, '$.drive'))) like ?", [like])
          .orWhereIn('runs.protocol', ways)
      );
    }
    return rows;
  };
  const count = (rows: Knex.QueryBuilder) => rows.count({ n: '*' }).first() as Promise<{ n: number | string }>;
  const ordered = narrowed(joined());
  for (const [by, way] of RUN_ORDER[sort]) ordered.orderByRaw(`${by} ${way}`);
  const [rows, total, all] = await Promise.all([
    ordered
      .orderBy('runs.id', sort === 'of' ? 'asc' : 'desc')
      .limit(size)
      .offset((page - 1) * size)
      .select('runs.*', 'builds.tag as build_tag', 'builds.name as build_name') as Promise<Record<string, unknown>[]>,
    // What is only counted needs no builds, unless they are looked for.
    count(narrowed(find.trim() ? joined() : db('runs'))),
    count(db('runs').where({ crate_id: crateId }))
  ]);
  return {
    rows: rows.map((row) => ({
      ...runFromRow(row),
      tag: row.build_tag as string | null,
      name: row.build_name as string | null
    })),
    total: Number(total.n),
    all: Number(all.n)
  };
}

/** @throws Problem `not-found` */
export async function getRun(db: Knex, where: { crateId: string; id: string }): Promise<StoredRun> {
  const row = (await db('runs').where({ crate_id: where.crateId, id: where.id }).first()) as
    Record<string, unknown> | undefined;
  if (!row) throw notFound('result');
  return runFromRow(row);
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
    // The internal disk of the computer was measured then, and not this chain.
    .whereNot({ protocol: 'baseline' })
    .orderBy('date', 'desc')
    .orderBy('id', 'desc')
    .limit(500)
    .select('results', 'chain', 'date', 'simulated')) as {
    results: PairResults;
    chain: Chain;
    date: string;
    simulated: number;
  }[];
  return rows.flatMap(({ results, chain, date, simulated }) => {
    const { hostId, portId, enclosureId, driveId } = chain.ids;
    if (!hostId || !portId || !enclosureId || !driveId) return [];
    const { readMBps, writeMBps } = results;
    if (readMBps === undefined && writeMBps === undefined) return [];
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

/** What a run hangs on, by the column that names it. */
export type RunSubject = { build_id: string } | { host_id: string } | { model_id: string };

export type NewRun = {
  protocol?: ProtocolId;
  date: string;
  results: PairResults;
  conditions: Conditions;
  chain: Chain;
  simulated: boolean;
  accepted: string[];
  settings?: Settings | undefined;
};

/**
 * Keeps a run with its series as one change.
 * @param args.of what the log calls its subject
 */
export function createRun(
  db: Knex,
  args: {
    crateId: string;
    subject: RunSubject;
    of: string;
    run: NewRun;
    series?: Series | undefined;
    phases?: SeriesMeta['phases'];
    id?: string;
  } & By
): Promise<ChangeResult> {
  const { crateId, subject, of, run, series, phases, by, at, id = newId() } = args;
  const { protocol = 'pair-check', settings, ...rest } = run;
  const event = {
    kind: 'measured',
    message: `Entered a ${run.simulated ? 'simulated ' : ''}${PROTOCOL_LABEL[protocol]} of ${of}.`
  };
  return writing(db, crateId, async (trx) => {
    const row = { ...subject, protocol, settings: settings ?? null, ...rest };
    if (!series) return change(trx, { action: 'insert', table: 'runs', crateId, id, by, at, event, row });
    const group = newId();
    const { meta, attach } = await keepSeries(trx, { crateId, runId: id, series, phases, group, by, at });
    const made = await change(trx, {
      action: 'insert',
      table: 'runs',
      crateId,
      id,
      by,
      at,
      group,
      event,
      row: { ...row, series: meta }
    });
    await attach();
    return made;
  });
}

/**
 * Changes the conditions of a run, or what was found out about it.
 * @throws Problem `in-use` while the rig works on it; `conflict` where somebody else was first
 */
export async function updateRun(
  db: Knex,
  args: { crateId: string; id: string; version: number; conditions?: Conditions; found?: FoundLater } & By
): Promise<ChangeResult> {
  const { crateId, id, version, conditions, found, by, at } = args;
  return writing(db, crateId, async (trx) => {
    const run = await getRun(trx, { crateId, id });
    if (run.rig?.state === 'running') throw runningNow();
    const what = conditions ? 'Changed the conditions of' : 'Noted what was found out about';
    const event = { kind: 'edited', message: `${what} a ${PROTOCOL_LABEL[run.protocol]} of ${run.chain.drive}.` };
    const row = { ...(conditions ? { conditions } : {}), ...(found ? { found } : {}) };
    return change(trx, { action: 'update', table: 'runs', crateId, id, version, by, at, event, row });
  });
}

const runningNow = () => new Problem('in-use', 'The rig works on this run just now; cancel it first.');

/** Deletes a run with its series and pictures. @throws Problem `in-use` while the rig works on it */
export async function deleteRun(
  db: Knex,
  args: { crateId: string; buildId?: string; id: string; version: number } & By
): Promise<ChangeResult> {
  const { crateId, buildId, id, version, by, at } = args;
  return writing(db, crateId, async (trx) => {
    const run = await getRun(trx, { crateId, id });
    if (buildId !== undefined && run.buildId !== buildId) throw notFound('result');
    if (run.rig?.state === 'running') throw runningNow();
    const group = newId();
    await deleteFilesOf(trx, { crateId, table: 'runs', id, what: 'a result', by, at, group });
    return change(trx, {
      action: 'delete',
      table: 'runs',
      crateId,
      id,
      version,
      by,
      at,
      group,
      event: { kind: 'deleted', message: `Deleted a ${PROTOCOL_LABEL[run.protocol]} of ${run.chain.drive}.` }
    });
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
    .select('results', 'chain', 'date', 'simulated', 'accepted', 'protocol');
  if (!args.simulated) query.where('simulated', false);
  if (args.driveIds) {
    if (args.driveIds.length === 0) return [];
    query.whereIn('drive_id', [...args.driveIds]);
  }
  const rows = (await query) as {
    results: PairResults;
    chain: Chain;
    date: string;
    simulated: number;
    accepted: string[];
    protocol: ProtocolId;
  }[];
  return rows.flatMap(({ results, chain, date, simulated, accepted, protocol }) => {
    const { hostId, portId, cableId, enclosureId, driveId } = chain.ids;
    if (accepted.length > 0 || !hostId || !portId || !enclosureId || !driveId) return [];
    // The internal disk of the computer was measured, and not this chain.
    if (protocol === 'baseline') return [];
    return [
      {
        ids: { hostId, portId, cableId, enclosureId, driveId },
        run: { date, simulated: simulated === 1, results }
      }
    ];
  });
}
