<script lang="ts">
  import type { Band } from '#core/quantities/band';
  import { duration, figure, rate } from '#core/quantities/format';
  import type { Series } from '#core/series/series';
  import Plot from '../common/Plot.svelte';
  import Wide from '../common/Wide.svelte';
  import {
    rateChart,
    runInWords,
    seriesRows,
    timeUnit,
    warmthChart,
    withEvents,
    type ChartEvent,
    type ChartPhase
  } from './run-chart';

  type Props = {
    series: Series;
    forecast: Band | null;
    of: string;
    simulated: boolean;
    /** Steps of the protocol, where it is known when each was. */
    phases?: readonly ChartPhase[] | undefined;
    /** What happened, to be named at its time. */
    events?: readonly ChartEvent[];
  };
  /** A run over its time: rate over the forecast, temperatures under it, a stretch of it larger, and all of it as a table. */
  let { series, forecast, of, simulated, phases = [], events = [] }: Props = $props();
  let zoom = $state<[number, number]>([0, 100]);
  const colour = (name: string) =>
    typeof document === 'undefined' ? '' : getComputedStyle(document.documentElement).getPropertyValue(name).trim();
  const colours = $derived({ band: colour('--ash-band') || '#999', ink: colour('--ash-ink') || '#333' });
  const warmth = $derived(warmthChart(series, [colour('--ash-fail'), colour('--ash-note'), colour('--ash-soft')]));
  const end = $derived(series.t.at(-1) ?? 0);
  const unit = $derived(timeUnit(end));
  const range = $derived<[number, number]>([(end * zoom[0]) / 100 / unit.per, (end * zoom[1]) / 100 / unit.per]);
  const plain = $derived(rateChart(series, forecast, colours, phases));
  let width = $state(900);
  const drawn = $derived({
    ...plain,
    layout: withEvents(plain.layout, events, { per: unit.per, range, width, color: colours.ink })
  });
  const zoomed = $derived(zoom[0] > 0 || zoom[1] < 100);
  const layout = $derived({ ...drawn.layout, xaxis: { ...drawn.layout.xaxis, range } });
  /** A step with a little around it, in percent of the time. */
  function zoomTo({ fromS, toS }: ChartPhase): [number, number] {
    const from = Math.max(0, Math.floor((fromS / Math.max(end, 1e-9)) * 100) - 1);
    return [Math.min(99, from), Math.min(100, Math.max(from + 1, Math.ceil((toS / Math.max(end, 1e-9)) * 100) + 1))];
  }
  const words = $derived(runInWords(series, forecast));
  const rows = $derived(seriesRows(series));
</script>

<div bind:clientWidth={width}>
  <Plot title="{of}{simulated ? ', simulated' : ''}" summary={words} traces={drawn.traces} {layout} />
</div>
{#if warmth}
  <Plot
    title="Temperatures of {of}"
    summary="Temperatures over the same time"
    traces={warmth.traces}
    layout={{ ...warmth.layout, xaxis: { ...warmth.layout.xaxis, range } }}
  />
{/if}
{#if forecast}<p class="small quiet">Shaded: the forecast.</p>{/if}
<p class="zoom no-print small">
  <label
    >From <input
      type="range"
      min="0"
      max="99"
      value={zoom[0]}
      oninput={(e) => (zoom = [Math.min(Number(e.currentTarget.value), zoom[1] - 1), zoom[1]])}
      aria-label="Show from, percent of the time"
    /></label
  >
  <label
    >to <input
      type="range"
      min="1"
      max="100"
      value={zoom[1]}
      oninput={(e) => (zoom = [zoom[0], Math.max(Number(e.currentTarget.value), zoom[0] + 1)])}
      aria-label="Show to, percent of the time"
    /></label
  >
  {duration((end * zoom[0]) / 100)} to {duration((end * zoom[1]) / 100)}
  {#if zoomed}<button type="button" onclick={() => (zoom = [0, 100])}>Show all of it</button>{/if}
</p>
{#if phases.length > 1}
  <details>
    <summary>Its {phases.length} steps, at the dotted lines</summary>
    <ol class="steps">
      {#each phases as phase, i (i)}
        <li>
          {phase.label}: from {duration(phase.fromS)} to {duration(phase.toS)}
          <button type="button" aria-label="Show {phase.label}" onclick={() => (zoom = zoomTo(phase))}>Show it</button>
        </li>
      {/each}
    </ol>
  </details>
{/if}
<details>
  <summary>As a table</summary>
  <Wide label="The run in twelve parts">
    <table class="plain-table">
      <thead
        ><tr
          ><th scope="col">From</th><th scope="col">to</th><th scope="col" class="number">Mean, MB/s</th><th
            scope="col"
            class="number">Lowest</th
          ><th scope="col" class="number">Highest</th>{#if series.caseC}<th scope="col" class="number">Case, °C</th
            >{/if}</tr
        ></thead
      >
      <tbody>
        {#each rows as row (row.fromS)}
          <tr
            ><td>{duration(row.fromS)}</td><td>{duration(row.toS)}</td><td class="number">{rate(row.mean)}</td><td
              class="number">{rate(row.low)}</td
            ><td class="number">{rate(row.high)}</td>{#if series.caseC}<td class="number"
                >{row.caseC === undefined ? '–' : figure(row.caseC)}</td
              >{/if}</tr
          >
        {/each}
      </tbody>
    </table>
  </Wide>
</details>

<style>
  .zoom {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 16px;
  }
  input[type='range'] {
    width: 140px;
    vertical-align: middle;
    accent-color: var(--ash-ember);
  }
  .steps {
    max-height: 14rem;
    padding-left: 26px;
    overflow-y: auto;
    list-style: decimal;
  }
  summary {
    padding: 6px 0;
    cursor: pointer;
  }
  button {
    padding: 2px 8px;
    border: 1px solid var(--ash-ember);
    background: none;
    color: var(--ash-ember);
    cursor: pointer;
  }
</style>
