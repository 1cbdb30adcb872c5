<script lang="ts">
  import { page } from '$app/state';
  import { listAddress } from '$lib/client/list-address';
  import FindBox from '$lib/ui/common/FindBox.svelte';
  import Pages from '$lib/ui/common/Pages.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import { foldTicks } from '$lib/ui/common/fold-ticks';
  import When from '$lib/ui/common/When.svelte';

  let { data } = $props();
  const list = listAddress(() => page.url);
  const lines = $derived(foldTicks(data.events));
</script>

<svelte:head><title>{data.build.tag} Log · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Log</h1>
      <p class="quiet">What happened to this build, newest first. Nothing is ever removed from it.</p>
    </div>
    <FindBox
      label="Find in the log"
      placeholder="What happened, who did it"
      value={data.query.find}
      onlook={list.look}
    />
  </div>
  <Wide label="Log"
    ><table class="plain-table">
      <thead><tr><th scope="col">When</th><th scope="col">What</th><th scope="col">By</th></tr></thead>
      <tbody>
        {#each lines as { first, folded } (first.seq)}
          <tr>
            <td class="figure"><When at={first.at} /></td>
            <td>
              {#if folded.length === 0}{first.message}{:else}
                <details>
                  <summary>{folded.length + 1} entries on the run sheet, the last one: {first.message}</summary>
                  {#each folded as event (event.seq)}<p class="small">{event.message}</p>{/each}
                </details>
              {/if}
            </td>
            <td class="quiet">{first.by}</td>
          </tr>
        {/each}
      </tbody>
    </table></Wide
  >
  {#if data.total === 0 && data.query.find}<p class="quiet">Nothing in this log matches “{data.query.find}”.</p>{/if}
  <Pages total={data.total} page={data.query.page} size={data.query.size} href={list.pageHref} />
</div>

<style>
  summary {
    cursor: pointer;
  }
</style>
