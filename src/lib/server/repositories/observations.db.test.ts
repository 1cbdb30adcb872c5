import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { ObservationInput } from '#core/temperature-logs/observation';
import { fitLogs } from '#core/temperature-logs/compare';
import { freshDatabase } from '../../../../tests/fresh-database';
import { aCable, aDrive, aHost, anEnclosure } from '../../../../tests/parts';
import { problemCode as code } from '../../../../tests/problem-code';
import { undo } from '../db/undo';
import { resetDemo, seedOnce } from '../demo/seed';
import { planChoice } from '../planning/planning';
import { bundleOf, openFrom } from '../../../../tests/archives';
import { createBuild, deleteBuild, getBuild, listBuilds } from './builds';
import { createCrate, getCrate, removeCrate } from './crates';
import { listEvents } from './events';
import { createModel } from './models';
import { createObservation, deleteObservation, listObservations, logsOfEnclosure } from './observations';

const at = '2026-11-23T12:00:00.000Z';
const who = { by: 'test', at };
let db: Knex;
let drop: () => Promise<void>;
let crateId: string;
let buildId: string;
let enclosureId: string;
let tag: string;

const temperature = (date: string, C: number): ObservationInput => ({
  kind: 'temperature',
  date,
  seen: { ambientC: 21, place: 'case', work: 'write', MBps: 1000, points: [{ minutes: 60, C }] }
});
const imprint: ObservationInput = {
  kind: 'imprint',
  date: '2026-11-02',
  seen: {
    chips: [{ component: 0, role: 'controller', side: 'top', padsMm: [1], onChip: 'even', onCase: 'none' }],
    note: 'liners on'
  }
};

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  crateId = (await createCrate(db, { name: 'Seen', at })).id;
  const ids: Record<string, string> = {};
  for (const spec of [aHost(), aCable(), anEnclosure(), aDrive()])
    ids[spec.kind] = (await createModel(db, { crateId, spec, ...who })).id;
  enclosureId = ids.enclosure!;
  const choice = { hostId: ids.host!, portId: 'p', cableId: ids.cable!, enclosureId, driveId: ids.drive! };
  const planned = await planChoice(db, crateId, choice);
  const made = await createBuild(db, { crateId, build: { name: 'b', stage: 'assembled', choice, ...planned }, ...who });
  buildId = made.id;
  tag = made.tag;
}, 90_000);
afterAll(() => drop());

const keep = (observation: ObservationInput) => createObservation(db, { crateId, buildId, tag, observation, ...who });

describe('what was seen on a build', () => {
  it('is kept with its day, newest first, and told in the log', async () => {
    await keep(temperature('2026-11-01', 44));
    await keep(imprint);
    await keep(temperature('2026-11-03', 46.5));
    const seen = await listObservations(db, { crateId, buildId });
    expect(seen.map((o) => [o.date, o.kind])).toEqual([
      ['2026-11-03', 'temperature'],
      ['2026-11-02', 'imprint'],
      ['2026-11-01', 'temperature']
    ]);
    expect(seen[1]!.seen).toEqual(imprint.seen);
    const messages = (await listEvents(db, { crateId, limit: 20 })).map((e) => e.message);
    expect(messages).toContain(`Entered temperatures of ${tag}: 46.5 °C on the case.`);
    expect(messages).toContain(`Imprint check of ${tag}: 1 of 1 pads did not touch.`);
  });
  it('what cannot be is refused before anything is written', async () => {
    const before = await listObservations(db, { crateId, buildId });
    const falling = { ...temperature('2026-11-04', 40) } as Extract<ObservationInput, { kind: 'temperature' }>;
    falling.seen = {
      ...falling.seen,
      points: [
        { minutes: 5, C: 40 },
        { minutes: 4, C: 41 }
      ]
    };
    await expect(async () => keep(falling)).rejects.toThrow(/times must rise/);
    expect(await listObservations(db, { crateId, buildId })).toEqual(before);
  });
  it('is deleted, and brought back by undo', async () => {
    const [newest] = await listObservations(db, { crateId, buildId });
    const { group } = await deleteObservation(db, {
      crateId,
      buildId,
      id: newest!.id,
      version: newest!.version,
      ...who
    });
    expect(await listObservations(db, { crateId, buildId })).toHaveLength(2);
    await undo(db, { crateId, group, ...who });
    expect((await listObservations(db, { crateId, buildId })).map((o) => o.id)).toContain(newest!.id);
    expect(await code(deleteObservation(db, { crateId, buildId, id: 'X'.repeat(26), version: 1, ...who }))).toBe(
      'not-found'
    );
  });
  it('a stale version deletes nothing', async () => {
    const [newest] = await listObservations(db, { crateId, buildId });
    expect(
      await code(deleteObservation(db, { crateId, buildId, id: newest!.id, version: newest!.version + 7, ...who }))
    ).toBe('conflict');
  });
});

