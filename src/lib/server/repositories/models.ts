import type { Knex } from 'knex';
import { z } from 'zod';
import { currency } from '#core/parts/exchange-rate';
import { KIND_LABEL, type Kind } from '#core/parts/kinds';
import { modelSchema, type Model } from '#core/parts/model';
import { change, changeMany, newId, type ChangeResult } from '../db/change';
import { writing } from '../db/writing';
import { notFound, Problem, refuse } from '../problems/problem';
import { deleteFilesOf } from './attachments';
import { partOfList, type Part, type PartOf } from './keyset';

/** A part as it is stored: its specification, with the id that quotes and builds refer to. */
export type StoredModel = {
  id: string;
  version: number;
  spec: Model & { id: string };
  units: number;
  /** The price at which it would be bought. */
  target?: Target;
};
export const targetSchema = z.strictObject({ amount: z.number().min(0).max(1e7), currency: currency() });
export type Target = z.infer<typeof targetSchema>;
type By = { by: string; at: string };

export const modelFromRow = (row: Record<string, unknown>): StoredModel => ({
  id: row.id as string,
  version: row.version as number,
  spec: { ...modelSchema.parse(row.spec), id: row.id as string },
  units: Number(row.units ?? 0),
  ...(row.target ? { target: targetSchema.parse(row.target) } : {})
});

export const withUnits = (db: Knex, crateId: string) =>
  db('models')
    .where('models.crate_id', crateId)
    .select('models.*')
    .select(db('units').count('*').whereRaw('units.model_id = models.id').whereNot('state', 'retired').as('units'));

type Which = { crateId: string; kind?: Kind; ids?: readonly string[]; limit?: number };

const narrowed = (rows: Knex.QueryBuilder, { kind, ids, limit }: Which) => {
  if (kind) rows.where('kind', kind);
  if (ids) rows.whereIn('models.id', [...ids]);
  if (limit !== undefined) rows.limit(limit);
  return rows.orderBy('name').orderBy('id');
};

export async function listModels(db: Knex, args: Which): Promise<StoredModel[]> {
  return (await narrowed(withUnits(db, args.crateId), args)).map(modelFromRow);
}

/** Part of the parts of a crate, by name. */
export const modelsAfter = (
  db: Knex,
  { crateId, kind, ...part }: { crateId: string; kind?: Kind | undefined } & Part
): Promise<PartOf<StoredModel>> =>
  partOfList(
    withUnits(db, crateId).where((only) => void (kind && only.where({ kind }))),
    [
      ['models.name', 'asc'],
      ['models.id', 'asc']
    ],
    part,
    modelFromRow
  );

/** Specifications alone, without counting units: what planning needs. */
export async function listSpecs(db: Knex, args: Which): Promise<StoredModel['spec'][]> {
  const rows: Record<string, unknown>[] = await narrowed(db('models').where({ crate_id: args.crateId }), args);
  return rows.map((row) => modelFromRow(row).spec);
}

/** What parts are called, without the rest of what is known of them: the whole of a large crate. */
export async function listNames(
  db: Knex,
  { crateId, kind, ids, limit }: { crateId: string; kind?: Kind; ids?: readonly string[]; limit?: number }
): Promise<{ id: string; kind: Kind; name: string; target?: Target }[]> {
  const query = db('models').where({ crate_id: crateId, ...(kind ? { kind } : {}) });
  if (ids) query.whereIn('id', [...ids]);
  if (limit !== undefined) query.limit(limit);
  const rows: { id: string; kind: Kind; name: string; target: unknown }[] = await query
    .orderBy('name')
    .orderBy('id')
    .select('id', 'kind', 'name', 'target');
  return rows.map(({ target, ...row }) => (target ? { ...row, target: targetSchema.parse(target) } : row));
}

/** The computers of a crate, and whether some of their ports share something. */
export async function listHosts(db: Knex, crateId: string): Promise<{ id: string; name: string; shares: boolean }[]> {
  const rows: { id: string; name: string; shares: number }[] = await db('models')
    .where({ crate_id: crateId, kind: 'host' })
    .orderBy('name')
    .orderBy('id')
    .select('id', 'name', db.raw("json_exists(spec, '$.ports[*].shares') as shares"));
  return rows.map(({ shares, ...host }) => ({ ...host, shares: shares === 1 }));
}

