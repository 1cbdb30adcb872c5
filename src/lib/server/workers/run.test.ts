import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { cancelTask, startTask, taskState, watchTask, type TaskState } from '../tasks';
import { inWorker, WorkerEnded } from './run';

/** Stand-ins for the bundled worker: each says one thing about how threads end. */
const WORKERS = {
  answers: `import { parentPort, workerData } from 'node:worker_threads';
    parentPort.postMessage({ share: 0.5 });
    parentPort.postMessage({ result: workerData.input.hosts.length });`,
  throws: `throw new Error('a fault');`,
  leaves: `process.exit(3);`,
  never: `setInterval(() => {}, 1000);`,
  hungry: `const all = []; for (;;) all.push(new Array(1e6).fill(1.5));`
};
let folder: string;
const file = (name: keyof typeof WORKERS) => join(folder, `${name}.mjs`);
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'ash-crate-workers-'));
  for (const [name, text] of Object.entries(WORKERS)) writeFileSync(join(folder, `${name}.mjs`), text);
});
afterAll(() => rmSync(folder, { recursive: true }));

const input = { hosts: [1, 2, 3] } as never;

describe('work in a thread of its own', () => {
  it('gives what came out, and says how far it is', async () => {
    const shares: number[] = [];
    expect(await inWorker('rank', input, { file: file('answers'), onProgress: (s) => shares.push(s) })).toBe(3);
    expect(shares).toEqual([0.5]);
  });
  it.each(['throws', 'leaves', 'hungry'] as const)('a thread that %s is reported and harms nothing', async (name) => {
    await expect(inWorker('rank', input, { file: file(name) })).rejects.toBeInstanceOf(WorkerEnded);
    expect(await inWorker('rank', input, { file: file('answers') })).toBe(3);
  });
  it('ends at once when it is told to, before or while it runs', async () => {
    const controller = new AbortController();
    const running = inWorker('rank', input, { file: file('never'), signal: controller.signal });
    controller.abort(new Error('enough'));
    await expect(running).rejects.toThrow('enough');
    await expect(inWorker('rank', input, { file: file('never'), signal: controller.signal })).rejects.toThrow('enough');
  });
});

describe('many at once', () => {
  it('take turns, all come to their end, and one that waits can be cancelled', async () => {
    const blocked = new AbortController();
    // enough to fill every place
    const never = Array.from({ length: 64 }, () =>
      inWorker('rank', input, { file: file('never'), signal: blocked.signal }).catch((error: Error) => error.message)
    );
    const impatient = new AbortController();
    const waits = inWorker('rank', input, { file: file('answers'), signal: impatient.signal });
    impatient.abort(new Error('no longer wanted'));
    await expect(waits).rejects.toThrow('no longer wanted');
    blocked.abort(new Error('enough'));
    expect(new Set(await Promise.all(never))).toEqual(new Set(['enough']));
    const answers = Array.from({ length: 9 }, () => inWorker('rank', input, { file: file('answers') }));
    expect(await Promise.all(answers)).toEqual(Array.from({ length: 9 }, () => 3));
  });
});

const ended = (id: string): Promise<TaskState> =>
  new Promise((done) => watchTask(id, (state) => state.state !== 'running' && done(state)));
const never = (patienceMs?: number) =>
  startTask(
    'Ranking',
    (work) => inWorker('rank', input, { file: file('never'), signal: work.signal }),
    patienceMs === undefined ? {} : { patienceMs }
  );

describe('a task that works in a thread', () => {
  it('is cancelled although the thread says nothing', async () => {
    const { id } = never();
    const state = ended(id);
    cancelTask(id);
    expect(await state).toMatchObject({ state: 'cancelled' });
  });
  it('fails with a sentence when the thread dies', async () => {
    const log = console.error;
    console.error = () => {};
    const { id } = startTask('Ranking', (work) =>
      inWorker('rank', input, { file: file('throws'), signal: work.signal })
    );
    expect(await ended(id)).toMatchObject({ state: 'failed', error: { code: 'internal' } });
    console.error = log;
  });
  it('ends when nobody has watched it for a while, and not while somebody does', async () => {
    const watched = never(60);
    const leave = watchTask(watched.id, () => {});
    const alone = never(60);
    await expect.poll(() => taskState(alone.id).state).toBe('cancelled');
    expect(taskState(watched.id).state).toBe('running');
    leave();
    await expect.poll(() => taskState(watched.id).state).toBe('cancelled');
  });
  it('a page that is loaded again finds it still running', async () => {
    // The clock is the test's own: a slow machine cannot make it late.
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
    let id: string;
    try {
      ({ id } = never(150));
      watchTask(id, () => {})();
      vi.advanceTimersByTime(149);
      const again = watchTask(id, () => {});
      vi.advanceTimersByTime(10_000);
      expect(taskState(id).state).toBe('running');
      again();
      vi.advanceTimersByTime(151);
    } finally {
      vi.useRealTimers();
    }
    await expect.poll(() => taskState(id).state).toBe('cancelled');
  });
});
