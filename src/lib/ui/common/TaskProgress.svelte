<script lang="ts">
  import { Button, ProgressBar } from 'carbon-components-svelte';

  type State = { title: string; state: string; done: number; total: number; step: string };
  let { task, oncancel }: { task: State; oncancel: () => void } = $props();
</script>

<div class="task">
  <div class="bar">
    <ProgressBar
      labelText={task.title}
      helperText={task.step}
      value={task.total > 0 ? task.done : undefined}
      max={task.total > 0 ? task.total : 100}
      status={task.state === 'failed' ? 'error' : task.state === 'done' ? 'finished' : 'active'}
    />
  </div>
  {#if task.state === 'running'}<Button size="small" kind="tertiary" on:click={oncancel}>Cancel</Button>{/if}
</div>

<style>
  .task {
    display: flex;
    align-items: center;
    gap: 16px;
    max-width: 720px;
    padding: 12px 0;
  }
  .bar {
    flex: 1;
  }
</style>
