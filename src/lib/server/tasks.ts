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
};

class Cancelled extends Error {}

type Running = { state: TaskState; cancelled: boolean; listeners: Set<(state: TaskState) => void> };
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
 */
export function startTask(title: string, run: (work: Work) => Promise<unknown>): TaskState {
  const task: Running = {
    state: { id: newId(), title, state: 'running', done: 0, total: 0, step: 'Beginning' },
    cancelled: false,
    listeners: new Set()
  };
  tasks.set(task.state.id, task);
  const work: Work = {
    async report(step, done, total) {
      await breathe();
      if (task.cancelled) throw new Cancelled();
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
  return { ...task.state };
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
  task.cancelled = true;
  return { ...task.state };
}

/** Calls with the state now and at every change, until the task ends. @returns stops listening */
export function watchTask(id: string, listener: (state: TaskState) => void): () => void {
  const task = find(id);
  listener({ ...task.state });
  if (task.state.state !== 'running') return () => {};
  task.listeners.add(listener);
  return () => void task.listeners.delete(listener);
}
