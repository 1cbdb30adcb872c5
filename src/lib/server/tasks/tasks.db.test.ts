import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Knex } from 'knex';
import { freshDatabase } from '../../../../tests/fresh-database';
import { problemCode as code } from '../../../../tests/problem-code';
import { newId } from '../db/change';
import { Problem } from '../problems/problem';
import { cancelTask, startTask, taskState, watchTask } from './tasks';
import type { TaskState } from '../work/task-state';
import type { TaskControl } from '../work/control';
import { createCrate, listCrates } from '../repositories/crates';
import { forgetTasks, insertTask, markWatched } from '../repositories/task-rows';
import { writing } from '../db/writing';

let db: Knex;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ db, drop } = await freshDatabase());
});
afterAll(() => drop());

/** Every state that a watcher is told, until the task has ended. */
function statesOf(id: string): Promise<TaskState[]> {
  return new Promise((done) => {
    const states: TaskState[] = [];
    watchTask(db, id, (state) => {
      states.push(state);
      if (state.state !== 'running') done(states);
    });
  });
}
const steps = (count: number) => async (work: TaskControl) => {
  for (let i = 1; i <= count; i++) await work.report(`Step ${i}`, i, count);
  return { made: count };
};

describe('a task', () => {
  it('tells where it is, and what came of it', async () => {
    const { id, state } = await startTask(db, 'Import', steps(3));
    expect(state).toBe('running');
    const states = await statesOf(id);
    expect(states.map((s) => s.step)).toEqual(['Beginning', 'Step 1', 'Step 2', 'Step 3', 'Done']);
    expect(states.at(-1)).toMatchObject({ state: 'done', done: 3, total: 3, result: { made: 3 } });
    expect(await taskState(db, id)).toEqual(states.at(-1));
  });
  it('stops at its next report when it is cancelled, and does nothing more', async () => {
    let reached = 0;
    const { id } = await startTask(db, 'Import', async (work) => {
      for (let i = 1; i <= 100; i++) {
        await work.report(`Step ${i}`, i, 100);
        reached = i;
        if (i === 2) void cancelTask(db, id);
      }
    });
    const states = await statesOf(id);
    expect(states.at(-1)).toMatchObject({ state: 'cancelled', step: 'Cancelled; nothing was changed' });
    expect(reached).toBe(2);
  });
  it('a cancel that comes too late changes nothing', async () => {
    const { id } = await startTask(db, 'Import', steps(1));
    await statesOf(id);
    expect((await cancelTask(db, id)).state).toBe('done');
    expect((await taskState(db, id)).state).toBe('done');
  });
  it('says what was wrong with its input, path by path', async () => {
    const { id } = await startTask(db, 'Import', () =>
      Promise.reject(new Problem('bad-input', 'Two rows are wrong.', [{ path: 'rows.1.name', message: 'is needed' }]))
    );
    expect((await statesOf(id)).at(-1)).toMatchObject({
      state: 'failed',
      step: 'Two rows are wrong.',
      error: { code: 'bad-input', fields: [{ path: 'rows.1.name' }] }
    });
  });
  it('a fault of the program is logged, and not told to the person', async () => {
    const log = vi.spyOn(console, 'error').mockImplementation(() => {});
    const { id } = await startTask(db, 'Import', () => Promise.reject(new Error('password=secret')));
    const last = (await statesOf(id)).at(-1)!;
    expect(last).toMatchObject({ state: 'failed', error: { code: 'internal' } });
    expect(JSON.stringify(last)).not.toContain('secret');
    expect(log).toHaveBeenCalledOnce();
    log.mockRestore();
  });
  it('lets other things happen between two reports', async () => {
    const order: string[] = [];
    const { id } = await startTask(db, 'Long', async (work) => {
      await work.report('one', 1, 2);
      order.push('one');
      await work.report('two', 2, 2);
      order.push('two');
    });
    setImmediate(() => order.push('a page was served'));
    await statesOf(id);
    expect(order.indexOf('a page was served')).toBeLessThan(order.indexOf('two'));
  });
  it('a listener that has left is told nothing more', async () => {
    const told: string[] = [];
    const { id } = await startTask(db, 'Import', steps(3));
    const leave = watchTask(db, id, (state) => told.push(state.step));
    leave();
    await statesOf(id);
    expect(told).toEqual(['Beginning']);
  });
  it('one that never was is not found', async () => {
    for (const ask of [taskState, cancelTask]) await expect(ask(db, newId())).rejects.toThrow('There is no such task.');
  });
  it('whose work could not reach the database says that, and not that something went wrong', async () => {
    const away = Object.assign(new Error('connect ECONNREFUSED'), { code: 'ECONNREFUSED' });
    const { id } = await startTask(db, 'Import', () => Promise.reject(away));
    expect((await statesOf(id)).at(-1)).toMatchObject({ state: 'failed', error: { code: 'database-away' } });
  });
});

