import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { countGivenTags, mendDoubledChoices, reachableTag } from '../../db/mend';
import { MIGRATIONS } from '../../db/migrations';
import { writing } from '../../db/writing';
import { Problem } from '../../problem';
import type { Work } from '../../work';
import { putContent } from '../contents';
import { contentLines, ContentReader } from './contents';
import { openArchive, refuseArchive, writeArchive, type Line } from './lines';
import { batchOf, REFERENCES, ROW_TABLES, rowProblems, toColumns, type DbRow, type RowTable } from './rows';

/** A backup is the whole database, undo history included. */
const FORMAT = 'ash-crate-backup';
const migrationNames = () => MIGRATIONS.map(({ name }) => name);

/** The migration with which a table came: a backup of before it does not hold the table. */
const SINCE: Record<RowTable | 'files', string> = {
  crates: '001-crates',
  models: '002-models',
  units: '003-units',
  quotes: '004-quotes',
  jobs: '005-jobs',
  builds: '006-builds',
  runs: '007-runs',
  events: '008-events',
  revisions: '009-revisions',
  counters: '010-counters',
  rates: '015-exchange-rates',
  pairs: '016-known-pairs',
  files: '017-files',
  attachments: '018-attachments',
  observations: '019-observations'
};

const keyOf = (table: RowTable) => (table === 'counters' ? 'name' : table === 'events' ? 'seq' : 'id');

/** The rows of a table in the order of its key, a few at a time. */
export async function* rowsOf(db: Knex, table: RowTable, where: DbRow = {}): AsyncGenerator<DbRow> {
  const key = keyOf(table);
  const size = batchOf(table);
  for (let after: unknown = table === 'events' ? 0 : ''; ;) {
    const rows: DbRow[] = await db(table)
      .where(where)
      .where(key, '>', after as string)
      .orderBy(key)
      .limit(size);
    yield* rows;
    if (rows.length < size) return;
    after = rows.at(-1)![key];
  }
}

/**
 * The lines of a backup. Contents first, for they never change; then every row as it was at one moment.
 * @param rowsFrom gives what the rows are read from once the contents are written: a transaction that nobody writes beside
 */
export async function* backupLines(
  db: Knex,
  at: string,
  rowsFrom: (read: (trx: Knex) => AsyncGenerator<Line>) => AsyncGenerator<Line> = (read) => atOneMoment(db, read)
): AsyncGenerator<Line> {
  yield { format: FORMAT, formatVersion: 2, madeAt: at, migrations: migrationNames() };
  const written = new Set<string>();
  yield* contentLines(db, written);
  yield* rowsFrom(async function* (trx) {
    const counts: Record<string, number> = {};
    // Contents that were added meanwhile.
    yield* contentLines(trx, written);
    for (const table of ROW_TABLES) {
      counts[table] = 0;
      for await (const row of rowsOf(trx, table)) {
        counts[table] += 1;
        yield { table, row };
      }
    }
    yield { counts: { ...counts, files: written.size } };
  });
}

/** Reads in one snapshot: what is saved meanwhile is in the next backup, and never half in this one. */
async function* atOneMoment(db: Knex, read: (trx: Knex) => AsyncGenerator<Line>): AsyncGenerator<Line> {
  const trx = await db.transaction(undefined, { isolationLevel: 'repeatable read' });
  try {
    yield* read(trx);
  } finally {
    await trx.rollback();
  }
}

export const makeBackupFile = (db: Knex, path: string, at: string) => writeArchive(path, backupLines(db, at));

type Backup = { madeAt: string; migrations: string[]; lines: AsyncIterable<Line> };

/** A unit whose tag an earlier version let be dots alone. */
const withReachableTag = (row: unknown): unknown => {
  const tag = (row as { tag?: unknown } | null)?.tag;
  return typeof tag === 'string' ? { ...(row as object), tag: reachableTag(tag) } : row;
};

/** A document of before there were lines, as lines: contents first. */
async function* linesOf(tables: Record<string, unknown>): AsyncGenerator<Line> {
  const counts: Record<string, number> = {};
  for (const table of ['files', ...ROW_TABLES]) {
    const rows = tables[table];
    if (!Array.isArray(rows)) continue;
    counts[table] = rows.length;
    for (const row of rows as unknown[]) yield { table, row: table === 'units' ? withReachableTag(row) : row };
  }
  yield { counts };
}

