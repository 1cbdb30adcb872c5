import type { Knex } from 'knex';
import { z } from 'zod';
import { fileFields, FILES } from '#core/exchange/kinds-of-file';
import { columnsOf } from '#core/exchange/table';
import { id, text } from '#core/parts/field';
import { KINDS } from '#core/parts/kinds';
import { bundleSchema } from '../../repositories/archive/bundle';
import { CONFIRM, WRAPPED_LIMIT } from '../../repositories/archive/lines';
import { exportFile } from '../../exchange/export';
import { importRequestSchema, planImport, runImport } from '../../exchange/import';
import { safetyCopyPath } from '../../exchange/safety-copy';
import * as attachments from '../../repositories/attachments';
import { refuse } from '../../problem';
import { cancelTask, startTask, taskState, watchTask, type TaskState } from '../../tasks';
import type { Upload } from '../../uploads';
import { streamArchive, workOnArchive, type ArchiveWork } from '../../workers/archive';
import { operation } from '../operation';
import { changed, CRATE, here, inCrate, inCrateWithId, task, versioned } from './common';

const download = (content: string | Uint8Array<ArrayBuffer> | ReadableStream<Uint8Array>, type: string, name: string) =>
  new Response(content, {
    headers: {
      'content-type': type,
      // A name of our own making in plain letters; the real one follows in the encoding made for it.
      'content-disposition': `attachment; filename="${name.replace(/[^\w.-]+/g, '_')}"; filename*=UTF-8''${encodeURIComponent(name)}`,
      'cache-control': 'no-store',
      // Whatever a file holds, it is never run as a page of this application.
      'content-security-policy': "sandbox; default-src 'none'"
    }
  });

export const listAttachments = operation({
  method: 'get',
  path: `${CRATE}/attachments`,
  summary: 'Files kept with parts, units and builds; ?subjectId= for one of them.',
  params: inCrate,
  query: z.object({ subjectId: id().optional() }),
  response: z.array(attachments.attachmentSchema),
  handle: async ({ db, params, query }) => {
    return attachments.listAttachments(db, { ...params, ...query });
  }
});

export const createAttachment = operation({
  method: 'post',
  path: `${CRATE}/attachments`,
  summary: 'Keep a file with a part, a unit or a build: 8 MB at most, its content in base64.',
  params: inCrate,
  bodyLimit: Math.ceil((attachments.ATTACHMENT_LIMIT * 4) / 3) + 10_000,
  body: z.strictObject({
    subjectTable: z.enum(attachments.SUBJECTS),
    subjectId: id(),
    name: text('Name', 200),
    type: z.string().regex(/^[\w.+-]{1,48}\/[\w.+-]{1,48}$/, 'must be a type such as image/png'),
    content: z.base64()
  }),
  response: changed,
  status: 201,
  handle: ({ db, params, body: { content, ...rest }, by, at }) =>
    attachments.createAttachment(db, { ...params, ...rest, content: Buffer.from(content, 'base64'), by, at })
});

export const readAttachment = operation({
  method: 'get',
  path: `${CRATE}/attachments/{id}`,
  summary: 'The content of a file.',
  params: inCrateWithId,
  produces: 'application/octet-stream',
  response: z.unknown(),
  handle: async ({ db, params }) => {
    const { attachment, content } = await attachments.readAttachment(db, params);
    return download(new Uint8Array(content), attachment.type, attachment.name);
  }
});

export const deleteAttachment = operation({
  method: 'delete',
  path: `${CRATE}/attachments/{id}`,
  summary: 'Delete a file.',
  params: inCrateWithId,
  body: versioned,
  response: changed,
  handle: ({ db, params, body, by, at }) => attachments.deleteAttachment(db, { ...params, ...body, by, at })
});

