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
  <table class="plain-table">
    <thead>
      <tr>
        <th scope="col">Step</th>
        <th class="scale" aria-hidden="true">
          <span class="ticks"
            >{#each drawing.decimal as { at, label } (label)}<span style:left="{at * 100}%" class:end={at > 0.95}
                >{label}</span
              >{/each}</span
          >
        </th>
        <th scope="col" class="num">takes</th>
        <th scope="col" class="num">left, TB</th>
      </tr>
    </thead>
    <tbody>
      {#each ladder.steps as step, i (step.code)}
        {@const bar = drawing.bars[i]}
        <tr class:free={step.code === 'free'}>
          <td>{step.what}</td>
          <td class="scale" aria-hidden="true">
            {#if bar}
              <span class="bar">
                <i class="left" class:free={step.code === 'free'} style:width="{bar.left * 100}%"></i>
                {#if step.code === 'headroom'}
                  <i class="head" style:left="{bar.left * 100}%" style:width="{bar.takes * 100}%"></i>
                {:else if bar.magnified > 0}
                  <i class="take" style:width="max(2px, {bar.magnified * 100}%)"></i>
                {/if}
              </span>
            {/if}
          </td>
          <td class="num figure">{step.takes > 0 ? taken(step.takes) : ''}</td>
          <td class="num figure">{inTB(step.bytes)}</td>
        </tr>
      {/each}
    </tbody>
    <tfoot aria-hidden="true">
      <tr>
        <td class="num quiet small">in powers of 1024</td>
        <td class="scale">
          <span class="ticks"
            >{#each drawing.binary as { at, label } (label)}<span style:left="{at * 100}%" class:end={at > 0.95}
                >{label}</span
              >{/each}</span
          >
        </td>
        <td></td>
        <td></td>
      </tr>
    </tfoot>
  </table>
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
  section {
    margin-top: 20px;
  }
  .scale {
    width: 46%;
    padding-left: 14px;
    padding-right: 14px;
  }
  .bar {
    position: relative;
    display: block;
    height: 16px;
    background: repeating-linear-gradient(90deg, var(--ash-line) 0 1px, transparent 1px 10%);
  }
  .bar i {
    position: absolute;
    top: 0;
    bottom: 0;
    left: 0;
  }
  .left {
    background: var(--ash-channel);
  }
  .left.free {
    background: var(--ash-band);
  }
  .bar .take {
    top: auto;
    left: auto;
    right: 0;
    height: 5px;
    background: var(--ash-ink);
  }
  .head {
    background: repeating-linear-gradient(45deg, var(--ash-edge) 0 2px, transparent 2px 6px);
  }
  .ticks {
    position: relative;
    display: block;
    height: 16px;
    font: 500 12px var(--ash-mono);
    color: var(--ash-soft);
  }
  .ticks span {
    position: absolute;
    white-space: nowrap;
    border-left: 1px solid var(--ash-edge);
    padding-left: 3px;
  }
  .ticks .end {
    padding: 0 3px 0 0;
    border-left: 0;
    border-right: 1px solid var(--ash-edge);
    transform: translateX(-100%);
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
    margin-top: 8px;
  }
  .observe :global(.bx--form-item) {
    flex: 0 1 18rem;
  }
  .observe p {
    flex: 1 1 20rem;
    max-width: 44rem;
  }
  @media (max-width: 700px) {
    .scale {
      display: none;
    }
  }
  @media print {
    .bar i {
      print-color-adjust: exact;
    }
  }
</style>
