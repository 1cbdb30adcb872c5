<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import { foldTicks } from '$lib/ui/common/fold-ticks';
  import When from '$lib/ui/common/When.svelte';

  let { data } = $props();
  const lines = $derived(foldTicks(data.events));
</script>

<svelte:head><title>{data.build.tag} Log · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Log</h1>
      <p class="quiet">What happened to this build, newest first. Nothing is ever removed from it.</p>
    </div>
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
</div>

<style>
  summary {
    cursor: pointer;
  }
</style>
