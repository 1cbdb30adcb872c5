import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure } from '../../../../tests/parts';
import { freshDatabase } from '../../../../tests/fresh-database';
import { problemCode as code } from '../../../../tests/problem-code';
import { undo } from '../db/undo';
import { isDatabaseAway, connect } from '../db/connection';
import { MIGRATIONS, migrate } from '../db/migrations';
import { differencesBetween, loadLibrary, planChoice } from '../planning/planning';
import { createBuild, updateBuild } from './builds';
import { createCrate, getCrate, removeCrate } from './crates';
import { listEvents } from './events';
import { createJob, deleteJob, getJob, listJobs, updateJob } from './jobs';
import { countModels, createModel, listModels, listSpecs, updateModel } from './models';
import { createQuote, deleteQuote, listQuotes } from './quotes';
import { createRun, deleteRun, listRuns } from './runs';
import { addUnits, createUnit, deleteUnit, listUnits, updateUnit } from './units';

const at = '2026-11-23T12:00:00.000Z';
const who = { by: 'test', at };
let db: Knex;
let url: string;
let drop: () => Promise<void>;
let crateId: string;
const ids: Record<string, string> = {};

beforeAll(async () => {
  ({ db, url, drop } = await freshDatabase());
  crateId = (await createCrate(db, { name: 'Test crate', at })).id;
  for (const spec of [aHost(), aCable(), anEnclosure(), aDrive()])
    ids[spec.kind] = (await createModel(db, { crateId, spec, ...who })).id;
});
afterAll(() => drop());

const choice = () => ({
  hostId: ids.host!,
  portId: 'p',
  cableId: ids.cable!,
  enclosureId: ids.enclosure!,
  driveId: ids.drive!
});

describe('models', () => {
  it('are listed by kind and by id, and counted', async () => {
    expect((await listModels(db, { crateId, kind: 'drive' })).map((m) => m.spec.name)).toEqual(['Test T4 2TB']);
    expect((await listSpecs(db, { crateId, ids: [ids.cable!] })).map((s) => s.kind)).toEqual(['cable']);
    expect(await listSpecs(db, { crateId, ids: [] })).toEqual([]);
    expect(await countModels(db, crateId)).toEqual({ host: 1, cable: 1, enclosure: 1, drive: 1 });
  });
  it('keep their kind', async () => {
    expect(await code(updateModel(db, { crateId, id: ids.drive!, version: 1, spec: aCable(), ...who }))).toBe(
      'bad-input'
    );
  });
});

describe('units', () => {
  it('are counted at their model, retired ones aside; a tag may go back to itself', async () => {
    const unit = {
      modelId: ids.cable!,
      tag: 'C-1',
      state: 'owned' as const,
      location: 'rail',
      notes: 'kinked\nat one end'
    };
    const made = await createUnit(db, { crateId, unit, ...who });
    expect((await listUnits(db, { crateId, modelId: ids.cable! }))[0]!.unit).toEqual({ ...unit, id: made.id });
    expect((await listModels(db, { crateId, kind: 'cable' }))[0]!.units).toBe(1);
    await updateUnit(db, { crateId, id: made.id, version: 1, unit: { ...unit, state: 'retired' }, ...who });
    expect((await listModels(db, { crateId, kind: 'cable' }))[0]!.units).toBe(0);
    expect(
      await code(
        createUnit(db, { crateId, unit: { ...unit, modelId: '01ARZ3NDEKTSV4RRFFQ69G5FAV', tag: 'C-2' }, ...who })
      )
    ).toBe('not-found');
    await deleteUnit(db, { crateId, id: made.id, version: 2, ...who });
    expect(await listUnits(db, { crateId })).toEqual([]);
    expect(await code(deleteUnit(db, { crateId, id: made.id, version: 2, ...who }))).toBe('not-found');
  });
});