export const exportTable = operation({
  method: 'get',
  path: `${CRATE}/export`,
  summary: 'Parts of a kind, units or quotes as CSV or JSON.',
  params: inCrate,
  query: z.object({
    what: z.enum(FILES),
    kind: z.enum(KINDS).optional(),
    format: z.enum(['csv', 'json']).default('csv')
  }),
  produces: 'text/csv',
  response: z.unknown(),
  handle: async ({ db, params, query }) => {
    const crate = await here(db, params.crateId);
    const type = query.format === 'csv' ? 'text/csv; charset=utf-8' : 'application/json';
    const what = query.what === 'models' ? `${query.kind ?? 'drive'}s` : query.what;
    return download(await exportFile(db, { ...params, ...query }), type, `${crate.slug}-${what}.${query.format}`);
  }
});

const planned = z.strictObject({
  row: z.number(),
  outcome: z.enum(['new', 'changed', 'same', 'wrong']),
  name: z.string(),
  cells: z.record(z.string(), z.string()),
  errors: z.record(z.string(), z.string())
});
const counts = z.strictObject({ new: z.number(), changed: z.number(), same: z.number(), wrong: z.number() });
const IMPORT_LIMIT = 48_000_000;
/** Rows that a preview shows; wrong ones come first. */
const SHOWN = 200;

export const previewImport = operation({
  method: 'post',
  path: `${CRATE}/import/preview`,
  summary: 'What an import would do, row by row, without doing it.',
  params: inCrate,
  bodyLimit: IMPORT_LIMIT,
  body: importRequestSchema,
  response: z.strictObject({
    headings: z.array(z.string()),
    mapping: z.array(z.string().nullable()),
    missing: z.array(z.string()),
    columns: z.array(z.strictObject({ path: z.string(), title: z.string(), required: z.boolean() })),
    counts,
    rows: z.array(planned)
  }),
  handle: async ({ db, params, body }) => {
    const { rows, ...plan } = await planImport(db, params.crateId, body);
    const wrongFirst = [...rows.filter((r) => r.outcome === 'wrong'), ...rows.filter((r) => r.outcome !== 'wrong')];
    return {
      ...plan,
      columns: columnsOf(fileFields(body.what, body.kind)),
      rows: wrongFirst.slice(0, SHOWN).map(({ write: _write, ...row }) => row)
    };
  }
});

export const startImport = operation({
  method: 'post',
  path: `${CRATE}/import`,
  summary: 'Import a file, all of it or nothing; gives the task that does it.',
  params: inCrate,
  bodyLimit: IMPORT_LIMIT,
  body: importRequestSchema,
  response: task,
  status: 202,
  handle: async ({ db, params, body, by, at }) => {
    return startTask(db, 'Import', (work) => runImport(db, { ...params, request: body, by, at }, work));
  }
});

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

const inTask = z.object({ taskId: id() });

export const getTask = operation({
  method: 'get',
  path: '/api/tasks/{taskId}',
  summary: 'How far a long piece of work is.',
  params: inTask,
  response: task,
  handle: ({ db, params }) => taskState(db, params.taskId)
});

export const cancel = operation({
  method: 'post',
  path: '/api/tasks/{taskId}/cancel',
  summary: 'Ask a piece of work to stop; nothing of it stays.',
  params: inTask,
  body: z.strictObject({}),
  response: task,
  handle: ({ db, params }) => cancelTask(db, params.taskId)
});

export const taskEvents = operation({
  method: 'get',
  path: '/api/tasks/{taskId}/events',
  summary: 'Server-sent events with the state of a piece of work, until it ends.',
  params: inTask,
  produces: 'text/event-stream',
  response: task,
  handle: async ({ db, params, request }) => {
    await taskState(db, params.taskId);
    const encoder = new TextEncoder();
    let stop = () => {};
    const stream = new ReadableStream<Uint8Array>({
      start(controller) {
        stop = watchTask(db, params.taskId, (state) => {
          try {
            controller.enqueue(encoder.encode(`data: ${JSON.stringify(state)}\n\n`));
            if (state.state !== 'running') controller.close();
          } catch {
            stop(); // the reader has gone
          }
        });
        request.signal.addEventListener('abort', () => stop());
      },
      cancel: () => stop()
    });
    return new Response(stream, {
      headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache, no-transform' }
    });
  }
});
