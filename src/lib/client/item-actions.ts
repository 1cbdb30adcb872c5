import { invalidateAll } from '$app/navigation';
import { notices } from '$lib/ui/frame/notices.svelte';
import type { UnitAct } from '$lib/ui/items/ItemActions.svelte';
import { send } from './api';
import { saved } from './undo';

type Item = { id: string; version: number };
const WORDS = { 'check-out': 'Lent', 'check-in': 'Returned', set: 'Changed', delete: 'Deleted' } as const;

/** Does one thing to some units, says so and offers to take it back. @returns whether it was done */
export async function actOnUnits(crateId: string, items: readonly Item[], act: UnitAct): Promise<boolean> {
  const base = `/api/crates/${crateId}/units`;
  const { do: what, ...rest } = act;
  const answer =
    what === 'delete'
      ? await send('DELETE', `${base}/many`, { items })
      : what === 'set'
        ? await send('PUT', `${base}/many`, { items, ...rest })
        : await send('POST', `${base}/${what}`, { items, ...rest });
  if (!answer.ok) {
    notices.add('error', answer.failure.message);
    return false;
  }
  saved(`${WORDS[what]} ${items.length === 1 ? 'one item' : `${items.length} items`}.`, crateId, answer.data.group);
  await invalidateAll();
  return true;
}
