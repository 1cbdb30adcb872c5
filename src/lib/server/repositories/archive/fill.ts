import type { Knex } from 'knex';
import { toColumns } from '../../db/change';
import type { TaskControl } from '../../work/control';
import { ContentReader } from './contents';
import type { Line } from './lines';
import { batchOf, type DbRow, type RowTable } from './rows';

type Next = IteratorResult<Line, unknown>;

/**
 * Puts the contents of an archive in place, which come before its rows.
 * @returns the first line that is none
 */
export async function putContents(
  reading: AsyncIterator<Line>,
  put: (row: DbRow, content: { sha256: string; content: Buffer }) => Promise<void>,
  work: TaskControl
): Promise<Next> {
  const reader = new ContentReader(true);
  for (let count = 0; ;) {
    const next = await reading.next();
    if (next.done || next.value.table !== 'files') return next;
    const row = next.value.row as DbRow;
    const content = reader.take(row, `files.${count}`);
    if (!content) continue;
    await put(row, content);
    await work.report(`Putting file ${++count} in place`, 0, 0);
  }
}

/**
 * Writes the rows of an archive, many in one statement.
 * @param first the first line after the contents, `reading` the rest
 * @param prepare what becomes of a row; nothing where it is left out
 * @returns how many were written
 */
export async function insertRows<T extends RowTable>(
  trx: Knex.Transaction,
  { first, reading }: { first: Next; reading: AsyncIterator<Line> },
  { report, total }: { report: TaskControl['report']; total: number },
  prepare: (table: T, row: DbRow) => DbRow | undefined
): Promise<number> {
  let done = 0;
  let batch: DbRow[] = [];
  let of: T | undefined;
  const flush = async () => {
    if (!of || batch.length === 0) return;
    await trx(of).insert(batch);
    done += batch.length;
    batch = [];
    await report(`Writing ${of}`, done, total);
  };
  for (let next = first; !next.done; next = await reading.next()) {
    const { table, row } = next.value as { table?: T; row?: DbRow };
    if (!table || !row) continue;
    if (table !== of || batch.length === batchOf(table)) await flush();
    of = table;
    const prepared = prepare(table, row);
    if (prepared) batch.push(toColumns(prepared));
  }
  await flush();
  return done;
}
