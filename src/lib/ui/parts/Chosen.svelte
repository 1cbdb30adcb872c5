<script lang="ts">
  import { Button } from 'carbon-components-svelte';

  /** What can be done with the parts that are chosen. */
  let {
    count,
    busy,
    onedit,
    onduplicate,
    ondelete,
    onnone
  }: {
    count: number;
    busy: boolean;
    onedit: () => void;
    onduplicate: () => void;
    ondelete: () => void;
    onnone: () => void;
  } = $props();
</script>

<div class="bulk no-print" role="region" aria-label="What to do with the chosen parts">
  <strong>{count} chosen</strong>
  <Button size="small" kind="tertiary" on:click={onedit}>Change a field</Button>
  <Button size="small" kind="tertiary" on:click={onduplicate}>Duplicate</Button>
  <Button size="small" kind="danger-tertiary" disabled={busy} on:click={ondelete}>Delete</Button>
  <Button size="small" kind="ghost" on:click={onnone}>Choose none</Button>
</div>

<style>
  .bulk {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
    padding: 6px 10px;
    background: var(--ash-ember-wash);
  }
</style>
