import type { Knex } from 'knex';
import { KIND_LABEL, type Kind } from '#core/parts/kinds';
import { modelSchema, type Model } from '#core/parts/model';
import { change, newId, type Changed } from '../db/change';
import { notFound, Problem } from '../problem';

/** A part as it is stored: its specification, with the id that quotes and builds refer to. */
export type StoredModel = { id: string; version: number; spec: Model & { id: string }; units: number };
type By = { by: string; at: string };

const fromRow = (row: Record<string, unknown>): StoredModel => ({
  id: row.id as string,
  version: row.version as number,
  spec: { ...modelSchema.parse(row.spec), id: row.id as string },
  units: Number(row.units ?? 0)
});

const withUnits = (db: Knex, crateId: string) =>
  db('models')
    .where('models.crate_id', crateId)
    .select('models.*')
    .select(db('units').count('*').whereRaw('units.model_id = models.id').whereNot('state', 'retired').as('units'));

type Which = { crateId: string; kind?: Kind; ids?: readonly string[] };

const narrowed = (rows: Knex.QueryBuilder, { kind, ids }: Which) => {
  if (kind) rows.where('kind', kind);
  if (ids) rows.whereIn('models.id', [...ids]);
  return rows.orderBy('name').orderBy('id');
};

export async function listModels(db: Knex, args: Which): Promise<StoredModel[]> {
  return (await narrowed(withUnits(db, args.crateId), args)).map(fromRow);
}

/** Specifications alone, without counting units: what planning needs. */
export async function listSpecs(db: Knex, args: Which): Promise<StoredModel['spec'][]> {
  const rows: Record<string, unknown>[] = await narrowed(db('models').where({ crate_id: args.crateId }), args);
  return rows.map((row) => fromRow(row).spec);
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
  return fromRow(row);
}

/** The row of a specification; the id stands in its own column only. */
function toRow(spec: Model) {
  const { id: _id, ...rest } = spec;
  return { kind: spec.kind, name: spec.name, spec: rest };
}

export function createModel(db: Knex, args: { crateId: string; spec: Model; id?: string } & By): Promise<Changed> {
  const { crateId, spec, by, at, id = newId() } = args;
  const event = { kind: 'added', message: `Added the ${KIND_LABEL[spec.kind].one} ${spec.name}.` };
  return change(db, { action: 'insert', table: 'models', crateId, id, by, at, event, row: toRow(spec) });
}

/** @throws Problem `bad-input` where the kind would change: builds refer to a part by its place in the chain */
export async function updateModel(
  db: Knex,
  args: { crateId: string; id: string; version: number; spec: Model } & By
): Promise<Changed> {
  const { crateId, id, version, spec, by, at } = args;
  const current = await getModel(db, { crateId, id });
  if (current.spec.kind !== spec.kind)
    throw new Problem('bad-input', 'A part keeps its kind.', [
      { path: 'spec.kind', message: `is ${current.spec.kind}` }
    ]);
  const event = { kind: 'edited', message: `Edited the ${KIND_LABEL[spec.kind].one} ${spec.name}.` };
  return change(db, { action: 'update', table: 'models', crateId, id, version, by, at, event, row: toRow(spec) });
}

/** Deletes a part and its quotes as one group. Builds keep their own copy of it.
 *  @throws Problem `in-use` while units of it exist */
export async function deleteModel(
  db: Knex,
  args: { crateId: string; id: string; version: number } & By
): Promise<Changed> {
  const { crateId, id, version, by, at } = args;
  return db.transaction(async (trx) => {
    const { spec, units } = await getModel(trx, { crateId, id });
    const retired = await trx('units').where({ model_id: id }).first('id');
    if (retired)
      throw new Problem(
        'in-use',
        `There ${units === 1 ? 'is one unit' : `are ${units} units`} of ${spec.name}; remove them first.`
      );
    const group = newId();
    for (const quote of await trx('quotes').where({ part_id: id })) {
      await change(trx, {
        action: 'delete',
        table: 'quotes',
        crateId,
        id: quote.id,
        version: quote.version,
        by,
        at,
        group,
        event: { kind: 'deleted', message: `Deleted a quote for ${spec.name}.` }
      });
    }
    const event = { kind: 'deleted', message: `Deleted the ${KIND_LABEL[spec.kind].one} ${spec.name}.` };
    return change(trx, { action: 'delete', table: 'models', crateId, id, version, by, at, group, event });
  });
}
