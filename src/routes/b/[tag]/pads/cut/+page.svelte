<script lang="ts">
  import { saveAs } from '$lib/ui/common/save-as';
  import { Button } from 'carbon-components-svelte';
  import { assemble } from '#core/build/assemble';
  import { figure, quantity } from '#core/quantities/format';
  import { cutPlan, cutPieces, partRejected } from '#core/pads/cutting/cut';
  import { isDoubleSided } from '#core/parts/fill/drive';
  import { planPads } from '#core/pads/plan-pads';
  import Figure from '$lib/ui/common/Figure.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import { templateOf } from '$lib/ui/geometry/template';
  import Rejected from '$lib/ui/pads/Rejected.svelte';
  import CuttingTemplate from '$lib/ui/pads/CuttingTemplate.svelte';

  let { data } = $props();
  const assembled = $derived(assemble(data.library, data.build.choice));
  const input = $derived(assembled.ok ? assembled.input : data.build.snapshot);
  const laid = $derived(
    planPads({
      drive: input.drive,
      doubleSided: isDoubleSided(input.drive),
      enclosure: input.enclosure,
      pads: input.pads,
      chosen: data.build.choice.stack,
      rules: data.crate.houseRules
    })
  );
  const parted = $derived(partRejected(laid.filled));
  const pieces = $derived(
    laid.board ? cutPieces(laid.board, parted.cut, data.crate.houseRules.pieces === 'sheet') : []
  );
  const sheets = $derived(cutPlan(pieces));
  const template = $derived(laid.board ? templateOf(sheets, pieces, laid.board) : null);
  let drawing = $state<SVGSVGElement>();

  function save(): void {
    if (!drawing) return;
    const copy = drawing.cloneNode(true) as SVGSVGElement;
    copy.setAttribute('color', 'black');
    copy.removeAttribute('class');
    saveAs(
      `${data.build.tag} cutting template.svg`,
      'image/svg+xml',
      `<?xml version="1.0" encoding="UTF-8"?>\n${copy.outerHTML}`
    );
  }
  const STEPS = [
    ['Unplug everything', 'No cable connected; discharge yourself on bare metal; hold the module by its edges.'],
    ['Print and check', 'Print at 100 %, never “fit to page”, and hold a ruler against the 50 mm bar.'],
    [
      'Cut with the liners on',
      'A sharp blade along a ruler, from edge to edge; the band first, then the pieces out of it.'
    ],
    ['Dry fit', 'Lay the pieces on with both liners, close the case without force, and open it again.'],
    [
      'Look at the imprint',
      'An even imprint on both faces of every pad. None at a chip: the gap is wider; note it under Board and pads.'
    ],
    [
      'Peel both liners',
      'One from each face, at the end; a liner that stays in is an air gap. Touch the pads at their edges only.'
    ],
    ['Close it', 'Screws snug, not tight; the lid even all round. Never press a lid shut.']
  ] as const;
</script>

<svelte:head><title>{data.build.tag} Cut plan · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Cut plan</h1>
      <p class="quiet">
        {input.drive.name} in {input.enclosure.name}{data.build.choice.stack
          ? ', pads as kept'
          : ', pads as the program chooses them'}.
      </p>
    </div>
    {#if template && pieces.length > 0}
      <Button class="no-print" size="small" on:click={() => print()}>Print at true size</Button>
      <Button class="no-print" size="small" kind="tertiary" on:click={save}>Save as SVG</Button>
    {/if}
  </div>

  <Rejected rejected={parted.rejected} buyHref="/b/{data.build.tag}/buy" />

  {#if !template || pieces.length === 0}
    <div class="empty">
      <h2>Nothing to cut</h2>
      <p>
        {parted.rejected.length > 0
          ? 'Of the pads at hand none fits these gaps. With the right ones, or another gap measured, the template is drawn.'
          : laid.board
            ? 'No pad is chosen for this board, or the enclosure states no room over it. Both are settled under Board and pads.'
            : 'Only M.2 modules take pads.'}
      </p>
    </div>
  {:else}
    <div class="columns">
      <section class="paper">
        <Wide label="Cutting template"><CuttingTemplate {template} bind:element={drawing} /></Wide>
      </section>
      <section class="no-print">
        <h2>Pieces</h2>
        <Wide label="Pieces">
          <table class="plain-table">
            <thead
              ><tr
                ><th scope="col">Piece</th><th scope="col">Pad</th><th scope="col" class="number">Length × width</th
                ></tr
              ></thead
            >
            <tbody>
              {#each pieces as piece, i (i)}
                <tr>
                  <td>{piece.label}</td>
                  <td>{piece.pad.name}, {piece.pad.thicknessMm}&#8239;mm</td>
                  <td class="number"><Figure value="{figure(piece.lengthMm)} × {figure(piece.widthMm)}" unit="mm" /></td
                  >
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
                {pad.quantity === 1 ? 'piece' : 'pieces'} of {figure(sheet.lengthMm)} × {figure(
                  sheet.widthMm
                )}&#8239;mm).</span
              >
            {/if}
          </p>
        {/each}
        <h2>In this order</h2>
        <ol>
          {#each STEPS as [what, how] (what)}<li><strong>{what}.</strong> {how}</li>{/each}
        </ol>
        <p class="small quiet">
          Dashed: the straight cut that leaves the rest of the pad whole. Pads that carry a warning of the maker are
          worked with as it says; a metal label stays on the drive, and a warranty may hang on any label.
        </p>
      </section>
    </div>
  {/if}
</div>

<style>
  .columns {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 400px;
    gap: 28px;
  }
  .paper {
    min-width: 0;
  }
  h2 {
    margin: 0 0 6px;
  }
  .columns :global(.wide + h2),
  .pad + h2 {
    margin-top: 16px;
  }
  .pad {
    margin-bottom: 8px;
  }
  .missing {
    color: var(--ash-fail);
    font-weight: 600;
  }
  li {
    margin: 0 0 6px 1.3em;
    list-style: decimal;
  }
  @media (max-width: 1100px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
  @media print {
    .columns {
      display: block;
    }
  }
</style>
