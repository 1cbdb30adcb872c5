<script lang="ts">
  import type { Drawing } from '#core/sheets/drawing';
  import { stepDrawing } from '../geometry/assembly';

  /** The drawing of a step, and the same in words for who cannot see it. */
  let { drawing }: { drawing: Drawing } = $props();
  const drawn = $derived(stepDrawing(drawing));
  const view = $derived(`${drawn.view.x} ${drawn.view.y} ${drawn.view.width} ${drawn.view.height}`);
</script>

<figure>
  <svg viewBox={view} role="img" aria-label={drawn.words} style:--letter="{drawn.letterMm}px">
    {#each drawn.shapes as shape, i (i)}
      {#if shape.as === 'path'}
        <path class={shape.role} d={shape.d} vector-effect="non-scaling-stroke" />
      {:else}
        <text x={shape.x} y={shape.y} text-anchor={shape.anchor}>{shape.text}</text>
      {/if}
    {/each}
  </svg>
  <details class="no-print">
    <summary>In words</summary>
    <p class="small quiet">{drawn.words}</p>
  </details>
</figure>

<style>
  figure {
    margin: 0;
  }
  svg {
    display: block;
    width: 100%;
    max-height: 260px;
    background: var(--ash-sheet);
    text-rendering: geometricPrecision;
  }
  text {
    font: var(--letter) var(--ash-font);
    fill: var(--ash-ink);
    paint-order: stroke;
    stroke: var(--ash-sheet);
    stroke-width: calc(var(--letter) / 4);
    stroke-linejoin: round;
  }
  path {
    fill: none;
    stroke: var(--ash-edge);
    stroke-width: 1.2;
  }
  .case {
    fill: var(--ash-channel);
  }
  .board {
    fill: var(--ash-well);
    stroke: var(--ash-ink);
  }
  .gold {
    fill: var(--ash-caution);
    stroke: none;
  }
  .chip {
    fill: var(--ash-sheet);
  }
  .pad {
    fill: var(--ash-band);
    fill-opacity: 0.35;
    stroke: var(--ash-band);
    stroke-width: 2;
  }
  .metal {
    fill: var(--ash-line);
  }
  .ghost {
    stroke-dasharray: 4 3;
  }
  .move {
    stroke: var(--ash-note);
    stroke-width: 2;
  }
  .right {
    stroke: var(--ash-pass);
    stroke-width: 2.6;
  }
  .wrong {
    stroke: var(--ash-fail);
    stroke-width: 2.6;
  }
  .mark {
    fill: var(--ash-note);
    stroke: var(--ash-note);
    stroke-width: 2;
  }
  path.mark {
    fill-opacity: 0.25;
  }
  summary {
    font-size: var(--ash-text-small);
    color: var(--ash-soft);
    cursor: pointer;
  }
</style>
