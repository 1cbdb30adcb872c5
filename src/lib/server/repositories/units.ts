import type { Knex } from 'knex';
import { unitSchema, type Unit } from '#core/parts/unit';
import { change, newId, type Changed } from '../db/change';
import { notFound, Problem } from '../problem';
import { getModel } from './models';

export type StoredUnit = { id: string; version: number; unit: Unit & { id: string } };
type By = { by: string; at: string };

const fromRow = (row: Record<string, unknown>): StoredUnit => ({
  id: row.id as string,
  version: row.version as number,
  unit: {
    ...unitSchema.parse({ ...(row.details as object), modelId: row.model_id, tag: row.tag, state: row.state }),
    id: row.id as string
  }
});

export async function listUnits(db: Knex, args: { crateId: string; modelId?: string }): Promise<StoredUnit[]> {
  const where = { crate_id: args.crateId, ...(args.modelId ? { model_id: args.modelId } : {}) };
  return (await db('units').where(where).orderBy('tag')).map(fromRow);
}

/** A tag names one thing in a crate. */
async function refuseTakenTag(db: Knex, crateId: string, tag: string, except: string): Promise<void> {
  const other = await db('units').where({ crate_id: crateId, tag }).whereNot({ id: except }).first('id');
  if (other)
    throw new Problem('bad-input', `The tag ${tag} is taken.`, [{ path: 'tag', message: 'is taken by another unit' }]);
}

function toRow(unit: Unit) {
  const { id: _id, modelId, tag, state, ...details } = unit;
  return { model_id: modelId, tag, state, details };
}

export async function createUnit(db: Knex, args: { crateId: string; unit: Unit } & By): Promise<Changed> {
  const { crateId, unit, by, at } = args;
  const { spec } = await getModel(db, { crateId, id: unit.modelId });
  const id = newId();
  await refuseTakenTag(db, crateId, unit.tag, id);
  const event = { kind: 'added', message: `Added the unit ${unit.tag} of ${spec.name}.` };
  return change(db, { action: 'insert', table: 'units', crateId, id, by, at, event, row: toRow(unit) });
}

export async function updateUnit(
  db: Knex,
  args: { crateId: string; id: string; version: number; unit: Unit } & By
): Promise<Changed> {
  const { crateId, id, version, unit, by, at } = args;
  await getModel(db, { crateId, id: unit.modelId });
  await refuseTakenTag(db, crateId, unit.tag, id);
  const event = { kind: 'edited', message: `Edited the unit ${unit.tag}.` };
  return change(db, { action: 'update', table: 'units', crateId, id, version, by, at, event, row: toRow(unit) });
}

export async function deleteUnit(
  db: Knex,
  args: { crateId: string; id: string; version: number } & By
): Promise<Changed> {
  const { crateId, id, version, by, at } = args;
  const row = await db('units').where({ crate_id: crateId, id }).first('tag');
  if (!row) throw notFound('unit');
  return change(db, {
    action: 'delete',
    table: 'units',
    crateId,
    id,
    version,
    by,
    at,
    event: { kind: 'deleted', message: `Deleted the unit ${row.tag}.` }
  });
}
