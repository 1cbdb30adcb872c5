import type { Knex } from 'knex';
import { z } from 'zod';
import { currency } from '#core/parts/exchange-rate';
import { houseRulesSchema } from '#core/plan/report';
import { newId } from '../db/change';
import { notFound, Problem } from '../problem';

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
  return (await db('crates').orderBy([{ column: 'demo' }, { column: 'name' }])).map(fromRow);
}

/** @throws Problem `not-found` */
export async function getCrate(db: Knex, key: { id: string } | { slug: string }): Promise<Crate> {
  const row = await db('crates').where(key).first();
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
      .replace(/^-+|-+$/g, '')
      .slice(0, 40) || 'crate'
  );
}

/** A new, empty crate; a name that is taken gets a number in its address. */
export async function createCrate(
  db: Knex,
  args: { name: string; at: string; demo?: boolean; slug?: string; id?: string }
): Promise<Crate> {
  return db.transaction(async (trx) => {
    const wanted = args.slug ?? slugOf(args.name);
    const taken = new Set<string>(await trx('crates').where('slug', 'like', `${wanted}%`).forUpdate().pluck('slug'));
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

/** What a crate itself says: its name and the currency it adds up in.
 *  @throws Problem `conflict` when it was changed elsewhere */
export async function updateCrate(
  db: Knex,
  args: { id: string; version: number; name: string; currency: string; by: string; at: string }
): Promise<Crate> {
  const { id, version, name, currency, by, at } = args;
  return db.transaction(async (trx) => {
    const current = await trx('crates').where({ id }).forUpdate().first();
    if (!current) throw notFound('crate');
    if (current.version !== version)
      throw new Problem('conflict', 'The crate was changed elsewhere in the meantime; nothing was overwritten.');
    await trx('crates')
      .where({ id })
      .update({ name, currency, version: version + 1, updated_at: at });
    await trx('events').insert({
      crate_id: id,
      at,
      by,
      kind: 'edited',
      subject_table: 'crates',
      subject_id: id,
      message: `The crate is ${name}, adding up in ${currency}.`
    });
    return getCrate(trx, { id });
  });
}

/** Removes a crate with everything in it: what refers to other rows first. */
export async function removeCrate(db: Knex, id: string): Promise<void> {
  await db.transaction(async (trx) => {
    for (const table of [
      'runs',
      'builds',
      'attachments',
      'files',
      'pairs',
      'quotes',
      'rates',
      'units',
      'jobs',
      'models'
    ])
      await trx(table).where({ crate_id: id }).delete();
    await trx('crates').where({ id }).delete();
  });
}
