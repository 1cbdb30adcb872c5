<script lang="ts">
  import { sideBySide } from '#core/answers/side-by-side';
  import Wide from '../common/Wide.svelte';
  import type { PlanColumn } from './laid';

  type Props = {
    columns: readonly PlanColumn[];
    /** Only what differs. */
    differing: boolean;
    onremove: (key: string) => void;
  };
  /** Plans in columns, the better one of each line marked, and a sentence that concludes. */
  let { columns, differing, onremove }: Props = $props();
  const laid = $derived(columns.flatMap(({ plan }) => (plan ? [plan] : [])));
  const planned = $derived(columns.filter(({ plan }) => plan));
  const result = $derived(sideBySide(laid));
  const lines = $derived(result.lines.filter((line) => !differing || line.differs));
</script>

{#if result.conclusion}<p class="conclusion" role="status"><strong>{result.conclusion}</strong></p>{/if}
{#each columns.filter(({ plan }) => !plan) as column (column.key)}
  <p class="missing">
    {column.name}: {column.missing}
    <button type="button" class="link" onclick={() => onremove(column.key)}>Take it out</button>
  </p>
{/each}
{#if laid.length > 0}
  <Wide label="Side by side">
    <table class="plain-table">
      <thead>
        <tr>
          <td></td>
          {#each planned as column (column.key)}
            <th scope="col">
              <a href={column.href}>{column.name}</a>
              <button type="button" class="link no-print" onclick={() => onremove(column.key)}
                >Take it out<span class="hidden-visually">: {column.name}</span></button
              >
            </th>
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each lines as line (line.label)}
          <tr class:differs={line.differs}>
            <th scope="row">{line.label}</th>
            {#each planned as column, i (column.key)}
              <td class:best={line.best.includes(i)}
                >{line.values[i]}{#if line.best.includes(i)}<span class="word small">better</span>{/if}</td
              >
            {/each}
          </tr>
        {:else}<tr><td colspan={planned.length + 1}>They do not differ in anything that is compared here.</td></tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{/if}

<style>
  .conclusion {
    max-width: 60rem;
    margin: 4px 0 14px;
    padding: 10px 14px;
    background: var(--ash-sheet);
    border-left: 4px solid var(--ash-ink);
    font-size: 16px;
  }
  .missing {
    color: var(--ash-fail);
  }
  thead th {
    vertical-align: bottom;
  }
  thead .link {
    display: block;
    font-weight: 400;
  }
  tbody th {
    color: var(--ash-soft);
    font-weight: 400;
    text-align: left;
  }
  .differs th {
    color: var(--ash-ink);
    font-weight: 600;
  }
  tbody th,
  tbody td {
    border-bottom: 1px solid var(--ash-line);
    font-size: var(--ash-text);
    vertical-align: baseline;
  }
  .word {
    margin-left: 8px;
  }
  .best {
    color: var(--ash-pass);
    font-weight: 600;
  }
</style>
