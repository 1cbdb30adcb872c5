<script lang="ts">
  import { Button, Checkbox, Select, SelectItem } from 'carbon-components-svelte';
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { queryOf } from '$lib/client/address';
  import { compareHref, MOST_COLUMNS, namedApart, columnKeys, columnOf } from '$lib/ui/compare/laid';
  import SideBySide from '$lib/ui/compare/SideBySide.svelte';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}`);
  let keys = $state.raw(columnKeys(queryOf(page.url)));
  let differing = $state(false);
  const columns = $derived(namedApart(keys.map((key) => columnOf(data.library, data.builds, home, key))));
  const others = $derived(data.builds.filter(({ tag }) => !keys.includes(tag)));

  function lay(next: string[]): void {
    keys = next;
    replaceState(compareHref(home, next), {});
  }
</script>

<svelte:head><title>Side by side · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Side by side</h1>
      <p class="quiet">Two to four plans, line by line, from their parts as they are now.</p>
    </div>
    {#if columns.length > 1}<Checkbox labelText="Only what differs" bind:checked={differing} />{/if}
    {#if keys.length < MOST_COLUMNS && others.length > 0}
      <div class="add no-print">
        <Select
          size="sm"
          labelText="Lay beside it"
          selected=""
          on:update={(e) => {
            if (e.detail) lay([...keys, String(e.detail)]);
          }}
        >
          <SelectItem value="" text="choose a build" />
          {#each others as build (build.tag)}<SelectItem value={build.tag} text="{build.tag} {build.name}" />{/each}
        </Select>
      </div>
    {/if}
    <Button class="no-print" kind="ghost" size="small" on:click={() => print()}>Print</Button>
  </div>
  {#if columns.length === 0}
    <div class="empty">
      <h2>Nothing is laid out yet</h2>
      <p>
        Choose a build above, tick some among the <a href="{home}/builds">builds</a>, or press “Compare” in
        <a href="{home}/pair">Pair</a>.
      </p>
    </div>
  {:else}
    {#if columns.length === 1}<p class="quiet">
        Lay a second one beside it: the better one is marked line by line.
      </p>{/if}
    <SideBySide {columns} {differing} onremove={(key) => lay(keys.filter((one) => one !== key))} />
  {/if}
</div>

<style>
  .add {
    width: 260px;
  }
</style>
