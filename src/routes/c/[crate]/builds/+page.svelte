<script lang="ts">
  import { Button, Search } from 'carbon-components-svelte';
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { queryOf } from '$lib/client/address';
  import { compareHref } from '$lib/ui/compare/laid';
  import BuildTable from '$lib/ui/builds/BuildTable.svelte';
  import { listedBuilds } from '$lib/ui/builds/list';

  let { data } = $props();
  /** Builds that are ticked to be laid side by side. */
  let ticked = $state.raw<string[]>([]);
  const asked = queryOf(page.url);
  let sort = $state(asked.get('sort') ?? 'tag');
  let down = $state(asked.get('down') === 'yes');
  let find = $state(asked.get('find') ?? '');

  const shown = $derived(listedBuilds(data.builds, { find, sort, down }));

  function keep(): void {
    const query = new URLSearchParams();
    if (sort !== 'tag') query.set('sort', sort);
    if (down) query.set('down', 'yes');
    if (find) query.set('find', find);
    replaceState(`?${query}`, {});
  }
  function sortBy(key: string): void {
    down = sort === key ? !down : false;
    sort = key;
    keep();
  }
</script>

<svelte:head><title>Builds · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Builds</h1>
      <p class="quiet">
        {data.builds.length}
        {data.builds.length === 1 ? 'build' : 'builds'}; hatching is the forecast of the write, the solid line what was
        measured.
      </p>
    </div>
    <div class="find">
      <Search
        size="sm"
        labelText="Find builds"
        placeholder="Name, tag, part, stage"
        bind:value={find}
        on:input={keep}
        on:clear={keep}
      />
    </div>
    {#if ticked.length > 0}<Button
        kind="tertiary"
        size="field"
        href={compareHref(`/c/${data.crate.slug}`, ticked)}
        disabled={ticked.length < 2}
        >{ticked.length < 2 ? 'Tick a second one' : `Compare these ${ticked.length}`}</Button
      >{/if}
    <Button href="/c/{data.crate.slug}/pair" size="field">Pair a new build</Button>
  </div>

  {#if data.builds.length === 0}
    <div class="empty">
      <h2>No builds yet</h2>
      <p>
        A build is a computer’s port, a cable, an enclosure and a drive that belong together, with the plan made from
        them.
      </p>
      <p><a href="/c/{data.crate.slug}/pair">Pair the first one</a></p>
    </div>
  {:else}
    <BuildTable
      builds={shown}
      {sort}
      {down}
      {ticked}
      onsort={sortBy}
      ontick={(tag, on) => (ticked = on ? [...ticked, tag] : ticked.filter((one) => one !== tag))}
    />
    {#if shown.length === 0}<p class="quiet">No build matches “{find}”.</p>{/if}
  {/if}
</div>

<style>
  .find {
    width: 260px;
  }
</style>
