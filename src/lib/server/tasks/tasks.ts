import { isMainThread } from 'node:worker_threads';
import type { Knex } from 'knex';
import { newId } from '../db/change';
import { problemOf } from '../db/errors';
import { notFound, Problem } from '../problems/problem';
import * as rows from '../repositories/task-rows';
import type { TaskState } from '../work/task-state';
import type { TaskControl } from '../work/control';

class Cancelled extends Error {}

type Running = {
  state: TaskState;
  controller: AbortController;
  listeners: Set<(state: TaskState) => void>;
  /** How long it goes on without anybody watching, ms; undefined for ever. */
  patienceMs: number | undefined;
};
/** Those that this process works on. What is known of all others stands in the database. */
const mine = new Map<string, Running>();
/** Who this process is: a lease in its name is its own. */
const OWNER = newId();

/** A lease runs this long; it is renewed three times in it, so that a database that is away for a moment loses no task. */
const LEASE_MS = 15_000;
/** How long an ended task is tried to be written down while the database is away. */
const PERSIST_MS = 10 * 60_000;
const POLL_MS = 400;

const tell = (task: Running) => {
  for (const listener of task.listeners) listener({ ...task.state });
};

/** Lets requests and timers through before the next stretch of work. */
const yieldToEventLoop = () => new Promise<void>((done) => setImmediate(done));
const pause = (ms: number) => new Promise<void>((done) => setTimeout(done, ms).unref());

/**
 * Starts a long piece of work and returns at once. The task is a row with a lease, so it is known after this process has ended, and
 * nobody else works on it meanwhile. Cancelling throws out of `report`, so that nothing of it stays.
 * @param options.patienceMs ends by itself when nobody has watched it for so long: what only a page waits for
 * @param options.only a name of which one task runs at a time, in whichever process; where one does, that is what is returned
 */
export async function startTask(
  db: Knex,
  title: string,
  run: (work: TaskControl, id: string) => Promise<unknown>,
  options: { patienceMs?: number; only?: string } = {}
): Promise<TaskState> {
  if (!isMainThread) throw new Error('A task starts no other task.');
  const task: Running = {
    state: { id: newId(), title, state: 'running', done: 0, total: 0, step: 'Beginning' },
    controller: new AbortController(),
    listeners: new Set(),
    patienceMs: options.patienceMs
  };
  const { id } = task.state;
  const { only } = options;
  const begins = await rows.insertTask(db, { ...task.state, only, owner: OWNER, leaseUntil: Date.now() + LEASE_MS });
  if (!begins && only !== undefined) {
    const running = await rows.runningTask(db, only);
    return running ?? startTask(db, title, run, options);
  }
  mine.set(id, task);
  const work: TaskControl = {
    signal: task.controller.signal,
    async report(step, done, total) {
      await yieldToEventLoop();
      if (task.controller.signal.aborted) throw new Cancelled();
      Object.assign(task.state, { step, done, total });
      tell(task);
    },
    async commit(trx, result) {
      if (task.controller.signal.aborted || !(await rows.commitTask(trx, id, result))) throw new Cancelled();
    }
  };
  const heartbeat = setInterval(() => {
    const { step, done, total } = task.state;
    rows
      .renewTask(db, id, { step, done, total, leaseUntil: Date.now() + LEASE_MS })
      // Cancelled from another process; or written off, because this one was away for too long.
      .then((goesOn) => void (goesOn || task.controller.abort(new Cancelled())))
      .catch(() => {});
  }, LEASE_MS / 3);
  heartbeat.unref();

  const end = async (change: Partial<TaskState>) => {
    clearInterval(heartbeat);
    // Where the connection broke at the end, only the database knows whether it was done.
    const known = change.state === 'done' ? undefined : await rows.findTask(db, id).catch(() => undefined);
    Object.assign(task.state, known?.state === 'done' ? { ...known } : change);
    tell(task);
    task.listeners.clear();
    await persist(db, task.state);
    mine.delete(id);
  };
  void run(work, id).then(
    (result) => end({ state: 'done', step: 'Done', done: task.state.total, result }),
    (error: unknown) => {
      if (error instanceof Cancelled || task.controller.signal.aborted)
        return end({ state: 'cancelled', step: 'Cancelled; nothing was changed' });
      const problem = problemOf(error);
      if (!problem) console.error(error);
      const { code, message, fields } = problem ?? {
        code: 'internal',
        message: 'Something went wrong here; nothing was changed.',
        fields: []
      };
      return end({ state: 'failed', step: message, error: { code, message, fields } });
    }
  );
  waitForWatchers(db, task);
  return { ...task.state };
}