async function openBackup(path: string): Promise<Backup> {
  const opened = await openArchive(path);
  const head = opened.form === 'lines' ? opened.head : opened.document;
  const { format, madeAt, migrations } = head;
  if (format !== FORMAT || typeof madeAt !== 'string' || !Array.isArray(migrations))
    throw refuseArchive('This is no backup of Ash Crate, or it is damaged.');
  const known = new Set(migrationNames());
  const newer = migrations.filter((name) => !known.has(String(name)));
  if (newer.length > 0)
    throw refuseArchive(
      `The backup was made by a newer Ash Crate (${newer.slice(0, 5).join(', ')}). Nothing was changed.`
    );
  const about = { madeAt, migrations: migrations.map(String) };
  if (opened.form === 'lines') return { ...about, lines: opened.lines };
  const { tables, sha256 } = opened.document;
  if (tables === null || typeof tables !== 'object')
    throw refuseArchive('This is no backup of Ash Crate, or it is damaged.');
  if (createHash('sha256').update(JSON.stringify(tables)).digest('hex') !== sha256)
    throw refuseArchive('The backup is damaged: its digest does not match. Nothing was changed.');
  return { ...about, lines: linesOf(tables as Record<string, unknown>) };
}

/** What a check found out: how much there is, and what earlier versions left dangling and is mended. */
export type Checked = { madeAt: string; migrations: string[]; rows: number; dangling: Set<string> };

const MOST_PROBLEMS = 20;

/**
 * Looks through all of a backup without touching anything: every row against the schema by which pages read it, every reference,
 * every content against its digest, that no table is missing.
 * @throws Problem `bad-input` with the paths of what is wrong, such as `units.3.details.serial`
 */
export async function checkBackup(path: string, report?: Work['report']): Promise<Checked> {
  const { madeAt, migrations, lines } = await openBackup(path);
  const ids = Object.fromEntries(ROW_TABLES.map((table) => [table, new Map<string, string>()])) as Record<
    RowTable,
    Map<string, string>
  >;
  const contents = new Set<string>();
  const reader = new ContentReader(false);
  const counts: Record<string, number> = { files: 0 };
  let stated: Record<string, number> | undefined;
  const problems: { path: string; message: string }[] = [];
  const refer: { path: string; to: RowTable; id: string; crate: string; from: string; mayDangle: boolean }[] = [];
  const files: { path: string; key: string }[] = [];
  const dangling = new Set<string>();
  let rows = 0;
  for await (const line of lines) {
    if (line.counts) {
      stated = line.counts as Record<string, number>;
      continue;
    }
    const { table, row } = line as { table: RowTable | 'files'; row: unknown };
    if (table !== 'files' && !ROW_TABLES.includes(table))
      throw refuseArchive('is no table of a backup', String(table).slice(0, 40));
    const at = `${table}.${counts[table] ?? 0}`;
    counts[table] = (counts[table] ?? 0) + 1;
    if (row === null || typeof row !== 'object' || Array.isArray(row)) throw refuseArchive('is no row', at);
    if (table === 'files') {
      const { crate_id } = row as DbRow;
      const content = reader.take(row as DbRow, at);
      await report?.('Checking files', contents.size, 0);
      if (!content) counts.files = counts.files! - 1;
      else contents.add(`${String(crate_id)} ${content.sha256}`);
      continue;
    }
    rows += 1;
    if (rows % 500 === 0) await report?.(`Checking ${table}`, rows, 0);
    const given = row as DbRow;
    for (const problem of rowProblems(table, given)) problems.push({ ...problem, path: `${at}.${problem.path}` });
    if (problems.length >= MOST_PROBLEMS) break;
    const key = String(given[keyOf(table)]);
    const crate = String(given.crate_id ?? given.id);
    if (table !== 'events') {
      if (ids[table].has(key)) problems.push({ path: at, message: 'has a key that another row has too' });
      ids[table].set(key, crate);
    }
    if (given.crate_id !== undefined)
      refer.push({ path: `${at}.crate_id`, to: 'crates', id: crate, crate, from: key, mayDangle: false });
    for (const { table: from, column, to } of REFERENCES)
      if (from === table && typeof given[column] === 'string')
        // A build that was deleted once left its units pointing at it.
        refer.push({
          path: `${at}.${column}`,
          to,
          id: given[column],
          crate,
          from: key,
          mayDangle: column === 'build_id' && table === 'units'
        });
    if (table === 'attachments') {
      const to = given.subject_table as RowTable;
      if (to in ids)
        refer.push({ path: `${at}.subject_id`, to, id: String(given.subject_id), crate, from: key, mayDangle: true });
      files.push({ path: `${at}.sha256`, key: `${crate} ${String(given.sha256)}` });
    }
  }
  for (const { path: where, to, id, crate, from, mayDangle } of refer) {
    if (ids[to].get(id) === (to === 'crates' ? id : crate)) continue;
    if (mayDangle && !ids[to].has(id)) dangling.add(from);
    else problems.push({ path: where, message: `refers to something that is not in the backup: ${id.slice(0, 40)}` });
    if (problems.length >= MOST_PROBLEMS) break;
  }
  for (const { path: where, key } of files)
    if (!contents.has(key)) problems.push({ path: where, message: 'names a content that is not in the backup' });
  for (const [table, since] of Object.entries(SINCE)) {
    const expected = migrations.includes(since);
    if (problems.length === 0 && expected && (stated?.[table] === undefined || stated[table] !== (counts[table] ?? 0)))
      problems.push({ path: table, message: 'is missing or not whole' });
  }
  if (problems.length > 0) {
    const fields = problems.slice(0, MOST_PROBLEMS);
    throw new Problem('bad-input', `${fields[0]!.path}: ${fields[0]!.message}. Nothing was changed.`, fields);
  }
  return { madeAt, migrations, rows, dangling };
}

