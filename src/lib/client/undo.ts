import { invalidateAll } from '$app/navigation';
import { notices } from '$lib/ui/frame/notices.svelte';
import { send } from './api';

/** Takes a group of changes back and says how that went. */
export async function takeBack(crateId: string, group: string, after?: () => void): Promise<void> {
  const answer = await send('POST', `/api/crates/${crateId}/undo`, { group });
  if (!answer.ok) {
    const things = (answer.failure.details.inTheWay ?? []) as { name: string; path?: string }[];
    const links = things.flatMap(({ name, path }) => (path ? [{ label: name || 'it', href: path }] : []));
    return notices.add('error', answer.failure.message, undefined, links.slice(0, 4));
  }
  notices.add('info', 'Undone.');
  after?.();
  await invalidateAll();
}

/** Says what was done and offers to take it back. */
export function saved(text: string, crateId: string, group: string, after?: () => void): void {
  notices.add('success', text, { label: 'Undo', run: () => void takeBack(crateId, group, after) });
}
