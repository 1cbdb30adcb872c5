<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import { Select, SelectItem } from 'carbon-components-svelte';

  export type ImportPreview = {
    headings: string[];
    mapping: (string | null)[];
    missing: string[];
    columns: { path: string; title: string; required: boolean }[];
    counts: { new: number; changed: number; same: number; wrong: number };
    rows: {
      row: number;
      outcome: 'new' | 'changed' | 'same' | 'wrong';
      name: string;
      cells: Record<string, string>;
      errors: Record<string, string>;
    }[];
  };
  let { preview, onmap }: { preview: ImportPreview; onmap: (mapping: (string | null)[]) => void } = $props();
  const WORD = { new: 'new', changed: 'changes', same: 'is there already', wrong: 'wrong' };
  const used = $derived(
    preview.columns.filter(
      (c) => c.path !== 'name' && preview.rows.some((row) => row.cells[c.path] || row.errors[c.path])
    )
  );
</script>

{#if preview.headings.length > 0}
  <details open={preview.mapping.includes(null) || preview.missing.length > 0}>
    <summary>Columns of the file{preview.mapping.includes(null) ? ' – some are left out' : ''}</summary>
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
          on:update={(e) => {
            const next = [...preview.mapping];
            next[i] = String(e.detail ?? '') || null;
            onmap(next);
          }}
        >
          <SelectItem value="" text="leave out" />
          {#each preview.columns as column (column.path)}<SelectItem value={column.path} text={column.title} />{/each}
        </Select>
      {/each}
    </div>
  </details>
{/if}
<p>
  <strong>{preview.counts.new}</strong> new, <strong>{preview.counts.changed}</strong> changed,
  <strong>{preview.counts.same}</strong> there already, <strong>{preview.counts.wrong}</strong> wrong.
</p>
<Wide label="Rows of the file">
  <table class="plain-table">
    <thead>
      <tr
        ><th class="number">Row</th><th>Becomes</th><th>Name</th>{#each used as column (column.path)}<th
            >{column.title}</th
          >{/each}</tr
      >
    </thead>
    <tbody>
      {#each preview.rows as row (row.row)}
        <tr class={row.outcome}>
          <td class="number figure">{row.row}</td>
          <td>{WORD[row.outcome]}</td>
          <td
            >{row.name || '–'}{#if row.errors['']}<span class="error"><br />{row.errors['']}</span>{/if}</td
          >
          {#each used as column (column.path)}
            {@const error = Object.entries(row.errors).find(
              ([path]) => path === column.path || path.startsWith(`${column.path}.`)
            )?.[1]}
            <td class="cell"
              >{row.cells[column.path] ?? ''}{#if error}<span class="error"><br />{error}</span>{/if}</td
            >
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
