import type { Knex } from 'knex';
import { getCrate } from '../crates';
import { atOneMoment, backupRows } from './backup';
import { BUNDLE_FORMAT, BUNDLE_TABLES, entryOf, type BundleTable } from './bundle-tables';
import { contentLines } from './contents';
import { LINES_VERSION, packedLines, type Line } from './lines';
import type { DbRow } from './rows';

/** Every row of a crate, in a fixed order: the same crate gives the same bundle. What hangs on nothing any more is left out. */
async function* entriesOf(db: Knex, crateId: string): AsyncGenerator<{ table: BundleTable; entry: DbRow }> {
  const there = {
    models: new Set<unknown>(),
    builds: new Set<unknown>(),
    units: new Set<unknown>(),
    sheets: new Set<unknown>(),
    runs: new Set<unknown>()
  };
  for (const table of BUNDLE_TABLES)
    for await (const row of backupRows(db, table, { crate_id: crateId })) {
      if (table in there) there[table as keyof typeof there].add(row.id);
      if (table === 'units' && row.build_id !== null && !there.builds.has(row.build_id)) row.build_id = null;
      if (table === 'attachments' && !there[row.subject_table as keyof typeof there]?.has(row.subject_id)) continue;
      yield { table, entry: entryOf(table, row) };
    }
}

async function headOf(db: Knex, crateId: string): Promise<DbRow> {
  const { name, slug, houseRules, currency: money } = await getCrate(db, { id: crateId });
  return { name, slug, houseRules, currency: money };
}

/** A crate as lines: what it is, its contents, its rows. */
async function* bundleLines(db: Knex, crateId: string, at: string): AsyncGenerator<Line> {
  yield { format: BUNDLE_FORMAT, formatVersion: LINES_VERSION, exportedAt: at, crate: await headOf(db, crateId) };
  for await (const { table, row } of contentLines(db, new Set(), crateId))
    yield { table, row: { ...row, crate_id: undefined } };
  const counts: Record<string, number> = Object.fromEntries(BUNDLE_TABLES.map((table) => [table, 0]));
  for await (const { table, entry } of entriesOf(db, crateId)) {
    counts[table] = counts[table]! + 1;
    yield { table, row: entry };
  }
  yield { counts };
}

/** A crate as one JSON document, in pieces: by its schema, for other programs. */
async function* bundleDocument(db: Knex, crateId: string, at: string): AsyncGenerator<string> {
  const crate = await headOf(db, crateId);
  yield JSON.stringify({ format: BUNDLE_FORMAT, formatVersion: 1, exportedAt: at, crate }).slice(0, -1);
  let open = -1;
  /** Ends the list that is open, and begins those up to this one; tables without a row are in it too. */
  const begin = (upTo: number) => {
    let text = '';
    while (open < upTo) text += `${open++ < 0 ? '' : ']'},"${BUNDLE_TABLES[open]}":[`;
    return text;
  };
  let first = true;
  for await (const { table, entry } of entriesOf(db, crateId)) {
    const next = BUNDLE_TABLES.indexOf(table);
    if (next !== open) first = true;
    yield begin(next);
    if (table === 'attachments') {
      const file = (await db('files')
        .where({ crate_id: crateId, sha256: entry.sha256 as string })
        .first('content')) as { content: Buffer } | undefined;
      entry.content = file?.content.toString('base64') ?? '';
    }
    yield `${first ? '' : ','}${JSON.stringify(entry)}`;
    first = false;
  }
  yield `${begin(BUNDLE_TABLES.length - 1)}]}`;
}

/** A bundle as a stream of packed lines. */
export const bundleStream = (db: Knex, crateId: string, at: string) =>
  packedLines(atOneMoment(db, (trx) => bundleLines(trx, crateId, at)));
/** A bundle as the pieces of one JSON document. */
export const bundlePieces = (db: Knex, crateId: string, at: string) =>
  atOneMoment(db, (trx) => bundleDocument(trx, crateId, at));
