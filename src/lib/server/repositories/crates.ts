import type { Knex } from 'knex';
import { z } from 'zod';
import { currency } from '#core/parts/exchange-rate';
import { houseRulesSchema } from '#core/plan/report';
import { HOUSE_RULES, optionOf, type HouseRuleId } from '#core/house-rules/house-rules';
import { change, newId, type ChangeResult } from '../db/change';
import { writing } from '../db/writing';
import { notFound } from '../problems/problem';

export const crateSchema = z.strictObject({
  id: z.string(),
  slug: z.string(),
  name: z.string(),
  demo: z.boolean(),
  houseRules: houseRulesSchema,
  currency: currency(),
  version: z.number()
});
export type Crate = z.infer<typeof crateSchema>;

const fromRow = (row: Record<string, unknown>): Crate =>
  crateSchema.parse({
    id: row.id,
    slug: row.slug,
    name: row.name,
    demo: row.demo === 1,
    houseRules: row.house_rules,
    currency: row.currency,
    version: row.version
  });

export async function listCrates(db: Knex): Promise<Crate[]> {
  return (
    await db('crates')
      .whereNull('deleted_at')
      .orderBy([{ column: 'demo' }, { column: 'name' }])
  ).map(fromRow);
}

/** Whether there is any crate, deleted ones included. */
export const hasCrates = async (db: Knex): Promise<boolean> => (await db('crates').first('id')) !== undefined;

/** The ids of demo crates, deleted ones included. */
export const demoCrates = async (db: Knex): Promise<string[]> => db('crates').where({ demo: true }).pluck('id');

/** @throws Problem `not-found` */
export async function getCrate(db: Knex, key: { id: string } | { slug: string }): Promise<Crate> {
  const row = await db('crates').where(key).whereNull('deleted_at').first();
  if (!row) throw notFound('crate');
  return fromRow(row);
}

/** Letters and digits of a name, for the address of its pages. */
export function slugOf(name: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase();
  return (
    plain
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 40) || 'crate'
  );
}

/** A new, empty crate; a name that is taken gets a number in its address. */
export async function createCrate(
  db: Knex,
  args: { name: string; at: string; demo?: boolean; slug?: string; id?: string }
): Promise<Crate> {
  return writing(db, null, async (trx) => {
    // With room for a number after it.
    const wanted = (args.slug ?? slugOf(args.name)).slice(0, 52).replace(/-$/, '').toLowerCase() || 'crate';
    const taken = new Set<string>(
      ((await trx('crates').where('slug', 'like', `${wanted}%`).forUpdate().pluck('slug')) as string[]).map((slug) =>
        slug.toLowerCase()
      )
    );
    let slug = wanted;
    for (let n = 2; taken.has(slug); n++) slug = `${wanted}-${n}`;
    const row = {
      id: args.id ?? newId(),
      slug,
      name: args.name,
      demo: args.demo ?? false,
      house_rules: '{}',
      currency: 'EUR',
      version: 1,
      created_at: args.at,
      updated_at: args.at
    };
    await trx('crates').insert(row);
    return getCrate(trx, { id: row.id });
  });
}

/** What a crate itself says: its name and the currency it adds up in. */
export function updateCrate(
  db: Knex,
  args: { id: string; version: number; name: string; currency: string; by: string; at: string }
): Promise<ChangeResult> {
  const { id, version, name, currency, by, at } = args;
  return change(db, {
    action: 'update',
    table: 'crates',
    crateId: id,
    id,
    version,
    by,
    at,
    event: { kind: 'edited', message: `The crate is ${name}, adding up in ${currency}.` },
    row: { name, currency }
  });
}

/** Chooses sides: those that are named, the others stay as they are; null goes back to the default. */
export async function chooseRules(
  db: Knex,
  args: { id: string; version: number; rules: Partial<Record<HouseRuleId, string | null>>; by: string; at: string }
): Promise<ChangeResult> {
  const { id, version, rules, by, at } = args;
  const { houseRules } = await getCrate(db, { id });
  const next = Object.fromEntries(
    Object.entries({ ...houseRules, ...rules }).filter((entry): entry is [string, string] => entry[1] !== null)
  );
  const words = (Object.entries(rules) as [HouseRuleId, string | null][]).map(([school, choice]) =>
    choice === null
      ? `${HOUSE_RULES[school].question}: back to the default, ${optionOf(school, HOUSE_RULES[school].standard).label}`
      : `${HOUSE_RULES[school].question}: ${optionOf(school, choice).label}`
  );
  return change(db, {
    action: 'update',
    table: 'crates',
    crateId: id,
    id,
    version,
    by,
    at,
    event: { kind: 'edited', message: `House rule. ${words.join('. ')}.` },
    row: { house_rules: next }
  });
}

