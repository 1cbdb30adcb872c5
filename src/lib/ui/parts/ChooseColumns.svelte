<script lang="ts">
  import { Checkbox, Modal } from 'carbon-components-svelte';
  import type { TableColumn } from './columns';
  import OnceOpen from '../common/OnceOpen.svelte';

  /** Which columns stand in a table of parts; the name always does. */
  let {
    open,
    columns,
    hidden,
    onclose,
    onshow
  }: {
    open: boolean;
    columns: readonly TableColumn[];
    hidden: readonly string[];
    onclose: () => void;
    onshow: (id: string, on: boolean) => void;
  } = $props();
</script>

<OnceOpen {open}>
  <Modal passiveModal {open} modalHeading="Columns" size="xs" on:close={onclose}>
    {#each columns.filter((c) => c.id !== 'name') as column (column.id)}
      <Checkbox
        labelText={column.title}
        checked={!hidden.includes(column.id)}
        on:check={(e) => onshow(column.id, e.detail)}
      />
    {/each}
  </Modal>
</OnceOpen>
