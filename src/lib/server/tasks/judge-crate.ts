import type { Knex } from 'knex';
import { problemOf } from '../db/errors';
import { judgeDue } from '../planning/overview';
import type { TaskState } from '../work/task-state';
import { startTask } from './tasks';

/**
 * Judges all builds of a crate that are to be judged, in batches, those that somebody looks at first. One such task runs for a crate at a
 * time, in whichever process.
 */
export const startJudging = (db: Knex, crateId: string): Promise<TaskState> =>
  startTask(
    db,
    'Judging builds',
    async (work) => {
      let done = 0;
      for (let left = Infinity; left > 0;) {
        const step = await judgeDue(db, crateId, new Date().toISOString().slice(0, 10));
        // Others change what is judged faster than it can be judged: whoever looks next begins again.
        if (step.kept === 0 && step.left >= left) break;
        done += step.kept;
        left = step.left;
        await work.report('Judging builds', done, done + left);
      }
      return { judged: done };
    },
    { only: `judge ${crateId}` }
  );

/** Begins to judge what a page found not to be judged yet; the page does not wait for it. */
export function judgeInBackground(db: Knex, crateId: string, due: number): void {
  if (due > 0) void startJudging(db, crateId).catch((error: unknown) => problemOf(error) ?? console.error(error));
}
