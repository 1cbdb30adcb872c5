<script lang="ts">
  import { saveAs } from '$lib/ui/common/save-as';
  import { Button } from 'carbon-components-svelte';
  import { assemble } from '#core/build/assemble';
  import { cutPlan, cutPieces, partRejected } from '#core/pads/cutting/cut';
  import { isDoubleSided } from '#core/parts/fill/drive';
  import { planPads } from '#core/pads/plan-pads';
  import Wide from '$lib/ui/common/Wide.svelte';
  import { templateOf } from '$lib/ui/geometry/template';
  import CutList from '$lib/ui/pads/CutList.svelte';
  import CutSteps from '$lib/ui/pads/CutSteps.svelte';
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
        <CutList {pieces} {sheets} />
        <CutSteps />
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
