<script lang="ts">
  import type { Snippet } from 'svelte';
  import { aKind } from '#core/parts/kinds';

  /** What a crate still needs before anything can be paired, and the ways around it. */
  let {
    home,
    missing,
    open
  }: {
    home: string;
    missing: readonly ('host' | 'enclosure' | 'drive')[];
    /** The button that opens a plan file. */
    open: Snippet;
  } = $props();
</script>

<div class="page">
  <div class="empty">
    <h1>Pair</h1>
    <p>Pairing needs at least one computer, one enclosure and one drive. Missing here:</p>
    <ol>
      {#each missing as kind (kind)}<li><a href="{home}/crate/{kind}/new">Add {aKind(kind)}</a></li>{/each}
    </ol>
    <p>Or begin with what somebody sent you:</p>
    {@render open()}
    <p>Only curious? <a href="/judge">Judge a pairing by classes</a>: nothing has to be entered.</p>
  </div>
</div>
