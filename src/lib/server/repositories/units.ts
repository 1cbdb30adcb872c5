import type { Knex } from 'knex';
import type { InStock } from '#core/build/assemble';
import { nextTags } from '#core/parts/tag';
import { unitSchema, type Unit } from '#core/parts/unit';
import { change, changeMany, newId, type Changed } from '../db/change';
import { notFound, Problem } from '../problem';
import { getModel } from './models';

export type StoredUnit = { id: string; version: number; unit: Unit & { id: string } };
type By = { by: string; at: string };

export const fromRow = (row: Record<string, unknown>): StoredUnit => ({
  id: row.id as string,
  version: row.version as number,
  unit: {
    ...unitSchema.parse({
      ...(row.details as object),
      modelId: row.model_id,
      tag: row.tag,
      state: row.state,
      ...(row.build_id ? { buildId: row.build_id } : {})
    }),
    id: row.id as string
  }
});

export async function listUnits(
  db: Knex,
  args: { crateId: string; modelId?: string; ids?: readonly string[] }
): Promise<StoredUnit[]> {
  const where = { crate_id: args.crateId, ...(args.modelId ? { model_id: args.modelId } : {}) };
  const rows = db('units').where(where).orderBy('tag');
  if (args.ids) rows.whereIn('id', [...args.ids]);
  return (await rows).map(fromRow);
}

/** How many units of each model are at hand, and which builds hold them. */
export async function stockOf(db: Knex, crateId: string): Promise<Map<string, InStock>> {
  const rows = (await db('units')
    .leftJoin('builds', 'builds.id', 'units.build_id')
    .where({ 'units.crate_id': crateId, 'units.state': 'owned' })
    .orderBy('units.tag')
    .select('units.model_id as modelId', 'units.details', 'builds.tag as build')) as {
    modelId: string;
    details: { resale?: number };
    build: string | null;
  }[];
  const stock = new Map<string, InStock>();
  for (const { modelId, details, build } of rows) {
    const { owned, free, builds, resale } = stock.get(modelId) ?? { owned: 0, free: 0, builds: [] };
    // Of several the cheapest would be given up first.
    const value =
      build === null && details.resale !== undefined ? Math.min(details.resale, resale ?? Infinity) : resale;
    stock.set(modelId, {
      owned: owned + 1,
      free: free + (build === null ? 1 : 0),
      builds: build === null || builds.includes(build) ? builds : [...builds, build],
      ...(value === undefined ? {} : { resale: value })
    });
  }
  return stock;
}

/** @throws Problem `not-found` */
export async function getUnit(
  db: Knex,
  where: { crateId: string } & ({ tag: string } | { id: string })
): Promise<StoredUnit> {
  const { crateId, ...key } = where;
  const row = await db('units')
    .where({ crate_id: crateId, ...key })
    .first();
  if (!row) throw notFound('unit');
  return fromRow(row);
}

/** A tag names one thing in a crate. */
async function refuseTakenTag(db: Knex, crateId: string, tag: string, except: string): Promise<void> {
  const other = await db('units').where({ crate_id: crateId, tag }).whereNot({ id: except }).first('id');
  if (other)
    throw new Problem('bad-input', `The tag ${tag} is taken.`, [{ path: 'tag', message: 'is taken by another unit' }]);
}

/** A unit stands in a build of its own crate, or in none. */
async function refuseOtherBuild(
  db: Knex,
  crateId: string,
  buildId: string | null | undefined,
  path = 'buildId'
): Promise<void> {
  if (buildId && !(await db('builds').where({ crate_id: crateId, id: buildId }).first('id')))
    throw new Problem('bad-input', 'This build is not in the crate.', [{ path, message: 'is no build of this crate' }]);
}

export function toRow(unit: Unit) {
  const { id: _id, modelId, tag, state, buildId, ...details } = unit;
  return { model_id: modelId, tag, state, build_id: buildId ?? null, details };
}

