<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { day, duration, rate } from '#core/quantities/format';
  import { PROTOCOL_LABEL } from '#core/results/newest';
  import type { ProtocolId } from '#core/results/protocol-ids';
  import type { PairResults } from '#core/results/run';

  type Run = {
    id: string;
    version: number;
    protocol: ProtocolId;
    date: string;
    simulated: boolean;
    results: PairResults;
    series: { samples: number; seconds: number } | null;
    rig: { state: string; atS: number; wantedS: number } | null;
    conditions: { notes?: string | undefined };
  };
  /** Runs without the figures of a speed check: copies, programs, and what the rig is still at. */
  let {
    runs,
    home,
    onremove
  }: { runs: readonly Run[]; home: string; onremove?: (id: string, version: number) => void } = $props();
  function words({ results, rig, series }: Run): string {
    if (rig?.state === 'running')
      return `is running, ${Math.min(99, Math.round((rig.atS / Math.max(1, rig.wantedS)) * 100))} %`;
    if (rig?.state === 'paused') return 'was cancelled or broken off; it can go on';
    const figures = FIGURES.flatMap(([field, words]) => {
      const value = results[field];
      return value === undefined ? [] : [`${words} ${rate(value)} MB/s`];
    });
    if (results.limitedBy === 'program' || results.limitedBy === 'drive')
      figures.push(`the ${results.limitedBy} is the limit`);
    if (figures.length > 0) return figures.join(', ');
    return series ? `${duration(series.seconds)} sampled` : 'no figures';
  }
  const FIGURES = [
    ['copyInMBps', 'to the drive'],
    ['copyOutMBps', 'from the drive'],
    ['writeMBps', 'write'],
    ['readMBps', 'read']
  ] as const;
</script>

{#if runs.length > 0}
  <ul aria-label="Other results">
    {#each runs as run (run.id)}
      <li>
        <span class="grow"
          ><a href="{home}/runs/{run.id}">{PROTOCOL_LABEL[run.protocol]} of {day(run.date)}</a>: {words(
            run
          )}{#if run.simulated}
            <span class="small quiet">simulated</span>{/if}
          {#if run.conditions.notes}<br /><span class="small quiet">{run.conditions.notes}</span>{/if}</span
        >
        {#if onremove && run.rig?.state !== 'running'}<Button
            kind="ghost"
            size="small"
            on:click={() => onremove(run.id, run.version)}>Delete</Button
          >{/if}
      </li>
    {/each}
  </ul>
{/if}

<style>
  ul {
    margin: 14px 0 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: flex;
    gap: 12px;
    align-items: baseline;
    padding: 6px 0;
    border-top: 1px solid var(--ash-line);
  }
  .grow {
    flex: 1;
  }
</style>
