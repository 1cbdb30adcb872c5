import type { Knex } from 'knex';
import type { Library } from '#core/build/assemble';
import type { Choice } from '#core/build/choice';
import { PICKED_KINDS, type PickedKind } from '#core/build/options';
import { pickable } from '../repositories/pickable';
import { loadLibrary } from './planning';

/** How many of a kind a page is given at first. */
export type Sizes = Partial<Record<PickedKind, number>>;
/** As much as can be looked through in a box; the rest is found by typing. */
export const PAIR_SIZES: Sizes = { host: 30, cable: 40, enclosure: 60, drive: 60, job: 40 };

const SLOT = {
  host: 'hostId',
  cable: 'cableId',
  enclosure: 'enclosureId',
  drive: 'driveId',
  job: 'jobId'
} as const satisfies Record<PickedKind, keyof Choice>;

/** A library that holds a window of a crate, and how many of each kind the crate has. */
export type Windowed = { library: Library; totals: Record<PickedKind, number> };

/** Loads what some choices refer to, and beside it a window of what can be picked instead. */
export async function windowLibrary(
  db: Knex,
  crateId: string,
  { choices, sizes }: { choices: readonly Partial<Choice>[]; sizes: Sizes }
): Promise<Windowed> {
  const windows = await Promise.all(
    PICKED_KINDS.map(async (kind) => ({ kind, ...(await pickable(db, { crateId, kind, limit: sizes[kind] ?? 0 })) }))
  );
  const picked = windows.flatMap(({ kind, ids }) => ids.map((id): Partial<Choice> => ({ [SLOT[kind]]: id })));
  return {
    library: await loadLibrary(db, crateId, [...choices, ...picked]),
    totals: Object.fromEntries(windows.map(({ kind, total }) => [kind, total])) as Windowed['totals']
  };
}

/** Loads what somebody looks for at one place. @param ids parts that are asked for by their ids, instead of words */
export async function foundLibrary(
  db: Knex,
  crateId: string,
  { kind, find, ids, limit }: { kind: PickedKind; find?: string | undefined; ids?: readonly string[]; limit: number }
): Promise<{ library: Library; total: number }> {
  const found = ids ? { ids, total: ids.length } : await pickable(db, { crateId, kind, find, limit });
  const library = await loadLibrary(
    db,
    crateId,
    found.ids.map((id) => ({ [SLOT[kind]]: id }))
  );
  return { library, total: found.total };
}
