import type { Knex } from 'knex';
import type { Choice } from '#core/build/choice';
import type { NextStep } from '#core/build/next-step';
import { STAGE_LABEL, STAGES, type BuildStage } from '#core/build/stages';
import { VERDICT_ORDER, type Verdict } from '#core/findings/finding';
import { BEING_JUDGED, TAKEN_AWAY } from '../db/due';
import { writing } from '../db/writing';
import { likeWords } from './like';

/** In the order of Today: what stands in the way comes first. */
export const TONES = ['urgent', 'do', 'waits'] as const satisfies readonly NextStep['tone'][];
/** Verdicts in the order of the list, the worst one first. */
const verdictColumn = (verdict: Verdict): number => 3 - VERDICT_ORDER[verdict];

/** A build that is to be judged, and how often anything that it hangs on had changed when it was begun. */
export type Due = { buildId: string; due: number; digest: string | null; row: string | null };

/** What a list sorts, counts and looks for. */
export type ListedColumns = {
  stage: BuildStage;
  verdict: Verdict;
  tone: NextStep['tone'];
  writeMBps: number | undefined;
  measuredMBps: number | undefined;
  perTB: number | undefined;
  words: string;
};

/** Gives every build of a crate a row to be judged in, where one has none: a new one, or all of them where the table was emptied. */
export async function addMissing(db: Knex, crateId: string): Promise<void> {
  const builds: { id: string; tag: string; name: string; stage: BuildStage }[] = await db('builds')
    .leftJoin('judgements', 'judgements.build_id', 'builds.id')
    .where('builds.crate_id', crateId)
    .whereNull('judgements.build_id')
    .select('builds.id', 'builds.tag', 'builds.name', 'builds.stage');
  if (builds.length === 0) return;
  const rows = builds.map(({ id, tag, name, stage }) => ({
    build_id: id,
    crate_id: crateId,
    tag,
    stage: STAGES.indexOf(stage),
    words: wordsOf([tag, name, STAGE_LABEL[stage]])
  }));
  await writing(
    db,
    crateId,
    async (trx) => {
      for (let i = 0; i < rows.length; i += 500)
        await trx('judgements')
          .insert(rows.slice(i, i + 500))
          .onConflict('build_id')
          .ignore();
    },
    { hidden: true }
  );
}

/** What is looked for, as it stands in its column. */
export const wordsOf = (texts: readonly (string | undefined)[]): string =>
  texts
    .filter((text) => text !== undefined)
    .join(' ')
    .toLowerCase()
    .slice(0, 1000);

export type Now = { engine: string; today: string };

/** Takes away what another engine judged, and what was judged for days that are over. */
export async function expireJudgements(db: Knex, crateId: string, { engine, today }: Now): Promise<void> {
  const old = await db('judgements')
    .where({ crate_id: crateId })
    .whereNot({ verdict: BEING_JUDGED })
    .where((any) => any.whereNot({ engine }).orWhere('changes_on', '<=', today))
    .pluck('build_id');
  if (old.length > 0)
    await db('judgements')
      .whereIn('build_id', old)
      .update({ ...TAKEN_AWAY, due: db.raw('due + 1') });
}

/** Those to be judged, the last looked at first. */
export async function dueBuilds(db: Knex, crateId: string, limit: number): Promise<string[]> {
  return db('judgements')
    .where({ crate_id: crateId, verdict: BEING_JUDGED })
    .orderBy('looked_at', 'desc')
    .orderBy('tag')
    .limit(limit)
    .pluck('build_id');
}

/** How many builds a crate has, and how many of them are to be judged. */
export async function countDue(db: Knex, crateId: string): Promise<{ total: number; due: number; missing: number }> {
  const [kept, builds] = (await Promise.all([
    db('judgements')
      .where({ crate_id: crateId })
      .count({ n: '*' })
      .select(db.raw('sum(verdict = ?) as due', [BEING_JUDGED]))
      .first(),
    db('builds').where({ crate_id: crateId }).count({ n: '*' }).first()
  ])) as { n: number | string; due?: number | string | null }[];
  const total = Number(builds?.n ?? 0);
  const missing = total - Number(kept?.n ?? 0);
  return { total, due: Number(kept?.due ?? 0) + missing, missing };
}