describe('a unit in a build', () => {
  it('stands in a build of its own crate only', async () => {
    const other = await createCrate(db, { name: 'Other crate', at });
    const spec = (await createModel(db, { crateId: other.id, spec: aDrive(), ...who })).id;
    const planned = await planChoice(db, crateId, choice());
    const build = { name: 'Here', stage: 'planned' as const, choice: choice(), ...planned };
    const elsewhere = await createBuild(db, { crateId, build, ...who });
    const unit = { modelId: spec, tag: 'X-1', state: 'owned' as const, buildId: elsewhere.id };
    expect(await code(createUnit(db, { crateId: other.id, unit, ...who }))).toBe('bad-input');
    expect(await code(addUnits(db, { crateId: other.id, count: 2, unit, ...who }))).toBe('bad-input');
    const { buildId: _, ...free } = unit;
    const made = await createUnit(db, { crateId: other.id, unit: free, ...who });
    expect(await code(updateUnit(db, { crateId: other.id, ...made, unit, ...who }))).toBe('bad-input');
    await removeCrate(db, other.id);
  });
});

describe('quotes', () => {
  it('come newest first, with their cents', async () => {
    const quote = (date: string, list: number) => ({
      partId: ids.drive!,
      vendor: 'Nordlicht Depot',
      date,
      currency: 'EUR',
      list,
      discountPercent: 2.5
    });
    await createQuote(db, { crateId, quote: quote('2026-01-05', 139.99), ...who });
    const newer = await createQuote(db, { crateId, quote: quote('2026-06-05', 129.49), ...who });
    expect((await listQuotes(db, { crateId })).map((q) => q.quote)).toEqual([
      quote('2026-06-05', 129.49),
      quote('2026-01-05', 139.99)
    ]);
    await deleteQuote(db, { crateId, id: newer.id, version: 1, ...who });
    expect(await listQuotes(db, { crateId, partIds: [ids.drive!] })).toHaveLength(1);
    expect(await code(deleteQuote(db, { crateId, id: newer.id, version: 1, ...who }))).toBe('not-found');
  });
});

describe('jobs', () => {
  it('are made, changed, deleted and brought back', async () => {
    const spec = {
      name: 'Scan day',
      purposes: ['exchange' as const],
      transferGB: 420.5,
      direction: 'in' as const,
      readHosts: [{ family: 'macos' as const }]
    };
    const { id } = await createJob(db, { crateId, spec, ...who });
    expect((await getJob(db, { crateId, id })).spec).toEqual({ ...spec, id });
    await updateJob(db, { crateId, id, version: 1, spec: { ...spec, transferGB: 500 }, ...who });
    const { group } = await deleteJob(db, { crateId, id, version: 2, ...who });
    expect(await listJobs(db, crateId)).toEqual([]);
    await undo(db, { crateId, group, ...who });
    expect((await getJob(db, { crateId, id })).spec.transferGB).toBe(500);
    expect(await listJobs(db, crateId, [])).toEqual([]);
  });
});

