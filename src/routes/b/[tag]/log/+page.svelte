<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import When from '$lib/ui/common/When.svelte';

  let { data } = $props();
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
        {#each data.events as event (event.seq)}
          <tr>
            <td class="figure"><When at={event.at} /></td>
            <td>{event.message}</td>
            <td class="quiet">{event.by}</td>
          </tr>
        {/each}
      </tbody>
    </table></Wide
  >
</div>