/**
 * Begins to judge builds: notes which parts they are of, and how often anything that they hang on has changed. Alone in the crate, so that
 * no change that is not finished yet is missed.
 */
export function beginJudging(db: Knex, crateId: string, buildIds: readonly string[]): Promise<Due[]> {
  return writing(
    db,
    crateId,
    async (trx) => {
      const builds: { id: string; choice: Choice }[] = await trx('builds')
        .whereIn('id', buildIds)
        .select('id', 'choice');
      const known = new Map(
        (
          await trx('judgements')
            .whereIn('build_id', buildIds)
            .select('build_id', 'due', 'digest', 'row', 'host_id', 'cable_id', 'enclosure_id', 'drive_id', 'job_id')
        ).map((row: Record<string, unknown>) => [row.build_id as string, row])
      );
      const begun: Due[] = [];
      for (const { id, choice } of builds) {
        const row = known.get(id);
        if (!row) continue;
        const parts = {
          host_id: choice.hostId,
          cable_id: choice.cableId ?? null,
          enclosure_id: choice.enclosureId,
          drive_id: choice.driveId,
          job_id: choice.jobId ?? null
        };
        if (Object.entries(parts).some(([column, part]) => row[column] !== part))
          await trx('judgements').where({ build_id: id }).update(parts);
        const { due, digest, row: kept } = row as { due: number; digest: string | null; row: string | null };
        begun.push({ buildId: id, due, digest, row: kept });
      }
      return begun;
    },
    { hidden: true }
  );
}

/** What was made of a build. */
export type Kept = Due & {
  engine: string;
  digest: string;
  row: string;
  changesOn: string | undefined;
  columns: ListedColumns;
};

/** Keeps judgements. One during which something changed again is not kept: the build is still to be judged. @returns how many were kept */
export async function keepJudgements(db: Knex, judged: readonly Kept[]): Promise<number> {
  if (judged.length === 0) return 0;
  return db.transaction(async (trx) => {
    let kept = 0;
    for (const { buildId, due, digest, row, engine, changesOn, columns } of judged)
      kept += await trx('judgements')
        .where({ build_id: buildId, due })
        .update({
          digest,
          row,
          engine,
          changes_on: changesOn ?? null,
          stage: STAGES.indexOf(columns.stage),
          verdict: verdictColumn(columns.verdict),
          tone: TONES.indexOf(columns.tone),
          write_MBps: columns.writeMBps ?? TAKEN_AWAY.write_MBps,
          measured_MBps: columns.measuredMBps ?? TAKEN_AWAY.measured_MBps,
          per_TB: columns.perTB ?? TAKEN_AWAY.per_TB,
          words: columns.words
        });
    return kept;
  });
}

/** What a list of builds can be sorted by: upwards, and downwards where what is not known needs another column to come last. */
const SORT_COLUMN = {
  tag: ['tag', 'tag'],
  stage: ['stage', 'stage'],
  verdict: ['verdict', 'verdict'],
  write: ['write_MBps_up', 'write_MBps'],
  measured: ['measured_MBps_up', 'measured_MBps'],
  price: ['per_TB', 'per_TB_down']
} as const;
export type ListSort = keyof typeof SORT_COLUMN;
export const BUILD_SORTS = Object.keys(SORT_COLUMN) as [ListSort, ...ListSort[]];
export type ListQuery = {
  find?: string | undefined;
  sort?: ListSort | undefined;
  down?: boolean | undefined;
  page?: number | undefined;
  size?: number | undefined;
  next?: NextStep['tone'] | undefined;
};

/** A build in a list: its judgement as it was kept, or null where that is being made. */
export type ListedRow = {
  id: string;
  tag: string;
  name: string;
  stage: BuildStage;
  version: number;
  row: string | null;
};

