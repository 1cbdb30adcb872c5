import type { Knex } from 'knex';
import { z } from 'zod';
import { refuse } from '../../problems/problem';
import { bundleSchema } from '../../repositories/archive/bundle-schema';
import { CONFIRM, WRAPPED_LIMIT } from '../../repositories/archive/lines';
import { safetyCopyPath } from '../../transfer/safety-copy';
import { startTask, type TaskState } from '../../tasks/tasks';
import type { Upload } from '../../transfer/uploads';
import { streamArchive, workOnArchive, type ArchiveWork } from '../../workers/archive';
import { download } from '../download';
import { operation } from '../operation';
import { CRATE, here, inCrate, task } from './common';

export const exportBundle = operation({
  method: 'get',
  path: `${CRATE}/bundle`,
  summary:
    'The whole crate: as one JSON document, whose schema is at /api/bundle.schema.json, or as packed lines, which can be of any size.',
  params: inCrate,
  query: z.object({ form: z.enum(['document', 'lines']).default('document') }),
  produces: 'application/json',
  response: bundleSchema,
  handle: async ({ db, params, query, at }) => {
    const { slug } = await here(db, params.crateId);
    const lines = query.form === 'lines';
    const content = await streamArchive({ do: 'bundle', ...params, at, form: lines ? 'stream' : 'document' });
    const name = `${slug}-bundle-${at.slice(0, 10)}.json`;
    return download(content, lines ? 'application/gzip' : 'application/json', lines ? `${name}l.gz` : name);
  }
});

/**
 * Starts a task on an upload. What is sent as JSON is looked through before it is answered, so that what is wrong with it is told at
 * once; a stream may take minutes, and its task tells.
 */
async function onUpload(
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

const ARCHIVES = ['application/gzip', 'application/x-gzip', 'application/octet-stream'] as const;

export const importBundle = operation({
  method: 'post',
  path: '/api/bundle',
  summary:
    'Open a bundle as a new crate; gives the task that does it. The JSON document, or as application/gzip what the export gave, of any size.',
  bodyLimit: WRAPPED_LIMIT,
  streams: ARCHIVES,
  body: bundleSchema,
  response: task,
  status: 202,
  handle: ({ db, upload, at }) =>
    onUpload(db, 'Open a bundle', upload!, (taskId) => ({ do: 'open', path: upload!.path, at, taskId }))
});

let schema: object | undefined;
export const bundleJsonSchema = operation({
  method: 'get',
  path: '/api/bundle.schema.json',
  summary: 'The JSON Schema of a bundle.',
  response: z.unknown(),
  handle: async () => (schema ??= z.toJSONSchema(bundleSchema, { io: 'input' }))
});

export const downloadBackup = operation({
  method: 'get',
  path: '/api/backup',
  summary: 'Everything in the database as one file, made while it is sent.',
  produces: 'application/gzip',
  response: z.unknown(),
  handle: async ({ at }) =>
    download(
      await streamArchive({ do: 'backup', at }),
      'application/gzip',
      `ash-crate-${at.slice(0, 19).replace(/[:T]/g, '-')}.jsonl.gz`
    )
});

export const restore = operation({
  method: 'post',
  path: '/api/restore',
  summary:
    'Put a backup in the place of everything; a copy of what is there to the last write is kept in the data folder first. As application/gzip of any size, with ?confirm=replace everything; or as JSON.',
  bodyLimit: WRAPPED_LIMIT,
  streams: ARCHIVES,
  query: z.object({ confirm: z.string().max(40).optional() }),
  body: z.strictObject({ content: z.base64(), confirm: z.literal(CONFIRM) }),
  response: task,
  status: 202,
  handle: async ({ db, query, upload: kept, at }) => {
    const upload = kept!;
    const wrapped = upload.type === 'application/json';
    if (!wrapped && query.confirm !== CONFIRM) {
      await upload.drop();
      refuse([{ path: 'confirm', message: `must be “${CONFIRM}”` }]);
    }
    const safetyCopy = await safetyCopyPath(at);
    return onUpload(db, 'Restore', upload, (taskId) => ({
      do: 'restore',
      path: upload.path,
      wrapped,
      safetyCopy,
      at,
      taskId
    }));
  }
});
