import type { Knex } from 'knex';
import { z } from 'zod';
import { choiceSchema } from '#core/build/build';
import { STAGES } from '#core/build/stages';
import { currency } from '#core/parts/exchange-rate';
import { id, text } from '#core/parts/field';
import { jobSchema } from '#core/parts/job';
import { modelSchema } from '#core/parts/model';
import { UNIT_STATES } from '#core/parts/unit';
import { houseRulesSchema, planInputSchema, planReportSchema } from '#core/plan/report';
import { fieldsOf } from '../../api/fields';
import { newId } from '../../db/change';
import { countGivenTags, withoutDoubles } from '../../db/mend';
import { writing } from '../../db/writing';
import { Problem } from '../../problem';
import type { Work } from '../../work';
import { SUBJECTS } from '../attachments';
import { createCrate, getCrate, type Crate } from '../crates';
import { targetSchema } from '../models';
import { rowsOf } from './backup';
import { putContent } from '../contents';
import { contentLines, ContentReader } from './contents';
import { openArchive, packed, packedLines, refuseArchive, type Line } from './lines';
import {
  batchOf,
  buildTagSchema,
  REFERENCES,
  rowProblems,
  sha256Schema,
  slugSchema,
  toColumns,
  type DbRow,
  type RowTable
} from './rows';

/** Every row of a bundle: what the contract says of it, and when it was made and changed. */
const stored = { id: id(), version: z.number().int().min(1), createdAt: z.iso.datetime(), updatedAt: z.iso.datetime() };
const day = z.iso.date();
const details = z.record(z.string(), z.unknown());
const line = (max: number) => z.string().max(max);
const crateSchema = z.strictObject({
  name: text('Name', 120),
  slug: slugSchema,
  houseRules: houseRulesSchema,
  currency: currency()
});

/**
 * A whole crate as one JSON document. Details of units, quotes, rates, pairs and runs are as the API takes them; files are
 * base64. Undo history is not in it; the log is.
 */
export const bundleSchema = z
  .strictObject({
    format: z.literal('ash-crate-bundle'),
    formatVersion: z.literal(1),
    exportedAt: z.iso.datetime(),
    crate: crateSchema,
    models: z.array(z.strictObject({ ...stored, spec: modelSchema, target: targetSchema.nullable() })),
    units: z.array(
      z.strictObject({
        ...stored,
        modelId: id(),
        buildId: id().nullable(),
        tag: line(20),
        state: z.enum(UNIT_STATES),
        details
      })
    ),
    quotes: z.array(z.strictObject({ ...stored, partId: id(), date: day, details })),
    rates: z.array(z.strictObject({ ...stored, date: day, details })),
    pairs: z.array(z.strictObject({ ...stored, driveId: id(), bridge: line(120), details })),
    jobs: z.array(z.strictObject({ ...stored, name: line(120), spec: jobSchema })),
    builds: z.array(
      z.strictObject({
        ...stored,
        tag: buildTagSchema,
        name: line(120),
        stage: z.enum(STAGES),
        choice: choiceSchema,
        snapshot: planInputSchema,
        report: planReportSchema,
        engine: line(20)
      })
    ),
    runs: z.array(
      z.strictObject({
        ...stored,
        buildId: id(),
        protocol: line(20),
        date: day,
        simulated: z.boolean(),
        results: details,
        conditions: details,
        chain: details,
        accepted: z.array(z.unknown())
      })
    ),
    observations: z
      .array(
        z.strictObject({ ...stored, buildId: id(), kind: z.enum(['imprint', 'temperature']), date: day, seen: details })
      )
      .default([]),
    attachments: z.array(
      z.strictObject({
        ...stored,
        subjectTable: z.enum(SUBJECTS),
        subjectId: id(),
        name: line(200),
        type: line(100),
        size: z.number().int().min(0),
        sha256: sha256Schema,
        content: z.base64()
      })
    ),
    events: z.array(
      z.strictObject({
        at: z.iso.datetime(),
        by: line(60),
        kind: line(40),
        subjectTable: line(20),
        subjectId: id(),
        message: line(400)
      })
    )
  })
  .meta({
    title: 'Ash Crate bundle',
    description: 'A whole crate: parts, units, quotes, builds, results, log and files.'
  });

/** In the order in which rows can be written: what is referred to comes first. */
const TABLES = [
  'models',
  'jobs',
  'builds',
  'units',
  'quotes',
  'rates',
  'pairs',
  'runs',
  'observations',
  'attachments',
  'events'
] as const satisfies readonly RowTable[];
type Table = (typeof TABLES)[number];
/** Columns that follow from others or from the crate, and are not written. */
const DERIVED: Partial<Record<Table, readonly string[]>> = { models: ['kind', 'name'], events: ['seq'] };

