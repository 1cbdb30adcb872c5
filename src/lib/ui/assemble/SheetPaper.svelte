<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { TickState } from '#core/sheets/progress';
  import type { RunSheet } from '#core/sheets/sheet';
  import StepPicture from './StepPicture.svelte';
  import type { SheetItem } from './acts';

  type Props = {
    sheet: RunSheet;
    title: string;
    parts: string;
    items: readonly SheetItem[];
    /** A code that opens the sheet. */
    code: Snippet;
    address: string;
    markOf: (stepId: string, unitId?: string) => TickState | undefined;
  };
  /** The sheet on paper, one page or two: boxes to tick, and a code that opens it. */
  let { sheet, title, parts, items, code, address, markOf }: Props = $props();
  /** A drawing that stands at several steps is printed at the first of them. */
  const firstOf = $derived.by(() => {
    const first: Record<string, string> = {};
    for (const { drawing, id } of sheet.stages.flatMap(({ steps }) => steps))
      if (drawing) first[JSON.stringify(drawing)] ??= id;
    return first;
  });
</script>

<article class="paper" aria-hidden="true">
  <header>
    <div>
      <h1>{title}</h1>
      <p>{parts}</p>
      <p>
        About {sheet.minutes.typical} minutes ({sheet.minutes.low} to {sheet.minutes.high}){items.length > 1
          ? ` for ${items.map(({ tag }) => tag).join(', ')}`
          : ''}.
      </p>
    </div>
    <figure>
      {@render code()}
      <figcaption>{address}</figcaption>
    </figure>
  </header>
  <p>
    <strong>On the table:</strong>
    {#each sheet.kit as { id, what } (id)}<span class="thing"
        ><span class="box" class:done={markOf(id)?.done}></span>{what}</span
      >
    {/each}
  </p>
  <p><strong>Tools:</strong> {sheet.tools.join(' · ')}</p>
  <p><strong>Spare:</strong> {sheet.spares.join(' · ')}</p>
  <div class="stages">
    {#each sheet.stages as stage, n (stage.id)}
      <section>
        <h2>{n + 1} {stage.title}</h2>
        {#each stage.steps as step (step.id)}
          <p class="step">
            {#each step.once || items.length < 2 ? [undefined] : items as item (item?.id ?? '')}<span
                class="box"
                class:done={markOf(step.id, item?.id)?.done}>{item ? item.tag : ''}</span
              >
            {/each}
            {step.text}
            {#if step.caution}<em>{step.caution}</em>{/if}
          </p>
          {#if step.drawing && firstOf[JSON.stringify(step.drawing)] === step.id}
            <div class="picture"><StepPicture drawing={step.drawing} /></div>
          {/if}
        {/each}
        <p class="step check"><span class="box" class:done={markOf(stage.checkId)?.done}></span>{stage.check}</p>
      </section>
    {/each}
  </div>
</article>

<style>
  .paper {
    display: none;
  }
  @media print {
    .paper {
      display: block;
      color: var(--ash-print-ink);
      font-size: 8.6pt;
      line-height: 1.28;
    }
    header {
      display: flex;
      justify-content: space-between;
      gap: 8mm;
    }
    h1 {
      font-size: 14pt;
    }
    figure {
      margin: 0;
      width: 24mm;
      font-size: 6pt;
      overflow-wrap: anywhere;
    }
    figure :global(svg) {
      display: block;
      width: 24mm;
      height: 24mm;
    }
    .thing {
      margin-right: 3mm;
      white-space: nowrap;
    }
    .stages {
      columns: 2;
      column-gap: 7mm;
      margin-top: 2mm;
    }
    section {
      break-inside: avoid;
      margin-bottom: 2mm;
    }
    h2 {
      font-size: 9.5pt;
      border-bottom: 0.3mm solid currentColor;
    }
    .step {
      margin: 0.6mm 0;
    }
    .box {
      margin-right: 1.8mm;
      font-family: var(--ash-mono);
      white-space: nowrap;
    }
    .box::before {
      content: '';
      display: inline-block;
      width: 3mm;
      height: 3mm;
      margin-right: 0.8mm;
      border: 0.3mm solid currentColor;
      vertical-align: -0.6mm;
    }
    .done::before {
      background: linear-gradient(45deg, transparent 42%, currentColor 42% 58%, transparent 58%);
    }
    .picture {
      width: 46mm;
      margin: 0.6mm 0 1mm auto;
      break-inside: avoid;
    }
    .check {
      border-top: 0.2mm dashed currentColor;
      font-weight: 600;
    }
    em {
      color: inherit;
      opacity: 0.8;
    }
  }
</style>
