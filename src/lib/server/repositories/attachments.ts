import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { z } from 'zod';
import { text } from '#core/parts/form/field';
import { change, newId, type ChangeResult } from '../db/change';
import { writing } from '../db/writing';
import { checkPhoto } from '../photos/check';
import { notFound, Problem } from '../problems/problem';
import { putContent } from './contents';

/** The type of what a series is kept as: a file of its run, and nobody's own. */
export const SERIES_TYPE = 'application/x-series';
/** What anybody may keep a file with. */
export const SUBJECTS = ['models', 'units', 'builds', 'runs'] as const;
/** What files hang on: photographs on the steps of a sheet come in by a way of their own. */
export const HOLDERS = [...SUBJECTS, 'sheets'] as const;
export const attachmentSchema = z.strictObject({
  id: z.string(),
  version: z.number(),
  subjectTable: z.enum(HOLDERS),
  subjectId: z.string(),
  stepId: z.string().optional(),
  unitId: z.string().optional(),
  name: text('Name', 200),
  type: z.string(),
  size: z.number(),
  sha256: z.string(),
  addedAt: z.string()
});
export type Attachment = z.infer<typeof attachmentSchema>;
type By = { by: string; at: string };

/** Largest file that is kept with a part: a photograph, a receipt, a data sheet. */
export const ATTACHMENT_LIMIT = 8_000_000;

const fromRow = (row: Record<string, unknown>): Attachment =>
  attachmentSchema.parse({
    id: row.id,
    version: row.version,
    subjectTable: row.subject_table,
    subjectId: row.subject_id,
    ...(row.step_id ? { stepId: row.step_id } : {}),
    ...(row.unit_id ? { unitId: row.unit_id } : {}),
    name: row.name,
    type: row.type,
    size: row.size,
    sha256: row.sha256,
    addedAt: row.created_at
  });

export async function listAttachments(db: Knex, args: { crateId: string; subjectId?: string }): Promise<Attachment[]> {
  const where = { crate_id: args.crateId, ...(args.subjectId ? { subject_id: args.subjectId } : {}) };
  const query = db('attachments').where(where).whereNot({ type: SERIES_TYPE });
  return (await query.orderBy('created_at').orderBy('id')).map(fromRow);
}

/** Keeps a content once, however often it is attached. */
export async function keepFile(db: Knex, crateId: string, content: Buffer): Promise<string> {
  const sha256 = createHash('sha256').update(content).digest('hex');
  await putContent(db, crateId, { sha256, content });
  return sha256;
}

export async function createAttachment(
  db: Knex,
  args: {
    crateId: string;
    subjectTable: (typeof SUBJECTS)[number];
    subjectId: string;
    name: string;
    type: string;
    content: Buffer;
  } & By
): Promise<ChangeResult> {
  const { crateId, subjectTable, subjectId, name, type, content, by, at } = args;
  if (content.length > ATTACHMENT_LIMIT)
    throw new Problem('too-large', `A file may have ${ATTACHMENT_LIMIT / 1e6} MB at most.`);
  return writing(db, crateId, async (trx) => {
    if (!(await trx(subjectTable).where({ crate_id: crateId, id: subjectId }).forUpdate().first('id')))
      throw notFound(subjectTable === 'models' ? 'part' : subjectTable.slice(0, -1));
    const sha256 = await keepFile(trx, crateId, content);
    const row = { subject_table: subjectTable, subject_id: subjectId, name, type, size: content.length, sha256 };
    const event = { kind: 'added', message: `Added the file ${name}.` };
    return change(trx, { action: 'insert', table: 'attachments', crateId, id: newId(), by, at, event, row });
  });
}

/**
 * Keeps a photograph of a step, looked through to the last pixel. The id is the key of its sender: the same one twice is one photograph.
 * @throws Problem `bad-input` for what is no picture, or holds anything beside it; `not-found` without such a sheet
 */
export async function createPhoto(
  db: Knex,
  args: {
    crateId: string;
    sheetId: string;
    key: string;
    stepId: string;
    unitId?: string | undefined;
    name: string;
    content: Buffer;
    message: string;
  } & By
): Promise<ChangeResult> {
  const { crateId, sheetId, key, stepId, unitId, name, content, message, by, at } = args;
  const type = await checkPhoto(content);
  return writing(db, crateId, async (trx) => {
    const known = (await trx('attachments').where({ id: key }).first('subject_id', 'version')) as
      { subject_id: string; version: number } | undefined;
    const revised = (await trx('revisions')
      .where({ row_table: 'attachments', row_id: key })
      .orderBy('id')
      .first('group_id')) as { group_id: string } | undefined;
    if (known && known.subject_id !== sheetId)
      throw new Problem('bad-input', 'The key belongs to another file.', [
        { path: 'key', message: 'belongs to another file' }
      ]);
    if (revised) return { id: key, version: known?.version ?? 1, group: revised.group_id };
    if (!(await trx('sheets').where({ crate_id: crateId, id: sheetId }).forUpdate().first('id')))
      throw notFound('run sheet');
    const sha256 = await keepFile(trx, crateId, content);
    const row = {
      subject_table: 'sheets',
      subject_id: sheetId,
      step_id: stepId,
      unit_id: unitId ?? null,
      name,
      type,
      size: content.length,
      sha256
    };
    const event = { kind: 'added', message };
    return change(trx, { action: 'insert', table: 'attachments', crateId, id: key, by, at, event, row });
  });
}

/** @throws Problem `not-found` */
export async function readAttachment(
  db: Knex,
  args: { crateId: string; id: string }
): Promise<{ attachment: Attachment; content: Buffer }> {
  const row = await db('attachments').where({ crate_id: args.crateId, id: args.id }).first();
  if (!row) throw notFound('file');
  const attachment = fromRow(row);
  const file = await db('files').where({ crate_id: args.crateId, sha256: attachment.sha256 }).first('content');
  if (!file) throw notFound('file');
  return { attachment, content: file.content as Buffer };
}

export async function deleteAttachment(
  db: Knex,
  args: { crateId: string; id: string; version: number } & By
): Promise<ChangeResult> {
  const { crateId, id, version, by, at } = args;
  const row = await db('attachments').where({ crate_id: crateId, id }).first('name');
  if (!row) throw notFound('file');
  const event = { kind: 'deleted', message: `Deleted the file ${row.name}.` };
  return change(db, { action: 'delete', table: 'attachments', crateId, id, version, by, at, event });
}

/** Deletes the files of something that is deleted, in the group of its deletion, so that they come back with it. */
export async function deleteFilesOf(
  trx: Knex.Transaction,
  args: { crateId: string; table: (typeof HOLDERS)[number]; id: string; what: string; group: string } & By
): Promise<void> {
  const { crateId, table, id, what, group, by, at } = args;
  const rows = (await trx('attachments')
    .where({ crate_id: crateId, subject_table: table, subject_id: id })
    .select('id', 'version', 'name')) as { id: string; version: number; name: string }[];
  for (const { id: file, version, name } of rows)
    await change(trx, {
      action: 'delete',
      table: 'attachments',
      crateId,
      id: file,
      version,
      by,
      at,
      group,
      event: { kind: 'deleted', message: `Deleted the file ${name} of ${what}.` }
    });
}
