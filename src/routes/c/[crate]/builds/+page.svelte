<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { listAddress } from '$lib/client/list-address';
  import BeingJudged from '$lib/ui/builds/BeingJudged.svelte';
  import BuildTable from '$lib/ui/builds/BuildTable.svelte';
  import FindBox from '$lib/ui/common/FindBox.svelte';
  import Pages from '$lib/ui/common/Pages.svelte';
  import { compareHref } from '$lib/ui/compare/laid';
  import Piece from '$lib/ui/common/Piece.svelte';

  let { data } = $props();
  /** Builds that are ticked to be laid side by side. */
  let ticked = $state.raw<string[]>([]);
  const { query } = $derived(data);
  const list = listAddress(() => page.url);
  const NEXT = {
    urgent: 'where something stands in the way',
    do: 'with something to do next',
    waits: 'where nothing is to be done'
  };
</script>

<svelte:head><title>Builds · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Builds</h1>
      <p class="quiet">
        {data.all}
        {data.all === 1 ? 'build' : 'builds'}; hatching is the forecast of the write, the solid line what was measured.
      </p>
      {#if query.next}<p>
          Only those {NEXT[query.next]}. <a href={list.href({ next: '' })}>Show all builds</a>
        </p>{/if}
      <BeingJudged due={data.due} all={data.all} onagain={() => void invalidateAll()} />
    </div>
    <FindBox label="Find builds" placeholder="Name, tag, part, stage" value={query.find} onlook={list.look} />
    {#if ticked.length > 0}<Button
        kind="tertiary"
        size="field"
        href={compareHref(`/c/${data.crate.slug}`, ticked)}
        disabled={ticked.length < 2}
        >{ticked.length < 2 ? 'Tick a second one' : `Compare these ${ticked.length}`}</Button
      >{/if}
    <Button href="/c/{data.crate.slug}/pair" size="field">Pair a new build</Button>
  </div>

  {#if data.all === 0}
    <div class="empty">
      <h2>No builds yet</h2>
      <p>
        A build is a computer’s port, a cable, an enclosure and a drive that belong together, with the plan made from
        them.
      </p>
      <p><a href="/c/{data.crate.slug}/pair">Pair the first one</a></p>
    </div>
  {:else}
    <Piece
      ><BuildTable
        builds={data.builds}
        sort={query.sort}
        down={query.down}
        {ticked}
        onsort={(sort) => list.sortBy(sort, query)}
        ontick={(tag, on) => (ticked = on ? [...ticked, tag] : ticked.filter((one) => one !== tag))}
      /></Piece
    >
    {#if data.total === 0}<p class="quiet">
        {query.find ? `No build matches “${query.find}”.` : 'No build is among these just now.'}
      </p>{/if}
    <Pages total={data.total} page={query.page} size={query.size} href={list.pageHref} />
  {/if}
</div>
