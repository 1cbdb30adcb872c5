import type { Knex } from 'knex';
import type { z } from 'zod';
import { tagKey } from '#core/parts/tag';
import { fieldsOf } from '../../problems/fields';
import { newId } from '../../db/change';
import { countGivenTags, withoutDoubles, withoutOddText } from '../../db/mend';
import { writing } from '../../db/writing';
import type { TaskControl } from '../../work/control';
import { checkPhoto } from '../../photos/check';
import { putContent } from '../contents';
import { createCrate, getCrate, type Crate } from '../crates';
import { bundleCrateSchema, bundleSchema } from './bundle-schema';
import { BUNDLE_FORMAT, BUNDLE_TABLES, keyOfColumn, storedRow, type BundleTable } from './bundle-tables';
import { insertRows, putContents } from './fill';
import { openArchive, refuseArchive, type Line } from './lines';
import { Findings, readThrough } from './read-through';
import { REFERENCES, rowProblems, type DbRow, type RowTable } from './rows';

type Bundle = { crate: unknown; lines: AsyncIterable<Line>; document: boolean };

const isRow = (row: unknown): row is DbRow => row !== null && typeof row === 'object';

/** Gives the contents that a bundle of one document carries in its attachments. */
function* contentLines(document: Line): Generator<Line> {
  const attachments = Array.isArray(document.attachments) ? (document.attachments as unknown[]) : [];
  for (const [i, row] of attachments.entries()) {
    if (!isRow(row)) throw refuseArchive('is no row', `attachments.${i}`);
    yield { table: 'files', row: { sha256: row.sha256, content: { base64: row.content } } };
  }
}

/** Tables that earlier bundles do not have. */
const LATER: ReadonlySet<BundleTable> = new Set(['observations', 'sheets', 'checks']);

/** Gives a bundle of one document as lines: contents, rows, and how many there are. */
async function* linesOf(document: Line): AsyncGenerator<Line> {
  yield* contentLines(document);
  const counts: Record<string, number> = {};
  for (const table of BUNDLE_TABLES) {
    // Bundles of before there were such have none.
    const rows = document[table] ?? (LATER.has(table) ? [] : undefined);
    if (!Array.isArray(rows)) throw refuseArchive('is missing or no list', table);
    counts[table] = rows.length;
    for (const row of rows as unknown[]) yield { table, row: table === 'attachments' ? withoutContent(row) : row };
  }
  yield { counts };
}

function withoutContent(row: unknown): unknown {
  if (!isRow(row)) return row;
  const { content: _content, ...rest } = row;
  return rest;
}

async function openBundleFile(path: string): Promise<Bundle> {
  const opened = await openArchive(path);
  const head = opened.form === 'lines' ? opened.head : opened.document;
  if (head.format !== BUNDLE_FORMAT) throw refuseArchive('This is no bundle of Ash Crate, or it is damaged.', 'format');
  if (opened.form === 'lines') {
    return { crate: head.crate, lines: opened.lines, document: false };
  }
  if (head.formatVersion !== 1) throw refuseArchive('is of a newer Ash Crate than this one', 'formatVersion');
  const extra = Object.keys(opened.document).find((key) => !Object.hasOwn(bundleSchema.shape, key));
  if (extra !== undefined) throw refuseArchive('is no part of a bundle', extra.slice(0, 40));
  const document = withoutOddText(opened.document);
  return { crate: document.crate, lines: linesOf(document), document: true };
}

export type CheckedBundle = {
  crate: z.infer<typeof bundleCrateSchema>;
  rows: number;
  ids: string[];
  tags: string[];
};
/** Stands for the crate that is not there yet. */
const NOWHERE = '0'.repeat(26);

/**
 * Looks through all of a bundle without touching anything.
 * @throws Problem `bad-input` with the paths of what is wrong, such as `runs.0.results`
 */
export async function checkBundle(path: string, report?: TaskControl['report']): Promise<CheckedBundle> {
  const { crate: about, lines, document } = await openBundleFile(path);
  const found = new Findings('Nothing was opened.');
  const crate = bundleCrateSchema.safeParse(about);
  if (!crate.success) found.add('crate', fieldsOf(crate.error));
  const ids = new Map<RowTable, Set<string>>(BUNDLE_TABLES.map((table) => [table, new Set()]));
  /** Where each tag was seen first. */
  const tags = { builds: new Map<string, string>(), units: new Map<string, string>() };
  let rows = 0;
  const each = (table: BundleTable, entry: DbRow, at: string, contents: ReadonlySet<string>) => {
    rows += 1;
    const row = storedRow(table, NOWHERE, entry);
    const wrong = (column: string, message: string) => found.add(at, [{ path: keyOfColumn(column), message }]);
    found.add(
      at,
      rowProblems(table, row).map(({ path: below, message }) => ({ path: below.replace(/^\w+/, keyOfColumn), message }))
    );
    if (table === 'events') return;
    const known = ids.get(table)!;
    if (known.has(String(row.id))) found.add(table, [{ path: '', message: 'holds one id twice' }]);
    known.add(String(row.id));
    if (table === 'builds' || table === 'units') {
      const tag = tagKey(String(row.tag));
      const other = tags[table].get(tag);
      if (other !== undefined) wrong('tag', `is the tag of ${other} too`);
      else tags[table].set(tag, at);
    }
    const refer = (column: string, to: RowTable) => {
      const id = String(row[column]);
      if (!ids.get(to)?.has(id)) wrong(column, `refers to something that is not in the bundle: ${id.slice(0, 40)}`);
    };
    for (const { table: from, column, to } of REFERENCES)
      if (from === table && row[column] !== null && row[column] !== undefined) refer(column, to);
    if (table !== 'attachments') return;
    refer('subject_id', row.subject_table as RowTable);
    if (!contents.has(`undefined ${String(row.sha256)}`)) wrong('sha256', 'names a content that is not in the bundle');
  };
  const { counts } = await readThrough(lines, {
    tables: BUNDLE_TABLES,
    found,
    report,
    each,
    ...(document ? { contentsAt: 'attachments' } : {})
  });
  found.missing(counts, BUNDLE_TABLES);
  found.throwIfAny();
  return {
    crate: crate.data!,
    rows,
    ids: BUNDLE_TABLES.flatMap((table) => [...ids.get(table)!]),
    tags: [...tags.builds.keys()].map((tag) => tag.toUpperCase())
  };
}

