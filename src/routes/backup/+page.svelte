<script lang="ts">
  import FilePicker from '$lib/ui/common/FilePicker.svelte';
  import { Button, TextInput } from 'carbon-components-svelte';
  import { goto } from '$app/navigation';
  import { sendFile } from '$lib/client/api';
  import { WatchedTask, type TaskView } from '$lib/client/task.svelte';
  import TaskProgress from '$lib/ui/common/TaskProgress.svelte';
  import Frame from '$lib/ui/frame/Frame.svelte';
  import { notices } from '$lib/ui/frame/notices.svelte';

  const WORDS = 'replace everything';
  let file = $state.raw<File>();
  let typed = $state('');
  let problem = $state('');
  let busy = $state(false);
  const task = new WatchedTask('task:restore', (state: TaskView) => {
    if (state.state !== 'done') return void (problem = state.error?.message ?? state.step);
    const { rows, kept } = state.result as { rows: number; kept: string };
    notices.add('success', `Restored ${rows} rows. What was there before is in ${kept}.`);
    void goto('/crates', { invalidateAll: true });
  });
  $effect(() => {
    void task.resume();
    return () => task.stop();
  });

  async function restore(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!file) return;
    problem = '';
    busy = true;
    const answer = await sendFile<TaskView>(`/api/restore?confirm=${encodeURIComponent(WORDS)}`, file);
    busy = false;
    if (answer.ok) task.follow(answer.data);
    else problem = answer.failure.message;
  }
</script>

<svelte:head><title>Backup · Ash Crate</title></svelte:head>
<Frame path="/backup">
  <div class="page">
    <h1>Backup</h1>
    <section>
      <h2>Take everything along</h2>
      <p>
        All crates, with files, log and undo history, as one file. Keep it on another disk: two copies on one disk are
        one copy.
      </p>
      <Button href="/api/backup" size="field" download>Download a backup</Button>
      <p class="small quiet">By command: <code>npm run backup</code></p>
    </section>
    <section>
      <h2>Bring it back</h2>
      <p>
        This puts the backup in the place of everything that is here now. A copy of what is here is kept in the data
        folder first; a damaged file is refused before anything is touched.
      </p>
      <form onsubmit={restore}>
        <FilePicker
          label="Choose the backup file"
          accept={['.gz', 'application/gzip']}
          onpick={(chosen) => (file = chosen)}
        />
        {#if file}
          <p class="small">{file.name}</p>
          <TextInput labelText="To go on, type: {WORDS}" bind:value={typed} autocomplete="off" />
        {/if}
        <Button
          type="submit"
          kind="danger"
          size="field"
          disabled={!file || typed.trim() !== WORDS || busy || task.running}>Restore</Button
        >
      </form>
      {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
      {#if task.state && task.running}<TaskProgress task={task.state} oncancel={() => void task.cancel()} />{/if}
      <p class="small quiet">By command: <code>npm run restore -- file</code></p>
    </section>
  </div>
</Frame>

<style>
  section {
    max-width: 640px;
    padding: 16px 0;
  }
  section p {
    margin: 6px 0 12px;
  }
  form {
    display: grid;
    gap: 14px;
    justify-items: start;
    max-width: 420px;
    margin-bottom: 12px;
  }
  .problem {
    color: var(--ash-fail);
    font-weight: 600;
  }
  code {
    font: 12px var(--ash-mono);
  }
</style>