const camel = (column: string) => column.replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase());
const snake = (key: string) => key.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

function entryOf(table: Table, row: DbRow): DbRow {
  const skip = new Set(['crate_id', ...(DERIVED[table] ?? [])]);
  return Object.fromEntries(
    Object.entries(row)
      .filter(([column]) => !skip.has(column))
      .map(([column, value]) => [camel(column), column === 'simulated' ? value === 1 : value])
  );
}

function rowOf(table: Table, crateId: string, entry: DbRow): DbRow {
  const row: DbRow = { crate_id: crateId };
  for (const [key, value] of Object.entries(entry)) row[snake(key)] = value;
  if (table !== 'models') return row;
  const spec = entry.spec as { kind?: unknown; name?: unknown } | undefined;
  return { ...row, kind: spec?.kind, name: spec?.name };
}

/** Every row of a crate, in a fixed order: the same crate gives the same bundle. What hangs on nothing any more is left out. */
async function* entriesOf(db: Knex, crateId: string): AsyncGenerator<{ table: Table; entry: DbRow }> {
  const there = { models: new Set<unknown>(), builds: new Set<unknown>(), units: new Set<unknown>() };
  for (const table of TABLES)
    for await (const row of rowsOf(db, table, { crate_id: crateId })) {
      if (table in there) there[table as keyof typeof there].add(row.id);
      if (table === 'units' && row.build_id !== null && !there.builds.has(row.build_id)) row.build_id = null;
      if (table === 'attachments' && !there[row.subject_table as keyof typeof there]?.has(row.subject_id)) continue;
      yield { table, entry: entryOf(table, row) };
    }
}

const FORMAT = 'ash-crate-bundle';
async function headOf(db: Knex, crateId: string): Promise<DbRow> {
  const { name, slug, houseRules, currency: money } = await getCrate(db, { id: crateId });
  return { name, slug, houseRules, currency: money };
}

/** A crate as lines: what it is, its contents, its rows. */
async function* bundleLines(db: Knex, crateId: string, at: string): AsyncGenerator<Line> {
  yield { format: FORMAT, formatVersion: 2, exportedAt: at, crate: await headOf(db, crateId) };
  for await (const { table, row } of contentLines(db, new Set(), crateId))
    yield { table, row: { ...row, crate_id: undefined } };
  const counts: Record<string, number> = Object.fromEntries(TABLES.map((table) => [table, 0]));
  for await (const { table, entry } of entriesOf(db, crateId)) {
    counts[table] = counts[table]! + 1;
    yield { table, row: entry };
  }
  yield { counts };
}

/** A crate as one JSON document, in pieces: by the schema, for other programs. */
async function* bundleDocument(db: Knex, crateId: string, at: string): AsyncGenerator<string> {
  const head = JSON.stringify({
    format: FORMAT,
    formatVersion: 1,
    exportedAt: at,
    crate: await headOf(db, crateId)
  });
  yield head.slice(0, -1);
  const done = new Set<Table>();
  let open: Table | undefined;
  const begin = (table: Table) => {
    const between = [];
    if (open) between.push(']');
    // Tables without a row are in it too.
    for (const other of TABLES.slice(0, TABLES.indexOf(table)))
      if (!done.has(other)) {
        between.push(`,"${other}":[]`);
        done.add(other);
      }
    done.add(table);
    open = table;
    return `${between.join('')},"${table}":[`;
  };
  let first = true;
  for await (const { table, entry } of entriesOf(db, crateId)) {
    first = table !== open;
    if (first) yield begin(table);
    if (table === 'attachments') {
      const file = (await db('files')
        .where({ crate_id: crateId, sha256: entry.sha256 as string })
        .first('content')) as { content: Buffer } | undefined;
      entry.content = file?.content.toString('base64') ?? '';
    }
    yield `${first ? '' : ','}${JSON.stringify(entry)}`;
  }
  yield open ? ']' : '';
  yield `${TABLES.filter((table) => !done.has(table))
    .map((table) => `,"${table}":[]`)
    .join('')}}`;
}

/** In one snapshot, so that every row is of one moment. */
async function* inSnapshot<T>(db: Knex, read: (trx: Knex) => AsyncGenerator<T>): AsyncGenerator<T> {
  const trx = await db.transaction(undefined, { isolationLevel: 'repeatable read' });
  try {
    yield* read(trx);
  } finally {
    await trx.rollback();
  }
}

/** A bundle as a stream: packed lines, or one JSON document. */
export const streamBundle = (db: Knex, crateId: string, at: string) =>
  packedLines(inSnapshot(db, (trx) => bundleLines(trx, crateId, at)));
