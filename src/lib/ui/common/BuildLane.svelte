<script lang="ts">
  import type { Comparison } from '#core/results/compare';
  import type { Band } from '#core/quantities/band';
  import Lane from './Lane.svelte';

  type Props = {
    build: {
      stages: readonly { stage: string; label: string; MBps: Band }[];
      ifItFitted?: boolean;
      bottleneck: string | null;
      write: Band | null;
      latest?: { comparisons: readonly Comparison[] } | undefined;
    };
  };
  /** The small lane that stands for a build in a list; its text stands beside it. */
  let { build }: Props = $props();
  const measured = $derived(build.latest?.comparisons.find((row) => row.field === 'writeMBps')?.measured);
</script>

{#if build.stages.length > 0}
  <Lane
    small
    stages={build.stages}
    bottleneck={build.bottleneck}
    ifItFitted={build.ifItFitted ?? false}
    predicted={build.write}
    {measured}
  />
{:else}
  <svg viewBox="0 0 120 30" width="120" height="30" aria-hidden="true"
    ><path d="M0 28H50M70 28h50M50 22l20 12M70 22L50 34" /></svg
  >
{/if}

<style>
  path {
    fill: none;
    stroke: var(--ash-edge);
    stroke-width: 1.5;
  }
</style>
