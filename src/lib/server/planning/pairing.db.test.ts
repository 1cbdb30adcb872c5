import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure } from '../../../../tests/parts';
import { freshDatabase } from '../../../../tests/fresh-database';
import { problemCode as code } from '../../../../tests/problem-code';
import { planReportSchema } from '#core/plan/report';
import { undo } from '../db/undo';
import { jobOnBuilds } from './jobs-on-builds';
import { loadLibrary, planChoice } from './planning';
import { rankInputFor } from './ranking';
import { createBuild } from '../repositories/builds';
import { chooseRules, createCrate, getCrate, updateCrate } from '../repositories/crates';
import { listEvents } from '../repositories/events';
import { createJob, updateJob } from '../repositories/jobs';
import { createModel } from '../repositories/models';
import { createRun, measuredOn } from '../repositories/runs';
import { addUnits, loadStock } from '../repositories/units';

const at = '2026-11-26T12:00:00.000Z';
const who = { by: 'test', at };
let db: Knex;
let drop: () => Promise<void>;
let crateId: string;
const ids: Record<string, string> = {};
const choice = () => ({
  hostId: ids.host!,
  portId: 'p',
  cableId: ids.cable!,
  enclosureId: ids.enclosure!,
  driveId: ids.drive!
});
let buildId: string;
let jobId: string;

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  crateId = (await createCrate(db, { name: 'Pairing', at })).id;
  for (const spec of [aHost(), aCable(), anEnclosure(), aDrive()])
    ids[spec.kind] = (await createModel(db, { crateId, spec, ...who })).id;
  const { snapshot, report } = await planChoice(db, crateId, choice());
  buildId = (
    await createBuild(db, {
      crateId,
      build: { name: 'One', stage: 'planned', choice: choice(), snapshot, report },
      ...who
    })
  ).id;
  jobId = (
    await createJob(db, { crateId, spec: { name: 'Copy', purposes: [], transferGB: 340, direction: 'in' }, ...who })
  ).id;
});
afterAll(() => drop());

describe('house rules of a crate', () => {
  const rules = async () => (await getCrate(db, { id: crateId })).houseRules;
  it('are chosen one by one, kept, told in the log, and taken back', async () => {
    const first = await chooseRules(db, { id: crateId, version: 1, rules: { scheme: 'mbr' }, ...who });
    const second = await chooseRules(db, {
      id: crateId,
      version: first.version,
      rules: { 'mac-disk': 'apfs' },
      ...who
    });
    expect(await rules()).toEqual({ scheme: 'mbr', 'mac-disk': 'apfs' });
    expect((await listEvents(db, { crateId, limit: 1 }))[0]!.message).toBe(
      'House rule. A hard disk that only Macs use: APFS.'
    );
    await undo(db, { crateId, group: second.group, ...who });
    expect(await rules()).toEqual({ scheme: 'mbr' });
    const { version } = await getCrate(db, { id: crateId });
    await chooseRules(db, { id: crateId, version, rules: { scheme: null }, ...who });
    expect(await rules()).toEqual({});
  });
  it('a second writer is told, and nothing is overwritten', async () => {
    expect(await code(chooseRules(db, { id: crateId, version: 1, rules: { scheme: 'mbr' }, ...who }))).toBe('conflict');
    expect(await rules()).toEqual({});
  });
  it('a rename can be taken back, and a later rule stands in its way', async () => {
    const { version } = await getCrate(db, { id: crateId });
    const renamed = await updateCrate(db, { id: crateId, version, name: 'Renamed', currency: 'CHF', ...who });
    const ruled = await chooseRules(db, {
      id: crateId,
      version: renamed.version,
      rules: { link: 'forty-and-more' },
      ...who
    });
    expect(await code(undo(db, { crateId, group: renamed.group, ...who }))).toBe('conflict');
    await undo(db, { crateId, group: ruled.group, ...who });
    expect(await getCrate(db, { id: crateId })).toMatchObject({ name: 'Renamed', currency: 'CHF', houseRules: {} });
    const { version: now } = await getCrate(db, { id: crateId });
    await updateCrate(db, { id: crateId, version: now, name: 'Pairing', currency: 'EUR', ...who });
  });
  it('one crate cannot change another', async () => {
    const other = await createCrate(db, { name: 'Other', at });
    const changed = await chooseRules(db, { id: other.id, version: 1, rules: { scheme: 'mbr' }, ...who });
    expect(await code(undo(db, { crateId, group: changed.group, ...who }))).toBe('not-found');
  });
});

