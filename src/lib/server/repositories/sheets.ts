import type { Knex } from 'knex';
import { z } from 'zod';
import { SHEET_KINDS, type SheetKind } from '#core/format/compose';
import type { SeenSteps } from '#core/sheets/progress';
import { seenStepsSchema } from '#core/sheets/progress';
import { change, newId, type ChangeResult } from '../db/change';
import { notFound } from '../problems/problem';
import { deleteFilesOf } from './attachments';

export const storedSheetSchema = z.strictObject({
  id: z.string(),
  version: z.number(),
  buildId: z.string(),
  kind: z.enum(SHEET_KINDS),
  unitIds: z.array(z.string()),
  from: z.literal('ready-made').optional(),
  /** The steps that it had when it was last looked through. */
  seen: seenStepsSchema,
  createdAt: z.string()
});
export type StoredSheet = z.infer<typeof storedSheetSchema>;
type By = { by: string; at: string };

const fromRow = (row: Record<string, unknown>): StoredSheet =>
  storedSheetSchema.parse({
    id: row.id,
    version: row.version,
    buildId: row.build_id,
    kind: row.kind,
    unitIds: row.unit_ids,
    ...(row.ready_made === 1 ? { from: 'ready-made' } : {}),
    seen: row.seen,
    createdAt: row.created_at
  });

/** The sheets of a crate, of one build or of some, the newest first. */
export async function listSheets(
  db: Knex,
  args: { crateId: string; buildId?: string; buildIds?: readonly string[]; kind?: SheetKind }
): Promise<StoredSheet[]> {
  const { crateId, buildId, buildIds, kind } = args;
  const rows = db('sheets')
    .where({ crate_id: crateId, ...(buildId ? { build_id: buildId } : {}), ...(kind ? { kind } : {}) })
    .orderBy('created_at', 'desc')
    .orderBy('id', 'desc');
  if (buildIds) rows.whereIn('build_id', [...buildIds]);
  return (await rows).map(fromRow);
}

/** @throws Problem `not-found` */
export async function getSheet(db: Knex, args: { crateId: string; id: string }): Promise<StoredSheet> {
  const row = await db('sheets').where({ crate_id: args.crateId, id: args.id }).first();
  if (!row) throw notFound('run sheet');
  return fromRow(row);
}

/** What a sheet of each kind is called. */
export const SHEET_WORDS = { assemble: 'a run sheet', format: 'a format sheet' } as const;

export function createSheet(
  db: Knex,
  args: {
    crateId: string;
    id?: string;
    buildId: string;
    tag: string;
    kind: SheetKind;
    unitIds: readonly string[];
    from?: 'ready-made' | undefined;
    seen: SeenSteps;
  } & By
): Promise<ChangeResult> {
  const { crateId, id = newId(), buildId, tag, kind, unitIds, from, seen, by, at } = args;
  const event = { kind: 'sheet', message: `Began ${SHEET_WORDS[kind]} of ${tag}.` };
  return change(db, {
    action: 'insert',
    table: 'sheets',
    crateId,
    id,
    by,
    at,
    event,
    row: { build_id: buildId, kind, name: tag, unit_ids: [...unitIds], ready_made: from === 'ready-made', seen }
  });
}

/** Notes which steps a sheet has now, so that it no longer calls them new. */
export function noteSeen(
  db: Knex,
  args: {
    crateId: string;
    id: string;
    version: number;
    seen: SeenSteps;
    event: { kind: string; message: string } | null;
    group?: string;
  } & By
): Promise<ChangeResult> {
  const { crateId, id, version, seen, event, group, by, at } = args;
  return change(db, {
    action: 'update',
    table: 'sheets',
    crateId,
    id,
    version,
    by,
    at,
    event,
    row: { seen },
    ...(group ? { group } : {})
  });
}

type Deleted = { crateId: string; group: string } & By;

/** Deletes a sheet with its ticks, notes and photographs, in one group. */
export async function deleteSheet(
  trx: Knex.Transaction,
  { id, version, name, ...base }: { id: string; version: number; name: string } & Deleted
): Promise<ChangeResult> {
  const { crateId, group, by, at } = base;
  const checks = (await trx('checks').where({ sheet_id: id }).select('id', 'version')) as {
    id: string;
    version: number;
  }[];
  for (const check of checks)
    await change(trx, {
      action: 'delete',
      table: 'checks',
      crateId,
      id: check.id,
      version: check.version,
      by,
      at,
      group,
      event: null
    });
  await deleteFilesOf(trx, { crateId, table: 'sheets', id, what: `the run sheet of ${name}`, by, at, group });
  const event = { kind: 'deleted', message: `Deleted a run sheet of ${name}.` };
  return change(trx, { action: 'delete', table: 'sheets', crateId, id, version, by, at, group, event });
}

/** Deletes the sheets of a build that is deleted, in the group of its deletion. */
export async function deleteSheetsOf(
  trx: Knex.Transaction,
  { buildId, ...base }: { buildId: string } & Deleted
): Promise<void> {
  const sheets = (await trx('sheets').where({ build_id: buildId }).select('id', 'version', 'name')) as {
    id: string;
    version: number;
    name: string;
  }[];
  for (const sheet of sheets) await deleteSheet(trx, { ...base, ...sheet });
}