export const documentPieces = (db: Knex, crateId: string, at: string) =>
  inSnapshot(db, (trx) => bundleDocument(trx, crateId, at));
/** Packs the document too, for what would rather have it small. */
export const packedDocument = (db: Knex, crateId: string, at: string) => packed(documentPieces(db, crateId, at));

type Bundle = { crate: unknown; lines: AsyncIterable<Line>; document: boolean };

async function* linesOf(document: Line): AsyncGenerator<Line> {
  const attachments = Array.isArray(document.attachments) ? (document.attachments as unknown[]) : [];
  for (const [i, row] of attachments.entries()) {
    if (row === null || typeof row !== 'object') throw refuseArchive('is no row', `attachments.${i}`);
    const { sha256, content } = row as DbRow;
    yield { table: 'files', row: { sha256, content: { base64: content } } };
  }
  const counts: Record<string, number> = {};
  for (const table of TABLES) {
    // Bundles of before there were observations have none.
    const rows = document[table] ?? (table === 'observations' ? [] : undefined);
    if (!Array.isArray(rows)) throw refuseArchive('is missing or no list', table);
    counts[table] = rows.length;
    for (const row of rows as unknown[]) {
      if (table !== 'attachments' || row === null || typeof row !== 'object') yield { table, row };
      else {
        const { content: _content, ...rest } = row as DbRow;
        yield { table, row: rest };
      }
    }
  }
  yield { counts };
}

async function openBundleFile(path: string): Promise<Bundle> {
  const opened = await openArchive(path);
  const head = opened.form === 'lines' ? opened.head : opened.document;
  if (head.format !== FORMAT) throw refuseArchive('This is no bundle of Ash Crate, or it is damaged.', 'format');
  if (opened.form === 'lines') {
    if (head.formatVersion !== 2) throw refuseArchive('is of a newer Ash Crate than this one', 'formatVersion');
    return { crate: head.crate, lines: opened.lines, document: false };
  }
  const extra = Object.keys(opened.document).find((key) => !(key in bundleSchema.shape));
  if (extra !== undefined) throw refuseArchive('is no part of a bundle', extra.slice(0, 40));
  return { crate: head.crate, lines: linesOf(opened.document), document: true };
}

export type CheckedBundle = {
  crate: z.infer<typeof crateSchema>;
  rows: number;
  ids: string[];
  tags: string[];
};
const MOST_PROBLEMS = 20;
/** Stands for the crate that is not there yet. */
const NOWHERE = '0'.repeat(26);

/**
 * Looks through all of a bundle without touching anything.
 * @throws Problem `bad-input` with the paths of what is wrong, such as `runs.0.results`
 */
export async function checkBundle(path: string, report?: Work['report']): Promise<CheckedBundle> {
  const bundle = await openBundleFile(path);
  const crate = crateSchema.safeParse(bundle.crate);
  const problems = crate.success
    ? []
    : fieldsOf(crate.error).map((field) => ({ ...field, path: `crate.${field.path}` }));
  const ids = Object.fromEntries(TABLES.map((table) => [table, new Set<string>()])) as Record<Table, Set<string>>;
  const tags = { builds: new Map<string, string>(), units: new Map<string, string>() };
  const contents = new Set<string>();
  const reader = new ContentReader(false);
  const counts: Record<string, number> = {};
  let stated: Record<string, number> | undefined;
  const refer: { path: string; to: Table; id: string }[] = [];
  let rows = 0;
  for await (const { table, row, counts: last } of bundle.lines as AsyncIterable<{
    table: Table | 'files';
    row: unknown;
    counts?: Record<string, number>;
  }>) {
    if (last) {
      stated = last;
      continue;
    }
    if (table !== 'files' && !TABLES.includes(table))
      throw refuseArchive('is no table of a bundle', String(table).slice(0, 40));
    const at = `${bundle.document && table === 'files' ? 'attachments' : table}.${counts[table] ?? 0}`;
    counts[table] = (counts[table] ?? 0) + 1;
    if (row === null || typeof row !== 'object' || Array.isArray(row)) throw refuseArchive('is no row', at);
    if (table === 'files') {
      const content = reader.take(row as DbRow, at);
      await report?.('Checking files', contents.size, 0);
      if (!content) counts.files = counts.files! - 1;
      else contents.add(content.sha256);
      continue;
    }
    rows += 1;
    if (rows % 500 === 0) await report?.(`Checking ${table}`, rows, 0);
    const given = rowOf(table, NOWHERE, row as DbRow);
    for (const problem of rowProblems(table, given))
      problems.push({ ...problem, path: `${at}.${problem.path.replace(/^\w+/, camel)}` });
    if (problems.length >= MOST_PROBLEMS) break;
    if (table === 'events') continue;
    if (ids[table].has(String(given.id))) problems.push({ path: table, message: 'holds one id twice' });
    ids[table].add(String(given.id));
    if (table === 'builds' || table === 'units') {
      const tag = String(given.tag).toLowerCase();
      const other = tags[table].get(tag);
      if (other !== undefined) problems.push({ path: `${at}.tag`, message: `is the tag of ${other} too` });
      else tags[table].set(tag, at);
    }
    for (const { table: from, column, to } of REFERENCES)
      if (from === table && given[column] !== null && given[column] !== undefined)
        refer.push({ path: `${at}.${camel(column)}`, to: to as Table, id: String(given[column]) });
    if (table === 'attachments') {
      if (SUBJECTS.includes(given.subject_table as (typeof SUBJECTS)[number]))
        refer.push({ path: `${at}.subjectId`, to: given.subject_table as Table, id: String(given.subject_id) });
      if (!contents.has(String(given.sha256)))
        problems.push({ path: `${at}.sha256`, message: 'names a content that is not in the bundle' });
    }
  }
  for (const { path: where, to, id: wanted } of refer)
    if (!ids[to].has(wanted) && problems.length < MOST_PROBLEMS)
      problems.push({ path: where, message: `refers to something that is not in the bundle: ${wanted.slice(0, 40)}` });
  for (const table of TABLES)
    if (problems.length === 0 && stated?.[table] !== (counts[table] ?? 0))
      problems.push({ path: table, message: 'is missing or not whole' });
  if (problems.length > 0 || !crate.success)
    throw new Problem(
      'bad-input',
      `${problems[0]!.path}: ${problems[0]!.message}. Nothing was opened.`,
      problems.slice(0, MOST_PROBLEMS)
    );
  return {
    crate: crate.data,
    rows,
    ids: TABLES.flatMap((table) => [...ids[table]]),
    tags: [...tags.builds.keys()].map((tag) => tag.toUpperCase())
  };
}