type JoinedRow = ListedRow & { verdict: number };
const joined = (db: Knex) =>
  db('judgements')
    .join('builds', 'builds.id', 'judgements.build_id')
    .select('builds.id', 'builds.tag', 'builds.name', 'builds.stage', 'builds.version')
    .select('judgements.row', 'judgements.verdict');
const listedRow = ({ verdict, row, ...build }: JoinedRow): ListedRow => ({
  ...build,
  row: verdict === BEING_JUDGED ? null : row
});

/** One page of the builds of a crate. @returns `total` of all that are meant */
export async function listJudged(
  db: Knex,
  { crateId, ...query }: { crateId: string } & ListQuery
): Promise<{ rows: ListedRow[]; total: number }> {
  const { find = '', sort = 'tag', down = false, page = 1, size = 25, next } = query;
  const narrow = (rows: Knex.QueryBuilder) => {
    rows.where('judgements.crate_id', crateId);
    if (next) rows.where('judgements.tone', TONES.indexOf(next));
    for (const like of likeWords(find)) rows.where('judgements.words', 'like', like);
    return rows;
  };
  const way = down ? 'desc' : 'asc';
  const ids = narrow(db('judgements'))
    .orderBy(`judgements.${SORT_COLUMN[sort][down ? 1 : 0]}`, way)
    .orderBy('judgements.tag', way)
    .limit(size)
    .offset((page - 1) * size)
    .select('judgements.build_id');
  const [counted, wanted] = await Promise.all([
    narrow(db('judgements')).count({ n: '*' }).first() as Promise<{ n: number | string }>,
    ids as Promise<{ build_id: string }[]>
  ]);
  const rows: JoinedRow[] = await joined(db).whereIn(
    'judgements.build_id',
    wanted.map(({ build_id }) => build_id)
  );
  const byId = new Map(rows.map((row) => [row.id, row]));
  return {
    rows: wanted.flatMap(({ build_id }) => {
      const found = byId.get(build_id);
      return found ? [listedRow(found)] : [];
    }),
    total: Number(counted.n)
  };
}

/** Lists builds in use with their judgements: some by their tags, and the first of the others. */
export async function listInUse(
  db: Knex,
  args: { crateId: string; tags: readonly string[]; others: number }
): Promise<ListedRow[]> {
  const { crateId, tags, others } = args;
  const inUse = () =>
    joined(db)
      .where({ 'judgements.crate_id': crateId })
      .whereNot({ 'builds.stage': 'retired' })
      .orderBy('judgements.tag');
  const [asked, rest] = await Promise.all([
    tags.length > 0 ? inUse().whereIn('builds.tag', [...tags]) : [],
    inUse().limit(others)
  ]);
  const found = new Map([...asked, ...rest].map((row: JoinedRow) => [row.id, row]));
  return [...found.values()].map(listedRow);
}

/** Counts the builds of a crate by what their next step is about; those that are being judged are in none of them. */
export async function countTones(db: Knex, crateId: string): Promise<Record<NextStep['tone'], number>> {
  const rows: { tone: number; n: number | string }[] = await db('judgements')
    .where({ crate_id: crateId })
    .groupBy('tone')
    .select('tone')
    .count({ n: '*' });
  const of = (tone: NextStep['tone']) => Number(rows.find((row) => row.tone === TONES.indexOf(tone))?.n ?? 0);
  return { urgent: of('urgent'), do: of('do'), waits: of('waits') };
}

/** Notes that somebody looks at these, so that they are judged before others. */
export const lookAt = (db: Knex, buildIds: readonly string[], now: number): Promise<number> =>
  db('judgements').whereIn('build_id', buildIds).update({ looked_at: now });

/** Forgets every judgement of a crate. */
export const forgetJudgements = (db: Knex, crateId: string): Promise<number> =>
  db('judgements').where({ crate_id: crateId }).delete();
