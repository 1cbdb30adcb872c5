import { goto, invalidateAll } from '$app/navigation';
import { notices } from '$lib/ui/frame/notices.svelte';
import type { Made, Outcome, Refusal, SentChange } from '$lib/ui/parts/refused';
import { send, type ChangeAnswer } from './api';
import { saved } from './undo';

/** The page that is open; none where there is no browser. */
const here = (): string | undefined => globalThis.location?.pathname;

/** Says why a change was not made; one that names fields is left to the form to show. */
function refuse(refusal: Refusal, { refused }: Outcome): Refusal {
  const said = refused ? refused(refusal) : refusal.fields.length === 0 ? refusal.message : undefined;
  if (said !== undefined) notices.add('error', said);
  return refusal;
}

/**
 * Changes of one crate, or of the list of crates: each is sent, what became of it is said with an offer to take it
 * back, and the page is loaded again or left for another one.
 */
export const changesOf =
  (crateId: string): SentChange =>
  async (method, path, body, asked) => {
    const outcome: Outcome = typeof asked === 'string' ? { words: asked } : asked;
    const from = here();
    const answer = await send<Made & Partial<ChangeAnswer>>(method, path, body);
    if (!answer.ok) return refuse(answer.failure, outcome);
    const { words, to, then, undone } = outcome;
    const said = typeof words === 'string' ? words : words(answer.data);
    const after = typeof undone === 'string' ? () => void goto(undone) : undone;
    // What cannot be taken back, such as a crate that is gone for good, has no group.
    if (!answer.data.group) notices.add('success', said);
    else saved(said, crateId || answer.data.id, answer.data.group, after);
    then?.();
    // Whoever has gone to another page meanwhile is not called away from it.
    // In one step: a second one after it would end the way to a page that somebody has set out for meanwhile.
    if (to && here() === from) await goto(to(answer.data), { invalidateAll: true });
    else await invalidateAll();
    return undefined;
  };