export async function countModels(db: Knex, crateId: string): Promise<Partial<Record<Kind, number>>> {
  const rows: { kind: Kind; n: number | string }[] = await db('models')
    .where({ crate_id: crateId })
    .groupBy('kind')
    .select('kind')
    .count({ n: '*' });
  return Object.fromEntries(rows.map(({ kind, n }) => [kind, Number(n)]));
}

/** @throws Problem `not-found` */
export async function getModel(db: Knex, args: { crateId: string; id: string }): Promise<StoredModel> {
  const row = await withUnits(db, args.crateId).where('models.id', args.id).first();
  if (!row) throw notFound('part');
  return modelFromRow(row);
}

/** The row of a specification; the id stands in its own column only. */
export function modelToRow(spec: Model) {
  const { id: _id, ...rest } = spec;
  return { kind: spec.kind, name: spec.name, spec: rest };
}

export function createModel(db: Knex, args: { crateId: string; spec: Model; id?: string } & By): Promise<ChangeResult> {
  const { crateId, spec, by, at, id = newId() } = args;
  const event = { kind: 'added', message: `Added the ${KIND_LABEL[spec.kind].one} ${spec.name}.` };
  return change(db, { action: 'insert', table: 'models', crateId, id, by, at, event, row: modelToRow(spec) });
}

/** @throws Problem `bad-input` where the kind would change: builds refer to a part by its place in the chain */
export async function updateModel(
  db: Knex,
  args: { crateId: string; id: string; version: number; spec: Model; group?: string } & By
): Promise<ChangeResult> {
  const { crateId, id, version, spec, group, by, at } = args;
  const current = await getModel(db, { crateId, id });
  if (current.spec.kind !== spec.kind)
    throw new Problem('bad-input', 'A part keeps its kind.', [
      { path: 'spec.kind', message: `is ${current.spec.kind}` }
    ]);
  const event = { kind: 'edited', message: `Edited the ${KIND_LABEL[spec.kind].one} ${spec.name}.` };
  return change(db, {
    action: 'update',
    table: 'models',
    crateId,
    id,
    version,
    by,
    at,
    event,
    row: modelToRow(spec),
    ...(group ? { group } : {})
  });
}

/** Deletes a part with what hangs on it, its quotes, known pairs and files, as one group. Builds keep their own copy of it.
 *  @throws Problem `in-use` while units of it exist */
export async function deleteModel(
  db: Knex,
  args: { crateId: string; id: string; version: number; group?: string } & By
): Promise<ChangeResult> {
  const { crateId, id, version, by, at, group = newId() } = args;
  return writing(db, crateId, async (trx) => {
    const { spec } = await getModel(trx, { crateId, id });
    const [{ n }] = (await trx('units').where({ model_id: id }).count({ n: '*' })) as [{ n: number | string }];
    if (Number(n) > 0)
      throw new Problem(
        'in-use',
        `There ${Number(n) === 1 ? 'is one item' : `are ${n} items`} of ${spec.name}; remove ${Number(n) === 1 ? 'it' : 'them'} first.`
      );
    const [{ n: runs }] = (await trx('runs')
      .where((any) => any.where({ host_id: id }).orWhere({ model_id: id }))
      .count({ n: '*' })) as [{ n: number | string }];
    if (Number(runs) > 0)
      throw new Problem(
        'in-use',
        `${Number(runs) === 1 ? 'One result hangs' : `${runs} results hang`} on ${spec.name}; delete ${Number(runs) === 1 ? 'it' : 'them'} first.`
      );
    const hanging = [
      ['quotes', 'quote', { part_id: id }],
      ['pairs', 'known combination', { drive_id: id }]
    ] as const;
    await deleteFilesOf(trx, { crateId, table: 'models', id, what: spec.name, by, at, group });
    for (const [table, word, where] of hanging)
      for (const row of await trx(table).where({ ...where, crate_id: crateId })) {
        const event = { kind: 'deleted', message: `Deleted a ${word} of ${spec.name}.` };
        await change(trx, { action: 'delete', table, crateId, id: row.id, version: row.version, by, at, group, event });
      }
    const event = { kind: 'deleted', message: `Deleted the ${KIND_LABEL[spec.kind].one} ${spec.name}.` };
    return change(trx, { action: 'delete', table: 'models', crateId, id, version, by, at, group, event });
  });
}

