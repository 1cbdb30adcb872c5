import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { backupOf, openFrom, packedBundleOf, restoreFrom } from '../../../../tests/archives';
import { freshDatabase } from '../../../../tests/fresh-database';
import { aCable, aDrive, aHost, anEnclosure } from '../../../../tests/parts';
import { problemCode as code } from '../../../../tests/problem-code';
import type { Series } from '#core/series/series';
import { WORK } from '../workers/functions';
import { undo } from '../db/undo';
import { keepRun } from '../planning/keep-run';
import { buildRows } from '../../../../tests/build-rows';
import { planChoice } from '../planning/planning';
import { createBuild, deleteBuild, getBuild, updateBuild } from '../repositories/builds';
import { createCrate } from '../repositories/crates';
import { createModel } from '../repositories/models';
import { createUnit, getUnit, updateUnit } from '../repositories/units';
import { deleteRun, getRun, listRuns, measuredOn, updateRun } from '../repositories/runs';
import { refreshed, seriesOfRun } from '../repositories/run-rig';
import { sampledSoFar } from '../repositories/run-series';
import { cancelTask, taskState } from '../tasks/tasks';
import { resumeRun, startRig, type RigRequest } from './rig';
import { watchRun } from './watch';

// The same function, without a thread of its own.
vi.mock('../workers/run', () => ({
  inWorker: (name: keyof typeof WORK, input: never) => Promise.resolve((WORK[name] as (input: never) => unknown)(input))
}));

const at = '2026-11-23T12:00:00.000Z';
const who = { by: 'test', at };
let db: Knex;
let drop: () => Promise<void>;
let crateId: string;
const ids: Record<string, string> = {};
let buildId: string;
let tags = 0;

async function aBuild(name: string): Promise<string> {
  const choice = {
    hostId: ids.host as string,
    portId: 'p',
    cableId: ids.cable as string,
    enclosureId: ids.enclosure as string,
    driveId: ids.drive as string
  };
  const planned = await planChoice(db, crateId, choice);
  const made = await createBuild(db, { crateId, build: { name, stage: 'formatted', choice, ...planned }, ...who });
  return made.id;
}

beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
  crateId = (await createCrate(db, { name: 'Rig', at })).id;
  const stick = { kind: 'alternative' as const, name: 'Pebble stick', sort: 'flash-stick' as const, capacityTB: 0.25 };
  for (const spec of [aHost(), aCable(), anEnclosure(), aDrive(), stick])
    ids[spec.kind] = (await createModel(db, { crateId, spec, ...who })).id;
  buildId = await aBuild('One');
});
afterAll(() => drop());

/** Faster than anybody waits for: a quarter of an hour is over at the next tick. */
const FAST = 100_000;
const request = (change: Partial<RigRequest> = {}): RigRequest => ({
  protocol: 'soak',
  settings: { seconds: 120, GB: 20 },
  conditions: {},
  seed: 5,
  speed: FAST,
  date: '2026-11-20',
  ...change
});
const start = (change: Partial<RigRequest> = {}, of = buildId) =>
  startRig(db, { crateId, buildId: of, request: request(change), ...who });
const ended = (taskId: string) =>
  expect.poll(async () => (await taskState(db, taskId)).state, { timeout: 15_000 }).not.toBe('running');
const stateOf = async (runId: string) => (await refreshed(db, { crateId, runId })).run.rig;
const sampledAtLeast = (runId: string, n: number) =>
  expect.poll(async () => (await stateOf(runId))?.sampled ?? 0, { timeout: 15_000 }).toBeGreaterThanOrEqual(n);

