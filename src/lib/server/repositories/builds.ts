import type { Knex } from 'knex';
import { z } from 'zod';
import { choiceSchema, type Choice } from '#core/build/choice';
import { STAGE_LABEL, STAGES, type BuildStage } from '#core/build/stages';
import { planInputSchema, planReportSchema, type PlanInput, type PlanReport } from '#core/plan/report';
import { change, newId, type ChangeResult } from '../db/change';
import { writing } from '../db/writing';
import { notFound } from '../problems/problem';
import { deleteFilesOf } from './attachments';
import { likeWords } from './like';
import { partOfList, type Part, type PartOf } from './keyset';
import { deleteSheetsOf } from './sheets';

export const storedBuildSchema = z.strictObject({
  id: z.string(),
  crateId: z.string(),
  version: z.number(),
  tag: z.string(),
  name: z.string(),
  stage: z.enum(STAGES),
  choice: choiceSchema,
  /** The parts as they were when it was planned, and the plan made from them. */
  snapshot: planInputSchema,
  report: planReportSchema,
  engine: z.string(),
  updatedAt: z.string()
});
export type StoredBuild = z.infer<typeof storedBuildSchema>;
type By = { by: string; at: string };

const fromRow = (row: Record<string, unknown>): StoredBuild =>
  storedBuildSchema.parse({
    id: row.id,
    crateId: row.crate_id,
    version: row.version,
    tag: row.tag,
    name: row.name,
    stage: row.stage,
    choice: row.choice,
    snapshot: row.snapshot,
    report: row.report,
    engine: row.engine,
    updatedAt: row.updated_at
  });

/** How many builds a crate has. */
export async function countBuilds(db: Knex, crateId: string): Promise<number> {
  const row = (await db('builds').where({ crate_id: crateId }).count({ n: '*' }).first()) as { n: number | string };
  return Number(row.n);
}

export async function listBuilds(db: Knex, crateId: string, ids?: readonly string[]): Promise<StoredBuild[]> {
  const rows = db('builds').where({ crate_id: crateId }).orderBy('tag');
  if (ids) rows.whereIn('id', [...ids]);
  return (await rows).map(fromRow);
}

/** Part of the builds of a crate, by tag. */
export const buildsAfter = (db: Knex, { crateId, ...part }: { crateId: string } & Part): Promise<PartOf<StoredBuild>> =>
  partOfList(db('builds').where({ crate_id: crateId }), [['tag', 'asc']], part, fromRow);

/** A build without what it was planned from, and the plan: little, where many are looked through. */
export type BriefBuild = Pick<StoredBuild, 'id' | 'tag' | 'name' | 'stage' | 'version' | 'choice' | 'engine'> & {
  updatedAt: string;
};
const BRIEF = ['id', 'tag', 'name', 'stage', 'version', 'choice', 'engine', 'updated_at as updatedAt'];

/** Lists builds in brief, by their tags. */
export function listBrief(db: Knex, crateId: string, ids?: readonly string[]): Promise<BriefBuild[]> {
  const rows = db('builds').where({ crate_id: crateId }).orderBy('tag');
  if (ids) rows.whereIn('id', [...ids]);
  return rows.select(BRIEF);
}

/** A build as it is picked from a list. */
export const namedBuildSchema = z.strictObject({
  id: z.string(),
  tag: z.string(),
  name: z.string(),
  stage: z.enum(STAGES)
});
export type NamedBuild = z.infer<typeof namedBuildSchema>;

/**
 * Finds builds by words in their tags and names, so many at most.
 * @param args.inUse without those that are retired
 * @returns `total` of all that match
 */