describe('builds and their results', () => {
  it('keep a result with its conditions, newest first, and take it back', async () => {
    const planned = await planChoice(db, crateId, choice());
    expect(planned.report.verdict).toBe('works');
    const build = await createBuild(db, {
      crateId,
      build: { name: 'b', stage: 'formatted', choice: choice(), ...planned },
      ...who
    });
    const run = (date: string, writeMBps: number) => ({
      date,
      results: { writeMBps },
      conditions: { ambientC: 21.5, encrypted: false, notes: '„fan on“' },
      chain: {
        host: 'h',
        port: 'p',
        enclosure: 'e',
        drive: 'd',
        os: 'Linux 6.1',
        mode: planned.report.link.mode,
        ids: {}
      },
      simulated: false,
      accepted: ['x']
    });
    await createRun(db, {
      crateId,
      subject: { build_id: build.id },
      of: build.tag,
      run: run('2026-10-01', 3300.5),
      ...who
    });
    const second = await createRun(db, {
      crateId,
      subject: { build_id: build.id },
      of: build.tag,
      run: run('2026-11-01', 3200),
      ...who
    });
    const [newest, older] = await listRuns(db, { crateId, buildId: build.id });
    expect([newest!.results.writeMBps, older!.results.writeMBps]).toEqual([3200, 3300.5]);
    expect(newest).toMatchObject({
      simulated: false,
      conditions: { ambientC: 21.5, encrypted: false, notes: '„fan on“' },
      accepted: ['x']
    });
    const { group } = await deleteRun(db, { crateId, buildId: build.id, id: second.id, version: 1, ...who });
    expect(await listRuns(db, { crateId, buildId: build.id })).toHaveLength(1);
    await undo(db, { crateId, group, ...who });
    expect(await listRuns(db, { crateId, buildId: build.id })).toHaveLength(2);
  });

  it('log a change of stage as such', async () => {
    const planned = await planChoice(db, crateId, choice());
    const build = await createBuild(db, {
      crateId,
      build: { name: 'staged', stage: 'planned', choice: choice(), ...planned },
      ...who
    });
    await updateBuild(db, {
      crateId,
      id: build.id,
      version: 1,
      build: { name: 'staged', stage: 'bought', choice: choice(), ...planned },
      ...who
    });
    expect((await listEvents(db, { crateId, subjectIds: [build.id] })).map((e) => [e.kind, e.message])).toEqual([
      ['stage', `${build.tag} is now bought.`],
      ['planned', `Saved ${build.tag}, staged.`]
    ]);
  });
});

describe('planning', () => {
  it('reads only what the choices refer to', async () => {
    const library = await loadLibrary(db, crateId, [choice()]);
    // the drive's one quote comes along; without the drive nothing that is asked for has a price
    expect([library.drive.size, library.host.size, library.quotes.length]).toEqual([1, 1, 1]);
    const { driveId: _, ...bare } = choice();
    expect((await loadLibrary(db, crateId, [bare])).quotes).toEqual([]);
    expect((await loadLibrary(db, crateId)).quotes).toHaveLength(1);
  });
  it('tells differences by field, also what came and went', () => {
    expect(differencesBetween({ a: 1, b: { c: [1, 2] } }, { a: 2, b: { c: [1] }, d: true }, 'drive')).toEqual([
      { what: 'drive a', then: '1', now: '2' },
      { what: 'drive b.c.1', then: '2', now: 'not given' },
      { what: 'drive d', then: 'not given', now: 'true' }
    ]);
    expect(differencesBetween(undefined, undefined, 'cable')).toEqual([]);
  });
});

describe('the database itself', () => {
  it('applies each migration once, by name and in order', async () => {
    await migrate(db);
    expect(await db('knex_migrations').orderBy('id').pluck('name')).toEqual(MIGRATIONS.map((m) => m.name));
  });
  it('a crate goes with everything in it, and nothing else goes', async () => {
    const doomed = await createCrate(db, { name: 'Doomed', at });
    const { id } = await createModel(db, { crateId: doomed.id, spec: aDrive(), ...who });
    await createUnit(db, { crateId: doomed.id, unit: { modelId: id, tag: 'D-1', state: 'owned' }, ...who });
    await createQuote(db, {
      crateId: doomed.id,
      quote: { partId: id, vendor: 'v', date: '2026-01-01', currency: 'EUR', list: 1 },
      ...who
    });
    const before = (await listModels(db, { crateId })).length;
    await removeCrate(db, doomed.id);
    expect(await code(getCrate(db, { id: doomed.id }))).toBe('not-found');
    for (const table of ['models', 'units', 'quotes', 'events', 'revisions'])
      expect(await db(table).where({ crate_id: doomed.id })).toEqual([]);
    expect(await listModels(db, { crateId })).toHaveLength(before);
  });
  it('being away is told from being wrong', async () => {
    const gone = new URL(url);
    gone.port = '1';
    const nowhere = connect(gone.href);
    const error = await nowhere.raw('select 1').catch((e: unknown) => e);
    expect(isDatabaseAway(error)).toBe(true);
    await nowhere.destroy();
    expect(isDatabaseAway(await db.raw('select nonsense from nowhere').catch((e: unknown) => e))).toBe(false);
    expect(isDatabaseAway('text')).toBe(false);
  });
});
