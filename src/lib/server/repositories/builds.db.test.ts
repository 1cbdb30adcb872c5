import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plan } from '#core/plan/plan';
import { freshDatabase } from '../../../../tests/fresh-database';
import { undo } from '../db/undo';
import { migrate } from '../db/migrations';
import { DEMO_BUILDS } from '../demo/builds';
import { DEMO_INTERNAL, DEMO_READY_MADE, DEMO_RUNS } from '../demo/runs';
import { demoId } from '../demo/id';
import { resetDemo, seedOnce } from '../demo/seed';
import { buildRows } from '../../../../tests/build-rows';
import { loadLibrary, outdatedBy, planChoice } from '../planning/planning';
import { createBuild, deleteBuild, getBuild, listBuilds } from './builds';
import { createCrate, getCrate, listCrates, slugOf } from './crates';
import { listEvents } from './events';
import { createModel, getModel, listModels, updateModel } from './models';
import { listRuns } from './runs';

const at = '2026-11-23T12:00:00.000Z';
const who = { by: 'test', at };
let db: Knex;
let drop: () => Promise<void>;
let crateId: string;

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  await seedOnce(db, at);
  crateId = (await getCrate(db, { slug: 'fernhollow' })).id;
}, 90_000);
afterAll(() => drop());

describe('the demo crate', () => {
  it('is there once, however often it is asked for', async () => {
    await seedOnce(db, at);
    await migrate(db);
    expect((await listCrates(db)).filter((c) => c.demo)).toHaveLength(1);
  });

  it('holds what the demo promises: parts of every kind, twelve builds at all stages but the last', async () => {
    const models = await listModels(db, { crateId });
    const count = (kind: string) => models.filter((m) => m.spec.kind === kind).length;
    expect([
      count('drive') >= 8,
      count('enclosure') >= 9,
      count('cable') >= 6,
      count('pad') >= 5,
      count('host') >= 5
    ]).toEqual([true, true, true, true, true]);
    const builds = await listBuilds(db, crateId);
    expect(builds).toHaveLength(16);
    expect(new Set(builds.map((b) => b.stage))).toEqual(
      new Set(['planned', 'bought', 'assembled', 'formatted', 'benched', 'in service'])
    );
  });

  it('keeps plans that planning again gives again, and results that say they are simulated', async () => {
    for (const build of await listBuilds(db, crateId))
      expect(plan(build.snapshot, { workings: false })).toEqual(build.report);
    const runs = await listRuns(db, { crateId });
    const checks = DEMO_BUILDS.reduce((n, b) => n + (b.runs?.length ?? 0), 0);
    expect(runs.length).toBe(checks + DEMO_RUNS.length + DEMO_INTERNAL.length + DEMO_READY_MADE.length);
    expect(runs.length).toBeGreaterThanOrEqual(40);
    expect(runs.every((r) => r.simulated)).toBe(true);
  });

  it('shows one build of each verdict, and a fault among the results', async () => {
    const rows = await buildRows(db, crateId, '2026-11-23');
    expect(new Set(rows.map((r) => r.verdict))).toEqual(new Set(['works', 'limited', 'check', 'fails']));
    expect(rows.find((r) => r.name === 'Front desk exchange')?.next).toMatchObject({
      tone: 'urgent',
      station: 'measure'
    });
    expect(rows.every((r) => r.next.text.length > 10 && !r.outdated)).toBe(true);
  });
});

