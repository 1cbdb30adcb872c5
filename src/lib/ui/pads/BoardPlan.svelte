<script lang="ts">
  import { M2_CONNECTOR_MM, M2_NOTCH_RADIUS_MM } from '#core/facts/m2';
  import type { BoardProblem, Component, Side } from '#core/pads/board';
  import type { StackRow } from '#core/pads/plan-pads';
  import { chipWords, moved, ROLE_WORD, VERDICT_MARKS } from '../geometry/pads';

  type Props = {
    board: { lengthMm: number; widthMm: number };
    chips: readonly Component[];
    rows: readonly StackRow[];
    problems: readonly BoardProblem[];
    side: Side;
    selected: number | null;
    onselect: (index: number) => void;
    onchange: (index: number, chip: Component) => void;
    onremove: (index: number) => void;
  };
  let { board, chips, rows, problems, side, selected, onselect, onchange, onremove }: Props = $props();
  let drawing = $state<SVGSVGElement>();
  let drag = $state<{ index: number; x: number; y: number; from: Component } | null>(null);

  const STEP_MM = 0.5;
  const FINE_MM = 0.1;
  const ARROWS: Record<string, readonly [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1]
  };

  /** Where the pointer is, in mm of the board. */
  function at(event: PointerEvent): { x: number; y: number } {
    const matrix = drawing!.getScreenCTM()!.inverse();
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return { x: point.x, y: point.y };
  }
  function grab(event: PointerEvent, index: number): void {
    onselect(index);
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    drag = { index, ...at(event), from: chips[index]! };
  }
  function pull(event: PointerEvent): void {
    if (!drag) return;
    const { x, y } = at(event);
    const snap = (mm: number) => Math.round(mm / STEP_MM) * STEP_MM;
    onchange(drag.index, moved(drag.from, snap(x - drag.x), snap(y - drag.y), board));
  }
  function key(event: KeyboardEvent, index: number): void {
    const arrow = ARROWS[event.key];
    if (arrow) {
      event.preventDefault();
      const step = event.shiftKey ? FINE_MM : STEP_MM;
      onselect(index);
      onchange(index, moved(chips[index]!, arrow[0] * step, arrow[1] * step, board));
    } else if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      onselect(index);
    } else if (event.key === 'Delete') onremove(index);
  }
  const shown = $derived(chips.map((chip, index) => ({ chip, index })).filter(({ chip }) => chip.side === side));
  const rowOf = (index: number) => rows.find((row) => row.component === index);
  const wrong = $derived(new Set(problems.map((problem) => problem.chip)));
  const markOf = (index: number) => {
    const row = rowOf(index);
    return wrong.has(index) ? 'fail' : row ? VERDICT_MARKS[row.verdict] : 'none';
  };
  const middle = $derived(board.widthMm / 2);
</script>

<svg
  bind:this={drawing}
  viewBox="-3.5 -1 {board.lengthMm + 7} {board.widthMm + 6}"
  role="group"
  aria-label="Board plan, {side === 'top' ? 'upper side' : 'underside, seen through the board'}"
>
  <path
    class="board"
    d="M0 0H{board.lengthMm}V{middle - M2_NOTCH_RADIUS_MM + 1}A{M2_NOTCH_RADIUS_MM - 1} {M2_NOTCH_RADIUS_MM -
      1} 0 0 0 {board.lengthMm} {middle + M2_NOTCH_RADIUS_MM - 1}V{board.widthMm}H0Z"
  />
  <rect class="edge" x="0" y="0.6" width={M2_CONNECTOR_MM - 0.8} height={board.widthMm - 1.2} />
  {#each { length: Math.floor(board.lengthMm / 10) + 1 } as _, i (i)}
    <line class="rule" x1={i * 10} x2={i * 10} y1={board.widthMm + 0.8} y2={board.widthMm + 2} />
    <text class="rule-text" x={i * 10} y={board.widthMm + 4.2} text-anchor="middle">{i * 10}</text>
  {/each}
  <text class="rule-text" x={board.lengthMm + 3.2} y={board.widthMm + 4.2} text-anchor="end">mm</text>
  {#each shown as { chip, index } (index)}
    {@const row = rowOf(index)}
    <g
      class="chip {markOf(index)}"
      class:selected={selected === index}
      tabindex="0"
      role="button"
      aria-pressed={selected === index}
      aria-label={chipWords(chip, row)}
      onpointerdown={(e) => grab(e, index)}
      onpointermove={pull}
      onpointerup={() => (drag = null)}
      onpointercancel={() => (drag = null)}
      onfocus={() => onselect(index)}
      onkeydown={(e) => key(e, index)}
    >
      <rect x={chip.xMm} y={chip.yMm} width={chip.lengthMm} height={chip.widthMm} />
      <text x={chip.xMm + chip.lengthMm / 2} y={chip.yMm + chip.widthMm / 2 - 0.3} text-anchor="middle"
        >{ROLE_WORD[chip.role]}</text
      >
      <text class="mm" x={chip.xMm + chip.lengthMm / 2} y={chip.yMm + chip.widthMm / 2 + 2.3} text-anchor="middle"
        >{chip.heightMm.toFixed(2).replace(/0$/, '')} mm</text
      >
    </g>
  {/each}
</svg>

<style>
  svg {
    display: block;
    width: 100%;
    height: auto;
    touch-action: none;
    text-rendering: geometricPrecision;
  }
  .board {
    fill: var(--ash-well);
    stroke: var(--ash-edge);
    stroke-width: 0.2;
  }
  .edge {
    fill: var(--ash-channel);
    stroke: var(--ash-edge);
    stroke-width: 0.12;
  }
  .rule {
    stroke: var(--ash-edge);
    stroke-width: 0.15;
  }
  .rule-text {
    font: 1.5px var(--ash-mono);
    fill: var(--ash-faint);
  }
  .chip {
    cursor: grab;
    outline: none;
  }
  .chip rect {
    fill: var(--ash-sheet);
    stroke: var(--ash-edge);
    stroke-width: 0.25;
  }
  .chip.pass rect {
    stroke: var(--ash-pass);
    stroke-width: 0.45;
  }
  .chip.check rect {
    stroke: var(--ash-caution);
    stroke-width: 0.45;
    stroke-dasharray: 1.2 0.5;
  }
  .chip.fail rect {
    stroke: var(--ash-fail);
    stroke-width: 0.6;
    stroke-dasharray: 0.6 0.5;
  }
  .chip.selected rect {
    fill: var(--ash-ember-wash);
  }
  .chip:focus-visible rect {
    stroke: var(--ash-ember);
    stroke-width: 0.5;
    stroke-dasharray: none;
  }
  .chip text {
    font: 600 1.75px var(--ash-font);
    fill: var(--ash-ink);
    pointer-events: none;
  }
  .chip .mm {
    font: 1.55px var(--ash-mono);
    fill: var(--ash-soft);
  }
</style>
