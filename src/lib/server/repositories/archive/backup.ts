import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { countGivenTags, mendDoubledChoices, reachableTag, withoutOddText } from '../../db/mend';
import { MIGRATIONS } from '../../db/migrations';
import { writing } from '../../db/writing';
import type { TaskControl } from '../../work/control';
import { putContent } from '../contents';
import { contentLines } from './contents';
import { insertRows, putContents } from './fill';
import { LINES_VERSION, openArchive, refuseArchive, writeArchive, type Line } from './lines';
import { Findings, readThrough } from './read-through';
import { batchOf, REFERENCES, ROW_TABLES, rowProblems, type DbRow, type RowTable } from './rows';

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
  observations: '019-observations',
  sheets: '027-sheets',
  checks: '028-checks'
};

const keyOf = (table: RowTable) => (table === 'counters' ? 'name' : table === 'events' ? 'seq' : 'id');

/** The rows of a table in the order of its key, a few at a time. */
export async function* backupRows(db: Knex, table: RowTable, where: DbRow = {}): AsyncGenerator<DbRow> {
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
  yield { format: FORMAT, formatVersion: LINES_VERSION, madeAt: at, migrations: migrationNames() };
  const written = new Set<string>();
  yield* contentLines(db, written);
  yield* rowsFrom(async function* (trx) {
    const counts: Record<string, number> = {};
    // Contents that were added meanwhile.
    yield* contentLines(trx, written);
    for (const table of ROW_TABLES) {
      counts[table] = 0;
      for await (const row of backupRows(trx, table)) {
        counts[table] += 1;
        yield { table, row };
      }
    }
    yield { counts: { ...counts, files: written.size } };
  });
}

/** Reads in one snapshot: what is saved meanwhile is in the next archive, and never half in this one. */
export async function* atOneMoment<T>(db: Knex, read: (trx: Knex) => AsyncGenerator<T>): AsyncGenerator<T> {
  const trx = await db.transaction(undefined, { isolationLevel: 'repeatable read' });
  try {
    yield* read(trx);
  } finally {
    await trx.rollback();
  }
}

export const makeBackupFile = (db: Knex, path: string, at: string) => writeArchive(path, backupLines(db, at));

type Backup = { madeAt: string; migrations: string[]; lines: AsyncIterable<Line> };

/** A row as an earlier version could write it, without what pages cannot read: odd characters, a tag of dots alone. */
function readable(table: string, row: unknown): unknown {
  const plain = withoutOddText(row);
  const tag = table === 'units' ? (plain as { tag?: unknown } | null)?.tag : undefined;
  return typeof tag === 'string' ? { ...(plain as object), tag: reachableTag(tag) } : plain;
}

/** A document of before there were lines, as lines: contents first. */
async function* linesOf(tables: Record<string, unknown>): AsyncGenerator<Line> {
  const counts: Record<string, number> = {};
  for (const table of ['files', ...ROW_TABLES]) {
    const rows = tables[table];
    if (!Array.isArray(rows)) continue;
    counts[table] = rows.length;
    for (const row of rows as unknown[]) yield { table, row: readable(table, row) };
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

/**
 * Looks through all of a backup without touching anything: every row against the schema by which pages read it, every reference,
 * every content against its digest, that no table is missing. What a row refers to comes before it, so each is judged as it comes.
 * @throws Problem `bad-input` with the paths of what is wrong, such as `units.3.details.serial`
 */
export async function checkBackup(path: string, report?: TaskControl['report']): Promise<Checked> {
  const { madeAt, migrations, lines } = await openBackup(path);
  const found = new Findings('Nothing was changed.');
  /** The crate of every row, by table and key. */
  const crateOf = new Map<RowTable, Map<string, string>>(ROW_TABLES.map((table) => [table, new Map()]));
  const dangling = new Set<string>();
  let rows = 0;
  const { counts } = await readThrough(lines, {
    tables: ROW_TABLES,
    found,
    report,
    each: (table, row, at, contents) => {
      rows += 1;
      found.add(at, rowProblems(table, row));
      const key = String(row[keyOf(table)]);
      const crate = String(row.crate_id ?? row.id);
      const known = crateOf.get(table)!;
      if (known.has(key)) found.add(at, [{ path: '', message: 'has a key that another row has too' }]);
      // Nothing refers to the log, which is the longest of all.
      if (table !== 'events') known.set(key, crate);
      /** @param mayDangle whether an earlier version itself left such behind; then it is mended */
      const refer = (column: string, to: RowTable, mayDangle: boolean) => {
        const id = String(row[column]);
        const its = crateOf.get(to)?.get(id);
        if (its === (to === 'crates' ? id : crate)) return;
        if (mayDangle && its === undefined) dangling.add(key);
        else
          found.add(at, [
            { path: column, message: `refers to something that is not in the backup: ${id.slice(0, 40)}` }
          ]);
      };
      if (row.crate_id !== undefined) refer('crate_id', 'crates', false);
      for (const { table: from, column, to } of REFERENCES)
        if (from === table && typeof row[column] === 'string')
          refer(column, to, table === 'units' && column === 'build_id');
      if (table !== 'attachments') return;
      refer('subject_id', row.subject_table as RowTable, true);
      if (!contents.has(`${crate} ${String(row.sha256)}`))
        found.add(at, [{ path: 'sha256', message: 'names a content that is not in the backup' }]);
    }
  });
  found.missing(
    counts,
    [...ROW_TABLES, 'files' as const].filter((table) => migrations.includes(SINCE[table]))
  );
  found.throwIfAny();
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
  work: TaskControl
): Promise<{ rows: number; madeAt: string; kept: string }> {
  const { path, checked, safetyCopy, at } = args;
  const { rows: total, madeAt, dangling } = checked;
  await work.report('Keeping a copy of what is there', 0, total);
  const copy = copyInTwo(db, safetyCopy, at);
  try {
    await copy.contents;
    const { lines } = await openBackup(path);
    const reading = lines[Symbol.asyncIterator]();
    const first = await putContents(reading, (row, content) => putContent(db, String(row.crate_id), content), work);
    await work.report('Waiting for those who write now', 0, total);
    return await writing(
      db,
      null,
      async (trx) => {
        await work.report('Keeping what was written last', 0, total);
        await copy.rows(trx);
        for (const table of [...ROW_TABLES].reverse()) await trx(table).delete();
        const rows = await insertRows(trx, { first, reading }, { report: work.report, total }, (table: RowTable, row) =>
          mend(table, row, dangling)
        );
        await raiseCounters(trx);
        const done = { rows, madeAt, kept: safetyCopy };
        await work.commit(trx, done);
        return done;
      },
      { alone: true, queue: 'restore', once: true }
    );
  } catch (error) {
    copy.abandon(error);
    throw error;
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
  let abandon: (error: unknown) => void = () => {};
  const given = new Promise<Knex>((done, fail) => {
    give = done;
    abandon = fail;
  });
  given.catch(() => {});
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
    },
    /** Nothing is replaced after all: what was written of it goes. */
    abandon
  };
}
