import type { Knex } from 'knex';
import { knownPairSchema, type KnownPair } from '#core/parts/known-pair';
import { change, newId, type ChangeResult } from '../db/change';
import { writing } from '../db/writing';
import { notFound, Problem } from '../problems/problem';
import { getModel } from './models';

/** A known pair of this crate: its drive is always one of the crate's models. */
export type StoredPair = { id: string; version: number; pair: KnownPair & { driveId: string; drive: string } };
type By = { by: string; at: string };
export type PairInput = KnownPair & { driveId: string };

const fromRow = (row: Record<string, unknown>): StoredPair => ({
  id: row.id as string,
  version: row.version as number,
  pair: knownPairSchema.parse({
    ...(row.details as object),
    driveId: row.drive_id,
    drive: row.name,
    bridge: row.bridge
  }) as StoredPair['pair']
});

export async function listPairs(
  db: Knex,
  args: { crateId: string; driveIds?: readonly string[]; bridges?: readonly string[] }
): Promise<StoredPair[]> {
  const rows = db('pairs')
    .join('models', 'models.id', 'pairs.drive_id')
    .where('pairs.crate_id', args.crateId)
    .select('pairs.*', 'models.name')
    .orderBy('models.name')
    .orderBy('pairs.bridge')
    .orderBy('pairs.id');
  if (args.driveIds) rows.whereIn('pairs.drive_id', [...args.driveIds]);
  if (args.bridges) rows.whereIn('pairs.bridge', [...args.bridges]);
  return (await rows).map(fromRow);
}

function toRow({ driveId, drive: _name, bridge, ...details }: PairInput) {
  return { drive_id: driveId, bridge: bridge.trim(), details };
}

async function driveOf(db: Knex, crateId: string, id: string): Promise<string> {
  const { spec } = await getModel(db, { crateId, id });
  if (spec.kind !== 'drive')
    throw new Problem('bad-input', `${spec.name} is no drive.`, [{ path: 'driveId', message: 'is no drive' }]);
  return spec.name;
}

export async function createPair(db: Knex, args: { crateId: string; pair: PairInput } & By): Promise<ChangeResult> {
  const { crateId, pair, by, at } = args;
  return writing(db, crateId, async (trx) => {
    const drive = await driveOf(trx, crateId, pair.driveId);
    const message = `Noted ${drive} with the bridge ${pair.bridge} as a ${pair.verdict} pair.`;
    const event = { kind: 'added', message };
    return change(trx, { action: 'insert', table: 'pairs', crateId, id: newId(), by, at, event, row: toRow(pair) });
  });
}

export async function updatePair(
  db: Knex,
  args: { crateId: string; id: string; version: number; pair: PairInput } & By
): Promise<ChangeResult> {
  const { crateId, id, version, pair, by, at } = args;
  return writing(db, crateId, async (trx) => {
    const drive = await driveOf(trx, crateId, pair.driveId);
    const event = { kind: 'edited', message: `Changed what is known of ${drive} with the bridge ${pair.bridge}.` };
    return change(trx, { action: 'update', table: 'pairs', crateId, id, version, by, at, event, row: toRow(pair) });
  });
}

export async function deletePair(
  db: Knex,
  args: { crateId: string; id: string; version: number } & By
): Promise<ChangeResult> {
  const { crateId, id, version, by, at } = args;
  if (!(await db('pairs').where({ crate_id: crateId, id }).first('id'))) throw notFound('known combination');
  const event = { kind: 'deleted', message: 'Deleted a known combination.' };
  return change(db, { action: 'delete', table: 'pairs', crateId, id, version, by, at, event });
}
