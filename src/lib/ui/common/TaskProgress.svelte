<script lang="ts">
  import { Button, ProgressBar } from 'carbon-components-svelte';
  import { duration } from '#core/quantities/format';

  type State = { title: string; state: string; done: number; total: number; step: string };
  let { task, oncancel }: { task: State; oncancel: () => void } = $props();

  /** Where it was when this page first saw it: the pace since then tells how much longer it takes. */
  let seen: { at: number; done: number } | undefined;
  let left = $state('');
  $effect(() => {
    const { done, total, state } = task;
    const now = performance.now();
    seen ??= { at: now, done };
    const [steps, seconds] = [done - seen.done, (now - seen.at) / 1000];
    // A first step says little about the rest.
    left =
      state === 'running' && total > done && steps > 0 && seconds > 0.5
        ? `, about ${duration(Math.ceil((seconds * (total - done)) / steps))} left`
        : '';
  });
</script>

<div class="task">
  <div class="bar">
    <ProgressBar
      labelText={task.title}
      helperText={`${task.step}${left}`}
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
