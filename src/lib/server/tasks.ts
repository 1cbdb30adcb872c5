import { newId } from './db/change';
import { notFound, Problem, type FieldProblem } from './problem';

/** How far a long piece of work is. `done` of `total` steps; a task that has ended keeps its last word for a while. */
export type TaskState = {
  id: string;
  title: string;
  state: 'running' | 'done' | 'failed' | 'cancelled';
  done: number;
  total: number;
  step: string;
  result?: unknown;
  error?: { code: string; message: string; fields: readonly FieldProblem[] };
};

/** What a task gets to work with: it reports where it is, which is also where a cancel reaches it. */
export type Work = {
  report(step: string, done: number, total: number): Promise<void>;
  /** Aborts when the task is cancelled: for work that does not report by itself. */
  signal: AbortSignal;
};

class Cancelled extends Error {}

type Running = {
  state: TaskState;
  controller: AbortController;
  listeners: Set<(state: TaskState) => void>;
  /** How long it goes on without anybody watching, ms; undefined for ever. */
  patienceMs: number | undefined;
};
const tasks = new Map<string, Running>();
const KEPT_MS = 10 * 60_000;

const tell = (task: Running) => {
  for (const listener of task.listeners) listener({ ...task.state });
};

/** Lets requests and timers through before the next stretch of work. */
const breathe = () => new Promise<void>((done) => setImmediate(done));

/**
 * Starts a long piece of work and returns at once. It runs inside one transaction of its own making; cancelling throws out of
 * `report`, so that nothing of it stays.
 * @param options.patienceMs ends by itself when nobody has watched it for so long: what only a page waits for
 */
export function startTask(
  title: string,
  run: (work: Work) => Promise<unknown>,
  options: { patienceMs?: number } = {}
): TaskState {
  const task: Running = {
    state: { id: newId(), title, state: 'running', done: 0, total: 0, step: 'Beginning' },
    controller: new AbortController(),
    listeners: new Set(),
    patienceMs: options.patienceMs
  };
  tasks.set(task.state.id, task);
  const work: Work = {
    signal: task.controller.signal,
    async report(step, done, total) {
      await breathe();
      if (task.controller.signal.aborted) throw new Cancelled();
      Object.assign(task.state, { step, done, total });
      tell(task);
    }
  };
  const end = (change: Partial<TaskState>) => {
    Object.assign(task.state, change);
    tell(task);
    task.listeners.clear();
    setTimeout(() => tasks.delete(task.state.id), KEPT_MS).unref();
  };
  void run(work).then(
    (result) => end({ state: 'done', step: 'Done', done: task.state.total, result }),
    (error: unknown) => {
      if (error instanceof Cancelled) return end({ state: 'cancelled', step: 'Cancelled; nothing was changed' });
      if (!(error instanceof Problem)) console.error(error);
      const { code, message, fields } =
        error instanceof Problem
          ? error
          : { code: 'internal', message: 'Something went wrong here; nothing was changed.', fields: [] };
      end({ state: 'failed', step: message, error: { code, message, fields } });
    }
  );
  waitForWatchers(task);
  return { ...task.state };
}

/** Gives a page that was closed, or is being loaded again, some time to come back. */
function waitForWatchers(task: Running): void {
  if (task.patienceMs === undefined) return;
  setTimeout(() => {
    if (task.listeners.size === 0 && task.state.state === 'running') task.controller.abort(new Cancelled());
  }, task.patienceMs).unref();
}

const find = (id: string): Running => {
  const task = tasks.get(id);
  if (!task) throw notFound('task');
  return task;
};

/** @throws Problem `not-found` for a task that never was, or ended long ago */
export const taskState = (id: string): TaskState => ({ ...find(id).state });

/** Asks a task to stop; it does so at its next report. One that has ended stays as it is. */
export function cancelTask(id: string): TaskState {
  const task = find(id);
  task.controller.abort(new Cancelled());
  return { ...task.state };
}

/** Calls with the state now and at every change, until the task ends. @returns stops listening */
export function watchTask(id: string, listener: (state: TaskState) => void): () => void {
  const task = find(id);
  listener({ ...task.state });
  if (task.state.state !== 'running') return () => {};
  task.listeners.add(listener);
  return () => {
    task.listeners.delete(listener);
    if (task.listeners.size === 0) waitForWatchers(task);
  };
}
