import { z } from 'zod';
import { fileFields, FILES } from '#core/tables/kinds-of-table';
import { columnsOf } from '#core/tables/table';
import { id, text } from '#core/parts/form/field';
import { KINDS } from '#core/parts/kinds';
import { exportFile } from '../../transfer/export';
import { importRequestSchema, planImport, runImport } from '../../transfer/import';
import * as attachments from '../../repositories/attachments';
import { cancelTask, startTask, taskState, watchTask } from '../../tasks/tasks';
import { download } from '../download';
import { operation } from '../operation';
import { changed, CRATE, here, inCrate, inCrateWithId, task, versioned } from './common';

export const listAttachments = operation({
  method: 'get',
  path: `${CRATE}/attachments`,
  summary: 'Files kept with parts, units and builds; ?subjectId= for one of them.',
  params: inCrate,
  query: z.object({ subjectId: id().optional() }),
  response: z.array(attachments.attachmentSchema),
  handle: ({ db, params, query }) => attachments.listAttachments(db, { ...params, ...query })
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
  handle: ({ db, params, body, by, at }) =>
    startTask(db, 'Import', (work) => runImport(db, { ...params, request: body, by, at }, work))
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