describe('what is at hand', () => {
  it('is counted by model: owned, free, in which builds, and the least it would sell for', async () => {
    const unit = { modelId: ids.drive!, state: 'owned' as const };
    await addUnits(db, { crateId, count: 2, unit: { ...unit, resale: 90 }, ...who });
    await addUnits(db, { crateId, count: 1, unit: { ...unit, resale: 70 }, ...who });
    await addUnits(db, { crateId, count: 1, unit: { ...unit, buildId }, ...who });
    await addUnits(db, { crateId, count: 1, unit: { ...unit, state: 'wanted' }, ...who });
    await addUnits(db, { crateId, count: 1, unit: { modelId: ids.cable!, state: 'owned', buildId }, ...who });
    const stock = await loadStock(db, crateId);
    expect(stock.get(ids.drive!)).toEqual({ owned: 4, free: 3, builds: ['AC-0001'], resale: 70 });
    expect(stock.get(ids.cable!)).toEqual({ owned: 1, free: 0, builds: ['AC-0001'] });
    expect((await loadLibrary(db, crateId)).stock.get(ids.drive!)!.free).toBe(3);
  });
  it('a ranking counts what lies free, or all that is owned', async () => {
    const input = (takeApart?: boolean) => rankInputFor(db, crateId, { jobId, takeApart });
    expect((await input()).stock).toEqual({ [ids.drive!]: 3 });
    expect((await input(true)).stock).toEqual({ [ids.drive!]: 4, [ids.cable!]: 1 });
    expect((await input()).resale).toEqual({ [ids.drive!]: 70 });
    expect(await code(rankInputFor(db, crateId, { jobId, driveIds: [] }))).toBe('bad-input');
  });
});

describe('a job that contradicts itself', () => {
  it('is refused beside the field, when it is made and when it is changed', async () => {
    const spec = { name: 'Odd', purposes: [], transferGB: 1, direction: 'in' as const };
    expect(await code(createJob(db, { crateId, spec: { ...spec, largestFileGB: 50 }, ...who }))).toBe('bad-input');
    // ten files of 0.01 GB are 0.1 GB, not one
    expect(await code(createJob(db, { crateId, spec: { ...spec, largestFileGB: 0.01, files: 10 }, ...who }))).toBe(
      'bad-input'
    );
    expect(
      await code(updateJob(db, { crateId, id: jobId, version: 1, spec: { ...spec, largestFileGB: 2 }, ...who }))
    ).toBe('bad-input');
  });
});

describe('a job on every build', () => {
  it('says how long it takes and what it waits for: 200 GB at 3400, 140 GB at 1500', async () => {
    const [row] = await jobOnBuilds(db, crateId, {
      id: jobId,
      name: 'Copy',
      purposes: [],
      transferGB: 340,
      direction: 'in'
    });
    expect(row).toMatchObject({ tag: 'AC-0001', own: false, fits: true, waitsFor: 'the drive’s write cache' });
    // 200 000 / 3400 + 140 000 / 1500 + one file of 0.4 ms
    expect(row!.band!.typical).toBeCloseTo(200_000 / 3400 + 140_000 / 1500 + 0.0004, 6);
    expect(row!.cliffAtGB).toBe(200);
  });
});

describe('results beside plans elsewhere', () => {
  it('come newest first with what they were measured on', async () => {
    const run = (date: string, writeMBps: number) => ({
      date,
      results: { writeMBps },
      conditions: {},
      chain: { host: 'h', port: 'p', enclosure: 'e', drive: 'd', os: 'Linux', mode: null, ids: { ...choice() } },
      simulated: true,
      accepted: []
    });
    for (const [date, rate] of [
      ['2026-05-01', 900],
      ['2026-06-01', 950]
    ] as const)
      await createRun(db, { crateId, subject: { build_id: buildId }, of: 'AC-0001', run: run(date, rate), ...who });
    expect((await measuredOn(db, crateId)).map((r) => [r.date, r.writeMBps, r.portId, r.simulated])).toEqual([
      ['2026-06-01', 950, 'p', true],
      ['2026-05-01', 900, 'p', true]
    ]);
  });
});

describe('a plan of an earlier engine', () => {
  it('can still be read: what it did not say yet is empty', async () => {
    const { report } = await planChoice(db, crateId, choice());
    const { trim: _t, reachable: _r, houseRules: _h, ...old } = JSON.parse(JSON.stringify(report)) as typeof report;
    const older = { ...old, findings: old.findings.map(({ reason: _why, ...rest }) => rest), engine: '1' };
    const read = planReportSchema.parse(older);
    expect(read).toMatchObject({ trim: null, reachable: null, houseRules: [] });
    expect(read.findings.every((f) => f.reason === '')).toBe(true);
  });
});
