<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import { day } from '#core/quantities/format';
  import type { UnitState } from '#core/parts/item';
  import SortHead from '$lib/ui/common/SortHead.svelte';

  type Row = {
    id: string;
    version: number;
    unit: { tag: string; state: UnitState; serial?: string; location?: string; custodian?: string; dueBack?: string };
    model: { id: string; name: string; kind: string };
    build?: { tag: string; name: string };
  };
  type Props = {
    rows: readonly Row[];
    home: string;
    today: string;
    /** With these the table sorts and its rows can be chosen. */
    sorting?: { by: string; down: boolean; onsort: (by: string) => void };
    picked?: ReadonlyMap<string, number>;
    onpick?: (row: Row, on: boolean) => void;
    model?: boolean;
  };
  let { rows, home, today, sorting, picked, onpick, model = true }: Props = $props();
  const columns = $derived([
    { id: 'tag', title: 'Tag' },
    ...(model ? [{ id: 'model', title: 'Part' }] : []),
    { id: 'state', title: 'State' },
    { id: 'location', title: 'Where' },
    { id: 'custodian', title: 'Who has it' },
    { id: 'due', title: 'Due back' },
    { id: 'build', title: 'In build' }
  ]);
</script>

<Wide label="Items">
  <table class="plain-table">
    <thead>
      <tr>
        {#if onpick}<th class="no-print"
            ><input
              type="checkbox"
              aria-label="Choose all on this page"
              checked={rows.length > 0 && rows.every((row) => picked?.has(row.id))}
              onchange={(e) => {
                for (const row of rows) onpick(row, e.currentTarget.checked);
              }}
            /></th
          >{/if}
        {#each columns as column (column.id)}
          {#if sorting}
            <SortHead
              label={column.title}
              sorted={sorting.by === column.id ? (sorting.down ? 'down' : 'up') : undefined}
              onsort={() => sorting.onsort(column.id)}
            />
          {:else}<th>{column.title}</th>{/if}
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as row (row.id)}
        {@const late = row.unit.dueBack !== undefined && row.unit.dueBack < today}
        <tr>
          {#if onpick}<td class="no-print"
              ><input
                type="checkbox"
                aria-label="Choose {row.unit.tag}"
                checked={picked?.has(row.id) ?? false}
                onchange={(e) => onpick(row, e.currentTarget.checked)}
              /></td
            >{/if}
          <td class="figure"><a href="{home}/u/{encodeURIComponent(row.unit.tag)}">{row.unit.tag}</a></td>
          {#if model}<td><a href="{home}/crate/{row.model.kind}/{row.model.id}">{row.model.name}</a></td>{/if}
          <td>{row.unit.state}</td>
          <td>{row.unit.location ?? '–'}</td>
          <td>{row.unit.custodian ?? '–'}</td>
          <td class:late>{row.unit.dueBack ? `${day(row.unit.dueBack)}${late ? ', late' : ''}` : '–'}</td>
          <td
            >{#if row.build}<a href="/b/{row.build.tag}">{row.build.tag} {row.build.name}</a>{:else}–{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>

<style>
  input {
    width: 16px;
    height: 16px;
    accent-color: var(--ash-ember);
  }
  .late {
    color: var(--ash-fail);
    font-weight: 600;
  }
</style>
