<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import { day } from '#core/quantities/format';

  let { data } = $props();
</script>

<svelte:head><title>Known combinations · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <h1>Known combinations</h1>
  <p class="quiet">
    What is known of a drive model behind a bridge. A bad pair makes every plan with it a check, with its reason. They
    are noted on the page of the drive or of the enclosure.
  </p>
  {#if data.pairs.length === 0}
    <div class="empty">
      <h2>Nothing noted yet</h2>
      <p>When a drive drops out behind a bridge, or has run a year behind it: that is worth a line.</p>
    </div>
  {:else}
    <Wide label="Known combinations"
      ><table class="plain-table">
        <thead><tr><th>Drive</th><th>Bridge</th><th>Verdict</th><th>Reason</th><th>Source</th><th>Date</th></tr></thead>
        <tbody>
          {#each data.pairs as { id, pair } (id)}
            <tr>
              <td><a href="/c/{data.crate.slug}/crate/drive/{pair.driveId}?tab=pairs">{pair.drive}</a></td>
              <td>{pair.bridge}</td>
              <td class={pair.verdict}>{pair.verdict === 'bad' ? '✕ gives trouble' : '✓ works well'}</td>
              <td>{pair.reason}</td>
              <td>{pair.source ?? '–'}</td>
              <td>{pair.date ? day(pair.date) : '–'}</td>
            </tr>
          {/each}
        </tbody>
      </table></Wide
    >
  {/if}
</div>

<style>
  p {
    max-width: 46rem;
    margin: 6px 0 16px;
  }
  .bad {
    color: var(--ash-fail);
    font-weight: 600;
  }
  .good {
    color: var(--ash-pass);
    font-weight: 600;
  }
</style>
