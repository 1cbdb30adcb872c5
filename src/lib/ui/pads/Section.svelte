<script lang="ts">
  import type { Board } from '#core/pads/board';
  import type { StackRow } from '#core/pads/plan-pads';
  import { ROLE_WORD, sectionOf, VERDICT_MARKS } from '../geometry/pads';

  type Props = {
    board: Pick<Board, 'lengthMm' | 'chips'>;
    rows: readonly StackRow[];
    room: { top: number | undefined; bottom: number | undefined };
    /** How many times as high as it is. */
    stretch: number;
    selected: number | null;
  };
  let { board, rows, room, stretch, selected }: Props = $props();
  const section = $derived(sectionOf(board, rows, room));
  const height = $derived((section.bottom - section.top) * stretch);
  const words = $derived(
    rows
      .map(
        (row) => `${ROLE_WORD[row.role as 'nand']} ${row.side}: gap ${row.gapMm} mm, ${row.verdict.replace('-', ' ')}`
      )
      .join('; ')
  );
</script>

<svg
  viewBox="-3.5 {section.top * stretch - 0.6} {board.lengthMm + 7} {height + 1.2}"
  role="img"
  aria-label="Section through lid, pads, chips, board and floor. {words}"
>
  <defs>
    <pattern id="pad-hatch" width="1.2" height="1.2" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <line x1="0" y1="0" x2="0" y2="1.2" class="hatch" />
    </pattern>
    <pattern id="wall-hatch" width="1.4" height="1.4" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
      <line x1="0" y1="0" x2="0" y2="1.4" class="wall-line" />
    </pattern>
  </defs>
  {#each section.slabs as slab, i (i)}
    <rect
      class="{slab.kind} {slab.verdict ? VERDICT_MARKS[slab.verdict] : ''}"
      class:selected={slab.component !== undefined && slab.component === selected}
      x={slab.x}
      y={slab.y * stretch}
      width={slab.width}
      height={slab.height * stretch}
    />
    {#if slab.kind === 'pad' && slab.verdict === 'over-compressed'}
      <path
        class="bulge"
        d="M{slab.x} {slab.y * stretch}q-1 {(slab.height * stretch) / 2} 0 {slab.height * stretch}M{slab.x +
          slab.width} {slab.y * stretch}q1 {(slab.height * stretch) / 2} 0 {slab.height * stretch}"
      />
    {/if}
  {/each}
</svg>

<style>
  svg {
    display: block;
    width: 100%;
    height: auto;
  }
  rect {
    stroke: var(--ash-edge);
    stroke-width: 0.12;
  }
  .lid,
  .base {
    fill: url('#wall-hatch');
  }
  .wall-line {
    stroke: var(--ash-edge);
    stroke-width: 0.35;
  }
  .board {
    fill: var(--ash-channel);
  }
  .chip {
    fill: var(--ash-soft);
    stroke: none;
  }
  .chip.selected {
    fill: var(--ash-ink);
  }
  .pad {
    fill: url('#pad-hatch');
    stroke-width: 0.3;
    stroke: var(--ash-pass);
  }
  .hatch {
    stroke: var(--ash-band);
    stroke-width: 0.5;
  }
  .pad.check {
    stroke: var(--ash-caution);
  }
  .pad.fail {
    stroke: var(--ash-fail);
  }
  .air {
    fill: none;
    stroke: var(--ash-fail);
    stroke-dasharray: 0.8 0.6;
    stroke-width: 0.25;
  }
  .bulge {
    fill: none;
    stroke: var(--ash-fail);
    stroke-width: 0.35;
  }
</style>