describe('a task and the process that works on it', () => {
  const row = (change: Partial<TaskState> & { leaseUntil: number }) => {
    const id = newId();
    const blank = {
      id,
      title: 'Import',
      state: 'running' as const,
      done: 3,
      total: 9,
      step: 'Writing',
      owner: newId()
    };
    return insertTask(db, { ...blank, ...change }).then(() => id);
  };
  it('is failed, truthfully, when that process ended: its lease has run out', async () => {
    const id = await row({ leaseUntil: Date.now() - 1 });
    const state = await taskState(db, id);
    expect(state).toMatchObject({ state: 'failed', done: 3, total: 9, error: { code: 'left' } });
    expect(state.step).toContain('Nothing of it was kept');
    // whoever asks next is told the same, also by watching
    expect((await statesOf(id)).at(-1)).toEqual(state);
  });
  it('is left alone while that process goes on, and watched through the database', async () => {
    const id = await row({ leaseUntil: Date.now() + 60_000 });
    expect((await taskState(db, id)).state).toBe('running');
    const seen = statesOf(id);
    await db('tasks').where({ id }).update({ state: 'done', step: 'Done', result: '{"made":9}' });
    expect((await seen).at(-1)).toMatchObject({ state: 'done', result: { made: 9 } });
  });
  it('can be cancelled from another process: it is asked to stop, and cannot commit any more', async () => {
    const id = await row({ leaseUntil: Date.now() + 60_000 });
    expect((await cancelTask(db, id)).state).toBe('running');
    expect(await db('tasks').where({ id }).first('stop')).toEqual({ stop: 1 });
  });
  it('is known as done where its work was committed, even if the process ends before it can say so', async () => {
    let id = '';
    const at = '2026-11-23T12:00:00.000Z';
    const started = await startTask(db, 'Open', async (work, taskId) => {
      id = taskId;
      await writing(db, null, async (trx) => {
        await createCrate(trx, { name: 'Committed', at });
        await work.commit(trx, { crate: 'Committed' });
      });
      // as if the connection broke while the answer to the commit was on its way
      throw Object.assign(new Error('lost'), { code: 'PROTOCOL_CONNECTION_LOST' });
    });
    expect((await statesOf(started.id)).at(-1)).toMatchObject({ state: 'done', result: { crate: 'Committed' } });
    expect((await taskState(db, id)).state).toBe('done');
  });
  it('that was cancelled before its end commits nothing', async () => {
    const at = '2026-11-23T12:00:00.000Z';
    const { id } = await startTask(db, 'Open', async (work, taskId) => {
      await db('tasks').where({ id: taskId }).update({ stop: true });
      await writing(db, null, async (trx) => {
        await createCrate(trx, { name: 'Never', at });
        await work.commit(trx, {});
      });
    });
    expect((await statesOf(id)).at(-1)).toMatchObject({ state: 'cancelled' });
    expect((await listCrates(db)).map(({ name }) => name)).not.toContain('Never');
  });
  it('is forgotten an hour after its end, and not while somebody works on it', async () => {
    const over = await row({ state: 'done', leaseUntil: 0 });
    const running = await row({ leaseUntil: Date.now() + 2 * 3_600_000 });
    await db('tasks')
      .whereIn('id', [over, running])
      .update({ changed_at: Date.now() - 3_600_001 });
    await forgetTasks(db);
    expect(await code(taskState(db, over))).toBe('not-found');
    expect((await taskState(db, running)).state).toBe('running');
  });
});

describe('a task of which only one runs at a time', () => {
  const waits = (only: string) => {
    let end = () => {};
    const until = new Promise<void>((done) => (end = done));
    return { begin: () => startTask(db, 'Judging', () => until, { only }), end: () => end() };
  };
  it('is begun once, however many ask for it at once, and again when it has ended', async () => {
    const { begin, end } = waits('judge one');
    const ids = (await Promise.all([begin(), begin(), begin()])).map(({ id }) => id);
    expect(new Set(ids).size).toBe(1);
    const states = statesOf(ids[0]!);
    end();
    await states;
    await expect.poll(async () => (await db('tasks').where({ id: ids[0]! }).first('only'))?.only).toBeNull();
    expect((await begin()).id).not.toBe(ids[0]);
  });
  it('is not the one of another crate', async () => {
    const [one, other] = [waits('judge a'), waits('judge b')];
    expect((await one.begin()).id).not.toBe((await other.begin()).id);
    one.end();
    other.end();
  });
  it('is begun anew where the process that worked on it was killed', async () => {
    const left: TaskState = { id: newId(), title: 'Judging', state: 'running', done: 0, total: 0, step: 'Beginning' };
    await insertTask(db, { ...left, only: 'judge left', owner: newId(), leaseUntil: Date.now() - 1 });
    const { begin, end } = waits('judge left');
    const { id } = await begin();
    expect(id).not.toBe(left.id);
    expect((await taskState(db, left.id)).state).toBe('failed');
    end();
  });
});

describe('a task that only a page waits for', () => {
  const never = (patienceMs: number) =>
    startTask(
      db,
      'Ranking',
      (work) =>
        new Promise((_, fail) => work.signal.addEventListener('abort', () => fail(work.signal.reason as Error))),
      { patienceMs }
    );
  const stateOf = async (id: string) => (await taskState(db, id)).state;
  it('is cancelled although its work says nothing', async () => {
    const { id } = await never(60_000);
    const states = statesOf(id);
    await cancelTask(db, id);
    expect((await states).at(-1)).toMatchObject({ state: 'cancelled' });
  });
  it('ends when nobody has watched it for a while, and not while somebody does', async () => {
    const watched = await never(60);
    const leave = watchTask(db, watched.id, () => {});
    const alone = await never(60);
    await expect.poll(() => stateOf(alone.id)).toBe('cancelled');
    expect(await stateOf(watched.id)).toBe('running');
    leave();
    await expect.poll(() => stateOf(watched.id)).toBe('cancelled');
  });
  it('goes on while somebody watches it through another process', async () => {
    const { id } = await never(80);
    const watching = setInterval(() => void markWatched(db, id, Date.now()), 20);
    await new Promise((done) => setTimeout(done, 400));
    expect(await stateOf(id)).toBe('running');
    clearInterval(watching);
    await expect.poll(() => stateOf(id)).toBe('cancelled');
  });
});