export async function findBuilds(
  db: Knex,
  args: { crateId: string; find?: string | undefined; limit: number; inUse?: boolean }
): Promise<{ builds: NamedBuild[]; total: number }> {
  const { crateId, find = '', limit, inUse = false } = args;
  const narrowed = () => {
    const rows = db('builds').where({ crate_id: crateId });
    if (inUse) rows.whereNot({ stage: 'retired' });
    for (const like of likeWords(find)) rows.whereRaw("lower(concat_ws(' ', tag, name)) like ?", [like]);
    return rows;
  };
  const [builds, counted] = await Promise.all([
    narrowed().orderBy('tag').limit(limit).select('id', 'tag', 'name', 'stage') as Promise<NamedBuild[]>,
    narrowed().count({ n: '*' }).first() as Promise<{ n: number | string }>
  ]);
  return { builds, total: Number(counted.n) };
}

/** What builds were made from, by their tags. */
export async function choicesByTag(
  db: Knex,
  crateId: string,
  tags: readonly string[]
): Promise<{ tag: string; name: string; choice: Choice }[]> {
  return db('builds')
    .where({ crate_id: crateId })
    .whereIn('tag', [...tags])
    .orderBy('tag')
    .select('tag', 'name', 'choice');
}

/** The builds in use that were paired with a computer, so many at most. */
export async function choicesOnHost(
  db: Knex,
  args: { crateId: string; hostId: string; limit: number }
): Promise<{ tag: string; name: string; choice: Choice }[]> {
  return db('builds')
    .where({ crate_id: args.crateId, host_id: args.hostId })
    .whereNot({ stage: 'retired' })
    .orderBy('tag')
    .limit(args.limit)
    .select('tag', 'name', 'choice');
}

/** How many builds in use each computer has. */
export async function buildsPerHost(db: Knex, crateId: string): Promise<Map<string, number>> {
  const rows: { host: string; n: number | string }[] = await db('builds')
    .where({ crate_id: crateId })
    .whereNot({ stage: 'retired' })
    .groupBy('host_id')
    .select('host_id as host')
    .count({ n: '*' });
  return new Map(rows.map(({ host, n }) => [host, Number(n)]));
}

/** Lists the tags of the builds that were made for each of some jobs. */
export async function buildsByJob(
  db: Knex,
  crateId: string,
  jobIds: readonly string[]
): Promise<Map<string, string[]>> {
  if (jobIds.length === 0) return new Map();
  const rows: { tag: string; job: string | null }[] = await db('builds')
    .where({ crate_id: crateId })
    .whereIn('job_id', [...jobIds])
    .orderBy('tag')
    .select('tag', 'job_id as job');
  const byJob = new Map<string, string[]>();
  for (const { tag, job } of rows) if (job !== null) byJob.set(job, [...(byJob.get(job) ?? []), tag]);
  return byJob;
}

/** Tags alone, for what names a build by its tag. */
export function buildTags(db: Knex, crateId: string): Promise<{ id: string; tag: string }[]> {
  return db('builds').where({ crate_id: crateId }).select('id', 'tag');
}

/** Lists the tags of the builds that use a part, by their choices. */
export async function tagsOfBuildsWith(db: Knex, where: { crateId: string; modelId: string }): Promise<string[]> {
  const rows: { tag: string }[] = await db('builds')
    .where({ crate_id: where.crateId })
    .whereRaw('JSON_SEARCH(choice, ?, ?) IS NOT NULL', ['one', where.modelId])
    .orderBy('tag')
    .select('tag');
  return rows.map(({ tag }) => tag);
}

/** @throws Problem `not-found` */
export async function getBuild(
  db: Knex,
  where: { tag: string } | { id: string; crate_id?: string }
): Promise<StoredBuild> {
  const row = await db('builds')
    .join('crates', 'crates.id', 'builds.crate_id')
    .whereNull('crates.deleted_at')
    .where(Object.fromEntries(Object.entries(where).map(([column, value]) => [`builds.${column}`, value])))
    .first('builds.*');
  if (!row) throw notFound('build');
  return fromRow(row);
}

type Planned = { name: string; stage: BuildStage; choice: Choice; snapshot: PlanInput; report: PlanReport };
const toRow = ({ name, stage, choice, snapshot, report }: Planned) => ({
  name,
  stage,
  choice,
  snapshot,
  report,
  engine: report.engine
});

const BUILD_TAGS = 'build tags';

