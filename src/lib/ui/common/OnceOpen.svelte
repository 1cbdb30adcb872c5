<script lang="ts">
  import type { Snippet } from 'svelte';

  /**
   * A dialog that is made when it is opened for the first time: most are never asked for, and what is closed would be laid out with
   * every page. From then on it stays, so that it can close as it should.
   */
  let { open, children }: { open: boolean; children: Snippet } = $props();
  let ever = $state(false);
  $effect.pre(() => {
    if (open) ever = true;
  });
</script>

{#if open || ever}{@render children()}{/if}
