<script lang="ts">
  import type { PlanReport } from '#core/plan/report';
  import { day } from '#core/quantities/format';
  import { CAUSE_NAMES } from '#core/diagnosis/names';
  import type { Advice } from '#core/diagnosis/of-run';
  import { compareWithPlan, comparisonSentence, repeatsBehind } from '#core/results/compare';
  import type { KeptResult } from '#core/results/run';
  import Lane from '../common/Lane.svelte';

  /** One result on the drawing of the chain, in sentences, and what it points to where it is too low. */
  let {
    report,
    run,
    advice,
    runHref,
    troubleHref
  }: {
    report: PlanReport;
    run: KeptResult | undefined;
    advice: Advice | null | undefined;
    runHref?: string | undefined;
    troubleHref?: string;
  } = $props();
  const rows = $derived(run ? compareWithPlan(run.results, report) : []);
  const measured = $derived(run?.results.writeMBps ?? run?.results.readMBps);
  /** Causes that show as one lower line. */
  const FALLBACKS: readonly string[] = [
    'usb2-fallback',
    '5g-port-or-cable',
    '10g-fallback',
    'bulk-only',
    'two-lane-limit'
  ];
  const label = $derived(run?.simulated ? 'simulated' : 'measured');
  const fallback = $derived(advice && FALLBACKS.includes(advice.cause) ? CAUSE_NAMES[advice.cause] : undefined);
  /** What it falls to later, where that was measured too. */
  const later = $derived.by(() => {
    const { writeMBps, sustainedWriteMBps } = run?.results ?? {};
    if (writeMBps === undefined || sustainedWriteMBps === undefined || sustainedWriteMBps > writeMBps * 0.93)
      return undefined;
    const hot = advice?.cause === 'thermal-throttle' || advice?.cause === 'pad-no-contact';
    return { MBps: sustainedWriteMBps, label: hot ? 'when hot' : 'behind the cache' };
  });
  const laneForecast = $derived(
    run?.results.writeMBps === undefined && run ? report.throughput.read : report.throughput.write
  );
</script>

{#if report.link.stages.length > 0}
  <div class="panel">
    <Lane
      stages={report.link.stages}
      bottleneck={report.link.bottleneck}
      predicted={laneForecast}
      {measured}
      measuredLabel={fallback ? `${fallback}, ${label}` : label}
      {later}
    />
    <p class="small quiet">
      Hatching: forecast of the {laneForecast === report.throughput.read ? 'read' : 'write'}.
      {#if run}Solid line: {run.results.writeMBps === undefined ? 'read' : 'write'} of {day(run.date)}{run.simulated
          ? ', from the simulated rig'
          : ''}.{:else}The solid line appears with the first result.{/if}
    </p>
  </div>
{:else}
  <p class="panel">
    The plan of this build says that it does not work; there is no forecast to measure against. Results can be kept all
    the same.
  </p>
{/if}

{#if run}
  <ul class="sentences" aria-label="Measured against the forecast">
    {#each rows as row (row.field)}<li class={row.place}>
        {comparisonSentence(row, repeatsBehind(row.field, run.results))}
      </li>{/each}
  </ul>
  {#if advice}<div class="cause" role="note">
      <p><strong>{advice.text}</strong></p>
      <p>{advice.next}</p>
      <p>
        {#if runHref}<a href={runHref}>Causes, what speaks for each, and the next test</a>{/if}
        {#if troubleHref}{runHref ? ' · ' : ''}<a href={troubleHref}>Find the cause step by step</a>{/if}
      </p>
    </div>{:else if runHref}<p><a href={runHref}>What came out of this run</a></p>{/if}
  {#if run.simulated}<p class="simulated">
      <strong>Simulated.</strong> These figures come from the stand-in rig that ships with Ash Crate, not from a device.
    </p>{/if}
{/if}

<style>
  .panel {
    max-width: 960px;
    padding: 14px 14px 8px;
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
  }
  .sentences {
    margin: 10px 0;
    padding: 0;
    list-style: none;
  }
  .sentences li {
    padding: 4px 0 4px 12px;
    border-left: 4px solid var(--ash-pass);
  }
  .sentences .below,
  .sentences .above {
    border-left-color: var(--ash-caution);
  }
  .cause {
    max-width: 960px;
    padding: 8px 12px;
    margin-bottom: 8px;
    background: var(--ash-sheet);
    border-left: 4px solid var(--ash-caution);
  }
  .simulated {
    padding: 6px 12px;
    margin-bottom: 8px;
    background: var(--ash-well);
  }
</style>
