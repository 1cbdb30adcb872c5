<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import { counted } from '#core/quantities/format';
  import { Select, SelectItem } from 'carbon-components-svelte';
  import MendedCell from './MendedCell.svelte';
  import type { ImportPreview, MendedCell as Mended } from './preview';

  let {
    preview,
    mended,
    onassign,
    onmend
  }: {
    preview: ImportPreview;
    mended: readonly Mended[];
    onassign: (column: number, path: string | null) => void;
    onmend: (row: number, path: string, cell: string) => void;
  } = $props();
  const WORD = { new: 'new', changed: 'changes', same: 'is there already', wrong: 'wrong' };
  const isMended = (row: number, path: string) => mended.some((m) => m.row === row && m.path === path);
  const errorOf = (errors: Record<string, string>, path: string) =>
    Object.entries(errors).find(([at]) => at === path || at.startsWith(`${path}.`))?.[1];
  const used = $derived(
    preview.columns.filter((c) =>
      preview.rows.some((row) => row.cells[c.path] || errorOf(row.errors, c.path) || isMended(row.row, c.path))
    )
  );
  // The second cell of a row is its name; there it is put right as well.
  const naming = $derived(preview.columns.find(({ path }) => path === 'name' || path === 'tag'));
  const shown = $derived(used.filter((c) => c !== naming));
</script>

{#if preview.headings.length > 0}
  <details open={preview.mapping.includes(null) || preview.missing.length > 0}>
    <summary
      >Columns of the file{preview.mapping.includes(null)
        ? ` – ${counted(preview.mapping.filter((path) => path === null).length, 'is', 'are')} left out`
        : ''}</summary
    >
    {#if preview.missing.length > 0}<p class="error">
        Needed and not in the file: {preview.missing
          .map((path) => preview.columns.find((c) => c.path === path)?.title ?? path)
          .join('; ')}.
      </p>{/if}
    <div class="map">
      {#each preview.headings as heading, i (i)}
        <Select
          size="sm"
          labelText={heading || `column ${i + 1}`}
          selected={preview.mapping[i] ?? ''}
          on:update={(e) => onassign(i, String(e.detail ?? '') || null)}
        >
          <SelectItem value="" text="leave out" />
          {#each preview.columns as column (column.path)}<SelectItem value={column.path} text={column.title} />{/each}
        </Select>
      {/each}
    </div>
  </details>
{/if}
<p role="status">
  <strong>{preview.counts.new}</strong> new, <strong>{preview.counts.changed}</strong> changed,
  <strong>{preview.counts.same}</strong> there already, <strong>{preview.counts.wrong}</strong> wrong.
  {#if preview.counts.wrong > 0}Put the wrong cells right here; the file itself stays as it is.{/if}
</p>
<Wide label="Rows of the file">
  <table class="plain-table">
    <thead>
      <tr
        ><th class="number">Row</th><th>Becomes</th><th>Name</th>{#each shown as column (column.path)}<th
            >{column.title}</th
          >{/each}</tr
      >
    </thead>
    <tbody>
      {#each preview.rows as row (row.row)}
        <tr class={row.outcome}>
          <td class="number figure">{row.row}</td>
          <td>{WORD[row.outcome]}</td>
          <td class="cell">
            {#if naming && (row.errors[naming.path] || row.errors[''] || isMended(row.row, naming.path))}
              <MendedCell
                column={naming}
                row={row.row}
                value={row.cells[naming.path] ?? ''}
                error={row.errors[naming.path] ?? row.errors['']}
                onmend={(cell) => onmend(row.row, naming.path, cell)}
              />
            {:else}{row.name || '–'}{#if row.errors['']}<span class="error"><br />{row.errors['']}</span>{/if}{/if}
          </td>
          {#each shown as column (column.path)}
            {@const error = errorOf(row.errors, column.path)}
            <td class="cell">
              {#if error || isMended(row.row, column.path)}
                <MendedCell
                  {column}
                  row={row.row}
                  value={row.cells[column.path] ?? ''}
                  {error}
                  onmend={(cell) => onmend(row.row, column.path, cell)}
                />
              {:else}{row.cells[column.path] ?? ''}{/if}
            </td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>

<style>
  .map {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
    gap: 10px 14px;
    padding: 10px 0;
  }
  summary {
    padding: 8px 0;
    font-weight: 600;
    cursor: pointer;
  }
  p {
    padding: 6px 0;
  }
  .error {
    color: var(--ash-fail);
    font-size: var(--ash-text-small);
  }
  .wrong td:nth-child(2) {
    color: var(--ash-fail);
    font-weight: 650;
  }
  .same {
    color: var(--ash-faint);
  }
  .cell {
    max-width: 280px;
    overflow-wrap: anywhere;
  }
</style>
