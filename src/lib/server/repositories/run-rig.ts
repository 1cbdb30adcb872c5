import type { Knex } from 'knex';
import { PROTOCOL_LABEL } from '#core/results/newest';
import type { ProtocolId } from '#core/results/protocol-ids';
import type { PairResults } from '#core/results/run';
import type { Settings } from '#core/results/settings';
import type { Series } from '#core/series/series';
import { change, newId, toColumns, type ChangeResult } from '../db/change';
import { writing } from '../db/writing';
import { notFound, Problem } from '../problems/problem';
import type { TaskControl } from '../work/control';
import { findTask } from './task-rows';
import { appendSamples, forgetSamples, keepSeries, readSeries, sampledSoFar, type SeriesMeta } from './run-series';
import { runFromRow, type NewRun, type RigRow, type StoredRun } from './runs';

type By = { by: string; at: string };

/** All that the rig needs to play a run, or to go on with one. */
export type RigWork = {
  crateId: string;
  runId: string;
  protocol: ProtocolId;
  settings: Settings;
  rig: RigRow;
  by: string;
};

/** How long a run that was begun may stand without the task that plays it, ms: it is made just after the run. */
const BEGINNING_MS = 15_000;

/** After its database came back a process needs a moment to say that it is still there, ms. */
const GRACE_MS = 10_000;

const BROKEN_OFF =
  'The program ended in the middle of it. What was sampled until then is kept; it can go on from there.';

/** A run with what the rig keeps for itself. @throws Problem `not-found` */
async function rigRow(
  db: Knex,
  where: { crateId: string; runId: string },
  lock = false
): Promise<{ run: StoredRun; rig: RigRow; version: number; updatedAt: string }> {
  const query = db('runs').where({ crate_id: where.crateId, id: where.runId });
  const row = (await (lock ? query.forUpdate() : query).first()) as Record<string, unknown> | undefined;
  if (!row) throw notFound('result');
  if (!row.rig) throw new Problem('bad-input', 'This result did not come from the rig.', []);
  return {
    run: runFromRow(row),
    rig: row.rig as RigRow,
    version: row.version as number,
    updatedAt: row.updated_at as string
  };
}

/** How many samples of a run are kept, and of which second the last one is. */
async function kept(db: Knex, runId: string): Promise<{ sampled: number; atS: number }> {
  const last = (await db('run_samples')
    .where({ run_id: runId })
    .orderBy('first', 'desc')
    .first('first', 'count', 'samples')) as { first: number; count: number; samples: string } | undefined;
  if (!last) return { sampled: 0, atS: 0 };
  const { t } = JSON.parse(last.samples) as Series;
  return { sampled: Number(last.first) + Number(last.count), atS: t.at(-1) ?? 0 };
}

/** State that is no change of anybody's and so has no place in the log: how far the rig is. */
async function setRig(db: Knex, runId: string, rig: RigRow, busy: string | null): Promise<void> {
  await db('runs')
    .where({ id: runId })
    .update(toColumns({ rig, busy_drive: busy }));
}

/** @throws Problem `drive-busy` where another run of that drive goes on */
async function refuseBusy(trx: Knex.Transaction, drive: string, own?: string): Promise<void> {
  const other = (await trx('runs')
    .where({ busy_drive: drive })
    .forUpdate()
    .first('id', 'crate_id', 'chain', 'protocol')) as
    { id: string; crate_id: string; chain: { drive: string }; protocol: ProtocolId } | undefined;
  if (!other || other.id === own) return;
  // One that was left behind by a program that ended holds nothing any more.
  const { run } = await refreshed(trx, { crateId: other.crate_id, runId: other.id });
  if (run.rig?.state !== 'running') return;
  throw new Problem(
    'drive-busy',
    `The rig is measuring ${other.chain.drive} just now (${PROTOCOL_LABEL[other.protocol]}): one run at a time on one drive. Wait for it, or cancel it.`,
    [],
    { runId: other.id }
  );
}

/**
 * A run of the rig as it truly stands: one whose task is gone was broken off, and is written down as that, with what was sampled.
 */
export async function refreshed(
  db: Knex,
  where: { crateId: string; runId: string },
  now = Date.now()
): Promise<{ run: StoredRun; rig: RigRow }> {
  const { run, rig, updatedAt } = await rigRow(db, where);
  if (rig.state !== 'running') return { run, rig };
  const task = rig.taskId ? await findTask(db, rig.taskId) : undefined;
  const leased =
    task &&
    (await db('tasks')
      .where({ id: task.id })
      .where('lease_until', '>=', now - GRACE_MS)
      .first('id'));
  const alive = task ? task.state === 'running' && leased !== undefined : now - Date.parse(updatedAt) < BEGINNING_MS;
  const so = await kept(db, where.runId);
  if (alive) return { run: { ...run, rig: run.rig && { ...run.rig, ...so } }, rig: { ...rig, ...so } };
  const paused: RigRow = { ...rig, ...so, state: 'paused', taskId: null, why: BROKEN_OFF };
  await setRig(db, where.runId, paused, null);
  const { input: _input, phases: _phases, otherRates: _other, boundedGB: _bounded, ...state } = paused;
  return { run: { ...run, rig: state }, rig: paused };
}

