import type { Knex } from 'knex';
import type { NextStep } from '#core/build/next-step';
import type { BuildStage } from '#core/build/stages';
import { newestFigures } from '#core/results/newest';
import { Problem } from '../problems/problem';
import { listBrief, listBuilds, type BriefBuild } from '../repositories/builds';
import { getCrate } from '../repositories/crates';
import {
  addMissing,
  beginJudging,
  countDue,
  countTones,
  dueBuilds,
  expireJudgements,
  listInUse,
  keepJudgements,
  listJudged,
  lookAt,
  type Due,
  type Kept,
  type ListedRow,
  type ListQuery
} from '../repositories/judgements';
import { listRuns } from '../repositories/runs';
import { listedColumns, judgementKey, JUDGING_ENGINE, buildRow, type Around, type BuildRow } from './judged-row';
import { adviceFor } from './judging';
import { buildNow, loadLibrary } from './planning';
import { newestSheets } from './sheets';

/** Builds that a sheet is still asked about: those that are not put together or not formatted yet. */
const AT_THE_BENCH: readonly BuildStage[] = ['planned', 'bought', 'assembled'];
export const atTheBench = (builds: readonly { id: string; stage: BuildStage }[]): string[] =>
  builds.filter(({ stage }) => AT_THE_BENCH.includes(stage)).map(({ id }) => id);

/** So many builds are judged while a page waits for it; more are judged in the background. */
export const AT_ONCE = 60;
/** So many builds are judged one after the other before others get their turn. */
const BATCH = 50;

/** Loads what builds are judged from, for all of them together. */
async function gatherAround(
  db: Knex,
  crateId: string,
  builds: readonly BriefBuild[]
): Promise<(build: BriefBuild) => Around> {
  const [library, runs, { demo }, sheets] = await Promise.all([
    loadLibrary(
      db,
      crateId,
      builds.map(({ choice }) => choice)
    ),
    listRuns(db, { crateId, buildIds: builds.map(({ id }) => id) }),
    getCrate(db, { id: crateId }),
    newestSheets(db, { crateId, buildIds: atTheBench(builds) })
  ]);
  return ({ id }) => ({
    library,
    newest: newestFigures(
      runs.filter(({ buildId }) => buildId === id),
      demo
    ),
    sheets: { assemble: sheets(id, 'assemble'), format: sheets(id, 'format') }
  });
}

/** Makes the rows of builds as everything is now; one whose key is still the same keeps its row. */
async function judge(
  db: Knex,
  crateId: string,
  begun: readonly Due[],
  today: string
): Promise<{ rows: Map<string, BuildRow>; kept: Kept[] }> {
  const builds = await listBrief(
    db,
    crateId,
    begun.map(({ buildId }) => buildId)
  );
  const around = await gatherAround(db, crateId, builds);
  const dueOf = new Map(begun.map((due) => [due.buildId, due]));
  const rows = new Map<string, BuildRow>();
  const digests = new Map(builds.map((build) => [build.id, judgementKey(build, around(build))]));
  const anew: string[] = [];
  for (const { id } of builds) {
    const { digest, row } = dueOf.get(id) ?? {};
    const same = row && digest === digests.get(id) ? (JSON.parse(row) as BuildRow) : undefined;
    if (same && !(same.next.until && same.next.until <= today)) rows.set(id, same);
    else anew.push(id);
  }
  for (const build of await listBuilds(db, crateId, anew)) {
    const all = around(build);
    const now = buildNow(all.library, build);
    const { snapshot: input, report } = now;
    const advice = all.newest && (await adviceFor(db, { crateId, run: all.newest, input, report }));
    rows.set(build.id, buildRow(build, now, all, { advice, today }));
  }
  const kept = begun.flatMap((due): Kept[] => {
    const [row, digest] = [rows.get(due.buildId), digests.get(due.buildId)];
    if (!row || digest === undefined) return [];
    const changesOn = row.next.until;
    return [
      {
        ...due,
        digest,
        engine: JUDGING_ENGINE,
        row: JSON.stringify(row),
        changesOn,
        columns: listedColumns(row)
      }
    ];
  });
  return { rows, kept };
}

/** Judges builds, and keeps what comes out for those on which nothing changed meanwhile. @returns their rows, and how many were kept */
async function judgeBuilds(
  db: Knex,
  args: { crateId: string; ids: readonly string[]; today: string }
): Promise<{ rows: Map<string, BuildRow>; kept: number }> {
  const { crateId, ids, today } = args;
  const begun = await beginJudging(db, crateId, ids).catch(unlessReading(ids));
  const { rows, kept } = await judge(db, crateId, begun, today);
  const mayKeep = begun.every(({ due }) => due > 0);
  return { rows, kept: mayKeep ? await keepJudgements(db, kept) : 0 };
}

