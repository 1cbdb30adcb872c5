import { invalidateAll } from '$app/navigation';
import { notices } from '$lib/ui/frame/notices.svelte';
import type { SentChange } from '$lib/ui/parts/refused';
import { send, type ChangeAnswer } from './api';
import { saved } from './undo';

/**
 * Changes of one crate: each is sent, what became of it is said with an offer to take it back, and the page is loaded
 * again. A refusal that names fields is left to the form to show.
 */
export const changesOf =
  (crateId: string): SentChange =>
  async (method, path, body, words) => {
    const answer = await send<ChangeAnswer>(method, path, body);
    if (!answer.ok) {
      if (answer.failure.fields.length === 0) notices.add('error', answer.failure.message);
      return answer.failure;
    }
    saved(words, crateId, answer.data.group);
    await invalidateAll();
    return undefined;
  };
