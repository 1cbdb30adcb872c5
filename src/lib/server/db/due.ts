import type { Knex } from 'knex';
import type { Row, StoredTable } from './stored-table';

/** The verdict, and the tone, of a build that is being judged: behind all others. */
export const BEING_JUDGED = 9;
/** What stands in a judgement that may be wrong: nothing that a list could show, sort or count by. The same where there is no such figure. */
export const TAKEN_AWAY = {
  verdict: BEING_JUDGED,
  tone: BEING_JUDGED,
  write_MBps: -1,
  measured_MBps: -1,
  per_TB: 1e12
} as const;

type Where = (rows: Knex.QueryBuilder) => unknown;

async function due(trx: Knex, crateId: string, where: Where = () => {}): Promise<void> {
  const rows = trx('judgements').where({ crate_id: crateId });
  where(rows);
  await rows.update({ ...TAKEN_AWAY, due: trx.raw('due + 1') });
}

const withPart =
  (id: unknown): Where =>
  (rows) =>
    rows.where((any) => {
      for (const column of ['host_id', 'cable_id', 'enclosure_id', 'drive_id']) any.orWhere({ [column]: id });
    });
const ofBuild =
  (id: unknown): Where =>
  (rows) =>
    rows.where({ build_id: id });

async function isPad(trx: Knex, id: unknown): Promise<boolean> {
  return (await trx('models').where({ id, kind: 'pad' }).first('id')) !== undefined;
}

/** A part, or what is known of one: its builds, and every build for a pad, which any of them may need. */
const ofPart = async (trx: Knex, crateId: string, id: unknown): Promise<void> =>
  due(trx, crateId, (await isPad(trx, id)) ? undefined : withPart(id));

type Change = { crateId: string; id: string; before: Row | null; after: Row | null };
type Marks = (trx: Knex, change: Change & { row: Row }) => Promise<void>;

/** Which builds have to be judged again after a change of each table. Rather too many than one too few: they are looked through at once. */
const MARKS: Record<StoredTable, Marks> = {
  crates: (trx, { crateId }) => due(trx, crateId),
  rates: (trx, { crateId }) => due(trx, crateId),
  models: (trx, { crateId, id, row }) => due(trx, crateId, row.kind === 'pad' ? undefined : withPart(id)),
  units: async (trx, { crateId, before, after }) => {
    for (const id of new Set([before?.model_id, after?.model_id])) if (id) await ofPart(trx, crateId, id);
  },
  quotes: async (trx, { crateId, before, after }) => {
    for (const id of new Set([before?.part_id, after?.part_id])) if (id) await ofPart(trx, crateId, id);
  },
  jobs: (trx, { crateId, id }) => due(trx, crateId, (rows) => rows.where({ job_id: id })),
  pairs: async (trx, { crateId, before, after }) => {
    for (const id of new Set([before?.drive_id, after?.drive_id])) if (id) await due(trx, crateId, withPart(id));
  },
  builds: (trx, { crateId, id }) => due(trx, crateId, ofBuild(id)),
  // What was measured counts for its build, and for every build that is the same chain.
  runs: async (trx, { crateId, before, after }) => {
    const [then, now] = [before ?? {}, { ...before, ...after }];
    for (const id of new Set([then.build_id, now.build_id])) if (id) await due(trx, crateId, ofBuild(id));
    for (const id of new Set([driveOf(then), driveOf(now)])) if (id) await due(trx, crateId, withPart(id));
  },
  observations: (trx, { crateId, row }) => due(trx, crateId, ofBuild(row.build_id)),
  sheets: (trx, { crateId, row }) => due(trx, crateId, ofBuild(row.build_id)),
  checks: (trx, { crateId, row }) =>
    due(trx, crateId, (rows) => rows.whereIn('build_id', trx('sheets').where({ id: row.sheet_id }).select('build_id'))),
  // Pictures and files say nothing of a plan.
  attachments: async () => {}
};

/** The drive of the chain that a run was measured on; its column comes as an object or as its text. */
function driveOf({ chain }: Row): string | undefined {
  const read = typeof chain === 'string' ? (JSON.parse(chain) as unknown) : chain;
  return (read as { ids?: { driveId?: string } } | undefined)?.ids?.driveId;
}

/**
 * Marks the builds whose judgement a change of a stored row may alter, in the transaction of the change: whoever reads after it finds
 * them to be judged, and never what they were judged as before.
 */
export function markDue(trx: Knex, table: StoredTable, change: Change): Promise<void> {
  return MARKS[table](trx, { ...change, row: { ...change.before, ...change.after } });
}

/** Marks every build of a crate: after many changes at once. */
export const markAllDue = (trx: Knex, crateId: string): Promise<void> => due(trx, crateId);