/**
 * Puts a checked backup in the place of everything that is in the database. Contents go in first, unseen. Then, in one transaction in
 * which nobody else writes: what is there is added to the safety copy to the last write, and replaced. Before its end nothing has
 * changed, however it ends.
 * @param safetyCopy where everything that is there now is kept
 */
export async function restoreBackup(
  db: Knex,
  args: { path: string; checked: Checked; safetyCopy: string; at: string },
  work: Work
): Promise<{ rows: number; madeAt: string; kept: string }> {
  const { path, checked, safetyCopy, at } = args;
  const { rows: total, madeAt, dangling } = checked;
  await work.report('Keeping a copy of what is there', 0, total);
  const copy = copyInTwo(db, safetyCopy, at);
  await copy.contents;
  const { lines } = await openBackup(path);
  const reading = lines[Symbol.asyncIterator]();
  let next = await putContents(db, reading, work);
  let done = 0;
  await work.report('Waiting for those who write now', 0, total);
  await writing(
    db,
    null,
    async (trx) => {
      await work.report('Keeping what was written last', 0, total);
      await copy.rows(trx);
      for (const table of [...ROW_TABLES].reverse()) await trx(table).delete();
      for (let batch: DbRow[] = [], of: RowTable | undefined; ;) {
        const { table, row } = (next.done ? {} : next.value) as { table?: RowTable; row?: DbRow };
        if (of && batch.length > 0 && (table !== of || batch.length === batchOf(of))) {
          await trx(of).insert(batch);
          done += batch.length;
          batch = [];
          await work.report(`Writing ${of}`, done, total);
        }
        if (next.done) break;
        of = table;
        const mended = table && row ? mend(table, row, dangling) : undefined;
        if (mended) batch.push(toColumns(mended));
        next = await reading.next();
      }
      await raiseCounters(trx);
      await work.commit(trx, { rows: done, madeAt, kept: safetyCopy });
    },
    { alone: true, queue: 'restore' }
  );
  return { rows: done, madeAt, kept: safetyCopy };
}

/** Puts contents in place and stops at the first line that is none. */
async function putContents(db: Knex, reading: AsyncIterator<Line>, work: Work): Promise<IteratorResult<Line, unknown>> {
  const reader = new ContentReader(true);
  for (let count = 0; ;) {
    const next = await reading.next();
    if (next.done || next.value.table !== 'files') return next;
    const row = next.value.row as DbRow;
    const content = reader.take(row, `files.${count}`);
    if (!content) continue;
    await putContent(db, String(row.crate_id), content);
    await work.report(`Putting file ${++count} in place`, 0, 0);
  }
}

/** A row without what an earlier version left dangling; nothing where nothing is left of it. */
function mend(table: RowTable, row: DbRow, dangling: ReadonlySet<string>): DbRow | undefined {
  if (!dangling.has(String(row.id))) return row;
  return table === 'units' ? { ...row, build_id: null } : table === 'attachments' ? undefined : row;
}

/** What later versions count and mend, for a backup of before them. */
async function raiseCounters(trx: Knex.Transaction): Promise<void> {
  const [{ highest }] = (await trx('builds').select(
    trx.raw('coalesce(max(cast(substr(tag, 4) as unsigned)), 0) as highest')
  )) as [{ highest: number | string }];
  await trx.raw(
    "insert into counters (name, value) values ('build tags', ?) on duplicate key update value = greatest(value, values(value))",
    [Number(highest)]
  );
  await countGivenTags(trx);
  await mendDoubledChoices(trx);
}

/** A safety copy whose contents are written at once and whose rows later, within the transaction that replaces them. */
function copyInTwo(db: Knex, path: string, at: string) {
  let contentsWritten = () => {};
  const contents = new Promise<void>((done) => (contentsWritten = done));
  let give: (trx: Knex) => void = () => {};
  const given = new Promise<Knex>((done) => (give = done));
  const writingIt = writeArchive(
    path,
    backupLines(db, at, async function* (read) {
      contentsWritten();
      yield* read(await given);
    })
  );
  // Where it fails before its rows are asked for, whoever waits for its contents learns of it.
  const failed = writingIt.then(() => new Promise<never>(() => {}));
  failed.catch(() => {});
  return {
    contents: Promise.race([contents, failed]),
    async rows(trx: Knex): Promise<void> {
      give(trx);
      await writingIt;
    }
  };
}
