import { describe, expect, it, vi } from 'vitest';
import { Problem } from './problem';
import { cancelTask, startTask, taskState, watchTask, type TaskState, type Work } from './tasks';

/** Every state that a watcher is told, until the task has ended. */
function statesOf(id: string): Promise<TaskState[]> {
  return new Promise((done) => {
    const states: TaskState[] = [];
    watchTask(id, (state) => {
      states.push(state);
      if (state.state !== 'running') done(states);
    });
  });
}
const steps = (count: number) => async (work: Work) => {
  for (let i = 1; i <= count; i++) await work.report(`Step ${i}`, i, count);
  return { made: count };
};

describe('a task', () => {
  it('tells where it is, and what came of it', async () => {
    const { id, state } = startTask('Import', steps(3));
    expect(state).toBe('running');
    const states = await statesOf(id);
    expect(states.map((s) => s.step)).toEqual(['Beginning', 'Step 1', 'Step 2', 'Step 3', 'Done']);
    expect(states.at(-1)).toMatchObject({ state: 'done', done: 3, total: 3, result: { made: 3 } });
    expect(taskState(id)).toEqual(states.at(-1));
  });
  it('stops at its next report when it is cancelled, and does nothing more', async () => {
    let reached = 0;
    const { id } = startTask('Import', async (work) => {
      for (let i = 1; i <= 100; i++) {
        await work.report(`Step ${i}`, i, 100);
        reached = i;
        if (i === 2) cancelTask(id);
      }
    });
    const states = await statesOf(id);
    expect(states.at(-1)).toMatchObject({ state: 'cancelled', step: 'Cancelled; nothing was changed' });
    expect(reached).toBe(2);
  });
  it('a cancel that comes too late changes nothing', async () => {
    const { id } = startTask('Import', steps(1));
    await statesOf(id);
    expect(cancelTask(id).state).toBe('done');
    expect(taskState(id).state).toBe('done');
  });
  it('says what was wrong with its input, path by path', async () => {
    const { id } = startTask('Import', () =>
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
    const { id } = startTask('Import', () => Promise.reject(new Error('password=secret')));
    const last = (await statesOf(id)).at(-1)!;
    expect(last).toMatchObject({ state: 'failed', error: { code: 'internal' } });
    expect(JSON.stringify(last)).not.toContain('secret');
    expect(log).toHaveBeenCalledOnce();
    log.mockRestore();
  });
  it('lets other things happen between two reports', async () => {
    const order: string[] = [];
    const { id } = startTask('Long', async (work) => {
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
    const { id } = startTask('Import', steps(3));
    const leave = watchTask(id, (state) => told.push(state.step));
    leave();
    await statesOf(id);
    expect(told).toEqual(['Beginning']);
  });
  it('one that never was is not found', () => {
    for (const ask of [taskState, cancelTask]) expect(() => ask('no such task')).toThrow('There is no such task.');
  });
});
