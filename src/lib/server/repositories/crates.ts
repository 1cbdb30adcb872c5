import type { Knex } from 'knex';
import { z } from 'zod';
import { houseRulesSchema } from '#core/plan/report';
import { newId } from '../db/change';
import { notFound } from '../problem';

export const crateSchema = z.strictObject({
  id: z.string(),
  slug: z.string(),
  name: z.string(),
  demo: z.boolean(),
  houseRules: houseRulesSchema,
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
      version: 1,
      created_at: args.at,
      updated_at: args.at
    };
    await trx('crates').insert(row);
    return getCrate(trx, { id: row.id });
  });
}

/** Removes a crate with everything in it: what refers to other rows first. */
export async function removeCrate(db: Knex, id: string): Promise<void> {
  await db.transaction(async (trx) => {
    for (const table of ['runs', 'builds', 'quotes', 'units', 'jobs', 'models'])
      await trx(table).where({ crate_id: id }).delete();
    await trx('crates').where({ id }).delete();
  });
}
