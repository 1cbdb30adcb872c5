import type { Knex } from 'knex';
import { startTask } from '../tasks/tasks';
import type { Upload } from '../transfer/uploads';
import type { TaskState } from '../work/task-state';
import { workOnArchive, type ArchiveWork } from '../workers/archive';

/**
 * Starts a task on an upload. What is sent as JSON is looked through before it is answered, so that what is wrong with it is told at
 * once; a stream may take minutes, and its task tells.
 */
export async function onUpload(
  db: Knex,
  title: string,
  upload: Upload,
  work: (taskId: string) => ArchiveWork
): Promise<TaskState> {
  let tellChecked = () => {};
  let tellWrong: (error: unknown) => void = () => {};
  const checked = new Promise<void>((done, fail) => {
    tellChecked = done;
    tellWrong = fail;
  });
  checked.catch(() => {});
  const state = await startTask(db, title, async ({ report, signal }, taskId) => {
    try {
      return await workOnArchive(work(taskId), {
        signal,
        onProgress: (step, done, total) => void report(step, done, total).catch(() => {}),
        onChecked: tellChecked
      });
    } catch (error) {
      tellWrong(error);
      throw error;
    } finally {
      await upload.drop();
    }
  });
  if (upload.type === 'application/json') await checked;
  return state;
}

/** Types under which a packed archive is sent. */
export const ARCHIVES = ['application/gzip', 'application/x-gzip', 'application/octet-stream'] as const;