describe('a run on the rig', () => {
  it('ends with its figures and its series, and says that it is simulated', async () => {
    const { runId, taskId } = await start();
    await ended(taskId);
    const run = await getRun(db, { crateId, id: runId });
    expect(run).toMatchObject({
      simulated: true,
      protocol: 'soak',
      rig: { state: 'done' },
      series: { samples: 120, seconds: 120 }
    });
    // The chain of the tests writes 2800 to 3900 MB/s.
    expect(run.results.writeMBps).toBeGreaterThan(2700);
    expect(run.results.writeMBps).toBeLessThan(4000);
    expect((await seriesOfRun(db, run, crateId))?.t.length).toBe(120);
    expect(await sampledSoFar(db, runId)).toBeUndefined();
  });

  it('cancelled and resumed it is the same run as one that nobody touched', async () => {
    const whole = await start({ seed: 9 });
    await ended(whole.taskId);
    const wanted = await seriesOfRun(db, await getRun(db, { crateId, id: whole.runId }), crateId);
    const { runId, taskId } = await start({ seed: 9, speed: 40 });
    await sampledAtLeast(runId, 5);
    await cancelTask(db, taskId);
    await ended(taskId);
    await expect.poll(async () => (await stateOf(runId))?.state).toBe('paused');
    const paused = await stateOf(runId);
    expect(paused?.why).toContain('cancelled');
    expect(paused?.sampled).toBeLessThan(120);
    const { taskId: second } = await resumeRun(db, { crateId, runId, speed: FAST, by: 'test' });
    await ended(second);
    expect(await seriesOfRun(db, await getRun(db, { crateId, id: runId }), crateId)).toEqual(wanted);
    expect(await code(resumeRun(db, { crateId, runId, by: 'test' }))).toBe('conflict');
  });

  it('whose program ended is broken off, truthfully, keeps what it had, and goes on', async () => {
    const { runId, taskId } = await start({ speed: 40 });
    await sampledAtLeast(runId, 5);
    await cancelTask(db, taskId);
    await ended(taskId);
    await expect.poll(async () => (await stateOf(runId))?.state).toBe('paused');
    // As a program leaves it that was killed: it says that it runs, and its task is nobody's any more.
    const row = (await db('runs').where({ id: runId }).first('rig')) as { rig: object };
    await db('runs')
      .where({ id: runId })
      .update({ rig: JSON.stringify({ ...row.rig, state: 'running', taskId }), busy_drive: `build ${buildId}` });
    const { run } = await refreshed(db, { crateId, runId });
    expect(run.rig).toMatchObject({ state: 'paused', taskId: null });
    expect(run.rig?.why).toContain('The program ended in the middle of it');
    const { taskId: second } = await resumeRun(db, { crateId, runId, speed: FAST, by: 'test' });
    await ended(second);
    expect((await getRun(db, { crateId, id: runId })).series?.samples).toBe(120);
  });

  it('one at a time on one drive; another item may run beside it', async () => {
    const { runId, taskId } = await start({ speed: 20 });
    const refused = await start().catch((error: unknown) => error);
    expect(refused).toMatchObject({ code: 'drive-busy', status: 409, details: { runId } });
    expect(await code(updateRun(db, { crateId, id: runId, version: 1, conditions: {}, ...who }))).toBe('in-use');
    expect(await code(deleteRun(db, { crateId, id: runId, version: 1, ...who }))).toBe('in-use');
    const other = await start({}, await aBuild('Two'));
    await ended(other.taskId);
    expect((await stateOf(other.runId))?.state).toBe('done');
    await cancelTask(db, taskId);
    await ended(taskId);
    await expect.poll(async () => (await stateOf(runId))?.state).toBe('paused');
    // Free again.
    await ended((await start()).taskId);
  });

  it('two builds that hold the same item are one drive', async () => {
    const [a, b] = [await aBuild('A'), await aBuild('B')];
    const unit = { modelId: ids.drive as string, tag: `D-${++tags}`, state: 'owned' as const, buildId: a };
    const made = await createUnit(db, { crateId, unit, ...who });
    const first = await start({ speed: 20 }, a);
    // It was moved while it is being measured.
    const { version } = await getUnit(db, { crateId, id: made.id });
    await updateUnit(db, { crateId, id: made.id, version, unit: { ...unit, buildId: b }, ...who });
    expect(await code(start({}, b))).toBe('drive-busy');
    await cancelTask(db, first.taskId);
    await ended(first.taskId);
  });

  it('whose build is edited goes on with the parts it began with; deleted, it ends and says why', async () => {
    const id = await aBuild('Edited');
    const { runId, taskId } = await start({ speed: 60 }, id);
    const { version, name, stage, choice, snapshot, report } = await getBuild(db, { crate_id: crateId, id });
    await updateBuild(db, {
      crateId,
      id,
      version,
      build: { name: `${name} anew`, stage, choice, snapshot, report },
      ...who
    });
    await sampledAtLeast(runId, 5);
    expect((await stateOf(runId))?.buildVersion).toBe(version);
    const gone = await deleteBuild(db, { crateId, id, version: version + 1, ...who });
    await ended(taskId);
    expect(await taskState(db, taskId)).toMatchObject({
      state: 'failed',
      step: expect.stringContaining('was deleted in the middle') as unknown
    });
    // Brought back, it is there with what it had, and holds no drive.
    await undo(db, { crateId, group: gone.group, ...who });
    expect((await stateOf(runId))?.state).toBe('paused');
    const again = await resumeRun(db, { crateId, runId, speed: FAST, by: 'test' });
    await ended(again.taskId);
    expect((await getRun(db, { crateId, id: runId })).series?.samples).toBe(120);
  });

  it('tells a page that comes back what it missed, and then what comes', async () => {
    const { runId, taskId } = await start({ speed: 60 });
    await sampledAtLeast(runId, 20);
    const told: number[] = [];
    const t: number[] = [];
    await watchRun(
      db,
      { crateId, runId, from: 7 },
      (event, data, sent) => {
        told.push(sent);
        if (event === 'samples') t.push(...(data as { samples: Series }).samples.t);
      },
      new AbortController().signal
    );
    await ended(taskId);
    // samples 8 to 120, each once, in order; a second lies between two
    expect(t).toEqual(Array.from({ length: 113 }, (_, i) => i + 8));
    expect(told).toEqual([...told].sort((a, b) => a - b));
  });

  it.each<[string, Partial<RigRequest>]>([
    ['a sweep of a flash drive', { protocol: 'sweep' }],
    ['an internal disk that nothing is known of', { protocol: 'baseline', settings: {} }],
    ['two externals without the other one', { protocol: 'cross-copy', settings: {} }]
  ])('%s is refused', async (_what, change) => expect(await code(start(change))).toBe('bad-input'));
});

