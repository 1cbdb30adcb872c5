<script lang="ts">
  import { buildsIn } from '$lib/client/find-builds';
  import { Button, Checkbox } from 'carbon-components-svelte';
  import { page } from '$app/state';
  import { keepAddress } from '$lib/client/address';
  import BuildPicker from '$lib/ui/common/BuildPicker.svelte';
  import { compareHref, MOST_COLUMNS, namedApart, columnKeys, columnOf } from '$lib/ui/compare/laid';
  import SideBySide from '$lib/ui/compare/SideBySide.svelte';
  import Piece from '$lib/ui/common/Piece.svelte';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}`);
  const keys = $derived(columnKeys(page.url.searchParams));
  let differing = $state(false);
  const columns = $derived(namedApart(keys.map((key) => columnOf(data.library, data.laid, home, key))));
  const others = $derived(data.others.builds.filter(({ tag }) => !keys.includes(tag)));

  const lay = (next: string[]) => void keepAddress(compareHref(home, next));
</script>

<svelte:head><title>Side by side · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Side by side</h1>
      <p class="quiet">Two to four plans, line by line, from their parts as they are now.</p>
    </div>
    {#if columns.length > 1}<Piece><Checkbox labelText="Only what differs" bind:checked={differing} /></Piece>{/if}
    {#if keys.length < MOST_COLUMNS && others.length > 0}
      <div class="add no-print">
        <Piece
          >{#key keys}
            <BuildPicker
              label="Lay beside it"
              find={buildsIn(data.crate.id)}
              builds={others}
              total={data.others.total - (data.others.builds.length - others.length)}
              none="choose a build"
              picked=""
              onpick={(build) => {
                if (build && !keys.includes(build.tag)) lay([...keys, build.tag]);
              }}
            />
          {/key}</Piece
        >
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
    <Piece><SideBySide {columns} {differing} onremove={(key) => lay(keys.filter((one) => one !== key))} /></Piece>
  {/if}
</div>

<style>
  .add {
    width: 260px;
  }
</style>