describe('builds', () => {
  const choice = {
    hostId: demoId('Kiln'),
    portId: 'u4',
    cableId: demoId('Withy 0.8 40G'),
    enclosureId: demoId('Trivet 40'),
    driveId: demoId('Chert T4 2TB')
  };
  const save = async (name: string) =>
    createBuild(db, {
      crateId,
      build: { name, stage: 'planned', choice, ...(await planChoice(db, crateId, choice)) },
      ...who
    });

  it('get tags that count up and are never given twice, not even after deleting', async () => {
    const first = await save('one');
    const n = Number(first.tag.slice(3));
    expect(first.tag).toMatch(/^AC-\d{4}$/);
    await deleteBuild(db, { crateId, id: first.id, version: 1, ...who });
    expect(Number((await save('two')).tag.slice(3))).toBe(n + 1);
  });

  it('twenty saved at once get twenty tags', async () => {
    const saved = await Promise.all(Array.from({ length: 20 }, (_, i) => save(`race ${i}`)));
    expect(new Set(saved.map((s) => s.tag)).size).toBe(20);
  });

  it('are deleted with their results, and come back with them', async () => {
    const build = await getBuild(db, { tag: 'AC-0002' });
    const runs = await listRuns(db, { crateId, buildId: build.id });
    const { group } = await deleteBuild(db, { crateId, id: build.id, version: build.version, ...who });
    await expect(getBuild(db, { tag: 'AC-0002' })).rejects.toMatchObject({ code: 'not-found' });
    await undo(db, { crateId, group, ...who });
    expect((await getBuild(db, { tag: 'AC-0002' })).report).toEqual(build.report);
    expect((await listRuns(db, { crateId, buildId: build.id })).map((r) => r.results)).toEqual(
      runs.map((r) => r.results)
    );
  });

  it('keep their plan when a part changes, and say what differs', async () => {
    const { tag } = await save('keeps');
    const { version, spec } = await getModel(db, { crateId, id: choice.driveId });
    if (spec.kind !== 'drive') throw new Error('the demo drive is gone');
    await updateModel(db, { crateId, id: choice.driveId, version, spec: { ...spec, readMBps: 3500 }, ...who });
    const build = await getBuild(db, { tag });
    expect(build.snapshot.drive.readMBps).toBe(7000);
    const library = await loadLibrary(db, crateId, [choice]);
    expect(outdatedBy(library, build)).toEqual([{ what: 'drive readMBps', then: '7000', now: '3500' }]);
  });

  it('refuse parts that are not there, or are of another kind', async () => {
    await expect(planChoice(db, crateId, { ...choice, driveId: demoId('Kiln') })).rejects.toMatchObject({
      code: 'bad-input',
      fields: [{ path: 'choice.driveId' }]
    });
    await expect(planChoice(db, crateId, { ...choice, portId: 'x9' })).rejects.toMatchObject({
      fields: [{ path: 'choice.portId' }]
    });
  });

  it('leave a log', async () => {
    const build = await getBuild(db, { tag: 'AC-0001' });
    expect((await listEvents(db, { crateId, subjectIds: [build.id] })).map((e) => e.message)).toEqual([
      'Saved AC-0001, Scan-day carrier.'
    ]);
  });
});

describe('crates', () => {
  it('of one name get addresses of their own; resetting the demo leaves them alone', async () => {
    const [a, b] = [
      await createCrate(db, { name: 'Mein Regal', at }),
      await createCrate(db, { name: 'Mein Regal', at })
    ];
    expect([a.slug, b.slug]).toEqual(['mein-regal', 'mein-regal-2']);
    const spec = (await listModels(db, { crateId, kind: 'pad' }))[0]!.spec;
    const { id } = await createModel(db, { crateId: a.id, spec, ...who });
    await resetDemo(db, at);
    expect((await getModel(db, { crateId: a.id, id })).spec.name).toBe(spec.name);
    expect(await listBuilds(db, (await getCrate(db, { slug: 'fernhollow' })).id)).toHaveLength(16);
  });
  it.each([
    ['Ömer’s Crate!', 'omer-s-crate'],
    ['  ', 'crate'],
    ['../../etc', 'etc'],
    ['石', 'crate']
  ])('“%s” has the address %s', (name, slug) => expect(slugOf(name)).toBe(slug));
});

describe('a build whose parts have gone', () => {
  it('is planned again from its own copy of them: renamed, moved on, or with another job', async () => {
    const build = (await listBuilds(db, crateId)).find((b) => b.choice.jobId && b.choice.cableId)!;
    const gone = { ...build.choice, jobId: '01ARZ3NDEKTSV4RRFFQ69G5FAV', cableId: '01ARZ3NDEKTSV4RRFFQ69G5FAW' };
    const { job, cable } = build.snapshot;
    await expect(planChoice(db, crateId, gone)).rejects.toMatchObject({
      fields: [{ path: 'choice.cableId' }, { path: 'choice.jobId' }]
    });
    const planned = await planChoice(db, crateId, gone, { choice: gone, snapshot: build.snapshot });
    expect([planned.snapshot.job?.name, planned.snapshot.cable?.name]).toEqual([job!.name, cable!.name]);
    // what was never part of it is still refused
    const other = { ...gone, driveId: '01ARZ3NDEKTSV4RRFFQ69G5FAX' };
    await expect(planChoice(db, crateId, other, { choice: gone, snapshot: build.snapshot })).rejects.toMatchObject({
      fields: [{ path: 'choice.driveId' }]
    });
  });
});