describe('what the rig gave', () => {
  const latest = async (id: string) =>
    (await buildRows(db, crateId, '2026-11-23')).find((row) => row.id === id)?.latest;
  it('stands for no build outside of the demo, nor does its internal disk', async () => {
    const id = await aBuild('Honest');
    // a rehearsed fault: a tenth of the forecast
    await ended(
      (await start({ protocol: 'pair-check', settings: { GB: 5, rounds: 1 }, fault: 'usb2-fallback' }, id)).taskId
    );
    expect((await listRuns(db, { crateId, buildId: id }))[0]?.results.writeMBps).toBeLessThan(50);
    expect(await latest(id)).toBeUndefined();
    const base = { date: '2026-11-20', conditions: {}, simulated: false, accepted: [] };
    const of = { crateId, subject: { buildId: id }, ...who };
    await keepRun(db, { ...of, run: { ...base, protocol: 'baseline', results: { writeMBps: 6000 } } });
    expect(await latest(id)).toBeUndefined();
    expect((await measuredOn(db, crateId)).some(({ writeMBps }) => writeMBps === 6000)).toBe(false);
    await keepRun(db, { ...of, run: { ...base, protocol: 'pair-check', results: { writeMBps: 3300 } } });
    expect((await latest(id))?.comparisons.map(({ measured }) => measured)).toEqual([3300]);
  });
  it('goes with a bundle, where a run in progress is held by no drive and may be taken up', async () => {
    const { runId, taskId } = await start({ speed: 20 });
    await sampledAtLeast(runId, 5);
    const bundle = await packedBundleOf(db, crateId, at);
    const { crate } = await openFrom(db, bundle, at);
    const copies = await listRuns(db, { crateId: crate.id });
    const copy = copies.find(({ rig }) => rig?.state === 'running');
    expect(copy?.rig?.taskId).toBeNull();
    expect((await refreshed(db, { crateId: crate.id, runId: copy?.id ?? '' })).run.rig?.state).toBe('paused');
    const whole = copies.find(({ rig, series }) => rig?.state === 'done' && series);
    expect(whole && (await seriesOfRun(db, whole, crate.id))?.t.length).toBe(whole?.series?.samples);
    await cancelTask(db, taskId);
    await ended(taskId);
  });
});

