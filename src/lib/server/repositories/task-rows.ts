import type { Knex } from 'knex';
import type { TaskState } from '../work/task-state';

/** An ended task is kept for so long, ms: a page that was closed meanwhile still finds its result. */
const KEPT_MS = 3_600_000;

const LEFT = 'The program ended in the middle of this, before it was finished. Nothing of it was kept; start it again.';

/**
 * Notes a task that begins.
 * @param task.only a name of which no second task runs meanwhile
 * @returns whether it may begin: false where one of this name runs already
 */
export async function insertTask(
  db: Knex,
  task: TaskState & { owner: string; leaseUntil: number; only?: string | undefined }
): Promise<boolean> {
  const { id, title, state, done, total, step, owner, leaseUntil, only = null } = task;
  // One that was left by a process that ended is in nobody's way.
  if (only !== null) {
    const [left] = await db('tasks')
      .where({ only, state: 'running' })
      .where('lease_until', '<', Date.now())
      .pluck('id');
    if (left !== undefined) await writeOff(db, left, Date.now());
  }
  const row = { id, title, state, done, total, step, owner, only, lease_until: leaseUntil, changed_at: Date.now() };
  await db('tasks').insert(row).onConflict('only').ignore();
  return (await db('tasks').where({ id }).first('id')) !== undefined;
}

/** Finds the task of a name that runs just now. */
export async function runningTask(db: Knex, only: string): Promise<TaskState | undefined> {
  const row = (await db('tasks').where({ only }).first()) as Record<string, unknown> | undefined;
  return row && fromRow(row);
}

const fromRow = (row: Record<string, unknown>): TaskState => ({
  id: row.id as string,
  title: row.title as string,
  state: row.state as TaskState['state'],
  done: Number(row.done),
  total: Number(row.total),
  step: row.step as string,
  ...(row.result === null ? {} : { result: JSON.parse(row.result as string) as unknown }),
  ...(row.error === null ? {} : { error: JSON.parse(row.error as string) as NonNullable<TaskState['error']> })
});

export async function findTask(db: Knex, id: string): Promise<TaskState | undefined> {
  const row = (await db('tasks').where({ id }).first()) as Record<string, unknown> | undefined;
  return row && fromRow(row);
}

/** Marks a task as done within the transaction that does it. @returns false where it was cancelled or written off meanwhile */
export async function commitTask(trx: Knex.Transaction, id: string, result: unknown): Promise<boolean> {
  const change = {
    state: 'done',
    step: 'Done',
    result: JSON.stringify(result ?? null),
    only: null,
    changed_at: Date.now()
  };
  return (await trx('tasks').where({ id, state: 'running', stop: false }).update(change)) === 1;
}

/** Goes on with a task. @returns false where it was asked to stop, or was written off */
export async function renewTask(
  db: Knex,
  id: string,
  change: Pick<TaskState, 'step' | 'done' | 'total'> & { leaseUntil: number }
): Promise<boolean> {
  const { leaseUntil, step, ...rest } = change;
  const row = { ...rest, step: step.slice(0, 400), lease_until: leaseUntil, changed_at: Date.now() };
  if ((await db('tasks').where({ id, state: 'running', stop: false }).update(row)) === 1) return true;
  // Done in its own transaction already: nothing is to be stopped.
  return (await db('tasks').where({ id, state: 'done' }).first('id')) !== undefined;
}

export async function endTask(db: Knex, { id, state, done, total, step, result, error }: TaskState): Promise<void> {
  await db('tasks')
    .where({ id })
    .update({
      state,
      done,
      total,
      step: step.slice(0, 400),
      result: result === undefined ? null : JSON.stringify(result),
      error: error ? JSON.stringify(error) : null,
      only: null,
      changed_at: Date.now()
    });
}

/** Fails a running task whose lease ran out. @returns whether this was one */
export async function writeOff(db: Knex, id: string, now: number): Promise<boolean> {
  const error = JSON.stringify({ code: 'left', message: LEFT, fields: [] });
  const change = { state: 'failed', step: LEFT, error, only: null, changed_at: now };
  return (await db('tasks').where({ id, state: 'running' }).where('lease_until', '<', now).update(change)) === 1;
}

/** @returns whether there is such a task */
export async function askToStop(db: Knex, id: string): Promise<boolean> {
  await db('tasks').where({ id, state: 'running' }).update({ stop: true });
  return (await db('tasks').where({ id }).first('id')) !== undefined;
}

export async function markWatched(db: Knex, id: string, now: number): Promise<void> {
  await db('tasks').where({ id }).update({ watched_at: now });
}

export const watchedSince = async (db: Knex, id: string, since: number): Promise<boolean> =>
  (await db('tasks').where({ id }).where('watched_at', '>=', since).first('id')) !== undefined;

/** Forgets what ended long ago. */
export const forgetTasks = (db: Knex, now = Date.now()): Promise<number> =>
  db('tasks')
    .where('changed_at', '<', now - KEPT_MS)
    .where('lease_until', '<', now)
    .delete();
