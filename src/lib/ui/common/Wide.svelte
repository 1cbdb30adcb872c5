<script lang="ts">
  import type { Snippet } from 'svelte';

  /** What may be wider than a phone scrolls in its own frame, which the keyboard reaches; the page never does. */
  let { label, children }: { label: string; children: Snippet } = $props();
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="wide" tabindex="0" role="region" aria-label={label}>{@render children()}</div>

<style>
  .wide {
    /* hidden labels inside stand in the page's frame otherwise and widen it */
    position: relative;
    overflow-x: auto;
  }
  @media print {
    .wide {
      overflow: visible;
    }
  }
</style>
