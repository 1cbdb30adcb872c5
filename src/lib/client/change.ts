import { goto, invalidateAll } from '$app/navigation';
import { notices } from '$lib/ui/frame/notices.svelte';
import type { Outcome, SentChange } from '$lib/ui/parts/refused';
import { send, type ChangeAnswer } from './api';
import { saved } from './undo';

/**
 * Changes of one crate: each is sent, what became of it is said with an offer to take it back, and the page is loaded
 * again or left for another one. A refusal that names fields is left to the form to show.
 */
export const changesOf =
  (crateId: string): SentChange =>
  async (method, path, body, outcome) => {
    const answer = await send<ChangeAnswer>(method, path, body);
    if (!answer.ok) {
      if (answer.failure.fields.length === 0) notices.add('error', answer.failure.message);
      return answer.failure;
    }
    const { words, to, undone }: Outcome = typeof outcome === 'string' ? { words: outcome } : outcome;
    saved(words, crateId, answer.data.group, undone === undefined ? undefined : () => void goto(undone));
    if (to) await goto(to(answer.data.id));
    await invalidateAll();
    return undefined;
  };
