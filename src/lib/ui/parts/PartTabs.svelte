<script lang="ts">
  type Entry = { id: string; label: string; count?: number };
  /** What there is to say about a part, a page each. */
  let { tabs, here, hrefOf }: { tabs: readonly Entry[]; here: string; hrefOf: (id: string) => string } = $props();
</script>

<nav class="tabs no-print" aria-label="About this part">
  {#each tabs as entry (entry.id)}
    <a href={hrefOf(entry.id)} aria-current={here === entry.id ? 'page' : undefined}
      >{entry.label}{#if entry.count !== undefined}<span class="small quiet">&nbsp;{entry.count}</span>{/if}</a
    >
  {/each}
</nav>

<style>
  .tabs {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
    margin-bottom: 14px;
    border-bottom: 1px solid var(--ash-edge);
  }
  .tabs a {
    padding: 7px 12px;
    color: var(--ash-ink);
    text-decoration: none;
  }
  .tabs a[aria-current] {
    font-weight: 700;
    box-shadow: inset 0 -3px 0 var(--ash-ink);
  }
</style>
