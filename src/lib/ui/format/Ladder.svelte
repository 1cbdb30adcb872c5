<script lang="ts">
  import { TextInput } from 'carbon-components-svelte';
  import type { LadderReport } from '#core/format/ladder';
  import { figure } from '#core/quantities/format';
  import { readQuantity } from '#core/quantities/read';
  import StateMark from '../common/StateMark.svelte';
  import { ladderDrawing } from '../geometry/ladder';

  type Props = {
    ladder: LadderReport;
    /** What was typed as free, as it was typed. */
    observed: string;
    onobserve: (text: string, bytes: number | undefined) => void;
  };
  /** From the label to what is free for files, to scale, and what a difference points to. */
  let { ladder, observed, onobserve }: Props = $props();
  const drawing = $derived(ladderDrawing(ladder.steps));
  const WIDTH = 560;
  const ROW = 24;
  const uid = $props.id();
  const height = $derived(ladder.steps.length * ROW + 34);
  const inTB = (bytes: number) => (bytes / 1e12).toFixed(bytes < 1e12 ? 4 : 3);
  const taken = (bytes: number) =>
    bytes >= 1e9 ? `${figure(bytes / 1e9)} GB` : bytes >= 1e6 ? `${figure(bytes / 1e6)} MB` : `${Math.round(bytes)} B`;
  const reading = $derived(
    observed.trim() === '' ? undefined : readQuantity(observed, { unit: 'TB', min: 0, max: 1000 })
  );
  function typed(text: string): void {
    const read = text.trim() === '' ? undefined : readQuantity(text, { unit: 'TB', min: 0, max: 1000 });
    onobserve(text, read?.ok ? Math.round(read.value * 1e12) : undefined);
  }
</script>

<section aria-label="Capacity ladder">
  <h2>From the label to what is free</h2>
  <div class="two">
    <svg viewBox="0 0 {WIDTH} {height}" role="img" aria-label="The steps beside, to scale">
      <defs>
        <pattern id="hatch-{uid}" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"
          ><line x1="0" y1="0" x2="0" y2="6" /></pattern
        >
      </defs>
      {#each drawing.decimal as { at, label } (label)}
        <line class="tick" x1={at * WIDTH} x2={at * WIDTH} y1="12" y2={height - 16} />
        <text
          x={Math.min(WIDTH - 2, Math.max(2, at * WIDTH))}
          y="9"
          text-anchor={at > 0.95 ? 'end' : at < 0.05 ? 'start' : 'middle'}>{label}</text
        >
      {/each}
      {#each drawing.binary as { at, label } (label)}
        <line class="tick binary" x1={at * WIDTH} x2={at * WIDTH} y1={height - 22} y2={height - 12} />
        <text
          x={Math.max(2, at * WIDTH)}
          y={height - 2}
          text-anchor={at > 0.95 ? 'end' : at < 0.05 ? 'start' : 'middle'}>{label}</text
        >
      {/each}
      {#each drawing.bars as bar, i (bar.code)}
        {@const y = 16 + i * ROW}
        <rect class="left" class:free={bar.code === 'free'} x="0" {y} width={bar.left * WIDTH} height={ROW - 8} />
        {#if bar.code === 'headroom'}
          <rect
            class="head"
            x={bar.takesFrom * WIDTH}
            {y}
            width={bar.takes * WIDTH}
            height={ROW - 8}
            fill="url(#hatch-{uid})"
          />
        {:else if bar.magnified > 0}
          <rect
            class="take"
            x={WIDTH - bar.magnified * WIDTH}
            y={y + ROW - 8 - 5}
            width={Math.max(1, bar.magnified * WIDTH)}
            height="5"
          />
        {/if}
      {/each}
    </svg>
    <table class="plain-table">
      <thead
        ><tr
          ><th scope="col">Step</th><th scope="col" class="num">takes</th><th scope="col" class="num">left, TB</th></tr
        ></thead
      >
      <tbody>
        {#each ladder.steps as step (step.code)}
          <tr class:free={step.code === 'free'}>
            <td>{step.what}</td>
            <td class="num figure">{step.takes > 0 ? taken(step.takes) : ''}</td>
            <td class="num figure">{inTB(step.bytes)}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#if drawing.times > 1}
    <p class="small quiet">The dark strips at the right end show what a step takes, magnified {drawing.times} times.</p>
  {/if}
  <p>
    Expected free on the empty volume: <strong class="figure"
      >{inTB(ladder.freeBytes.low)} – {inTB(ladder.freeBytes.high)} TB</strong
    >
    <span class="quiet small">(10¹² bytes; {figure(ladder.freeBytes.typical / 2 ** 40)} TiB)</span>
  </p>
  <div class="observe no-print">
    <TextInput
      size="sm"
      labelText="Free, as the system reports it"
      placeholder="such as 1.99 TB or 1.81 TiB"
      value={observed}
      invalid={reading !== undefined && !reading.ok}
      invalidText={reading && !reading.ok ? reading.message : undefined}
      on:input={(e) => typed(String(e.detail ?? ''))}
    />
    {#if ladder.difference}
      <p role="status">
        <StateMark mark={ladder.difference.inside ? 'pass' : 'check'} size={16} />
        {ladder.difference.inside
          ? ''
          : `${figure(Math.abs(ladder.difference.bytes) / 1e9)} GB ${ladder.difference.bytes < 0 ? 'less' : 'more'} than expected (${figure(Math.abs(ladder.difference.percent))} %). `}{ladder
          .difference.cause}
      </p>
    {/if}
  </div>
</section>

<style>
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 8px 24px;
    align-items: start;
    margin: 8px 0;
  }
  svg {
    width: 100%;
  }
  .left {
    fill: var(--ash-channel);
  }
  .left.free {
    fill: var(--ash-band);
  }
  .take {
    fill: var(--ash-ink);
  }
  .head {
    stroke: var(--ash-edge);
    stroke-width: 0.6;
  }
  pattern line {
    stroke: var(--ash-edge);
    stroke-width: 2;
  }
  .tick {
    stroke: var(--ash-line);
  }
  .binary {
    stroke: var(--ash-edge);
  }
  text {
    fill: var(--ash-soft);
    font: 12px var(--ash-mono);
  }
  tr.free td {
    font-weight: 650;
  }
  .num {
    text-align: right;
    white-space: nowrap;
  }
  .observe {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 18px;
    align-items: flex-end;
  }
  .observe :global(.bx--form-item) {
    flex: 0 1 18rem;
  }
  .observe p {
    flex: 1 1 20rem;
    max-width: 44rem;
  }
  @media (max-width: 900px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
