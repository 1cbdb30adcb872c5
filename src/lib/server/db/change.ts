import type { Knex } from 'knex';
import { monotonicFactory } from 'ulid';
import { notFound, Problem } from '../problem';

/** ULIDs that rise even within one millisecond. */
export const newId = monotonicFactory();

export type StoredTable = 'models' | 'units' | 'quotes' | 'jobs' | 'builds' | 'runs';
type Row = Record<string, unknown>;

export type Change = {
  crateId: string;
  table: StoredTable;
  id: string;
  by: string;
  /** ISO time; the caller's clock. */
  at: string;
  /** Kind and sentence of the event that goes into the log. */
  event: { kind: string; message: string };
  /** Changes of one group are taken back together; without one a change stands alone. */
  group?: string;
} & (
  | { action: 'insert'; row: Row }
  | { action: 'update'; version: number; row: Row }
  | { action: 'delete'; version: number }
);

/** `group` is what `undo` takes. */
export type Changed = { id: string; version: number; group: string };

/** Plain objects and lists go into JSON columns as text; everything else as it is. */
function toColumns(row: Row): Row {
  const columns: Row = {};
  for (const [name, value] of Object.entries(row))
    columns[name] = value !== null && typeof value === 'object' ? JSON.stringify(value) : value;
  return columns;
}

/** What a row looks like in a revision: its columns without those that every change sets anew. */
function toSnapshot(row: Row | undefined): Row | null {
  if (!row) return null;
  const { updated_at: _updated, version: _version, ...rest } = row;
  return rest;
}

async function record(trx: Knex, change: Change, before: Row | null, after: Row | null): Promise<string> {
  const id = newId();
  const group = change.group ?? id;
  await trx('revisions').insert({
    id,
    group_id: group,
    crate_id: change.crateId,
    at: change.at,
    by: change.by,
    row_table: change.table,
    row_id: change.id,
    before: before ? JSON.stringify(before) : null,
    after: after ? JSON.stringify(after) : null
  });
  await trx('events').insert({
    crate_id: change.crateId,
    at: change.at,
    by: change.by,
    kind: change.event.kind,
    subject_table: change.table,
    subject_id: change.id,
    message: change.event.message.slice(0, 400)
  });
  return group;
}

/**
 * The one way to write: checks the version, then writes the row, its revision and the event in one transaction.
 * @throws Problem `conflict` with the current row when another writer was first; `not-found` when the row is gone
 */
export async function change(db: Knex, wanted: Change): Promise<Changed> {
  return db.transaction(async (trx) => {
    const { table, id, crateId, at } = wanted;
    if (wanted.action === 'insert') {
      const row = { ...wanted.row, id, crate_id: crateId, created_at: at };
      await trx(table).insert({ ...toColumns(row), version: 1, updated_at: at });
      return { id, version: 1, group: await record(trx, wanted, null, row) };
    }
    const current: Row | undefined = await trx(table).where({ id, crate_id: crateId }).forUpdate().first();
    if (!current) throw notFound(table.slice(0, -1));
    if (current.version !== wanted.version) {
      throw new Problem('conflict', 'Someone else changed this in the meantime; nothing was overwritten.', [], {
        current
      });
    }
    const before = toSnapshot(current);
    if (wanted.action === 'delete') {
      await trx(table).where({ id }).delete();
      return { id, version: wanted.version, group: await record(trx, wanted, before, null) };
    }
    const version = wanted.version + 1;
    await trx(table)
      .where({ id })
      .update({ ...toColumns(wanted.row), version, updated_at: at });
    return { id, version, group: await record(trx, wanted, before, { ...before, ...wanted.row }) };
  });
}

type Revision = {
  id: string;
  row_table: StoredTable;
  row_id: string;
  before: Row | null;
  after: Row | null;
  undone: number;
};

/**
 * Takes a group of changes back, the last one first, by writing what was there before; this is a group of changes of its own,
 * so it can be taken back too.
 * @throws Problem `conflict` when one of the rows has been changed again since; nothing is taken back then
 */
export async function undo(
  db: Knex,
  args: { crateId: string; group: string; by: string; at: string }
): Promise<{ group: string; rows: { table: StoredTable; id: string }[] }> {
  const { crateId, group, by, at } = args;
  return db.transaction(async (trx) => {
    const revisions: Revision[] = await trx('revisions')
      .where({ group_id: group, crate_id: crateId })
      .orderBy('id', 'desc')
      .forUpdate();
    if (revisions.length === 0) throw notFound('change');
    const undoing = newId();
    for (const revision of revisions) {
      const { row_table: table, row_id: id, before } = revision;
      const later = await trx('revisions')
        .where({ row_id: id })
        .where('id', '>', revision.id)
        .whereNot({ group_id: undoing })
        .first('id');
      if (later || revision.undone)
        throw new Problem('conflict', 'This was changed again since; undo the later change first.');
      const base = {
        crateId,
        table,
        id,
        by,
        at,
        group: undoing,
        event: { kind: 'undone', message: `Took back a change: ${String((before ?? revision.after)?.name ?? table)}.` }
      };
      if (revision.after === null) {
        await change(trx, { ...base, action: 'insert', row: before! });
        continue;
      }
      const current: Row | undefined = await trx(table).where({ id }).first('version');
      if (!current) throw notFound(table.slice(0, -1));
      const version = current.version as number;
      if (before === null) await change(trx, { ...base, action: 'delete', version });
      else {
        const { id: _id, crate_id: _crate, created_at: _created, ...row } = before;
        await change(trx, { ...base, action: 'update', version, row });
      }
    }
    await trx('revisions').where({ group_id: group }).update({ undone: true });
    return { group: undoing, rows: revisions.map(({ row_table, row_id }) => ({ table: row_table, id: row_id })) };
  });
}
