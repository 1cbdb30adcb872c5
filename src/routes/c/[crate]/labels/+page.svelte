<script lang="ts">
  import { page } from '$app/state';
  import { listAddress } from '$lib/client/list-address';
  import Pages from '$lib/ui/common/Pages.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import { Button, NumberInput } from 'carbon-components-svelte';

  let { data } = $props();
  /** Four by ten on A4. */
  const PER_SHEET = 40;
  let skip = $state<number | null>(0);
  const empty = $derived(Math.max(0, Math.min(PER_SHEET - 1, Math.floor(skip ?? 0))));
  const cells = $derived([...Array.from({ length: empty }, () => undefined), ...data.labels]);
  const sheets = $derived(
    Array.from({ length: Math.ceil(cells.length / PER_SHEET) }, (_, i) =>
      cells.slice(i * PER_SHEET, (i + 1) * PER_SHEET)
    )
  );
</script>

<svelte:head><title>Labels · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head no-print">
    <div class="grow">
      <h1>Labels</h1>
      <p class="quiet">
        {data.total === 1 ? 'One label' : `${data.total} labels`}, 40 on a sheet of A4 (4 × 10, each 48 × 27 mm). Print
        at true size, without margins of the printer. The code opens the item’s page on this machine’s address.
      </p>
    </div>
    <div class="skip"><NumberInput size="sm" labelText="Labels already used" min={0} max={39} bind:value={skip} /></div>
    <Button size="field" on:click={() => window.print()}>Print</Button>
  </div>
  {#if data.labels.length === 0}
    <div class="empty no-print">
      <h2>No item chosen</h2>
      <p><a href="/c/{data.crate.slug}/items">Choose items</a> in their table.</p>
    </div>
  {/if}
  {#if data.total > data.size}
    <Pages total={data.total} page={data.page} size={data.size} href={listAddress(() => page.url).pageHref} />
  {/if}
  {#each sheets as sheet, n (n)}
    <Wide label="Sheet {n + 1}">
      <div class="sheet" role="list">
        {#each sheet as label, i (i)}
          {#if label}
            <div class="label" role="listitem">
              <!-- eslint-disable-next-line svelte/no-at-html-tags -- made by this server out of an address, no text of a person in it -->
              <div class="code" role="img" aria-label="Code of {label.tag}">{@html label.svg}</div>
              <div class="words"><strong>{label.tag}</strong><span>{label.name}</span></div>
            </div>
          {:else}<div class="label used" aria-hidden="true"></div>{/if}
        {/each}
      </div>
    </Wide>
  {/each}
</div>

<style>
  .skip {
    width: 180px;
  }
  .sheet {
    display: grid;
    grid-template-columns: repeat(4, 48mm);
    grid-auto-rows: 27mm;
    gap: 0 2mm;
    width: 210mm;
    margin-bottom: 20px;
    padding: 13mm 6mm;
    background: var(--ash-print-paper);
    color: var(--ash-print-ink);
  }
  .label {
    display: flex;
    align-items: center;
    overflow: hidden;
    outline: 0.2mm dashed var(--ash-print-faint);
  }
  .code {
    flex: 0 0 25mm;
    height: 25mm;
  }
  .code :global(svg) {
    display: block;
    width: 25mm;
    height: 25mm;
  }
  .words {
    display: grid;
    gap: 1mm;
    min-width: 0;
    padding-right: 1.5mm;
    font-size: 12px;
    line-height: 1.2;
  }
  .words strong {
    font: 600 15px var(--ash-mono);
  }
  .words span {
    overflow-wrap: anywhere;
  }
  @media print {
    @page {
      size: A4;
      margin: 0 6mm;
    }
    .sheet {
      width: 198mm;
      margin: 0;
      padding: 13mm 0;
    }
    :global(.wide + .wide .sheet) {
      break-before: page;
    }
    .label {
      outline: none;
    }
  }
</style>
