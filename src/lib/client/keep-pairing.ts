import { assemble, type Library } from '#core/build/assemble';
import type { Choice } from '#core/build/choice';
import { changesOf } from './change';
import { send, type ChangeAnswer } from './api';
import { notices } from '$lib/ui/frame/notices.svelte';

/** Makes a crate of one's own from a pairing of classes: its parts, and the build that they make. */
export async function keepPairing(library: Library, choice: Partial<Choice>): Promise<void> {
  const whole = assemble(library, choice);
  if (!whole.ok) return;
  const { host, portId, cable, enclosure, drive } = whole.input;
  const made = await send<{ id: string; slug: string }>('POST', '/api/crates', { name: 'My crate' });
  if (!made.ok) return notices.add('error', made.failure.message);
  const base = `/api/crates/${made.data.id}`;
  const add = async (spec: { id?: string | undefined }): Promise<string | undefined> => {
    const { id: _class, ...rest } = spec;
    const answer = await send<ChangeAnswer>('POST', `${base}/models`, { spec: rest, have: 'no' });
    if (answer.ok) return answer.data.id;
    notices.add('error', answer.failure.message);
    return undefined;
  };
  const [hostId, enclosureId, driveId] = [await add(host), await add(enclosure), await add(drive)];
  const cableId = cable && (await add(cable));
  if (!hostId || !enclosureId || !driveId) return;
  const own: Choice = { hostId, portId, enclosureId, driveId, ...(cableId ? { cableId } : {}) };
  const name = `${drive.name} in ${enclosure.name}`.slice(0, 120);
  await changesOf(made.data.id)(
    'POST',
    `${base}/builds`,
    { name, choice: own },
    {
      words: ({ tag }) => `Kept as ${tag}, in a crate of your own.`,
      to: ({ tag }) => `/b/${tag}/pair`,
      undone: `/c/${made.data.slug}`
    }
  );
}
