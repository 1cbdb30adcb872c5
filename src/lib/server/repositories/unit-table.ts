import type { Knex } from 'knex';
import { KINDS, type Kind } from '#core/parts/kinds';
import type { UnitState } from '#core/parts/item';
import { unitFromRow, type StoredUnit } from './units';
import { likeWords } from './like';

/** A unit with what one wants to know when it lies on the table. */
export type UnitRow = StoredUnit & {
  model: { id: string; name: string; kind: Kind };
  build?: { id: string; tag: string; name: string };
};

export const UNIT_SORTS = [
  'tag',
  'model',
  'kind',
  'state',
  'location',
  'custodian',
  'due',
  'build',
  'changed'
] as const;
const detail = (name: string) => `json_value(units.details, '$.${name}')`;
const ORDER: Record<(typeof UNIT_SORTS)[number], string> = {
  tag: 'units.tag',
  model: 'models.name',
  kind: 'models.kind',
  state: 'units.state',
  location: detail('location'),
  custodian: detail('custodian'),
  due: detail('dueBack'),
  build: 'builds.tag',
  changed: 'units.updated_at'
};

/** Columns that every item has: an index gives their order as it stands. */
const ALWAYS_THERE: readonly (typeof UNIT_SORTS)[number][] = ['tag', 'state', 'changed'];

export type UnitQuery = {
  find?: string;
  sort?: (typeof UNIT_SORTS)[number];
  down?: boolean;
  page?: number;
  size?: number;
  state?: UnitState;
  kind?: Kind;
  /** Only what somebody has taken with them. */
  out?: boolean;
  ids?: readonly string[];
  modelId?: string;
  buildId?: string;
  tag?: string;
};

const joined = (db: Knex, crateId: string) =>
  db('units')
    .join('models', 'models.id', 'units.model_id')
    .leftJoin('builds', 'builds.id', 'units.build_id')
    .where('units.crate_id', crateId);

/** One page of the units of a crate, with their models and builds. */
export async function unitTable(
  db: Knex,
  args: { crateId: string } & UnitQuery
): Promise<{ rows: UnitRow[]; total: number }> {
  const { crateId, find = '', sort = 'tag', down = false, page = 1, size = 25 } = args;
  const narrow = (query: Knex.QueryBuilder) => {
    for (const like of likeWords(find)) {
      query.whereRaw(
        `lower(concat_ws(' ', units.tag, models.name, builds.tag, builds.name, ${detail('serial')}, ${detail('location')}, ${detail('custodian')}, ${detail('notes')})) like ?`,
        [like]
      );
    }
    if (args.state) query.where('units.state', args.state);
    if (args.kind) query.where('models.kind', args.kind);
    if (args.out) query.whereRaw(`(${detail('custodian')} is not null or ${detail('dueBack')} is not null)`);
    if (args.ids) query.whereIn('units.id', [...args.ids]);
    if (args.modelId) query.where('units.model_id', args.modelId);
    if (args.buildId) query.where('units.build_id', args.buildId);
    if (args.tag) query.where('units.tag', args.tag);
    return query;
  };
  const order = ORDER[sort];
  const way = down ? 'desc' : 'asc';
  const ordered = ALWAYS_THERE.includes(sort)
    ? `${order} ${way}, units.tag ${way}`
    : `${order} is null, ${order} ${way}, units.tag`;
  // What is only counted needs no names of models and builds, unless they are looked for.
  const counting = find || args.kind ? joined(db, crateId) : db('units').where('units.crate_id', crateId);
  const [counted, rows] = await Promise.all([
    narrow(counting).count({ n: '*' }).first() as Promise<{ n: number | string }>,
    narrow(joined(db, crateId))
      .select('units.*', 'models.name as model_name', 'models.kind as model_kind')
      .select('builds.tag as build_tag', 'builds.name as build_name')
      .orderByRaw(ordered)
      .limit(size)
      .offset((page - 1) * size) as Promise<Record<string, unknown>[]>
  ]);
  return {
    total: Number(counted.n),
    rows: rows.map((row) => ({
      ...unitFromRow(row),
      model: {
        id: row.model_id as string,
        name: row.model_name as string,
        kind: KINDS.find((kind) => kind === row.model_kind)!
      },
      ...(row.build_tag
        ? { build: { id: row.build_id as string, tag: row.build_tag as string, name: row.build_name as string } }
        : {})
    }))
  };
}
