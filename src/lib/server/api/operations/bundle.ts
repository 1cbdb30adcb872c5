import { operation } from '../operation';
import { CRATE, inCrate, here, task } from './common';
import { z } from 'zod';
import { bundleSchema } from '../../repositories/archive/bundle-schema';
import { streamArchive } from '../../workers/archive';
import { download } from '../download';
import { WRAPPED_LIMIT } from '../../repositories/archive/lines';
import { ARCHIVES, onUpload } from '../on-upload';

let schema: object | undefined;

/** The operations at `…/bundle`, by their names in the OpenAPI document. */
export const bundleOperations = {
  exportBundle: operation({
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
  }),

  importBundle: operation({
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
  }),

  bundleJsonSchema: operation({
    method: 'get',
    path: '/api/bundle.schema.json',
    summary: 'The JSON Schema of a bundle.',
    response: z.unknown(),
    handle: async () => (schema ??= z.toJSONSchema(bundleSchema, { io: 'input' }))
  })
};