describe('readings of one enclosure', () => {
  it('come from every build in it, each with its parts, and can be fitted', async () => {
    const logs = await logsOfEnclosure(db, { crateId, enclosureId });
    expect(logs.map((l) => l.tag)).toEqual([tag, tag]);
    expect(logs[0]!.build.enclosure.name).toBe('Test 40');
    const { fit } = fitLogs(logs);
    expect(fit!.readings).toBe(2);
    expect(fit!.afterK).toBeLessThan(fit!.beforeK);
    expect(await logsOfEnclosure(db, { crateId, enclosureId: 'X'.repeat(26) })).toEqual([]);
  });
});

describe('a build that goes', () => {
  it('takes what was seen with it as one change, and undo brings both back', async () => {
    const build = await getBuild(db, { crate_id: crateId, id: buildId });
    const { group } = await deleteBuild(db, { crateId, id: buildId, version: build.version, ...who });
    expect(await listObservations(db, { crateId, buildId })).toEqual([]);
    await undo(db, { crateId, group, ...who });
    expect(await listObservations(db, { crateId, buildId })).toHaveLength(3);
  });
});

describe('a whole crate', () => {
  it('takes them along in its bundle, and older bundles without them open too', async () => {
    const bundle = await bundleOf(db, crateId, at);
    expect(bundle.observations).toHaveLength(3);
    const { crate: opened } = await openFrom(db, bundle, at);
    const [build] = await listBuilds(db, opened.id);
    expect(await listObservations(db, { crateId: opened.id, buildId: build!.id })).toHaveLength(3);
    await removeCrate(db, opened.id);
    expect(await listBuilds(db, opened.id)).toEqual([]);
  });
  it('the demo comes back whole where somebody else’s build has one of its tags by now', async () => {
    const own = await getBuild(db, { crate_id: crateId, id: buildId });
    // as if it had been the fourteenth that was ever saved here
    await db('builds').where({ id: buildId }).update({ tag: 'AC-0014' });
    await db('counters').where({ name: 'build tags' }).update({ value: 14 });
    await seedOnce(db, at).catch(() => {});
    const demo = await resetDemo(db, at);
    const tags = (await listBuilds(db, demo.id)).map((b) => b.tag);
    expect(new Set(tags).size).toBe(16);
    expect(tags).not.toContain('AC-0014');
    expect((await getBuild(db, { crate_id: crateId, id: buildId })).id).toBe(own.id);
    // and what was seen on the demo's builds is there again
    const bellows = (await listBuilds(db, demo.id)).find((b) => b.name === 'Curator’s project drive')!;
    const seen = await listObservations(db, { crateId: demo.id, buildId: bellows.id });
    expect(seen.filter((o) => o.kind === 'temperature')).toHaveLength(4);
    expect((await getCrate(db, { id: demo.id })).demo).toBe(true);
  }, 90_000);
});
