import { z } from 'zod';
import { SHEET_KINDS } from '#core/format/compose';
import { MOST_UNITS } from '#core/assembly/run-sheet';
import { entryInputSchema, entrySchema } from '#core/sheets/progress';
import { sheetSchema, stepId } from '#core/sheets/sheet';
import { id, text } from '#core/parts/form/field';
import * as attachments from '../../repositories/attachments';
import { getBuild } from '../../repositories/builds';
import { deleteCheck } from '../../repositories/checks';
import { deleteSheet, getSheet, listSheets, storedSheetSchema } from '../../repositories/sheets';
import { newId } from '../../db/change';
import { writing } from '../../db/writing';
import { PHOTO_LIMIT } from '../../photos/check';
import { beginSheet, lookedThrough, readSheet, takePhoto } from '../../planning/sheets';
import { takeEntries, takenSchema } from '../../planning/sheet-entries';
import { operation } from '../operation';
import { changed, CRATE, inBuild, inCrateWithId, versioned } from './common';

const stage = z.strictObject({
  id: z.string(),
  title: z.string(),
  done: z.number(),
  all: z.number(),
  complete: z.boolean(),
  checked: z.boolean()
});
const wholeSheet = z.strictObject({
  stored: storedSheetSchema,
  sheet: sheetSchema,
  entries: z.array(entrySchema),
  progress: z.strictObject({
    stages: z.array(stage),
    current: z.number().nullable().describe('index of the stage at hand; null where all are complete'),
    done: z.number(),
    all: z.number()
  }),
  changes: z
    .strictObject({
      added: z.array(z.strictObject({ id: z.string(), text: z.string() })),
      gone: z.array(z.strictObject({ id: z.string(), text: z.string(), done: z.boolean() }))
    })
    .describe('what the parts have made of it since it was last looked through'),
  photos: z.array(attachments.attachmentSchema)
});

/** Entries that are taken at once. */
const MOST_ENTRIES = 200;

/** The operations at `…/sheets`, by their names in the OpenAPI document. */
export const sheetOperations = {
  listSheets: operation({
    method: 'get',
    path: `${CRATE}/builds/{buildId}/sheets`,
    summary: 'The run sheets that were begun of a build, the newest first.',
    params: inBuild,
    response: z.array(storedSheetSchema),
    handle: async ({ db, params }) => {
      await getBuild(db, { crate_id: params.crateId, id: params.buildId });
      return listSheets(db, params);
    }
  }),

  createSheet: operation({
    method: 'post',
    path: `${CRATE}/builds/{buildId}/sheets`,
    summary: 'Begin a run sheet of a build; with several items of its drive, one sheet for all of them.',
    params: inBuild,
    body: z.strictObject({
      kind: z.enum(SHEET_KINDS),
      unitIds: z
        .array(id())
        .max(MOST_UNITS)
        .refine((list) => new Set(list).size === list.length, 'must not name an item twice')
        .meta({ title: 'Items' })
        .optional(),
      from: z.literal('ready-made').optional()
    }),
    response: changed.extend({ sheet: sheetSchema }),
    status: 201,
    handle: ({ db, params, body: { kind, unitIds = [], from }, by, at }) =>
      beginSheet(db, { ...params, kind, unitIds, from, by, at })
  }),

  getSheet: operation({
    method: 'get',
    path: `${CRATE}/sheets/{id}`,
    summary: 'A run sheet as its parts make it now, with everything that was ticked, noted and photographed.',
    params: inCrateWithId,
    response: wholeSheet,
    handle: async ({ db, params }) => ({
      ...(await readSheet(db, params)),
      photos: await attachments.listAttachments(db, { crateId: params.crateId, subjectId: params.id })
    })
  }),

  lookThroughSheet: operation({
    method: 'put',
    path: `${CRATE}/sheets/{id}/seen`,
    summary: 'Note that what the parts made new on a run sheet has been looked through.',
    params: inCrateWithId,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) => lookedThrough(db, { ...params, ...body, by, at })
  }),

  deleteSheet: operation({
    method: 'delete',
    path: `${CRATE}/sheets/{id}`,
    summary: 'Delete a run sheet with its ticks, notes and photographs.',
    params: inCrateWithId,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) =>
      writing(db, params.crateId, async (trx) => {
        const { buildId } = await getSheet(trx, params);
        const { tag } = await getBuild(trx, { crate_id: params.crateId, id: buildId });
        return deleteSheet(trx, { ...params, ...body, name: tag, group: newId(), by, at });
      })
  }),

  addChecks: operation({
    method: 'post',
    path: `${CRATE}/sheets/{id}/checks`,
    summary: 'Ticks, notes and answers of a run sheet, in order. A key that was taken down before is one with it.',
    params: inCrateWithId,
    body: z.strictObject({ checks: z.array(entryInputSchema).min(1).max(MOST_ENTRIES) }),
    response: takenSchema,
    handle: ({ db, params, body, by, at }) => takeEntries(db, { ...params, entries: body.checks, by, at })
  }),

  deleteCheck: operation({
    method: 'delete',
    path: `${CRATE}/sheets/{id}/checks/{key}`,
    summary: 'Take an entry away, a note above all.',
    params: inCrateWithId.extend({ key: id() }),
    response: changed,
    handle: ({ db, params: { crateId, id: sheetId, key }, by, at }) =>
      deleteCheck(db, { crateId, sheetId, key, by, at })
  }),

  addPhoto: operation({
    method: 'post',
    path: `${CRATE}/sheets/{id}/photos`,
    summary:
      'A photograph of a step: JPEG, PNG or WebP in base64, 1 MB and 2000 pixels at most, with nothing beside the picture.',
    params: inCrateWithId,
    bodyLimit: Math.ceil((PHOTO_LIMIT.bytes * 4) / 3) + 10_000,
    body: z.strictObject({
      key: id().describe('a ULID made by the sender: the same key twice is one photograph'),
      stepId: stepId(),
      unitId: id().optional(),
      name: text('Name', 200),
      content: z.base64()
    }),
    response: changed,
    status: 201,
    handle: ({ db, params, body: { content, ...rest }, by, at }) =>
      takePhoto(db, { ...params, ...rest, content: Buffer.from(content, 'base64'), by, at })
  })
};