/** Writes down how a task ended; while the database is away it is tried again. */
async function persist(db: Knex, state: TaskState): Promise<void> {
  for (const until = Date.now() + PERSIST_MS; Date.now() < until; await pause(1000))
    try {
      return await rows.endTask(db, state);
    } catch (error) {
      if (!problemOf(error)) return console.error(error);
    }
}

/** Gives a page that was closed, or is being loaded again, some time to come back. */
function waitForWatchers(db: Knex, task: Running): void {
  const { patienceMs } = task;
  if (patienceMs === undefined) return;
  setTimeout(() => {
    if (task.listeners.size > 0 || task.state.state !== 'running') return;
    // Somebody may watch through another process.
    rows
      .watchedSince(db, task.state.id, Date.now() - patienceMs)
      .then((watched) => (watched ? waitForWatchers(db, task) : task.controller.abort(new Cancelled())))
      .catch(() => waitForWatchers(db, task));
  }, patienceMs).unref();
}

/**
 * How a task stands, whichever process works on it. One whose lease ran out was left by a process that ended: it is failed, truthfully.
 * @throws Problem `not-found` for a task that never was, or ended long ago
 */
export async function taskState(db: Knex, id: string): Promise<TaskState> {
  const own = mine.get(id);
  if (own) return { ...own.state };
  const state = await rows.findTask(db, id);
  if (!state) throw notFound('task');
  if (state.state !== 'running' || !(await rows.writeOff(db, id, Date.now()))) return state;
  return (await rows.findTask(db, id)) ?? state;
}

/** Asks a task to stop; it does so at its next report. One that has ended stays as it is. */
export async function cancelTask(db: Knex, id: string): Promise<TaskState> {
  const own = mine.get(id);
  if (own) own.controller.abort(new Cancelled());
  else if (!(await rows.askToStop(db, id))) throw notFound('task');
  return taskState(db, id);
}

/** Calls with the state now and at every change, until the task ends. @returns stops listening */
export function watchTask(db: Knex, id: string, listener: (state: TaskState) => void): () => void {
  const own = mine.get(id);
  if (!own) return watchElsewhere(db, id, listener);
  listener({ ...own.state });
  if (own.state.state !== 'running') return () => {};
  own.listeners.add(listener);
  return () => {
    own.listeners.delete(listener);
    if (own.listeners.size === 0) waitForWatchers(db, own);
  };
}

/** A task of another process, or of one that has ended: its row is looked at again and again. */
function watchElsewhere(db: Knex, id: string, listener: (state: TaskState) => void): () => void {
  let watching = true;
  void (async () => {
    for (let last = ''; watching; await pause(POLL_MS)) {
      let state: TaskState;
      try {
        state = await taskState(db, id);
        await rows.markWatched(db, id, Date.now());
      } catch (error) {
        // Gone is gone; a database that is away may come back.
        if (error instanceof Problem && error.code === 'not-found') return;
        continue;
      }
      const text = JSON.stringify(state);
      if (text !== last) listener(state);
      last = text;
      if (state.state !== 'running') return;
    }
  })();
  return () => {
    watching = false;
  };
}