/** Begins a run: its row is there before anything is played. @throws Problem `drive-busy` */
export function beginRig(
  db: Knex,
  args: { crateId: string; buildId: string; tag: string; drive: string; run: Omit<NewRun, 'results'>; rig: RigRow } & By
): Promise<ChangeResult> {
  const { crateId, buildId, tag, drive, run, rig, by, at } = args;
  const { protocol = 'pair-check', settings, ...rest } = run;
  return writing(db, crateId, async (trx) => {
    await refuseBusy(trx, drive);
    await trx('runs').where({ busy_drive: drive }).update({ busy_drive: null });
    const made = await change(trx, {
      action: 'insert',
      table: 'runs',
      crateId,
      id: newId(),
      by,
      at,
      event: { kind: 'measured', message: `Began a simulated ${PROTOCOL_LABEL[protocol]} of ${tag}.` },
      row: { build_id: buildId, protocol, settings: settings ?? null, results: {}, rig, busy_drive: drive, ...rest }
    });
    return made;
  });
}

/** Says which task plays a run. */
export async function playedBy(db: Knex, work: RigWork, taskId: string): Promise<void> {
  const { rig } = await rigRow(db, work);
  await db('runs')
    .where({ id: work.runId })
    .update(toColumns({ rig: { ...rig, taskId } }));
}

/** Holds a run where it is: what was sampled is kept, also as a file that comes into backups. */
export async function pauseRig(db: Knex, work: RigWork, why: string | null): Promise<void> {
  const { crateId, runId } = work;
  await writing(db, crateId, async (trx) => {
    const { rig } = await rigRow(trx, { crateId, runId }, true);
    if (rig.state !== 'running') return;
    const so = await kept(trx, runId);
    await setRig(
      trx,
      runId,
      {
        ...rig,
        ...so,
        state: 'paused',
        taskId: null,
        why: why ?? 'It was cancelled. What was sampled until then is kept; it can go on from there.'
      },
      null
    );
  });
}

/**
 * Takes a paused run up again.
 * @throws Problem `conflict` where it goes on already, or has ended; `drive-busy` where the drive is measured otherwise
 */
export async function resumeRig(
  db: Knex,
  args: { crateId: string; runId: string; drive: string; speed?: number | undefined; by: string }
): Promise<RigWork> {
  const { crateId, runId, drive, speed, by } = args;
  return writing(db, crateId, async (trx) => {
    const { run, rig } = await refreshed(trx, { crateId, runId });
    if (rig.state === 'running') throw new Problem('conflict', 'This run goes on already.');
    if (rig.state !== 'paused') throw new Problem('conflict', 'This run has come to its end; begin another one.');
    await refuseBusy(trx, drive, runId);
    let so = await kept(trx, runId);
    if (so.sampled === 0 && run.series) {
      // It came out of a backup: there its samples are in a file.
      const samples = await readSeries(trx, { crateId, fileId: run.series.fileId });
      await appendSamples(trx, { crateId, runId, first: 0, samples });
      so = await kept(trx, runId);
    }
    const going: RigRow = { ...rig, ...so, state: 'running', taskId: null, why: null, ...(speed ? { speed } : {}) };
    await trx('runs').where({ busy_drive: drive }).whereNot({ id: runId }).update({ busy_drive: null });
    await setRig(trx, runId, going, drive);
    await trx('runs').where({ id: runId }).update({ updated_at: new Date().toISOString() });
    return { crateId, runId, protocol: run.protocol, settings: run.settings ?? {}, rig: going, by };
  });
}

/** Ends a run with its results and its series, in one transaction with the task that played it. */
export async function finishRig(
  db: Knex,
  work: RigWork,
  made: { results: PairResults; series: Series; phases: NonNullable<SeriesMeta['phases']> },
  control: TaskControl
): Promise<void> {
  const { crateId, runId, by } = work;
  const at = new Date().toISOString();
  await writing(db, crateId, async (trx) => {
    const { run, rig, version } = await rigRow(trx, { crateId, runId }, true);
    const group = newId();
    const { meta, attach } = await keepSeries(trx, { crateId, runId, ...made, group, by, at });
    const ended: RigRow = { ...rig, state: 'done', taskId: null, sampled: meta.samples, atS: meta.seconds, why: null };
    await change(trx, {
      action: 'update',
      table: 'runs',
      crateId,
      id: runId,
      version,
      by,
      at,
      group,
      event: {
        kind: 'measured',
        message: `The simulated ${PROTOCOL_LABEL[run.protocol]} of ${run.chain.drive} has come to its end.`
      },
      row: { results: made.results, series: meta, rig: ended, busy_drive: null }
    });
    await attach();
    await forgetSamples(trx, runId);
    await control.commit(trx, { runId });
  });
}

/** What is there of the series of a run: kept, or sampled so far. */
export async function seriesOfRun(
  db: Knex,
  run: Pick<StoredRun, 'id' | 'series'>,
  crateId: string
): Promise<Series | undefined> {
  if (run.series) return readSeries(db, { crateId, fileId: run.series.fileId });
  return sampledSoFar(db, run.id);
}
