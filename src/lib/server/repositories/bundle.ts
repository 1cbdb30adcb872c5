import type { Knex } from 'knex';
import { z } from 'zod';
import { choiceSchema } from '#core/build/build';
import { STAGES } from '#core/build/stages';
import { currency } from '#core/parts/exchange-rate';
import { id } from '#core/parts/field';
import { jobSchema } from '#core/parts/job';
import { modelSchema } from '#core/parts/model';
import { UNIT_STATES } from '#core/parts/unit';
import { houseRulesSchema, planInputSchema, planReportSchema } from '#core/plan/report';
import { newId } from '../db/change';
import { Problem } from '../problem';
import { createCrate, getCrate, type Crate } from './crates';
import { keepFile } from './attachments';
import { targetSchema } from './models';
import type { Work } from '../tasks';

/** Every row of a bundle: what the contract says of it, and when it was made and changed. */
const stored = { id: id(), version: z.number().int().min(1), createdAt: z.iso.datetime(), updatedAt: z.iso.datetime() };
const day = z.iso.date();
const details = z.record(z.string(), z.unknown());
const line = (max: number) => z.string().max(max);

/**
 * A whole crate as one JSON document. Details of units, quotes, rates, pairs and runs are as the API takes them; files are
 * base64. Undo history is not in it; the log is.
 */
export const bundleSchema = z
  .strictObject({
    format: z.literal('ash-crate-bundle'),
    formatVersion: z.literal(1),
    exportedAt: z.iso.datetime(),
    crate: z.strictObject({ name: line(120), slug: line(60), houseRules: houseRulesSchema, currency: currency() }),
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
        tag: line(20),
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
        subjectTable: line(20),
        subjectId: id(),
        name: line(200),
        type: line(100),
        size: z.number().int().min(0),
        sha256: z.string().regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in hex'),
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
export type Bundle = z.infer<typeof bundleSchema>;

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
  'attachments'
] as const;
const JSON_COLUMNS = new Set([
  'spec',
  'target',
  'details',
  'choice',
  'snapshot',
  'report',
  'results',
  'seen',
  'conditions',
  'chain',
  'accepted'
]);
/** Columns that follow from others, and are not written twice. */
const DERIVED: Partial<Record<(typeof TABLES)[number], readonly string[]>> = { models: ['kind', 'name'] };

const camel = (column: string) => column.replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase());
const snake = (key: string) => key.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

function fromRow(table: (typeof TABLES)[number], row: Record<string, unknown>): Record<string, unknown> {
  const skip = new Set(['crate_id', ...(DERIVED[table] ?? [])]);
  return Object.fromEntries(
    Object.entries(row)
      .filter(([column]) => !skip.has(column))
      .map(([column, value]) => [camel(column), column === 'simulated' ? value === 1 : value])
  );
}

function toRow(
  table: (typeof TABLES)[number],
  crateId: string,
  entry: Record<string, unknown>
): Record<string, unknown> {
  const row: Record<string, unknown> = { crate_id: crateId };
  for (const [key, value] of Object.entries(entry)) {
    const column = snake(key);
    row[column] = JSON_COLUMNS.has(column) && value !== null ? JSON.stringify(value) : value;
  }
  if (table === 'models') {
    const { kind, name } = entry.spec as { kind: string; name: string };
    Object.assign(row, { kind, name });
  }
  return row;
}

/** Everything of a crate, in a fixed order: the same crate gives the same bundle, but for the time it was made. */
export async function makeBundle(db: Knex, args: { crateId: string; at: string }): Promise<Bundle> {
  const { crateId, at } = args;
  const { name, slug, houseRules, currency: money } = await getCrate(db, { id: crateId });
  const rows = await Promise.all(
    TABLES.map(async (table) =>
      (await db(table).where({ crate_id: crateId }).orderBy('id')).map((row) => fromRow(table, row))
    )
  );
  const bundle = Object.fromEntries(TABLES.map((table, i) => [table, rows[i]])) as Record<
    string,
    Record<string, unknown>[]
  >;
  const files: { sha256: string; content: Buffer }[] = await db('files').where({ crate_id: crateId });
  const contents = new Map(files.map(({ sha256, content }) => [sha256, content.toString('base64')]));
  for (const attachment of bundle.attachments!) attachment.content = contents.get(attachment.sha256 as string) ?? '';
  const events = (await db('events').where({ crate_id: crateId }).orderBy('seq')).map(
    ({ at: when, by, kind, subject_table, subject_id, message }) => ({
      at: when,
      by,
      kind,
      subjectTable: subject_table,
      subjectId: subject_id,
      message
    })
  );
  return {
    format: 'ash-crate-bundle',
    formatVersion: 1,
    exportedAt: at,
    crate: { name, slug, houseRules, currency: money },
    ...bundle,
    events
  } as unknown as Bundle;
}

const ID = /[0-9A-HJKMNP-TV-Z]{26}/g;

/** New ids for everything where one of them is taken here already; whatever refers to them follows. */
async function withFreeIds(db: Knex, bundle: Bundle): Promise<{ bundle: Bundle; renamed: boolean }> {
  const ids = TABLES.flatMap((table) => bundle[table].map((row) => row.id));
  let taken = false;
  for (const table of TABLES)
    if (
      bundle[table].length > 0 &&
      (await db(table)
        .whereIn(
          'id',
          bundle[table].map((row) => row.id)
        )
        .first('id'))
    )
      taken = true;
  if (!taken) return { bundle, renamed: false };
  const fresh = new Map(ids.map((old) => [old, newId()]));
  const { attachments, ...rest } = bundle;
  const rename = <T>(value: T): T => JSON.parse(JSON.stringify(value).replace(ID, (old) => fresh.get(old) ?? old)) as T;
  const renamed = attachments.map(({ content, ...row }) => ({ ...rename(row), content }));
  return { bundle: { ...rename(rest), attachments: renamed }, renamed: true };
}

