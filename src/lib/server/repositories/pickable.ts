import type { Knex } from 'knex';
import { likeWords } from './like';

/** What is picked when parts are paired. */
export const PICKED_KINDS = ['host', 'cable', 'enclosure', 'drive', 'job'] as const;
export type PickedKind = (typeof PICKED_KINDS)[number];

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

/** Finds what can be picked of a kind, so many at most: what is owned first, then what has a price, then by name. @returns `total` of all */
export async function pickable(db: Knex, which: Which): Promise<{ ids: string[]; total: number }> {
  const rows = narrowed(db, which);
  if (which.kind !== 'job')
    rows.orderByRaw(
      `exists (select 1 from units where units.model_id = models.id and units.state = 'owned') desc,
       exists (select 1 from quotes where quotes.part_id = models.id) desc`
    );
  const [ids, counted] = await Promise.all([
    rows.orderBy('name').orderBy('id').limit(which.limit).pluck('id') as Promise<string[]>,
    narrowed(db, which).count({ n: '*' }).first() as Promise<{ n: number | string }>
  ]);
  return { ids, total: Number(counted.n) };
}
