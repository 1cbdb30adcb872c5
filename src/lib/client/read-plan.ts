import { PLAN_FILE_BYTES, readPlanFile } from '#core/answers/plan-file';
import type { Choice } from '#core/build/choice';
import { notices } from '$lib/ui/frame/notices.svelte';
import { changesOf } from './change';

/**
 * Opens a plan from elsewhere: its parts are taken into this crate.
 * @returns what it pairs, by the ids that its parts have here; nothing where it cannot be opened, which is said
 */
export async function readPlanFrom(crateId: string, file: File): Promise<Partial<Choice> | undefined> {
  const refuse = (message: string) => {
    notices.add('error', message);
    return undefined;
  };
  if (file.size > PLAN_FILE_BYTES) return refuse('This is no plan file: it is larger than 2 MB.');
  const read = readPlanFile(await file.text());
  if (!read.ok) return refuse(read.message);
  let opened: Partial<Choice> = {};
  const refusal = await changesOf(crateId)('POST', `/api/crates/${crateId}/plan-files`, read.file, {
    words({ choice = {}, added = 0 }) {
      opened = choice;
      return added === 0 ? 'Its parts were here already.' : `${added} parts added from ${file.name}.`;
    },
    refused: ({ message }) => message
  });
  return refusal ? undefined : opened;
}