/** Build tags are one series over all crates: a tag that is taken gets the next free number, in the log as well. */
async function withFreeTags(trx: Knex, bundle: Bundle): Promise<Bundle> {
  if (bundle.builds.length === 0) return bundle;
  await trx('counters').where({ name: 'build tags' }).forUpdate().first();
  const taken = new Set<string>(
    await trx('builds')
      .whereIn(
        'tag',
        bundle.builds.map((build) => build.tag)
      )
      .pluck('tag')
  );
  const numbers = bundle.builds.map((build) => Number(/^AC-(\d{1,9})$/.exec(build.tag)?.[1] ?? 0));
  await trx('counters')
    .where({ name: 'build tags' })
    .update({ value: trx.raw('greatest(value, ?)', [Math.max(0, ...numbers)]) });
  const given = new Map<string, string>();
  for (const { tag } of bundle.builds) {
    if (!taken.has(tag)) continue;
    await trx('counters')
      .where({ name: 'build tags' })
      .update({ value: trx.raw('value + 1') });
    const { value } = (await trx('counters').where({ name: 'build tags' }).first('value')) as { value: number };
    given.set(tag, `AC-${String(value).padStart(4, '0')}`);
  }
  const follow = (message: string) => message.replace(/AC-\d+/g, (tag) => given.get(tag) ?? tag);
  return {
    ...bundle,
    builds: bundle.builds.map((build) => ({ ...build, tag: given.get(build.tag) ?? build.tag })),
    events: bundle.events.map((event) => ({ ...event, message: follow(event.message) }))
  };
}

/** Everything that a row refers to must be in the same bundle. */
function checkReferences(bundle: Bundle): void {
  const has = Object.fromEntries(TABLES.map((table) => [table, new Set(bundle[table].map((row) => row.id))]));
  const fields: { path: string; message: string }[] = [];
  const check = (path: string, table: (typeof TABLES)[number], to: string) => {
    if (!has[table]!.has(to)) fields.push({ path, message: `refers to something that is not in the bundle: ${to}` });
  };
  bundle.units.forEach((row, i) => check(`units.${i}.modelId`, 'models', row.modelId));
  bundle.quotes.forEach((row, i) => check(`quotes.${i}.partId`, 'models', row.partId));
  bundle.pairs.forEach((row, i) => check(`pairs.${i}.driveId`, 'models', row.driveId));
  bundle.runs.forEach((row, i) => check(`runs.${i}.buildId`, 'builds', row.buildId));
  for (const table of TABLES)
    if (has[table]!.size !== bundle[table].length) fields.push({ path: table, message: 'holds one id twice' });
  if (fields.length > 0)
    throw new Problem('bad-input', `${fields[0]!.path}: ${fields[0]!.message}.`, fields.slice(0, 100));
}

const BATCH = 200;

/**
 * A bundle as a new crate: all of it in one transaction. Ids stay as they are where they are free.
 * @throws Problem `bad-input` where rows refer to what is not in the bundle
 */
export async function openBundle(
  db: Knex,
  args: { bundle: Bundle; at: string },
  work: Work
): Promise<{ crate: Crate; renamed: boolean }> {
  checkReferences(args.bundle);
  const total = TABLES.reduce((n, table) => n + args.bundle[table].length, 0) + args.bundle.events.length;
  return db.transaction(async (trx) => {
    const free = await withFreeIds(trx, args.bundle);
    const bundle = await withFreeTags(trx, free.bundle);
    const { name, slug, houseRules, currency: money } = bundle.crate;
    const { id: crateId } = await createCrate(trx, { name, slug, at: args.at });
    await trx('crates')
      .where({ id: crateId })
      .update({ house_rules: JSON.stringify(houseRules), currency: money });
    let done = 0;
    const insert = async (table: string, rows: Record<string, unknown>[]) => {
      for (let i = 0; i < rows.length; i += BATCH) {
        await trx(table).insert(rows.slice(i, i + BATCH));
        done += Math.min(BATCH, rows.length - i);
        await work.report(`Writing ${table}`, done, total);
      }
    };
    for (const table of TABLES) {
      if (table === 'attachments') continue;
      await insert(
        table,
        bundle[table].map((entry) => toRow(table, crateId, entry))
      );
    }
    for (const { content, ...entry } of bundle.attachments) {
      const bytes = Buffer.from(content, 'base64');
      const sha256 = await keepFile(trx, crateId, bytes);
      if (sha256 !== entry.sha256)
        throw new Problem('bad-input', `The file ${entry.name} is damaged: its digest does not match.`, [
          { path: 'attachments', message: 'holds a damaged file' }
        ]);
      await insert('attachments', [toRow('attachments', crateId, entry)]);
    }
    await insert(
      'events',
      bundle.events.map(({ subjectTable, subjectId, ...event }) => ({
        ...event,
        crate_id: crateId,
        subject_table: subjectTable,
        subject_id: subjectId
      }))
    );
    return { crate: await getCrate(trx, { id: crateId }), renamed: free.renamed };
  });
}
