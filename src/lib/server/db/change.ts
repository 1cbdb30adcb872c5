import type { Knex } from 'knex';
import { monotonicFactory } from 'ulid';
import { notFound, Problem } from '../problems/problem';
import { markAllDue, markDue } from './due';
import type { Row, StoredTable } from './stored-table';
import { writing } from './writing';

/** ULIDs that rise even within one millisecond. */
export const newId = monotonicFactory();

export type RowChange = {
  crateId: string;
  table: StoredTable;
  id: string;
  by: string;
  /** ISO time; the caller's clock. */
  at: string;
  /** Kind and sentence of the event that goes into the log; none where one event stands for the whole group. */
  event: { kind: string; message: string } | null;
  /** Changes of one group are undone together; without one a change stands alone. */
  group?: string;
} & (
  | {
      action: 'insert';
      row: Row;
      /** Of a row that was deleted and comes back: it goes on from the version it had, with its dates. */
      revived?: { version: number; createdAt: string; updatedAt: string };
    }
  | { action: 'update'; version: number; row: Row }
  | { action: 'delete'; version: number }
);

/** `group` is what `undo` takes. */
export type ChangeResult = { id: string; version: number; group: string };

/** Which row is meant: of its crate, or the crate itself. */
const keyOf = (table: StoredTable, id: string, crateId: string): Row =>
  table === 'crates' ? { id: id === crateId ? id : null } : { id, crate_id: crateId };

/** Plain objects and lists go into JSON columns as text; everything else as it is. */
export function toColumns(row: Row): Row {
  const columns: Row = {};
  for (const [name, value] of Object.entries(row))
    columns[name] = value !== null && typeof value === 'object' ? JSON.stringify(value) : value;
  return columns;
}

/** What a row looks like in the revision of an edit: its columns without those that every change sets anew. */
function toSnapshot(row: Row): Row {
  const { updated_at: _updated, version: _version, ...rest } = row;
  return rest;
}

/** Writes an event of the log. */
export async function recordEvent(
  trx: Knex,
  { crateId, by, at }: { crateId: string; by: string; at: string },
  event: { kind: string; message: string },
  subject: { table: StoredTable; id: string }
): Promise<void> {
  await trx('events').insert({
    crate_id: crateId,
    at,
    by,
    kind: event.kind,
    subject_table: subject.table,
    subject_id: subject.id,
    message: event.message.slice(0, 400)
  });
}

/** Writes the revision and the event of one change. @returns its group */
async function record(trx: Knex, change: RowChange, before: Row | null, after: Row | null): Promise<string> {
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
  if (change.event) await recordEvent(trx, change, change.event, change);
  await markDue(trx, change.table, { ...change, before, after });
  return group;
}

/**
 * The one way to write: checks the version, then writes the row, its revision and the event in one transaction.
 * @throws Problem `conflict` with the current row when another writer was first; `not-found` when the row is gone
 */
export async function change(db: Knex, wanted: RowChange): Promise<ChangeResult> {
  const { table, id, crateId, at } = wanted;
  // A crate that was deleted can still be brought back.
  return writing(db, crateId, (trx) => write(trx, wanted), { hidden: table === 'crates' && id === crateId });
  async function write(trx: Knex.Transaction, wanted: RowChange): Promise<ChangeResult> {
    if (wanted.action === 'insert') {
      const { version, createdAt, updatedAt } = wanted.revived ?? { version: 1, createdAt: at, updatedAt: at };
      const row = { ...wanted.row, id, crate_id: crateId, created_at: createdAt };
      await trx(table).insert({ ...toColumns(row), version, updated_at: updatedAt });
      return { id, version, group: await record(trx, wanted, null, row) };
    }
    const current: Row | undefined = await trx(table)
      .where(keyOf(table, id, crateId))
      .forUpdate()
      .first();
    if (!current) throw notFound(table.slice(0, -1));
    if (current.version !== wanted.version) {
      throw new Problem('conflict', 'Someone else changed this in the meantime; nothing was overwritten.', [], {
        current
      });
    }
    if (wanted.action === 'delete') {
      await trx(table).where({ id }).delete();
      // Whole, with its version and dates: it may come back.
      return { id, version: wanted.version, group: await record(trx, wanted, current, null) };
    }
    const before = toSnapshot(current);
    const version = wanted.version + 1;
    await trx(table)
      .where({ id })
      .update({ ...toColumns(wanted.row), version, updated_at: at });
    return { id, version, group: await record(trx, wanted, before, { ...before, ...wanted.row }) };
  }
}

/** How many rows go into one statement: far below what a packet may hold, far above what a round trip costs. */
export const BATCH = 250;

/** Where a long write has got to; called between batches, and may throw to stop it. */
export type Progress = (done: number) => void | Promise<void>;

/**
 * Many rows in one group with one event: what `change` does, in batches. Updates must name the version they saw.
 * Runs in the transaction it is given, so that all of it stands or none.
 * @throws Problem `conflict` when a row was changed in the meantime
 */
export async function changeMany(
  trx: Knex.Transaction,
  wanted: {
    crateId: string;
    by: string;
    at: string;
    group: string;
    event: { kind: string; message: string };
    inserts?: readonly { table: StoredTable; id: string; row: Row }[];
    updates?: readonly { table: StoredTable; id: string; version: number; row: Row }[];
    progress?: Progress;
  }
): Promise<void> {
  const { crateId, by, at, group, event, inserts = [], updates = [], progress } = wanted;
  let done = 0;
  const revision = (table: StoredTable, id: string, before: Row | null, after: Row) => ({
    id: newId(),
    group_id: group,
    crate_id: crateId,
    at,
    by,
    row_table: table,
    row_id: id,
    before: before ? JSON.stringify(before) : null,
    after: JSON.stringify(after)
  });
  for (const table of new Set(inserts.map((insert) => insert.table))) {
    const rows = inserts.filter((insert) => insert.table === table);
    for (let i = 0; i < rows.length; i += BATCH) {
      const batch = rows.slice(i, i + BATCH);
      await trx(table).insert(
        batch.map(({ id, row }) =>
          toColumns({ ...row, id, crate_id: crateId, version: 1, created_at: at, updated_at: at })
        )
      );
      await trx('revisions').insert(
        batch.map(({ id, row }) => revision(table, id, null, { ...row, id, crate_id: crateId, created_at: at }))
      );
      done += batch.length;
      await progress?.(done);
    }
  }
  for (const { table, id, version, row } of updates) {
    const current: Row | undefined = await trx(table)
      .where(keyOf(table, id, crateId))
      .forUpdate()
      .first();
    if (!current) throw notFound(table.slice(0, -1));
    if (current.version !== version)
      throw new Problem('conflict', 'Something was changed in the meantime; nothing was overwritten.', [], { current });
    const before = toSnapshot(current);
    await trx(table)
      .where({ id })
      .update({ ...toColumns(row), version: version + 1, updated_at: at });
    await trx('revisions').insert(revision(table, id, before, { ...before, ...row }));
    done += 1;
    if (done % BATCH === 0) await progress?.(done);
  }
  if (inserts.length + updates.length === 0) return;
  const [first] = [...inserts, ...updates];
  await markAllDue(trx, crateId);
  await recordEvent(trx, wanted, event, first!);
}
