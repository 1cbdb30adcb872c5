<script lang="ts">
  import type { ComponentProps } from 'svelte';
  import AddItems from '../../items/AddItems.svelte';
  import ItemTable from '../../items/ItemTable.svelte';

  /** The items of a part: those there are, and more of them. */
  let {
    rows,
    home,
    modelId,
    today,
    busy,
    onadd
  }: {
    rows: ComponentProps<typeof ItemTable>['rows'];
    home: string;
    modelId: string;
    today: string;
    busy: boolean;
    onadd: ComponentProps<typeof AddItems>['onadd'];
  } = $props();
</script>

<AddItems {busy} {onadd} />
{#if rows.length === 0}<p class="quiet">No item yet. Each gets a tag of its own, for a label.</p>
{:else}
  <ItemTable {rows} {home} {today} model={false} />
  <p class="small"><a href="{home}/labels?model={modelId}">Labels for these</a></p>
{/if}
