import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { KINDS } from '#core/parts/kinds';
import { fillLargeCrate } from '../../../../bench/pages/large-crate';
import { freshDatabase } from '../../../../tests/fresh-database';
import { newId } from '../db/change';
import { resetDemo } from '../demo/seed';
import { buildsByJob, buildsPerHost, choicesOnHost, countBuilds, findBuilds } from '../repositories/builds';
import { listEvents } from '../repositories/events';
import { jobTable } from '../repositories/jobs';
import { BUILD_SORTS, countTones, listInUse, listJudged, TONES } from '../repositories/judgements';
import { modelTable } from '../repositories/model-table';
import { countModels, listNames } from '../repositories/models';
import { logsOfEnclosure } from '../repositories/observations';
import { pickable } from '../repositories/pickable';
import { pricedParts } from '../repositories/quotes';
import { countingRuns, listRuns, runTable, RUN_SORTS } from '../repositories/runs';
import { newestSheets } from './sheets';
import { unitTable, UNIT_SORTS } from '../repositories/unit-table';
import { judgeDue } from './overview';

const at = '2026-11-23T12:00:00.000Z';
const today = '2026-11-24';
let db: Knex;
let drop: () => Promise<void>;
let crateId: string;
let ids: { host: string; drive: string; enclosure: string; job: string; build: string };

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  await resetDemo(db, at);
  crateId = await fillLargeCrate(db, { parts: 1000, builds: 200, runs: 500 });
  await judgeDue(db, crateId, today);
  const build = (await db('builds').where({ crate_id: crateId }).first('id', 'choice')) as {
    id: string;
    choice: { hostId: string; driveId: string; enclosureId: string; jobId: string };
  };
  const { hostId, driveId, enclosureId, jobId } = build.choice;
  ids = { host: hostId, drive: driveId, enclosure: enclosureId, job: jobId, build: build.id };
  // Of jobs a crate has few; so many that an order is worth an index.
  const [job] = (await db('jobs').where({ crate_id: crateId }).limit(1)) as Record<string, unknown>[];
  const jobs = Array.from({ length: 200 }, (_, i) => ({
    ...job,
    id: newId(),
    name: `Another ${i}`,
    spec: JSON.stringify(job!.spec)
  }));
  await db('jobs').insert(jobs);
  await db.raw('analyze table models, units, quotes, jobs, builds, runs, judgements, events, observations, sheets');
});
afterAll(() => drop());

type Step = { table: string | null; type: string; key: string | null; rows: number; Extra: string; asked: string };
/** Tables that stay small however large a crate is, or what is made of a part of a query. */
const SMALL = /^(crates|rates|pairs|<.*>)$/;
/** Where most items are of one crate, reading all of them is the shortest way to those with a word in them. */
const WORDS_ON_ITEMS = 'u';

/** How the database goes about every question that something asks. */
async function steps(ask: () => Promise<unknown>): Promise<Step[]> {
  const asked: { sql: string; bindings: Knex.RawBinding[] }[] = [];
  const note = ({ sql, bindings }: { sql: string; bindings: Knex.RawBinding[] }) => asked.push({ sql, bindings });
  db.on('query', note);
  await ask();
  db.removeListener('query', note);
  const all: Step[] = [];
  for (const { sql, bindings } of asked.filter((one) => /^select/i.test(one.sql))) {
    const [rows] = (await db.raw(`explain ${sql}`, bindings)) as [Step[]];
    all.push(...rows.map((row) => ({ ...row, asked: sql })));
  }
  expect(asked.length).toBeGreaterThan(0);
  return all.filter(({ table }) => table !== null && !SMALL.test(table) && table !== WORDS_ON_ITEMS);
}

/** No table is read as a whole: each is entered by an index. */
async function throughIndexes(ask: () => Promise<unknown>): Promise<Step[]> {
  const all = await steps(ask);
  expect(all.filter(({ type, key }) => type === 'ALL' || key === null)).toEqual([]);
  return all;
}
const byIndex = async (ask: () => Promise<unknown>): Promise<void> => void (await throughIndexes(ask));
/** The order comes out of an index as well: nothing is put in order afterwards. */
async function inOrder(ask: () => Promise<unknown>): Promise<void> {
  const all = await throughIndexes(ask);
  expect(all.filter(({ Extra }) => /filesort|temporary/i.test(Extra))).toEqual([]);
}

