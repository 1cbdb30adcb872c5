<script lang="ts">
  import type { Model } from '#core/parts/model';
  import SortHead from '../common/SortHead.svelte';
  import Wide from '../common/Wide.svelte';
  import type { TableColumn } from './columns';

  type Row = { id: string; version: number; spec: Model; units: number };
  /** Parts of one kind, a row each; those that are chosen are changed together. */
  let {
    label,
    rows,
    columns,
    sort,
    down,
    picked,
    hrefOf,
    onsort,
    onpick
  }: {
    label: string;
    rows: readonly Row[];
    columns: readonly TableColumn[];
    sort: string;
    down: boolean;
    picked: ReadonlyMap<string, number>;
    hrefOf: (row: Row) => string;
    onsort: (column: string) => void;
    onpick: (rows: readonly Row[], on: boolean) => void;
  } = $props();
  const all = $derived(rows.length > 0 && rows.every((row) => picked.has(row.id)));
</script>

<Wide {label}>
  <table class="plain-table">
    <thead>
      <tr>
        <th class="box no-print"
          ><input
            type="checkbox"
            aria-label="Choose all on this page"
            checked={all}
            onchange={(e) => onpick(rows, e.currentTarget.checked)}
          /></th
        >
        {#each [...columns, { id: 'units', title: 'Items', number: true }] as column (column.id)}
          <SortHead
            label={column.title}
            number={column.number}
            sorted={sort === column.id ? (down ? 'down' : 'up') : undefined}
            onsort={() => onsort(column.id)}
          />
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as row (row.id)}
        <tr>
          <td class="box no-print"
            ><input
              type="checkbox"
              aria-label="Choose {row.spec.name}"
              checked={picked.has(row.id)}
              onchange={(e) => onpick([row], e.currentTarget.checked)}
            /></td
          >
          {#each columns as column (column.id)}
            {@const cell = column.cell(row.spec)}
            <td class:number={column.number} class:figure={column.number}>
              {#if column.id === 'name'}<a href={hrefOf(row)}>{cell.text}</a>{:else}{cell.text || '–'}{/if}
            </td>
          {/each}
          <td class="number figure">{row.units}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>

<style>
  .box {
    width: 30px;
  }
  .box input {
    accent-color: var(--ash-ember);
  }
  td a {
    font-weight: 600;
  }
</style>
