import { goto } from '$app/navigation';
import { notices } from '$lib/ui/frame/notices.svelte';
import { sendFile } from './api';
import { WatchedTask, type TaskView } from './task.svelte';

/** Goes to the crate that was made of a bundle, or says why there is none. */
function ended(state: TaskView): void {
  if (state.state !== 'done') return notices.add('error', state.error?.message ?? state.step);
  const { crate } = state.result as { crate: { slug: string; name: string } };
  notices.add('success', `Opened as the crate ${crate.name}.`);
  void goto(`/c/${crate.slug}`, { invalidateAll: true });
}

/** Opens a bundle as a crate of its own: a task that a reload finds again. */
export function openingBundle() {
  const task = new WatchedTask('task:bundle', ended);
  return {
    task,
    async open(chosen: File): Promise<void> {
      const answer = await sendFile<TaskView>('/api/bundle', chosen);
      if (answer.ok) task.follow(answer.data);
      else notices.add('error', `This bundle cannot be opened: ${answer.failure.message}`);
    }
  };
}
