<script lang="ts">
  import type { PlanReport } from '#core/plan/report';
  import Plot from '../common/Plot.svelte';
  import { rateLayout, rateTraces, runSentence, temperatureLayout, temperatureTraces, type Run } from './heat-chart';
  import HeatEvents from './HeatEvents.svelte';
  import ToTouch from './ToTouch.svelte';

  /** Simulated runs: a sentence each, rates and temperatures over time, what happens, and whether a hand may touch it. */
  let { runs, thermal, job }: { runs: readonly Run[]; thermal: PlanReport['thermal']; job: string | undefined } =
    $props();
  let colours = $state<string[]>(['', '', '']);
  $effect(() => {
    const read = () => {
      const style = getComputedStyle(document.documentElement);
      colours = ['--ash-fail', '--ash-note', '--ash-ink'].map((name) => style.getPropertyValue(name).trim());
    };
    read();
    const watcher = new MutationObserver(read);
    watcher.observe(document.documentElement, { attributes: true, attributeFilter: ['theme'] });
    return () => watcher.disconnect();
  });
</script>

<ul class="sentences">
  {#each runs as run (run.name)}<li>{runSentence(run)}</li>{/each}
</ul>
<div class="charts">
  <Plot
    title="Rate, MB/s"
    summary="simulated, over minutes{runs.length > 1 ? `; dashed: ${runs[1]!.name}` : ''}"
    traces={rateTraces(runs)}
    layout={rateLayout(runs)}
  />
  <Plot
    title="Temperatures, °C"
    summary="simulated, over minutes"
    traces={temperatureTraces(runs, colours)}
    layout={temperatureLayout(runs)}
  />
</div>
<div class="below">
  <section>
    <h2>What happens</h2>
    <HeatEvents {runs} />
  </section>
  {#if thermal}
    <section>
      <h2>To touch and to carry</h2>
      <ToTouch {thermal} {job} />
    </section>
  {/if}
</div>

<style>
  .sentences {
    margin: 0 0 8px;
    padding: 0;
    list-style: none;
  }
  .sentences li {
    padding: 2px 0 2px 12px;
    border-left: 4px solid var(--ash-band);
  }
  .charts {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 12px;
    padding: 10px 12px;
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
  }
  .below {
    display: grid;
    grid-template-columns: minmax(0, 5fr) minmax(0, 7fr);
    gap: 28px;
    margin-top: 16px;
  }
  h2 {
    margin-bottom: 6px;
  }
  @media (max-width: 900px) {
    .charts,
    .below {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
