<script lang="ts">
  /** Pages of a long table, as links, so that an address shows the same rows to everyone. */
  let { total, page, size, href }: { total: number; page: number; size: number; href: (page: number) => string } =
    $props();
  const last = $derived(Math.max(1, Math.ceil(total / size)));
</script>

{#if total > 0}
  <nav aria-label="Pages of the table" class="no-print">
    <span class="quiet small">{(page - 1) * size + 1} to {Math.min(total, page * size)} of {total}</span>
    {#if last > 1}
      {#if page > 1}<a href={href(page - 1)} rel="prev">← Previous</a>{/if}
      <span class="small">Page {page} of {last}</span>
      {#if page < last}<a href={href(page + 1)} rel="next">Next →</a>{/if}
    {/if}
  </nav>
{/if}

<style>
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 14px;
    padding: 10px 0;
  }
</style>
