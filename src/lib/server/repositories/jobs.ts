import type { Knex } from 'knex';
import { jobProblems, jobSchema, type Job } from '#core/parts/job';
import { change, newId, type ChangeResult } from '../db/change';
import { likeWords } from './like';
import { notFound, Problem } from '../problems/problem';
import { partOfList, type Part, type PartOf } from './keyset';

export type StoredJob = { id: string; version: number; spec: Job & { id: string } };
type By = { by: string; at: string };

const fromRow = (row: Record<string, unknown>): StoredJob => ({
  id: row.id as string,
  version: row.version as number,
  spec: { ...jobSchema.parse(row.spec), id: row.id as string }
});

export async function listJobs(db: Knex, crateId: string, ids?: readonly string[]): Promise<StoredJob[]> {
  const rows = db('jobs').where({ crate_id: crateId }).orderBy('name');
  if (ids) rows.whereIn('id', [...ids]);
  return (await rows).map(fromRow);
}

/** Part of the jobs of a crate, by name. */
export const jobsAfter = (db: Knex, { crateId, ...part }: { crateId: string } & Part): Promise<PartOf<StoredJob>> =>
  partOfList(
    db('jobs').where({ crate_id: crateId }),
    [
      ['name', 'asc'],
      ['id', 'asc']
    ],
    part,
    fromRow
  );

/** One page of the jobs of a crate, by their names. @returns `total` of those that match, and how many there are in all */
export async function jobTable(
  db: Knex,
  { crateId, find, page, size }: { crateId: string; find: string; page: number; size: number }
): Promise<{ rows: StoredJob[]; total: number; all: number }> {
  const narrowed = () => {
    const rows = db('jobs').where({ crate_id: crateId });
    for (const like of likeWords(find)) rows.whereRaw('lower(name) like ?', [like]);
    return rows;
  };
  const count = (rows: Knex.QueryBuilder) => rows.count({ n: '*' }).first() as Promise<{ n: number | string }>;
  const [rows, total, all] = await Promise.all([
    narrowed()
      .orderBy('name')
      .orderBy('id')
      .limit(size)
      .offset((page - 1) * size) as Promise<Record<string, unknown>[]>,
    count(narrowed()),
    count(db('jobs').where({ crate_id: crateId }))
  ]);
  return { rows: rows.map(fromRow), total: Number(total.n), all: Number(all.n) };
}

/** @throws Problem `not-found` */
export async function getJob(db: Knex, args: { crateId: string; id: string }): Promise<StoredJob> {
  const row = await db('jobs').where({ crate_id: args.crateId, id: args.id }).first();
  if (!row) throw notFound('job');
  return fromRow(row);
}

export function jobToRow(spec: Job) {
  const { id: _id, ...rest } = spec;
  return { name: spec.name, spec: rest };
}

/** @throws Problem `bad-input` where its figures contradict each other */
function refuseContradiction(spec: Job): void {
  const [first, ...more] = jobProblems(spec).map(({ path, message }) => ({ path: `spec.${path}`, message }));
  if (first) throw new Problem('bad-input', `${first.path}: ${first.message}.`, [first, ...more]);
}

export async function createJob(
  db: Knex,
  args: { crateId: string; spec: Job; id?: string } & By
): Promise<ChangeResult> {
  const { crateId, spec, by, at, id = newId() } = args;
  refuseContradiction(spec);
  return change(db, {
    action: 'insert',
    table: 'jobs',
    crateId,
    id,
    by,
    at,
    event: { kind: 'added', message: `Added the job ${spec.name}.` },
    row: jobToRow(spec)
  });
}

export async function updateJob(
  db: Knex,
  args: { crateId: string; id: string; version: number; spec: Job } & By
): Promise<ChangeResult> {
  const { crateId, id, version, spec, by, at } = args;
  refuseContradiction(spec);
  return change(db, {
    action: 'update',
    table: 'jobs',
    crateId,
    id,
    version,
    by,
    at,
    event: { kind: 'edited', message: `Edited the job ${spec.name}.` },
    row: jobToRow(spec)
  });
}

export async function deleteJob(
  db: Knex,
  args: { crateId: string; id: string; version: number } & By
): Promise<ChangeResult> {
  const { crateId, id, version, by, at } = args;
  const { spec } = await getJob(db, args);
  return change(db, {
    action: 'delete',
    table: 'jobs',
    crateId,
    id,
    version,
    by,
    at,
    event: { kind: 'deleted', message: `Deleted the job ${spec.name}.` }
  });
}
