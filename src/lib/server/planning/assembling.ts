import type { Knex } from 'knex';
import type { Crate } from '../repositories/crates';
import type { StoredBuild } from '../repositories/builds';
import { listUnits } from '../repositories/units';
import { shoppingFor } from './shopping';

/** Items of a build's drive: those that can be put together now, and the tags of all. */
export async function itemsFor(
  db: Knex,
  build: StoredBuild
): Promise<{ free: { id: string; tag: string }[]; tags: Record<string, string> }> {
  const units = await listUnits(db, { crateId: build.crateId, modelId: build.choice.driveId });
  const free = units.filter(
    ({ unit }) => unit.state === 'owned' && (unit.buildId === undefined || unit.buildId === build.id)
  );
  return {
    free: free.map(({ id, unit }) => ({ id, tag: unit.tag })),
    tags: Object.fromEntries(units.map(({ id, unit }) => [id, unit.tag]))
  };
}

/** What of a build's kit is not there yet, in words, by the id of its part. */
export async function standingOf(
  db: Knex,
  args: { crate: Crate; build: StoredBuild; today: string }
): Promise<Record<string, string>> {
  const { lines } = await shoppingFor(db, args);
  const words = { 'to-buy': 'not there yet: to buy', ordered: 'ordered, not come yet' } as const;
  return Object.fromEntries(
    lines.flatMap(({ modelId, state }) =>
      modelId !== undefined && (state === 'to-buy' || state === 'ordered') ? [[modelId, words[state]]] : []
    )
  );
}
