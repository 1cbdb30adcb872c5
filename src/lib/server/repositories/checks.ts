import type { Knex } from 'knex';
import { entrySchema, type Entry, type EntryInput } from '#core/sheets/progress';
import { change, type ChangeResult } from '../db/change';
import { notFound } from '../problems/problem';

const fromRow = (row: Record<string, unknown>): Entry =>
  entrySchema.parse({
    key: row.id,
    stepId: row.step_id,
    unitId: row.unit_id,
    done: row.done === null ? null : row.done === 1,
    note: row.note,
    answer: row.answer,
    at: row.at,
    by: row.by,
    against: row.against
  });

/** The entries of a sheet in the order in which they arrived. */
export async function listChecks(db: Knex, args: { crateId: string; sheetId: string }): Promise<Entry[]> {
  const where = { crate_id: args.crateId, sheet_id: args.sheetId };
  return (await db('checks').where(where).orderBy('seq').orderBy('id')).map(fromRow);
}

/** The entries of some sheets, by sheet. */
export async function checksBySheet(db: Knex, sheetIds: readonly string[]): Promise<Map<string, Entry[]>> {
  const bySheet = new Map<string, Entry[]>();
  for (const row of await db('checks')
    .whereIn('sheet_id', [...sheetIds])
    .orderBy('seq')
    .orderBy('id')) {
    const list = bySheet.get(row.sheet_id as string);
    if (list) list.push(fromRow(row));
    else bySheet.set(row.sheet_id as string, [fromRow(row)]);
  }
  return bySheet;
}

/**
 * Which of these keys were taken down before: an entry that is there, or one that was and has been undone.
 * @returns for each the sheet that it belongs to, or null where it was undone
 */
export async function knownKeys(
  db: Knex,
  args: { crateId: string; keys: readonly string[] }
): Promise<Map<string, string | null>> {
  const keys = [...args.keys];
  const known = new Map<string, string | null>();
  const undone = (await db('revisions')
    .where({ crate_id: args.crateId, row_table: 'checks' })
    .whereIn('row_id', keys)
    .pluck('row_id')) as string[];
  for (const key of undone) known.set(key, null);
  const rows = (await db('checks').whereIn('id', keys).select('id', 'sheet_id')) as { id: string; sheet_id: string }[];
  for (const { id, sheet_id } of rows) known.set(id, sheet_id);
  return known;
}

/** Takes an entry down, as the next of its sheet. */
export async function addCheck(
  trx: Knex.Transaction,
  args: {
    crateId: string;
    sheetId: string;
    entry: Pick<EntryInput, 'key' | 'stepId' | 'unitId' | 'done' | 'note' | 'answer' | 'at'>;
    /** What it is called in the log. */
    name: string;
    against: string | null;
    message: string;
    group: string;
    by: string;
    at: string;
  }
): Promise<ChangeResult> {
  const { crateId, sheetId, entry, name, against, message, group, by, at } = args;
  const { seq } = (await trx('checks')
    .where({ sheet_id: sheetId })
    .first(trx.raw('coalesce(max(seq), 0) + 1 as seq'))) as { seq: number };
  return change(trx, {
    action: 'insert',
    table: 'checks',
    crateId,
    id: entry.key,
    by,
    at,
    group,
    event: { kind: 'ticked', message },
    row: {
      sheet_id: sheetId,
      seq,
      name: name.slice(0, 400),
      step_id: entry.stepId,
      unit_id: entry.unitId ?? null,
      done: entry.done ?? null,
      note: entry.note ?? null,
      answer: entry.answer ?? null,
      at: entry.at,
      by,
      against
    }
  });
}

/** Removes an entry, a note above all. @throws Problem `not-found` */
export async function deleteCheck(
  db: Knex,
  args: { crateId: string; sheetId: string; key: string; by: string; at: string }
): Promise<ChangeResult> {
  const { crateId, sheetId, key, by, at } = args;
  const row = (await db('checks').where({ crate_id: crateId, sheet_id: sheetId, id: key }).first('version', 'name')) as
    { version: number; name: string } | undefined;
  if (!row) throw notFound('tick or note');
  const event = { kind: 'deleted', message: `Took away what was noted: ${row.name}`.slice(0, 400) };
  return change(db, { action: 'delete', table: 'checks', crateId, id: key, version: row.version, by, at, event });
}