export async function createUnit(db: Knex, args: { crateId: string; unit: Unit } & By): Promise<Changed> {
  const { crateId, unit, by, at } = args;
  const { spec } = await getModel(db, { crateId, id: unit.modelId });
  const id = newId();
  await refuseTakenTag(db, crateId, unit.tag, id);
  await refuseOtherBuild(db, crateId, unit.buildId);
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
  await refuseOtherBuild(db, crateId, unit.buildId);
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

/**
 * Adds several units of one model as one group, with the next free tags of its kind.
 * @returns the tags given, in order
 */
export async function addUnits(
  db: Knex,
  args: { crateId: string; count: number; unit: Omit<Unit, 'tag' | 'id'> } & By
): Promise<Changed & { tags: string[] }> {
  const { crateId, count, unit, by, at } = args;
  return db.transaction(async (trx) => {
    const { spec } = await getModel(trx, { crateId, id: unit.modelId });
    await refuseOtherBuild(trx, crateId, unit.buildId);
    // Locked until they are saved, so that two who add units at once do not get the same tags.
    const taken: string[] = await trx('units').where({ crate_id: crateId }).forUpdate().pluck('tag');
    const tags = nextTags(spec.kind, taken, count);
    const group = newId();
    const inserts = tags.map((tag) => ({ table: 'units' as const, id: newId(), row: toRow({ ...unit, tag }) }));
    const message = `Added ${count === 1 ? 'the unit' : `${count} units:`} ${tags.length > 6 ? `${tags[0]} to ${tags.at(-1)}` : tags.join(', ')} of ${spec.name}.`;
    await changeMany(trx, { crateId, by, at, group, event: { kind: 'added', message }, inserts });
    return { id: inserts[0]!.id, version: 1, group, tags };
  });
}

/** What may be set on many units at once; null takes a field away. */
export type UnitEdit = Partial<Pick<Unit, 'state'>> & {
  [K in 'location' | 'custodian' | 'dueBack' | 'buildId' | 'notes']?: Unit[K] | null;
};

/**
 * Sets the same fields of many units as one group, all or none: check out, check in, retire, move.
 * @param args.event what the log says; made from the fields where it is left out
 */
export async function editUnits(
  db: Knex,
  args: {
    crateId: string;
    items: readonly { id: string; version: number }[];
    set: UnitEdit;
    event?: { kind: string; message: (tags: string) => string };
  } & By
): Promise<Changed> {
  const { crateId, items, set, by, at } = args;
  return db.transaction(async (trx) => {
    const found = await listUnits(trx, { crateId, ids: items.map(({ id }) => id) });
    const current = new Map(found.map((unit) => [unit.id, unit]));
    await refuseOtherBuild(trx, crateId, set.buildId, 'set.buildId');
    const updates = items.map(({ id, version }) => {
      const stored = current.get(id);
      if (!stored) throw notFound('unit');
      const merged: Record<string, unknown> = { ...stored.unit, ...set };
      // A retired unit is in no build and with nobody.
      if (set.state === 'retired') Object.assign(merged, { buildId: null, custodian: null, dueBack: null });
      const unit = unitSchema.parse(Object.fromEntries(Object.entries(merged).filter(([, value]) => value !== null)));
      return { table: 'units' as const, id, version, row: toRow(unit) };
    });
    const tags = found.length > 6 ? `${found.length} units` : found.map(({ unit }) => unit.tag).join(', ');
    const group = newId();
    const event = args.event
      ? { kind: args.event.kind, message: args.event.message(tags) }
      : { kind: 'edited', message: `Edited ${tags}: ${Object.keys(set).join(', ')}.` };
    await changeMany(trx, { crateId, by, at, group, event, updates });
    return { id: items[0]!.id, version: items[0]!.version + 1, group };
  });
}

/** Deletes many units as one group. */
export async function deleteUnits(
  db: Knex,
  args: { crateId: string; items: readonly { id: string; version: number }[] } & By
): Promise<Changed> {
  const { crateId, items, by, at } = args;
  return db.transaction(async (trx) => {
    const group = newId();
    for (const { id, version } of items) {
      const { unit } = await getUnit(trx, { crateId, id });
      const event = { kind: 'deleted', message: `Deleted the unit ${unit.tag}.` };
      await change(trx, { action: 'delete', table: 'units', crateId, id, version, by, at, group, event });
    }
    return { ...items[0]!, group };
  });
}
