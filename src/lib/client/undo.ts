import { invalidateAll } from '$app/navigation';
import { notices } from '$lib/ui/frame/notices.svelte';
import { send } from './api';

/** Takes a group of changes back and says how that went. */
export async function takeBack(crateId: string, group: string, after?: () => void): Promise<void> {
  const answer = await send('POST', `/api/crates/${crateId}/undo`, { group });
  if (!answer.ok) return notices.add('error', answer.failure.message);
  notices.add('info', 'Taken back.');
  after?.();
  await invalidateAll();
}

/** Says what was done and offers to take it back. */
export function saved(text: string, crateId: string, group: string, after?: () => void): void {
  notices.add('success', text, { label: 'Undo', run: () => void takeBack(crateId, group, after) });
}