/** Judges some of the builds that are to be judged. @returns how many were kept, and how many are left */
export async function judgeDue(db: Knex, crateId: string, today: string): Promise<{ kept: number; left: number }> {
  await expireJudgements(db, crateId, { engine: JUDGING_ENGINE, today });
  if ((await countDue(db, crateId)).missing > 0) await addMissing(db, crateId);
  const ids = await dueBuilds(db, crateId, BATCH);
  const { kept } = ids.length > 0 ? await judgeBuilds(db, { crateId, ids, today }) : { kept: 0 };
  return { kept, left: (await countDue(db, crateId)).due };
}

/** A disk that is full, or a restore, keeps nobody from reading: what is made is then not kept. */
const unlessReading =
  (ids: readonly string[]) =>
  (error: unknown): Due[] => {
    if (!(error instanceof Problem)) throw error;
    return ids.map((buildId) => ({ buildId, due: 0, digest: null, row: null }));
  };

/** A build in a list; without a row while it is being judged. */
export type Listed = Omit<ListedRow, 'row'> & { row: BuildRow | null };
export type BuildPage = {
  builds: Listed[];
  /** Of all builds that are meant. */
  total: number;
  /** Of the crate. */
  all: number;
  /** How many of them are still being judged. */
  due: number;
};

/** Brings the judgements of a crate up to date, where few are to be made; more are left to the background. */
async function refresh(
  db: Knex,
  crateId: string,
  today: string
): Promise<{ all: number; due: number; made: Map<string, BuildRow> }> {
  await expireJudgements(db, crateId, { engine: JUDGING_ENGINE, today });
  const { total, due, missing } = await countDue(db, crateId);
  if (missing > 0) await addMissing(db, crateId).catch(ignoreProblem);
  if (due === 0 || due > AT_ONCE) return { all: total, due, made: new Map() };
  const ids = await dueBuilds(db, crateId, AT_ONCE);
  const { rows } = await judgeBuilds(db, { crateId, ids, today });
  return { all: total, due: Math.max(0, due - rows.size), made: rows };
}
const ignoreProblem = (error: unknown): void => {
  if (!(error instanceof Problem)) throw error;
};

const listedOf = ({ row, ...build }: ListedRow, made: ReadonlyMap<string, BuildRow>): Listed => ({
  ...build,
  row: row ? (JSON.parse(row) as BuildRow) : (made.get(build.id) ?? null)
});

/** One page of the builds of a crate, each with its newest result and its one next step. */
export async function buildPage(
  db: Knex,
  { crateId, today, ...query }: { crateId: string; today: string } & ListQuery
): Promise<BuildPage> {
  const { all, due, made } = await refresh(db, crateId, today);
  const { rows, total } = await listJudged(db, { crateId, ...query });
  if (due > 0)
    await lookAt(
      db,
      rows.map(({ id }) => id),
      Date.now()
    );
  return { builds: rows.map((row) => listedOf(row, made)), total, all, due };
}

/** What an evening plans with: how long a soak and a speed check of a build take, and how long it cools after it, s. */
export type Queueable = { id: string; tag: string; name: string; soakS: number; checkS: number; coolS: number };

/** What can be measured in an evening: some builds by their tags, and the first others in use; those that do not run are left out. */
export async function queueable(
  db: Knex,
  args: { crateId: string; today: string; tags: readonly string[]; others: number }
): Promise<{ builds: Queueable[]; due: number }> {
  const { crateId, today, tags, others } = args;
  const { due, made } = await refresh(db, crateId, today);
  const rows = await listInUse(db, { crateId, tags, others });
  const builds = rows.flatMap((row): Queueable[] => {
    const { id, tag, name, row: judged } = listedOf(row, made);
    return judged?.takes ? [{ id, tag, name: `${tag} ${name}`, ...judged.takes }] : [];
  });
  return { builds, due };
}

/** So many builds that stand in the way are shown on Today at once, and so many of the others after them. */
const TODAY = { urgent: 40, others: 20 } as const;

/** What Today shows: what stands in the way, and the next few steps, with the counts of all. */
export async function todayPage(
  db: Knex,
  { crateId, today }: { crateId: string; today: string }
): Promise<Omit<BuildPage, 'total'> & { counts: Record<NextStep['tone'], number> }> {
  const { all, due, made } = await refresh(db, crateId, today);
  const of = (next: NextStep['tone'], size: number) =>
    size > 0 ? listJudged(db, { crateId, next, size }) : Promise.resolve({ rows: [] });
  const [counts, urgent, doing] = await Promise.all([
    countTones(db, crateId),
    of('urgent', TODAY.urgent),
    of('do', TODAY.others)
  ]);
  const waiting = await of('waits', TODAY.others - doing.rows.length);
  const builds = [...urgent.rows, ...doing.rows, ...waiting.rows].map((row) => listedOf(row, made));
  return { builds, all, due, counts };
}
