<script lang="ts">
  import { figure, quantity } from '#core/quantities/format';
  import type { cutPieces, cutPlan } from '#core/pads/cutting/cut';
  import Figure from '../common/Figure.svelte';
  import Wide from '../common/Wide.svelte';

  /** The pieces that are cut, and out of which pads. */
  let { pieces, sheets }: { pieces: ReturnType<typeof cutPieces>; sheets: ReturnType<typeof cutPlan> } = $props();
</script>

<h2>Pieces</h2>
<Wide label="Pieces">
  <table class="plain-table">
    <thead
      ><tr><th scope="col">Piece</th><th scope="col">Pad</th><th scope="col" class="number">Length × width</th></tr
      ></thead
    >
    <tbody>
      {#each pieces as piece, i (i)}
        <tr>
          <td>{piece.label}</td>
          <td>{piece.pad.name}, {piece.pad.thicknessMm}&#8239;mm</td>
          <td class="number"><Figure value="{figure(piece.lengthMm)} × {figure(piece.widthMm)}" unit="mm" /></td>
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>
<h2>Pads</h2>
{#each sheets as { pad, packing, sheet, pieces: own } (pad.key)}
  <p class="pad">
    <strong>{pad.name}</strong>, {figure(sheet.lengthMm)} × {figure(sheet.widthMm)}&#8239;mm{pad.from === 'box'
      ? ', from the box'
      : pad.from === 'shop'
        ? ', to buy (a common size)'
        : ''}: {packing.sheets.length}
    {packing.sheets.length === 1 ? 'pad' : 'pads'} for {own.length - packing.left.length}
    {own.length - packing.left.length === 1 ? 'piece' : 'pieces'}. Waste {quantity(
      packing.wasteMm2,
      'mm²'
    )}{packing.exact
      ? ', the least there is with straight cuts'
      : `; no cutting goes below ${quantity(packing.wasteAtLeastMm2, 'mm²')}`}.
    {#if packing.left.length > 0}
      <span class="missing"
        >{packing.left.map((i) => own[i]!.label).join(', ')}: no room on the pads at hand ({pad.quantity}
        {pad.quantity === 1 ? 'piece' : 'pieces'} of {figure(sheet.lengthMm)} × {figure(sheet.widthMm)}&#8239;mm).</span
      >
    {/if}
  </p>
{/each}

<style>
  h2 {
    margin: 16px 0 6px;
  }
  h2:first-child {
    margin-top: 0;
  }
  .pad {
    margin-bottom: 8px;
  }
  .missing {
    color: var(--ash-fail);
    font-weight: 600;
  }
</style>
