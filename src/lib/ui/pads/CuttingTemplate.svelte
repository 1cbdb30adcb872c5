<script lang="ts">
  import type { Template } from '../geometry/template';

  let { template, element = $bindable() }: { template: Template; element?: SVGSVGElement | undefined } = $props();
  /** As large as fits into the piece, down to what can still be read. */
  const sizeFor = (width: number, text: string) => Math.max(1, Math.min(2.4, (width - 1) / (text.length * 0.72)));
</script>

<!-- Colours are written as attributes, so that the file that is saved looks the same everywhere. -->
<svg
  bind:this={element}
  xmlns="http://www.w3.org/2000/svg"
  width="{template.width}mm"
  height="{template.height}mm"
  viewBox="-0.5 -0.5 {template.width} {template.height}"
  role="img"
  aria-label="Cutting template at true size"
  font-family="sans-serif"
>
  {#each template.items as item, i (i)}
    {#if item.kind === 'check'}
      <path
        id="check-bar"
        d="M{item.x} {item.y}h{item.length}M{item.x} {item.y - 2}v4M{item.x + item.length} {item.y - 2}v4"
        fill="none"
        stroke="currentColor"
        stroke-width="0.3"
      />
      <text x={item.x + item.length / 2} y={item.y - 1} font-size="2.6" text-anchor="middle" fill="currentColor"
        >{item.length} mm: hold a ruler against it</text
      >
    {:else if item.kind === 'pad' || item.kind === 'board'}
      <text x={item.x} y={item.y - 1.2} font-size="2.8" fill="currentColor">{item.title}</text>
      <rect
        x={item.x}
        y={item.y}
        width={item.width}
        height={item.height}
        fill="none"
        stroke="currentColor"
        stroke-width="0.25"
      />
    {:else if item.kind === 'band'}
      <line
        x1={item.x1}
        y1={item.y1}
        x2={item.x2}
        y2={item.y2}
        stroke="currentColor"
        stroke-width="0.2"
        stroke-dasharray="2 1"
      />
    {:else}
      <rect
        class="piece"
        x={item.x}
        y={item.y}
        width={item.width}
        height={item.height}
        fill="currentColor"
        fill-opacity="0.08"
        stroke="currentColor"
        stroke-width="0.3"
      />
      <text
        x={item.x + item.width / 2}
        y={item.y + item.height / 2}
        font-size={sizeFor(item.width, item.text)}
        text-anchor="middle"
        fill="currentColor">{item.text}</text
      >
      <text
        x={item.x + item.width / 2}
        y={item.y + item.height / 2 + 3}
        font-size="2.1"
        text-anchor="middle"
        fill="currentColor">{item.size}</text
      >
    {/if}
  {/each}
</svg>

<style>
  svg {
    display: block;
    max-width: none;
    text-rendering: geometricPrecision;
    color: var(--ash-ink);
  }
  @media print {
    svg {
      color: var(--ash-print-ink);
      break-inside: avoid;
    }
  }
</style>
