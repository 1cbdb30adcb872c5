import type { UnitAct } from '$lib/ui/items/ItemActions.svelte';
import { changesOf } from './change';

type Item = { id: string; version: number };
const WORDS = { 'check-out': 'Lent', 'check-in': 'Returned', set: 'Changed', delete: 'Deleted' } as const;
const METHOD = { 'check-out': 'POST', 'check-in': 'POST', set: 'PUT', delete: 'DELETE' } as const;

/** Does one thing to some items, says so and offers to take it back. @returns whether it was done */
export async function actOnUnits(crateId: string, items: readonly Item[], act: UnitAct): Promise<boolean> {
  const { do: what, ...rest } = act;
  const path = `/api/crates/${crateId}/units/${what === 'set' || what === 'delete' ? 'many' : what}`;
  const words = `${WORDS[what]} ${items.length === 1 ? 'one item' : `${items.length} items`}.`;
  const refused = ({ message }: { message: string }) => message;
  return (await changesOf(crateId)(METHOD[what], path, { items, ...rest }, { words, refused })) === undefined;
}
