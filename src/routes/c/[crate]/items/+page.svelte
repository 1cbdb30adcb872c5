<script lang="ts">
  import { buildsIn } from '$lib/client/find-builds';
  import { Button } from 'carbon-components-svelte';
  import { page } from '$app/state';
  import { listAddress } from '$lib/client/list-address';
  import { actOnUnits } from '$lib/client/item-actions';
  import Pages from '$lib/ui/common/Pages.svelte';
  import UnitActions, { type UnitAct } from '$lib/ui/items/ItemActions.svelte';
  import ItemFilters from '$lib/ui/items/ItemFilters.svelte';
  import UnitTable from '$lib/ui/items/ItemTable.svelte';
  import Piece from '$lib/ui/common/Piece.svelte';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}`);
  const list = listAddress(() => page.url);
  let picked = $state.raw<ReadonlyMap<string, number>>(new Map());
  let busy = $state(false);

  async function onact(act: UnitAct): Promise<void> {
    busy = true;
    const items = [...picked].map(([id, version]) => ({ id, version }));
    if (await actOnUnits(data.crate.id, items, act)) picked = new Map();
    busy = false;
  }
</script>

<svelte:head><title>Items · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Items</h1>
      <p class="quiet">Every physical thing, by its tag: where it is, who has it, which build it is in.</p>
    </div>
    <Button href="{home}/find" kind="tertiary" size="field">Find by tag</Button>
    <Button href="{home}/labels{page.url.search}" kind="tertiary" size="field">Labels</Button>
  </div>
  <Piece><ItemFilters query={data.query} onset={(set) => list.show(set)} /></Piece>
  {#if picked.size > 0}
    <div class="bulk" role="region" aria-label="What to do with the chosen items">
      <strong>{picked.size} chosen</strong>
      <UnitActions
        count={picked.size}
        lent={data.rows.filter((row) => picked.has(row.id) && row.unit.custodian !== undefined).length}
        find={buildsIn(data.crate.id)}
        builds={data.builds}
        {busy}
        {onact}
      />
      <a class="no-print" href="{home}/labels?ids={[...picked.keys()].join(',')}">Labels</a>
      <Button size="small" kind="ghost" on:click={() => (picked = new Map())}>Choose none</Button>
    </div>
  {/if}
  {#if data.total === 0}
    <div class="empty">
      <h2>No item here</h2>
      <p>Items are added on the page of their part. <a href="{home}/items">Show all items</a></p>
    </div>
  {:else}
    <Piece
      ><UnitTable
        rows={data.rows}
        {home}
        today={data.today}
        {picked}
        onpick={(row, on) => {
          const next = new Map(picked);
          if (on) next.set(row.id, row.version);
          else next.delete(row.id);
          picked = next;
        }}
        sorting={{
          by: data.query.sort,
          down: data.query.down,
          onsort: (by) => list.sortBy(by, data.query)
        }}
      /></Piece
    >
    <Pages total={data.total} page={data.query.page} size={data.query.size} href={list.pageHref} />
    <p class="small no-print">
      <a href="/api/crates/{data.crate.id}/export?what=units&format=csv" download>CSV of all items</a>
    </p>
  {/if}
</div>

<style>
  .bulk {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px 14px;
    padding: 6px 10px;
    background: var(--ash-ember-wash);
  }
</style>
