<script lang="ts">
  import { goto } from '$app/navigation';
  import { sendFile } from '$lib/client/api';
  import { WatchedTask, type TaskView } from '$lib/client/task.svelte';
  import FilePicker from '$lib/ui/common/FilePicker.svelte';
  import TaskProgress from '$lib/ui/common/TaskProgress.svelte';
  import { notices } from '$lib/ui/frame/notices.svelte';

  const opening = new WatchedTask('task:bundle', opened);
  $effect(() => {
    void opening.resume();
    return () => opening.stop();
  });
  async function open(chosen: File): Promise<void> {
    const answer = await sendFile<TaskView>('/api/bundle', chosen);
    if (answer.ok) opening.follow(answer.data);
    else notices.add('error', `This bundle cannot be opened: ${answer.failure.message}`);
  }
  function opened(state: TaskView): void {
    if (state.state !== 'done') return notices.add('error', state.error?.message ?? state.step);
    const { crate } = state.result as { crate: { slug: string; name: string } };
    notices.add('success', `Opened as the crate ${crate.name}.`);
    void goto(`/c/${crate.slug}`, { invalidateAll: true });
  }
</script>

<p class="row">
  <FilePicker
    label="Open a bundle as a new crate"
    accept={['.json', '.gz', 'application/json', 'application/gzip']}
    onpick={open}
  />
</p>
{#if opening.state && opening.running}<TaskProgress task={opening.state} oncancel={() => void opening.cancel()} />{/if}

<style>
  .row {
    padding: 12px 0;
  }
</style>
