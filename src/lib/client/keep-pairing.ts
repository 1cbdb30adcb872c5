import { planFile } from '#core/answers/plan-file';
import { assemble, type Library } from '#core/build/assemble';
import type { Choice } from '#core/build/choice';
import { ENGINE_VERSION } from '#core/plan/plan';
import { dayHere } from '$lib/ui/common/day-here';
import { notices } from '$lib/ui/frame/notices.svelte';
import { send } from './api';
import { changesOf } from './change';

/** Makes a crate of one's own from a pairing of classes: its parts come as one change, as from a plan file, then the build. */
export async function keepPairing(library: Library, choice: Partial<Choice>): Promise<void> {
  const whole = assemble(library, choice);
  if (!whole.ok) return;
  const { drive, enclosure } = whole.input;
  const name = `${drive.name} in ${enclosure.name}`.slice(0, 120);
  const made = await send<{ id: string; slug: string }>('POST', '/api/crates', { name: 'My crate' });
  if (!made.ok) return notices.add('error', made.failure.message);
  const base = `/api/crates/${made.data.id}`;
  const file = planFile({ name, input: whole.input, engine: ENGINE_VERSION, answers: [] }, dayHere());
  const opened = await send<{ choice: Choice }>('POST', `${base}/plan-files`, file);
  if (!opened.ok) return notices.add('error', opened.failure.message);
  await changesOf(made.data.id)(
    'POST',
    `${base}/builds`,
    { name, choice: opened.data.choice },
    {
      words: ({ tag }) => `Kept as ${tag}, in a crate of your own.`,
      to: ({ tag }) => `/b/${tag}/pair`,
      undone: `/c/${made.data.slug}`
    }
  );
}
