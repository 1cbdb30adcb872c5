import type { Knex } from 'knex';
import type { PickedKind } from '#core/build/options';
import { likeWords } from './like';

type Which = { crateId: string; kind: PickedKind; find?: string | undefined; limit: number };

const narrowed = (db: Knex, { crateId, kind, find = '' }: Which) => {
  const rows =
    kind === 'job' ? db('jobs').where({ crate_id: crateId }) : db('models').where({ crate_id: crateId, kind });
  for (const like of likeWords(find))
    rows.whereRaw(
      kind === 'job' ? 'lower(name) like ?' : "lower(concat_ws(' ', name, json_value(spec, '$.bridge'))) like ?",
      [like]
    );
  return rows;
};

type Named = { id: string; name: string };
const named = (rows: Knex.QueryBuilder, limit: number): Promise<Named[]> =>
  rows.orderBy('name').orderBy('id').limit(limit).select('id', 'name');

/** In a small crate all are put in order at once; in a large one only as many steps are asked as fill what is wanted. */
async function inOrder(db: Knex, which: Which, total: number): Promise<Named[]> {
  const { kind, limit } = which;
  if (kind === 'job') return named(narrowed(db, which), limit);
  const owned = "select model_id from units where state = 'owned' and units.crate_id = models.crate_id";
  const priced = 'select part_id from quotes where quotes.crate_id = models.crate_id';
  const is = (list: string) => `models.id in (${list})`;
  if (total <= limit)
    return named(narrowed(db, which).orderByRaw(`${is(owned)} desc, (${is(owned)} or ${is(priced)}) desc`), limit);
  const steps = [is(owned), `not ${is(owned)} and ${is(priced)}`, `not ${is(owned)} and not ${is(priced)}`];
  const parts: Named[] = [];
  for (const step of steps)
    if (parts.length < limit) parts.push(...(await named(narrowed(db, which).whereRaw(step), limit - parts.length)));
  return parts;
}

/** Finds what can be picked of a kind, so many at most: what is owned first, then what has a price, then by name. @returns `total` of all */
export async function pickable(db: Knex, which: Which): Promise<{ ids: string[]; parts: Named[]; total: number }> {
  const { n } = (await narrowed(db, which).count({ n: '*' }).first()) as { n: number | string };
  const total = Number(n);
  const parts = which.limit > 0 && total > 0 ? await inOrder(db, which, total) : [];
  return { ids: parts.map(({ id }) => id), parts, total };
}
