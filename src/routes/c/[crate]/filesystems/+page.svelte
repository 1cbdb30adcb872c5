<script lang="ts">
  import { page } from '$app/state';
  import { Search } from 'carbon-components-svelte';
  import { OS_LABEL } from '#core/facts/filesystems';
  import { filesystemMatrix, findInMatrix } from '#core/format/matrix';
  import { accessOf } from '#core/filesystem/access';
  import Matrix from '$lib/ui/format/Matrix.svelte';

  let { data } = $props();
  let find = $state(page.url.searchParams.get('find') ?? '');
  const rows = filesystemMatrix();
  const found = $derived(findInMatrix(rows, find));
  const own = $derived(new Set(data.computers.map(({ os }) => os.family)));
</script>

<svelte:head><title>Filesystems · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Filesystems and systems</h1>
      <p class="quiet">
        What each system does with each of them, from which version on. Systems of this crate are marked.
      </p>
    </div>
    <div class="find">
      <Search
        size="sm"
        labelText="Find a filesystem, a system or a word"
        placeholder="exFAT, Linux, checksums"
        bind:value={find}
      />
    </div>
  </div>
  {#if found.rows.length === 0}
    <p class="quiet">Nothing here speaks of that.</p>
  {:else}
    <Matrix rows={found.rows} systems={found.systems} {own} />
  {/if}
  {#if data.computers.length > 0}
    <h2>The computers of this crate</h2>
    <ul>
      {#each data.computers as { name, os }, i (i)}
        <li>
          <strong>{name}</strong>
          {OS_LABEL[os.family]}{os.version ? ` ${os.version}` : ''}: writes {rows
            .filter(({ filesystem }) => {
              const { can, old } = accessOf(filesystem, os);
              return can === 'writes' && !old;
            })
            .map(({ label }) => label)
            .join(', ') || 'nothing here'}
        </li>
      {/each}
    </ul>
  {/if}
  <p class="small quiet">
    Sources: release notes and manuals of the systems, the published specifications of exFAT and FAT, and the manuals of
    the Linux filesystems. Versions of Linux are versions of its kernel. TVs, cars, cameras and routers differ by maker:
    look into the manual, and try it with a small drive.
  </p>
</div>

<style>
  .find {
    width: 300px;
  }
  h2 {
    margin-top: 18px;
  }
  li {
    padding: 2px 0;
  }
</style>
