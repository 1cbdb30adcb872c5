<script lang="ts">
  import { NumberInput } from 'carbon-components-svelte';
  import type { Component } from '#core/pads/board';
  import type { StackChoice } from '#core/pads/choice';
  import type { StackRow } from '#core/pads/plan-pads';
  import { ROLE_WORD } from '../geometry/pads';

  type Props = {
    chips: readonly Component[];
    rows: readonly StackRow[];
    gaps: NonNullable<StackChoice['gaps']>;
    /** Sets the gap over a chip as it was measured, mm; null goes back to what the parts say. */
    onset: (component: number, mm: number | null) => void;
  };
  /** The gap between chip and lid, entered where it is measured: with a feeler gauge, or a lump of clay pressed flat. */
  let { chips, rows, gaps, onset }: Props = $props();
  const places = $derived(
    chips.flatMap((chip, at) => (chip.role === 'controller' || chip.role === 'nand' ? [{ chip, at }] : []))
  );
  const measured = (at: number) => gaps.find((gap) => gap.component === at && gap.measured)?.atLeastMm ?? null;
  const stated = (at: number) => rows.find((row) => row.component === at)?.gapMm;
</script>

<details open={rows.length === 0}>
  <summary>Measured a gap yourself?</summary>
  <p class="small quiet">
    Close the case over a pea of clay on each chip, open it, and measure how thick the clay is. What you enter here goes
    before what the parts state.
  </p>
  <div class="fields">
    {#each places as { chip, at } (at)}
      <NumberInput
        size="sm"
        hideSteppers
        allowEmpty
        min={0.05}
        max={60}
        step={0.01}
        labelText="Gap over {ROLE_WORD[chip.role as 'nand']} {at + 1}{chip.side === 'bottom' ? ', underside' : ''}, mm"
        helperText={measured(at) === null && stated(at) !== undefined ? `by the parts: ${stated(at)} mm` : ''}
        invalidText="0.05 to 60 mm"
        value={measured(at)}
        on:change={(e) => {
          const mm = e.detail;
          if (mm === null || (mm >= 0.05 && mm <= 60)) onset(at, mm);
        }}
      />
    {/each}
  </div>
</details>

<style>
  details {
    margin: 6px 0 10px;
    padding: 6px 0;
    border-top: 1px solid var(--ash-line);
    border-bottom: 1px solid var(--ash-line);
  }
  summary {
    font-weight: 600;
    cursor: pointer;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
    gap: 10px;
    padding: 8px 0;
  }
</style>