/**
 * Tags count up over all crates, so that a label leads to one page. The counter's row stays locked until the build is saved, so
 * that builds saved at once wait for each other; a deleted build keeps its number, for its label may still stick.
 */
async function takeTag(trx: Knex, wanted: string | undefined): Promise<string> {
  const counter = () => trx('counters').where({ name: BUILD_TAGS });
  // Somebody else's build may have taken the number before the demo grew to it.
  const free = wanted !== undefined && !(await trx('builds').where({ tag: wanted }).first('id'));
  const value = free ? trx.raw('greatest(value, ?)', [Number(wanted.slice(3))]) : trx.raw('value + 1');
  await counter().update({ value });
  const counted = (await counter().first('value')) as { value: number };
  return free ? wanted : `AC-${String(counted.value).padStart(4, '0')}`;
}

/** @param args.tag for the demo, whose builds keep their tags through every reset, unless somebody else's has it by now */
export async function createBuild(
  db: Knex,
  args: { crateId: string; build: Planned; id?: string; tag?: string } & By
): Promise<ChangeResult & { tag: string }> {
  const { crateId, build, by, at, id = newId() } = args;
  return writing(db, crateId, async (trx) => {
    const tag = await takeTag(trx, args.tag);
    const event = { kind: 'planned', message: `Saved ${tag}, ${build.name}.` };
    const row = { tag, ...toRow(build) };
    return { ...(await change(trx, { action: 'insert', table: 'builds', crateId, id, by, at, event, row })), tag };
  });
}

export async function updateBuild(
  db: Knex,
  args: { crateId: string; id: string; version: number; build: Planned } & By
): Promise<ChangeResult> {
  const { crateId, id, version, build, by, at } = args;
  const current = await getBuild(db, { crate_id: crateId, id });
  const event =
    current.stage === build.stage
      ? { kind: 'edited', message: `Changed ${current.tag}, ${build.name}.` }
      : { kind: 'stage', message: `${current.tag} is now ${STAGE_LABEL[build.stage]}.` };
  return change(db, { action: 'update', table: 'builds', crateId, id, version, by, at, event, row: toRow(build) });
}

/** Deletes a build with its results, observations, run sheets and files as one group; the units in it lie free then. */
export async function deleteBuild(
  db: Knex,
  args: { crateId: string; id: string; version: number } & By
): Promise<ChangeResult> {
  const { crateId, id, version, by, at } = args;
  return writing(db, crateId, async (trx) => {
    const { tag, name } = await getBuild(trx, { crate_id: crateId, id });
    const group = newId();
    for (const [table, what] of [
      ['runs', 'a result'],
      ['observations', 'an observation']
    ] as const)
      for (const row of await trx(table).where({ build_id: id })) {
        if (table === 'runs')
          await deleteFilesOf(trx, { crateId, table, id: row.id, what: `a result of ${tag}`, by, at, group });
        await change(trx, {
          action: 'delete',
          table,
          crateId,
          id: row.id,
          version: row.version,
          by,
          at,
          group,
          event: { kind: 'deleted', message: `Deleted ${what} of ${tag}.` }
        });
      }
    await deleteSheetsOf(trx, { crateId, buildId: id, by, at, group });
    await deleteFilesOf(trx, { crateId, table: 'builds', id, what: tag, by, at, group });
    const held = (await trx('units').where({ crate_id: crateId, build_id: id }).select('id', 'version', 'tag')) as {
      id: string;
      version: number;
      tag: string;
    }[];
    for (const unit of held)
      await change(trx, {
        action: 'update',
        table: 'units',
        crateId,
        id: unit.id,
        version: unit.version,
        by,
        at,
        group,
        event: { kind: 'edited', message: `${unit.tag} is free: ${tag} was deleted.` },
        row: { build_id: null }
      });
    return change(trx, {
      action: 'delete',
      table: 'builds',
      crateId,
      id,
      version,
      by,
      at,
      group,
      event: { kind: 'deleted', message: `Deleted ${tag}, ${name}.` }
    });
  });
}