const ID = /[0-9A-HJKMNP-TV-Z]{26}/g;

/** Whether one of these ids is somewhere in the database already. */
async function anyTaken(trx: Knex, ids: readonly string[]): Promise<boolean> {
  for (const table of TABLES)
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
  work: Work
): Promise<{ crate: Crate; renamed: boolean }> {
  const { path, checked, at } = args;
  const { name, slug, houseRules, currency: money } = checked.crate;
  const crateId = newId();
  const { lines } = await openBundleFile(path);
  const reading = lines[Symbol.asyncIterator]();
  let next = await reading.next();
  const reader = new ContentReader(true);
  for (let count = 0; !next.done && next.value.table === 'files'; next = await reading.next()) {
    const content = reader.take(next.value.row as DbRow, `files.${count}`);
    if (!content) continue;
    await putContent(db, crateId, content);
    await work.report(`Putting file ${++count} in place`, 0, checked.rows);
  }
  return writing(
    db,
    null,
    async (trx) => {
      const renamed = await anyTaken(trx, checked.ids);
      const fresh = renamed ? new Map(checked.ids.map((old) => [old, newId()])) : undefined;
      const tags = await tagsHere(trx, checked.tags);
      const follow = <T>(value: T): T =>
        fresh ? (JSON.parse(JSON.stringify(value).replace(ID, (old) => fresh.get(old) ?? old)) as T) : value;
      await createCrate(trx, { name, slug, at, id: crateId });
      await trx('crates')
        .where({ id: crateId })
        .update({ house_rules: JSON.stringify(houseRules), currency: money });
      let done = 0;
      for (let batch: DbRow[] = [], of: Table | undefined; ;) {
        const { table, row } = (next.done ? {} : next.value) as { table?: Table; row?: DbRow };
        if (of && batch.length > 0 && (table !== of || batch.length === batchOf(of))) {
          await trx(of).insert(batch);
          done += batch.length;
          batch = [];
          await work.report(`Writing ${of}`, done, checked.rows);
        }
        if (next.done) break;
        of = table ?? of;
        if (table && row) {
          const mine = rowOf(table, crateId, follow(row));
          if (table === 'builds') mine.tag = tags.get(String(mine.tag)) ?? mine.tag;
          if (table === 'events')
            mine.message = String(mine.message).replace(/AC-\d{4,9}/g, (tag) => tags.get(tag) ?? tag);
          if (table === 'models' || table === 'jobs') mine.spec = withoutDoubles(mine.spec);
          batch.push(toColumns(mine));
        }
        next = await reading.next();
      }
      await countGivenTags(trx, crateId);
      const opened = { crate: await getCrate(trx, { id: crateId }), renamed };
      await work.commit(trx, opened);
      return opened;
    },
    { queue: 'bundles' }
  );
}
