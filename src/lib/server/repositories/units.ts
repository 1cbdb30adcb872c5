import type { Knex } from 'knex';
import type { InStock } from '#core/build/assemble';
import { TAG_LETTER, tagNumber, tagsAfter } from '#core/parts/tag';
import type { Kind } from '#core/parts/kinds';
import { unitSchema, type Unit } from '#core/parts/item';
import { change, changeMany, newId, type ChangeResult } from '../db/change';
import { raiseCounter, tagCounter } from '../db/counters';
import { writing } from '../db/writing';
import { notFound, Problem } from '../problems/problem';
import { deleteFilesOf } from './attachments';
import type { Model } from '#core/parts/model';
import { KIND_LABEL } from '#core/parts/kinds';
import { partOfList, type Part, type PartOf } from './keyset';
import { getModel, modelToRow } from './models';

export type StoredUnit = { id: string; version: number; unit: Unit & { id: string } };
type By = { by: string; at: string };

export const unitFromRow = (row: Record<string, unknown>): StoredUnit => ({
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
  args: { crateId: string; modelId?: string; modelIds?: readonly string[]; ids?: readonly string[] }
): Promise<StoredUnit[]> {
  const where = { crate_id: args.crateId, ...(args.modelId ? { model_id: args.modelId } : {}) };
  const rows = db('units').where(where).orderBy('tag');
  if (args.ids) rows.whereIn('id', [...args.ids]);
  if (args.modelIds) rows.whereIn('model_id', [...args.modelIds]);
  return (await rows).map(unitFromRow);
}

/** Part of the items of a crate, by tag. */
export const unitsAfter = (
  db: Knex,
  { crateId, modelId, ...part }: { crateId: string; modelId?: string | undefined } & Part
): Promise<PartOf<StoredUnit>> =>
  partOfList(
    db('units').where({ crate_id: crateId, ...(modelId ? { model_id: modelId } : {}) }),
    [['tag', 'asc']],
    part,
    unitFromRow
  );

/** How many items of each part are at hand or ordered, and which builds hold them. */
export async function loadStock(
  db: Knex,
  crateId: string,
  modelIds?: readonly string[]
): Promise<Map<string, InStock>> {
  const rows = (await db('units')
    .leftJoin('builds', 'builds.id', 'units.build_id')
    .where({ 'units.crate_id': crateId })
    .where((only) => void (modelIds && only.whereIn('units.model_id', [...modelIds])))
    .whereIn('units.state', ['owned', 'ordered'])
    .orderBy('units.tag')
    .select('units.model_id as modelId', 'units.state', 'units.details', 'builds.tag as build')) as {
    modelId: string;
    state: 'owned' | 'ordered';
    details: { resale?: number };
    build: string | null;
  }[];
  const stock = new Map<string, InStock>();
  for (const { modelId, state, details, build } of rows) {
    const known: InStock = stock.get(modelId) ?? { owned: 0, free: 0, builds: [] };
    if (state === 'ordered') {
      stock.set(modelId, { ...known, ordered: (known.ordered ?? 0) + 1 });
      continue;
    }
    const { owned, free, builds, resale } = known;
    // Of several the cheapest would be given up first.
    const value =
      build === null && details.resale !== undefined ? Math.min(details.resale, resale ?? Infinity) : resale;
    stock.set(modelId, {
      ...known,
      owned: owned + 1,
      free: free + (build === null ? 1 : 0),
      builds: build === null || builds.includes(build) ? builds : [...builds, build],
      ...(value === undefined ? {} : { resale: value })
    });
  }
  return stock;
}

/** @throws Problem `not-found` */
/** Ids of the items that are in a build, or of those of one part. */
export async function itemsIn(
  db: Knex,
  args: { crateId: string; buildId: string; modelId?: string }
): Promise<string[]> {
  const { crateId, buildId, modelId } = args;
  return db('units')
    .where({ crate_id: crateId, build_id: buildId, ...(modelId ? { model_id: modelId } : {}) })
    .orderBy('id')
    .pluck('id');
}

/** The item of a part that is in a build; before any is, the only one there is. */
export async function itemOfPart(
  db: Knex,
  args: { crateId: string; buildId: string; modelId: string | undefined }
): Promise<StoredUnit | undefined> {
  const { crateId, buildId, modelId } = args;
  const units = modelId === undefined ? [] : await listUnits(db, { crateId, modelId });
  return units.find(({ unit }) => unit.buildId === buildId) ?? (units.length === 1 ? units[0] : undefined);
}

export async function getUnit(
  db: Knex,
  where: { crateId: string } & ({ tag: string } | { id: string })
): Promise<StoredUnit> {
  const { crateId, ...key } = where;
  const row = await db('units')
    .where({ crate_id: crateId, ...key })
    .first();
  if (!row) throw notFound('unit');
  return unitFromRow(row);
}

/** A tag names one thing in a crate. */
async function refuseTakenTag(db: Knex, crateId: string, tag: string, except: string): Promise<void> {
  const other = await db('units').where({ crate_id: crateId, tag }).whereNot({ id: except }).first('id');
  if (other)
    throw new Problem('bad-input', `The tag ${tag} is taken.`, [{ path: 'tag', message: 'is taken by another item' }]);
}

/** A tag that somebody gave by hand is not given again either. */
export async function countTags(trx: Knex, crateId: string, tags: readonly string[]): Promise<void> {
  const highest = new Map<string, number>();
  for (const tag of tags) {
    const given = tagNumber(tag);
    if (given) highest.set(given.letter, Math.max(highest.get(given.letter) ?? 0, given.number));
  }
  for (const [letter, value] of highest) await raiseCounter(trx, tagCounter(crateId, letter), value);
}

/** The next tags of a kind; their numbers are never given again, whatever is deleted. */
async function takeTags(trx: Knex, crateId: string, kind: Kind, count: number): Promise<string[]> {
  const name = tagCounter(crateId, TAG_LETTER[kind]);
  await raiseCounter(trx, name, 0);
  await trx('counters').where({ name }).increment('value', count);
  const { value } = (await trx('counters').where({ name }).first('value')) as { value: number };
  return tagsAfter(kind, value - count, count);
}

const hasBuild = async (db: Knex, crateId: string, id: string): Promise<boolean> =>
  (await db('builds').where({ crate_id: crateId, id }).first('id')) !== undefined;

/** A unit stands in a build of its own crate, or in none. */
async function refuseOtherBuild(
  db: Knex,
  crateId: string,
  buildId: string | null | undefined,
  path = 'buildId'
): Promise<void> {
  if (buildId && !(await hasBuild(db, crateId, buildId)))
    throw new Problem('bad-input', 'This build is not in the crate.', [{ path, message: 'is no build of this crate' }]);
}

export function unitToRow(unit: Unit) {
  const { id: _id, modelId, tag, state, buildId, ...details } = unit;
  return { model_id: modelId, tag, state, build_id: buildId ?? null, details };
}

export async function createUnit(db: Knex, args: { crateId: string; unit: Unit } & By): Promise<ChangeResult> {
  const { crateId, unit, by, at } = args;
  return writing(db, crateId, async (trx) => {
    const { spec } = await getModel(trx, { crateId, id: unit.modelId });
    const id = newId();
    await refuseTakenTag(trx, crateId, unit.tag, id);
    await refuseOtherBuild(trx, crateId, unit.buildId);
    await countTags(trx, crateId, [unit.tag]);
    const event = { kind: 'added', message: `Added the item ${unit.tag} of ${spec.name}.` };
    return change(trx, { action: 'insert', table: 'units', crateId, id, by, at, event, row: unitToRow(unit) });
  });
}

export async function updateUnit(
  db: Knex,
  args: { crateId: string; id: string; version: number; unit: Unit } & By
): Promise<ChangeResult> {
  const { crateId, id, version, unit, by, at } = args;
  return writing(db, crateId, async (trx) => {
    await getModel(trx, { crateId, id: unit.modelId });
    const current = (await trx('units').where({ crate_id: crateId, id }).first('build_id')) as
      { build_id: string | null } | undefined;
    if (!current) throw notFound('unit');
    await refuseTakenTag(trx, crateId, unit.tag, id);
    // As it was read it can be written, also where its build has gone since.
    const gone =
      unit.buildId !== undefined && unit.buildId === current.build_id && !(await hasBuild(trx, crateId, unit.buildId));
    if (!gone) await refuseOtherBuild(trx, crateId, unit.buildId);
    await countTags(trx, crateId, [unit.tag]);
    const event = { kind: 'edited', message: `Edited the item ${unit.tag}.` };
    const row = { ...unitToRow(unit), ...(gone ? { build_id: null } : {}) };
    return change(trx, { action: 'update', table: 'units', crateId, id, version, by, at, event, row });
  });
}

export async function deleteUnit(
  db: Knex,
  args: { crateId: string; id: string; version: number } & By
): Promise<ChangeResult> {
  return deleteUnits(db, { ...args, items: [args] });
}

/**
 * Adds several units of one model as one group, with the next free tags of its kind.
 * @returns the tags given, in order
 */
export async function addUnits(
  db: Knex,
  args: { crateId: string; count: number; unit: Omit<Unit, 'tag' | 'id'> } & By
): Promise<ChangeResult & { tags: string[] }> {
  const { crateId, count, unit, by, at } = args;
  return writing(db, crateId, async (trx) => {
    const { spec } = await getModel(trx, { crateId, id: unit.modelId });
    await refuseOtherBuild(trx, crateId, unit.buildId);
    const tags = await takeTags(trx, crateId, spec.kind, count);
    const group = newId();
    const inserts = tags.map((tag) => ({ table: 'units' as const, id: newId(), row: unitToRow({ ...unit, tag }) }));
    const message = `Added ${count === 1 ? 'the item' : `${count} items:`} ${tags.length > 6 ? `${tags[0]} to ${tags.at(-1)}` : tags.join(', ')} of ${spec.name}.`;
    await changeMany(trx, { crateId, by, at, group, event: { kind: 'added', message }, inserts });
    return { id: inserts[0]!.id, version: 1, group, tags };
  });
}

/** Whether one has a part that is entered; one that is only thought of is no item. */
export const DO_YOU_HAVE_IT = ['yes', 'ordered', 'no'] as const;
export type Having = (typeof DO_YOU_HAVE_IT)[number];

/** Adds a part together with the item that one has, or has ordered, of it: one change, taken back as one. */
export async function addPart(
  db: Knex,
  args: { crateId: string; spec: Model; have: Exclude<Having, 'no'> } & By
): Promise<ChangeResult & { tag: string }> {
  const { crateId, spec, have, by, at } = args;
  return writing(db, crateId, async (trx) => {
    const [id, group] = [newId(), newId()];
    const [tag] = await takeTags(trx, crateId, spec.kind, 1);
    const unit = { tag: tag!, modelId: id, state: have === 'yes' ? ('owned' as const) : ('ordered' as const) };
    const message = `Added the ${KIND_LABEL[spec.kind].one} ${spec.name}, ${have === 'yes' ? 'at hand' : 'ordered'} as ${tag!}.`;
    await changeMany(trx, {
      crateId,
      by,
      at,
      group,
      event: { kind: 'added', message },
      inserts: [
        { table: 'models', id, row: modelToRow(spec) },
        { table: 'units', id: newId(), row: unitToRow(unit) }
      ]
    });
    return { id, version: 1, group, tag: tag! };
  });
}

/** What may be set on many units at once; null takes a field away. */
export type UnitEdit = Partial<Pick<Unit, 'state'>> & {
  [K in 'location' | 'custodian' | 'dueBack' | 'buildId' | 'notes']?: Unit[K] | null;
};

/**
 * Sets the same fields of many items as one group, all or none: check out, check in, retire, move.
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
): Promise<ChangeResult> {
  const { crateId, items, set, by, at } = args;
  return writing(db, crateId, async (trx) => {
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
      return { table: 'units' as const, id, version, row: unitToRow(unit) };
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

/** Deletes many units, each with its files, as one group. */
export async function deleteUnits(
  db: Knex,
  args: { crateId: string; items: readonly { id: string; version: number }[] } & By
): Promise<ChangeResult> {
  const { crateId, items, by, at } = args;
  return writing(db, crateId, async (trx) => {
    const group = newId();
    for (const { id, version } of items) {
      const { unit } = await getUnit(trx, { crateId, id });
      await deleteFilesOf(trx, { crateId, table: 'units', id, what: unit.tag, by, at, group });
      const event = { kind: 'deleted', message: `Deleted the item ${unit.tag}.` };
      await change(trx, { action: 'delete', table: 'units', crateId, id, version, by, at, group, event });
    }
    return { id: items[0]!.id, version: items[0]!.version, group };
  });
}
