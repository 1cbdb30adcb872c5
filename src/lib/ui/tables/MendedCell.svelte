<script lang="ts">
  import { Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import type { ImportPreview } from './preview';

  /** A cell of a file that can be put right where it stands: typed, or picked where the column has choices. */
  let {
    column,
    row,
    value,
    error,
    onmend
  }: {
    column: ImportPreview['columns'][number];
    row: number;
    value: string;
    error: string | undefined;
    onmend: (cell: string) => void;
  } = $props();
  const label = $derived(`${column.title}, row ${row}`);
  const picks = $derived(column.choices && !value.includes(';') ? column.choices : undefined);
</script>

<div class="mend">
  {#if picks}
    <Select
      size="sm"
      hideLabel
      labelText={label}
      selected={picks.includes(value) ? value : ''}
      invalid={error !== undefined}
      invalidText={error ?? ''}
      on:update={(e) => onmend(String(e.detail ?? ''))}
    >
      <SelectItem value="" text={picks.includes(value) || !value ? '–' : `“${value.slice(0, 40)}”`} />
      {#each picks as choice (choice)}<SelectItem value={choice} text={choice} />{/each}
    </Select>
  {:else}
    <TextInput
      size="sm"
      hideLabel
      labelText={label}
      {value}
      invalid={error !== undefined}
      invalidText={error ?? ''}
      on:change={(e) => onmend(String(e.detail ?? ''))}
    />
  {/if}
</div>

<style>
  .mend {
    min-width: 150px;
  }
</style>