/** Rows that one statement deletes: few enough to end in time. Contents of files are megabytes each. */
const PIECE = { rows: 2000, files: 20 };

/** Removes a crate with everything in it, a piece at a time: what refers to other rows first. */
export async function removeCrate(db: Knex, id: string): Promise<void> {
  await writing(db, null, async (trx) => {
    for (const table of [
      'checks',
      'sheets',
      'observations',
      'runs',
      'run_samples',
      'builds',
      'attachments',
      'files',
      'pairs',
      'quotes',
      'rates',
      'units',
      'jobs',
      'models',
      'revisions',
      'events'
    ]) {
      const piece = table === 'files' ? PIECE.files : PIECE.rows;
      while ((await trx(table).where({ crate_id: id }).limit(piece).delete()) === piece);
    }
    await trx('counters').where('name', 'like', `${id} %`).delete();
    await trx('crates').where({ id }).delete();
  });
}

/** Days for which a deleted crate can still be brought back. */
export const KEPT_DAYS = 7;
const DAY_MS = 86_400_000;

/** A crate that was deleted, until it is purged. */
export const deletedCrateSchema = z.strictObject({
  id: z.string(),
  name: z.string(),
  version: z.number(),
  deletedAt: z.string(),
  purgedAt: z.string().describe('from then on it is gone for good')
});
export type DeletedCrate = z.infer<typeof deletedCrateSchema>;

/** Those that were deleted and can still be brought back, the last one first. */
export async function listDeletedCrates(db: Knex): Promise<DeletedCrate[]> {
  const rows = (await db('crates').whereNotNull('deleted_at').orderBy('deleted_at', 'desc')) as {
    id: string;
    name: string;
    version: number;
    deleted_at: string;
  }[];
  return rows.map(({ id, name, version, deleted_at }) => ({
    id,
    name,
    version,
    deletedAt: deleted_at,
    purgedAt: new Date(Date.parse(deleted_at) + KEPT_DAYS * DAY_MS).toISOString()
  }));
}

type Marked = { id: string; version: number; by: string; at: string };

/** Hides a crate with everything in it; undo brings it back until it is purged. */
export const deleteCrate = (db: Knex, args: Marked): Promise<ChangeResult> => markDeleted(db, args, args.at);

/** Brings a deleted crate back as it was.
 *  @throws Problem `not-found` where there is none that was deleted */
export const bringBackCrate = (db: Knex, args: Marked): Promise<ChangeResult> => markDeleted(db, args, null);

async function markDeleted(db: Knex, { id, version, by, at }: Marked, deletedAt: string | null): Promise<ChangeResult> {
  const row = (await db('crates').where({ id }).first('name', 'deleted_at')) as
    { name: string; deleted_at: string | null } | undefined;
  const goes = deletedAt !== null;
  if (!row || (row.deleted_at === null) !== goes) throw notFound(goes ? 'crate' : 'deleted crate');
  const event = goes
    ? { kind: 'deleted', message: `Deleted the crate ${row.name}.` }
    : { kind: 'undone', message: `Brought the crate ${row.name} back.` };
  const mark = { deleted_at: deletedAt };
  return change(db, { action: 'update', table: 'crates', crateId: id, id, version, by, at, event, row: mark });
}

/** Removes a crate that was deleted, for good.
 *  @throws Problem `not-found` where it was not deleted first */
export async function purgeCrate(db: Knex, id: string): Promise<void> {
  await writing(
    db,
    id,
    async (trx) => {
      if (!(await trx('crates').where({ id }).whereNotNull('deleted_at').first('id'))) throw notFound('deleted crate');
      await removeCrate(trx, id);
    },
    { hidden: true }
  );
}

/** Removes every crate whose week is over. @returns how many */
export async function purgeDeleted(db: Knex, at: string): Promise<number> {
  const over = (await listDeletedCrates(db)).filter(({ purgedAt }) => purgedAt <= at);
  for (const { id } of over) await purgeCrate(db, id);
  return over.length;
}