/** Sets or clears the price at which a part would be bought. */
export async function setTarget(
  db: Knex,
  args: { crateId: string; id: string; version: number; target: Target | null } & By
): Promise<ChangeResult> {
  const { crateId, id, version, target, by, at } = args;
  const { spec } = await getModel(db, { crateId, id });
  const message = target
    ? `${spec.name} is wanted for ${target.amount.toFixed(2)} ${target.currency}.`
    : `Took the target price off ${spec.name}.`;
  const event = { kind: 'edited', message };
  return change(db, { action: 'update', table: 'models', crateId, id, version, by, at, event, row: { target } });
}

/** One value into a copy of a specification, along a path such as `flash.cell`; null takes the field away. */
function withField(spec: Record<string, unknown>, path: string, value: unknown): Record<string, unknown> {
  const [key, ...rest] = path.split('.') as [string, ...string[]];
  if (rest.length > 0)
    return { ...spec, [key]: withField((spec[key] ?? {}) as Record<string, unknown>, rest.join('.'), value) };
  const { [key]: _old, ...others } = spec;
  return value === null ? others : { ...others, [key]: value };
}

/**
 * Sets the same fields of many parts as one group. All of them or none: a part that would no longer be valid is named.
 * @throws Problem `bad-input` with the path `items.N.field`; `conflict` when one was changed elsewhere
 */
export async function editModels(
  db: Knex,
  args: { crateId: string; items: readonly { id: string; version: number }[]; set: Record<string, unknown> } & By
): Promise<ChangeResult> {
  const { crateId, items, set, by, at } = args;
  // What a part is, and which, is not one of its fields.
  refuse(
    ['kind', 'id'].filter((key) => key in set).map((key) => ({ path: key, message: 'cannot be set' })),
    'set.'
  );
  return writing(db, crateId, async (trx) => {
    const current = new Map(
      (await listModels(trx, { crateId, ids: items.map(({ id }) => id) })).map((model) => [model.id, model])
    );
    const fields: { path: string; message: string }[] = [];
    const updates = items.map(({ id, version }, i) => {
      const model = current.get(id);
      if (!model) throw notFound('part');
      let spec: Record<string, unknown> = { ...model.spec };
      for (const [path, value] of Object.entries(set)) spec = withField(spec, path, value);
      const parsed = modelSchema.safeParse({ ...spec, kind: model.spec.kind, id });
      if (!parsed.success) {
        const [issue] = parsed.error.issues;
        fields.push({ path: `items.${i}.${issue!.path.join('.')}`, message: `${model.spec.name}: ${issue!.message}` });
      }
      return { table: 'models' as const, id, version, row: parsed.success ? modelToRow(parsed.data) : {} };
    });
    if (fields.length > 0) throw new Problem('bad-input', `${fields[0]!.message}. Nothing was changed.`, fields);
    const group = newId();
    const event = { kind: 'edited', message: `Edited ${items.length} parts: ${Object.keys(set).join(', ')}.` };
    await changeMany(trx, { crateId, by, at, group, event, updates });
    return { id: items[0]!.id, version: items[0]!.version + 1, group };
  });
}

/** Deletes many parts with their quotes as one group; one that is in use stops all of them. */
export async function deleteModels(
  db: Knex,
  args: { crateId: string; items: readonly { id: string; version: number }[] } & By
): Promise<ChangeResult> {
  return writing(db, args.crateId, async (trx) => {
    const group = newId();
    let last: ChangeResult | undefined;
    for (const item of args.items) last = await deleteModel(trx, { ...args, ...item, group });
    return { ...last!, group };
  });
}
