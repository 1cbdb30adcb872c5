import type { Knex } from 'knex';
import { LINK_MODE_IDS, LINK_MODES } from '#core/facts/link-modes';
import type { Kind } from '#core/parts/kinds';
import { UNIT_STATES, type UnitState } from '#core/parts/item';
import { Problem } from '../problems/problem';
import { likeWords } from './like';
import { modelFromRow, withUnits, type StoredModel } from './models';

/** A number out of the specification, for sorting; absent ones come last either way. */
const number = (path: string) => `cast(json_value(models.spec, '$.${path}') as double)`;
const text = (path: string) => `json_value(models.spec, '$.${path}')`;
/** The best of a list of link modes, by its rank. */
const bestMode = (path: string) =>
  `greatest(${LINK_MODE_IDS.map((id) => `if(json_search(models.spec, 'one', '${id}', null, '$.${path}') is null, 0, ${LINK_MODES[id].rank + 1})`).join(', ')})`;

/** What the table of each kind can be sorted by; the names are those of its columns. */
const SORTS: Record<Kind, Record<string, string>> = {
  drive: {
    kind: text('media'),
    interface: `coalesce(${number('pcie.generation')} * 10 + ${number('pcie.lanes')}, ${number('sataGbps')})`,
    capacity: number('capacityTB'),
    read: `coalesce(${number('readMBps')}, ${number('disk.outerMBps')})`,
    write: `coalesce(${number('writeMBps')}, ${number('disk.outerMBps')})`,
    endurance: number('enduranceTBW'),
    warranty: number('warrantyYears')
  },
  enclosure: {
    takes: text('formFactor'),
    modes: bestMode('modes[*]'),
    plug: text('plug'),
    bridge: text('bridge'),
    cooling: `concat(${text('cooling.kind')}, ${text('cooling.material')})`,
    largest: number('maxCapacityTB')
  },
  cable: {
    ends: text('ends[0]'),
    modes: bestMode('modes[*]'),
    active: text('active'),
    length: number('lengthM')
  },
  pad: {
    thickness: number('thicknessMm'),
    size: `${number('widthMm')} * ${number('lengthMm')}`,
    conductivity: number('conductivityWmK'),
    hardness: number('shore00'),
    pieces: number('quantity')
  },
  host: {
    system: text('os.family'),
    best: bestMode('ports[*].modes[*]'),
    ports: `json_length(models.spec, '$.ports')`,
    disk: number('internalDisk.readMBps')
  },
  alternative: { sort: text('sort'), capacity: number('capacityTB'), write: number('writeMBps') }
};
const COMMON: Record<string, string> = { name: 'models.name', units: 'units', changed: 'models.updated_at' };

/** Lists what the table of a kind can be sorted by. */
export const sortsOf = (kind: Kind): string[] => [...Object.keys(COMMON), ...Object.keys(SORTS[kind])];

/** Columns that every part has: an index gives their order as it stands. */
const ALWAYS_THERE = ['models.name', 'models.updated_at'];

/** What a table can be narrowed to: fields whose value is a choice, by the name that stands in the address: mostly their path. */
export const FILTERS: Record<Kind, Record<string, 'is' | 'holds'>> = {
  drive: { media: 'is', formFactor: 'is', m2Key: 'is', 'flash.cell': 'is', 'disk.recording': 'is' },
  enclosure: { formFactor: 'is', protocols: 'holds', modes: 'holds', plug: 'is', 'cooling.kind': 'is' },
  cable: { modes: 'holds', ends: 'holds' },
  pad: {},
  host: { 'os.family': 'is' },
  alternative: { product: 'is' }
};

/** The path of a filter in a specification. The sort of a ready-made product has a name of its own: `sort` orders the table. */
export const filterPath = (name: string): string => (name === 'product' ? 'sort' : name);

/** Whether a part is at hand: by the states of its units, or with none at all. */
export const HAVING = [...UNIT_STATES, 'none'] as const;

export type ModelQuery = {
  kind: Kind;
  find?: string;
  sort?: string;
  down?: boolean;
  page?: number;
  size?: number;
  having?: UnitState | 'none';
  filters?: Readonly<Record<string, string>>;
};

/**
 * One page of a kind's table. Words are looked for in names, bridges and what stands on units (tag, serial, place, holder).
 * @throws Problem `bad-input` for a sort or a filter that this kind does not have
 */
export async function modelTable(
  db: Knex,
  args: { crateId: string } & ModelQuery
): Promise<{ rows: StoredModel[]; total: number }> {
  const { crateId, kind, find = '', sort = 'name', down = false, page = 1, size = 25, having, filters = {} } = args;
  const order = Object.hasOwn(COMMON, sort)
    ? COMMON[sort]
    : Object.hasOwn(SORTS[kind], sort)
      ? SORTS[kind][sort]
      : undefined;
  if (!order)
    throw new Problem('bad-input', `sort: ${kind}s cannot be sorted by “${sort}”.`, [
      { path: 'sort', message: 'is no column of this kind' }
    ]);
  const narrow = (query: Knex.QueryBuilder) => {
    query.where('models.kind', kind);
    for (const like of likeWords(find)) {
      query.where((any) =>
        any
          .whereRaw('lower(models.name) like ?', [like])
          .orWhereRaw(`lower(coalesce(${text('bridge')}, '')) like ?`, [like])
          .orWhereRaw(
            'exists (select 1 from units u where u.crate_id = ? and u.model_id = models.id and lower(concat_ws(" ", u.tag, json_value(u.details, "$.serial"), json_value(u.details, "$.location"), json_value(u.details, "$.custodian"))) like ?)',
            [crateId, like]
          )
      );
    }
    for (const [name, value] of Object.entries(filters)) {
      const how = Object.hasOwn(FILTERS[kind], name) ? FILTERS[kind][name] : undefined;
      if (!how)
        throw new Problem('bad-input', `${name}: ${kind}s cannot be narrowed by it.`, [
          { path: name, message: 'is no filter of this kind' }
        ]);
      const path = filterPath(name);
      if (how === 'is') query.whereRaw(`${text(path)} = ?`, [value]);
      else query.whereRaw(`json_contains(models.spec, json_quote(?), '$.${path}')`, [value]);
    }
    const units = 'select 1 from units u where u.crate_id = models.crate_id and u.model_id = models.id';
    if (having === 'none') query.whereRaw(`not exists (${units} and u.state <> 'retired')`);
    else if (having) query.whereRaw(`exists (${units} and u.state = ?)`, [having]);
    return query;
  };
  const way = down ? 'desc' : 'asc';
  const ordered = ALWAYS_THERE.includes(order)
    ? `${order} ${way}, models.id ${way}`
    : `${order} is null, ${order} ${way}, models.name, models.id`;
  const [counted, rows] = await Promise.all([
    narrow(db('models').where('models.crate_id', crateId)).count({ n: '*' }).first() as Promise<{ n: number | string }>,
    narrow(withUnits(db, crateId))
      .orderByRaw(ordered)
      .limit(size)
      .offset((page - 1) * size) as Promise<Record<string, unknown>[]>
  ]);
  return { rows: rows.map(modelFromRow), total: Number(counted.n) };
}
