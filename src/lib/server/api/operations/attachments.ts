import * as attachments from '../../repositories/attachments';
import { operation } from '../operation';
import { CRATE, inCrate, changed, inCrateWithId, versioned } from './common';
import { z } from 'zod';
import { id, text } from '#core/parts/form/field';
import { download } from '../download';

/** The operations at `…/attachments`, by their names in the OpenAPI document. */
export const attachmentOperations = {
  listAttachments: operation({
    method: 'get',
    path: `${CRATE}/attachments`,
    summary: 'Files kept with parts, items and builds; ?subjectId= for one of them.',
    params: inCrate,
    query: z.object({ subjectId: id().optional() }),
    response: z.array(attachments.attachmentSchema),
    handle: ({ db, params, query }) => attachments.listAttachments(db, { ...params, ...query })
  }),

  createAttachment: operation({
    method: 'post',
    path: `${CRATE}/attachments`,
    summary: 'Keep a file with a part, an item or a build: 8 MB at most, its content in base64.',
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
  }),

  readAttachment: operation({
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
  }),

  deleteAttachment: operation({
    method: 'delete',
    path: `${CRATE}/attachments/{id}`,
    summary: 'Delete a file.',
    params: inCrateWithId,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) => attachments.deleteAttachment(db, { ...params, ...body, by, at })
  })
};
