<script lang="ts">
  import { Search } from 'carbon-components-svelte';
  import { page } from '$app/state';
  import { GLOSSARY } from '#core/facts/glossary';

  let { data } = $props();
  let find = $state(page.url.searchParams.get('term') ?? '');
  $effect(() => {
    find = page.url.searchParams.get('term') ?? '';
  });
  const shown = $derived(
    GLOSSARY.filter(({ term, also = [], means }) =>
      [term, ...also, means].join(' ').toLowerCase().includes(find.trim().toLowerCase())
    )
  );
</script>

<svelte:head><title>Glossary · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <h1 class="grow">Glossary</h1>
    <div class="find">
      <Search size="sm" labelText="Find a term" placeholder="Term or name on a box" bind:value={find} />
    </div>
  </div>
  <dl>
    {#each shown as { term, also, means } (term)}
      <dt id={term}>
        {term}{#if also}<span class="quiet small"> also {also.join(', ')}</span>{/if}
      </dt>
      <dd>{means}</dd>
    {/each}
  </dl>
  {#if shown.length === 0}<p class="quiet">No such term.</p>{/if}
</div>

<style>
  .find {
    width: 260px;
  }
  dl {
    max-width: 52rem;
  }
  dt {
    margin-top: 14px;
    font-weight: 650;
  }
  dd {
    margin: 2px 0 0;
  }
</style>