describe('an index leads to what a page asks for', () => {
  it.each(BUILD_SORTS.flatMap((sort) => [false, true].map((down) => [sort, down] as const)))(
    'builds by %s, down: %s',
    (sort, down) => inOrder(() => listJudged(db, { crateId, sort, down }))
  );
  it.each(TONES)('Today: %s', (next) => byIndex(() => listJudged(db, { crateId, next })));
  it('what is counted of builds', () =>
    byIndex(() => Promise.all([countTones(db, crateId), countBuilds(db, crateId)])));
  it('builds in use, and those that are looked for', () =>
    inOrder(() =>
      Promise.all([
        listInUse(db, { crateId, tags: [], others: 20 }),
        findBuilds(db, { crateId, limit: 20, inUse: true })
      ])
    ));
  it.each(KINDS.flatMap((kind) => [false, true].map((down) => [kind, down] as const)))(
    'the table of each kind by name: %s, down: %s',
    (kind, down) => inOrder(() => modelTable(db, { crateId, kind, down }))
  );
  it.each([
    ['drive', 'changed'],
    ['enclosure', 'changed']
  ] as const)('%ss by %s', (kind, sort) => inOrder(() => modelTable(db, { crateId, kind, sort, down: true })));
  // What stands inside of a specification is put in order, of the parts of one kind only.
  it.each([
    ['drive', 'write'],
    ['enclosure', 'modes'],
    ['cable', 'length'],
    ['host', 'ports']
  ] as const)('%ss by %s, of one kind only', async (kind, sort) => {
    const all = await throughIndexes(() => modelTable(db, { crateId, kind, sort, find: 'a' }));
    expect(all.filter(({ table }) => table === 'models').map(({ key }) => key)).toEqual(
      expect.arrayContaining([expect.stringMatching(/^models_crate_id_kind_/)])
    );
  });
  it('counts of parts, and names of computers', () =>
    inOrder(() => Promise.all([countModels(db, crateId), listNames(db, { crateId, kind: 'host', limit: 60 })])));
  it.each(['tag', 'state', 'changed'] as const)('items by %s', (sort) =>
    inOrder(() => unitTable(db, { crateId, sort, down: sort === 'changed' }))
  );
  it.each(UNIT_SORTS)('items by %s, of this crate only', (sort) =>
    byIndex(() => unitTable(db, { crateId, sort, find: 'a' }))
  );
  it('jobs', () => inOrder(() => jobTable(db, { crateId, find: '', page: 1, size: 20 })));
  it.each([false, true])('prices by name, down: %s', (down) =>
    inOrder(() => pricedParts(db, { crateId, today, down, page: 1, size: 20 }))
  );
  it.each(['date', 'write'] as const)('results by %s', (sort) =>
    inOrder(() => runTable(db, { crateId, find: '', sort, page: 1, size: 20 }))
  );
  it.each(RUN_SORTS)('results by %s, looked for', (sort) =>
    byIndex(() => runTable(db, { crateId, find: 'a', sort, page: 1, size: 20 }))
  );
  it('what counts for a plan, of one drive only', async () => {
    const all = await throughIndexes(() => countingRuns(db, { crateId, simulated: false, driveIds: [ids.drive] }));
    expect(all.map(({ key }) => key)).toEqual(['runs_crate_id_drive_id_date_index']);
  });
  it('results and sheets of a build', () =>
    byIndex(() =>
      Promise.all([listRuns(db, { crateId, buildId: ids.build }), newestSheets(db, { crateId, buildIds: [ids.build] })])
    ));
  it('builds on a computer, of a job, in an enclosure', async () => {
    const all = await throughIndexes(() =>
      Promise.all([
        choicesOnHost(db, { crateId, hostId: ids.host, limit: 12 }),
        buildsPerHost(db, crateId),
        buildsByJob(db, crateId, [ids.job]),
        logsOfEnclosure(db, { crateId, enclosureId: ids.enclosure })
      ])
    );
    for (const column of ['host_id', 'job_id'])
      expect(all.map(({ key }) => key).join(), column).toContain(`builds_crate_id_${column}`);
  });
  it.each(['host', 'cable', 'enclosure', 'drive', 'job'] as const)('what Pair offers: %s', (kind) =>
    byIndex(() => pickable(db, { crateId, kind, limit: 10 }))
  );
  it('the newest of the history', () => inOrder(() => listEvents(db, { crateId, limit: 50 })));
});

it('an id that is none, in a result from outside, is kept as it is and found by nobody', async () => {
  const [run] = (await db('runs').where({ crate_id: crateId }).limit(1)) as Record<string, unknown>[];
  const odd = ['x'.repeat(400), 'ü 😀', ''];
  for (const [i, driveId] of odd.entries()) {
    const id = newId();
    const json = { ...run, results: JSON.stringify(run!.results), conditions: JSON.stringify(run!.conditions) };
    const chain = { ...(run!.chain as object), ids: { driveId } };
    const text = { accepted: JSON.stringify(run!.accepted), chain: JSON.stringify(chain) };
    await db('runs').insert({ ...json, ...text, id, busy_drive: null });
    expect((await db('runs').where({ id }).first('chain')) as object, `${i}`).toEqual({ chain });
  }
  const counted = await countingRuns(db, { crateId, simulated: false, driveIds: [ids.drive] });
  expect(counted.every(({ ids: { driveId } }) => driveId === ids.drive)).toBe(true);
});