describe('a result of anything', () => {
  const series: Series = { t: [1, 2, 3], MBps: [400, 410, 420], caseC: [30, 31, 32] };
  const base = { protocol: 'soak' as const, date: '2026-11-20', conditions: {}, simulated: false, accepted: [] };
  it.each([
    ['an internal disk', () => ({ hostId: ids.host as string }), 'internal disk'],
    ['something ready-made', () => ({ modelId: ids.alternative as string }), 'Pebble stick']
  ])('of %s is kept with its series, undone and done again', async (_what, subject, drive) => {
    const made = await keepRun(db, {
      crateId,
      subject: subject(),
      run: { ...base, protocol: 'pair-check', results: { writeMBps: 410 }, series },
      ...who
    });
    const run = await getRun(db, { crateId, id: made.id });
    expect([run.buildId, run.chain.drive]).toEqual([null, drive]);
    expect(await seriesOfRun(db, run, crateId)).toEqual(series);
    const back = await undo(db, { crateId, group: made.group, ...who });
    expect(await code(getRun(db, { crateId, id: made.id }))).toBe('not-found');
    await undo(db, { crateId, group: back.group, ...who });
    expect(await seriesOfRun(db, await getRun(db, { crateId, id: made.id }), crateId)).toEqual(series);
    const { version } = await getRun(db, { crateId, id: made.id });
    const gone = await deleteRun(db, { crateId, id: made.id, version, ...who });
    await undo(db, { crateId, group: gone.group, ...who });
    expect(await seriesOfRun(db, await getRun(db, { crateId, id: made.id }), crateId)).toEqual(series);
  });
  it('a computer is no ready-made drive, and a part that results hang on is not deleted under them', async () => {
    expect(
      await code(
        keepRun(db, {
          crateId,
          subject: { modelId: ids.host as string },
          run: { ...base, results: { writeMBps: 1 } },
          ...who
        })
      )
    ).toBe('bad-input');
    expect(await code(keepRun(db, { crateId, subject: { hostId: ids.host as string }, run: base, ...who }))).toBe(
      'bad-input'
    );
  });
  it('a series that cannot have passed the chain is refused at its path', async () => {
    const refused = await keepRun(db, {
      crateId,
      subject: { buildId },
      run: { ...base, series: { t: [1, 2], MBps: [9000, 9000] } },
      ...who
    }).catch((error: unknown) => error);
    expect(refused).toMatchObject({ code: 'implausible', fields: [{ path: 'series.MBps' }] });
  });
  it('a million samples are kept and come back', async () => {
    const t = Array.from({ length: 1_000_000 }, (_, i) => i + 1);
    const long = { t, MBps: t.map((s) => 900 + (s % 50)) };
    const made = await keepRun(db, { crateId, subject: { buildId }, run: { ...base, series: long }, ...who });
    const back = await seriesOfRun(db, await getRun(db, { crateId, id: made.id }), crateId);
    expect(back?.MBps.length).toBe(1_000_000);
    expect(back?.MBps[777_777]).toBe(long.MBps[777_777]);
  });
  it('a backup holds results of all kinds with their series', async () => {
    const before = await listRuns(db, { crateId });
    const backup = await backupOf(db, at);
    await restoreFrom(db, backup, at);
    expect(await listRuns(db, { crateId })).toEqual(before);
    const stick = before.find(({ modelId }) => modelId !== null);
    expect(stick && (await seriesOfRun(db, stick, crateId))).toEqual(series);
  });
});
