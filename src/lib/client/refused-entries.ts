import { counted } from '#core/quantities/format';
import { saveAs } from '$lib/ui/common/save-as';
import { notices } from '$lib/ui/frame/notices.svelte';
import { forgetWaiting, mayWait, sendWaiting, type Waiting } from './sheet-queue';

/** Saves what could not be sent as a file, and forgets it here. */
export async function saveRefused(refused: readonly Waiting[]): Promise<void> {
  const tag = refused[0]?.tag ?? 'run sheet';
  saveAs(`${tag} not sent.json`, 'application/json', `${JSON.stringify(refused, null, 2)}\n`);
  await forgetWaiting(refused.map(({ key }) => key));
}

/** Says what was refused and why, and offers to keep it as a file: also where the page that it was done on is gone. */
export function tellRefused(refused: readonly Waiting[], saved?: () => void): void {
  for (const tag of new Set(refused.map((waiting) => waiting.tag))) {
    const own = refused.filter((waiting) => waiting.tag === tag);
    const text = `${counted(own.length, 'entry', 'entries')} of the run sheet of ${tag} could not be sent: ${own[0]?.refused ?? ''}. Nothing is lost: what you did is kept in this browser.`;
    notices.add('error', text, { label: 'Save as a file', run: () => void saveRefused(own).then(saved) });
  }
}

/** Sends what an earlier page left waiting, if anything. */
export async function sendLeftOver(): Promise<void> {
  if (!mayWait()) return;
  const { refused } = await sendWaiting();
  tellRefused(refused);
}