/** Photographs on steps are looked at as if they were sent one by one. */
async function refuseOddPhotos(trx: Knex, crateId: string): Promise<void> {
  const contents = (await trx('attachments')
    .where({ crate_id: crateId, subject_table: 'sheets' })
    .distinct()
    .pluck('sha256')) as string[];
  for (const sha256 of contents) {
    const file = (await trx('files').where({ crate_id: crateId, sha256 }).first('content')) as
      { content: Buffer } | undefined;
    if (file) await checkPhoto(file.content);
  }
}

const ID = /[0-9A-HJKMNP-TV-Z]{26}/g;

/** Whether one of these ids is somewhere in the database already. */
async function anyTaken(trx: Knex, ids: readonly string[]): Promise<boolean> {
  for (const table of BUNDLE_TABLES)
    if (table !== 'events')
      for (let i = 0; i < ids.length; i += 1000)
        if (
          await trx(table)
            .whereIn('id', ids.slice(i, i + 1000))
            .first('id')
        )
          return true;
  return false;
}

/** A tag so far beyond those in use is not taken over: the next build would go on from it for ever. */
const FAR = 10_000;

/** Build tags are one series over all crates: one that is taken, or far beyond it, gets the next free number. */
async function tagsHere(trx: Knex.Transaction, tags: readonly string[]): Promise<Map<string, string>> {
  const counter = () => trx('counters').where({ name: 'build tags' });
  const { value: last } = (await counter().forUpdate().first('value')) as { value: number };
  const taken = new Set<string>();
  for (let i = 0; i < tags.length; i += 1000)
    for (const tag of (await trx('builds')
      .whereIn('tag', tags.slice(i, i + 1000))
      .pluck('tag')) as string[])
      taken.add(tag);
  const number = (tag: string) => Number(tag.slice(3));
  const kept = tags.filter((tag) => !taken.has(tag) && number(tag) <= last + FAR);
  let next = Math.max(last, ...kept.map(number));
  const here = new Map<string, string>();
  for (const tag of tags) if (!kept.includes(tag)) here.set(tag, `AC-${String(++next).padStart(4, '0')}`);
  await counter().update({ value: next });
  return here;
}

/**
 * Opens a checked bundle as a new crate. Contents are put in place first, unseen; the rows follow in one transaction. Ids stay as they
 * are where all of them are free.
 */
export async function openBundle(
  db: Knex,
  args: { path: string; checked: CheckedBundle; at: string },
  work: TaskControl
): Promise<{ crate: Crate; renamed: boolean }> {
  const { path, checked, at } = args;
  const { name, slug, houseRules, currency: money } = checked.crate;
  const crateId = newId();
  const { lines } = await openBundleFile(path);
  const reading = lines[Symbol.asyncIterator]();
  const first = await putContents(reading, (_, content) => putContent(db, crateId, content), work);
  return writing(
    db,
    null,
    async (trx) => {
      // The crate before the numbers of tags: in this order they are taken by everybody who saves a build.
      await createCrate(trx, { name, slug, at, id: crateId });
      await trx('crates')
        .where({ id: crateId })
        .update({ house_rules: JSON.stringify(houseRules), currency: money });
      const renamed = await anyTaken(trx, checked.ids);
      const fresh = renamed ? new Map(checked.ids.map((old) => [old, newId()])) : undefined;
      const tags = await tagsHere(trx, checked.tags);
      const follow = <T>(value: T): T =>
        fresh ? (JSON.parse(JSON.stringify(value).replace(ID, (old) => fresh.get(old) ?? old)) as T) : value;
      await insertRows(
        trx,
        { first, reading },
        { report: work.report, total: checked.rows },
        (table: BundleTable, entry) => {
          const row = storedRow(table, crateId, follow(entry));
          if (table === 'builds') row.tag = tags.get(String(row.tag)) ?? row.tag;
          if (table === 'events')
            row.message = String(row.message).replace(/AC-\d{4,9}/g, (tag) => tags.get(tag) ?? tag);
          if (table === 'models' || table === 'jobs') row.spec = withoutDoubles(row.spec);
          return row;
        }
      );
      await refuseOddPhotos(trx, crateId);
      await countGivenTags(trx, crateId);
      const opened = { crate: await getCrate(trx, { id: crateId }), renamed };
      await work.commit(trx, opened);
      return opened;
    },
    { once: true }
  );
}
