<script lang="ts">
  import { Button, Search } from 'carbon-components-svelte';
  import { KIND_LABEL, KINDS } from '#core/parts/kinds';
  import SortHead from '$lib/ui/common/SortHead.svelte';
  import { columnsOf } from '$lib/ui/parts/columns';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}/crate`);
  const label = $derived(KIND_LABEL[data.kind]);
  const columns = $derived(columnsOf(data.kind));
  let find = $state('');
  let sort = $state(0);
  let down = $state(false);

  const rows = $derived(
    data.models.map((model) => ({ id: model.id, units: model.units, cells: columns.map((c) => c.cell(model.spec)) }))
  );
  const shown = $derived.by(() => {
    const words = find.toLowerCase().split(/\s+/).filter(Boolean);
    const found = rows.filter((row) => words.every((w) => row.cells.some((c) => c.text.toLowerCase().includes(w))));
    const key = (row: (typeof rows)[number]) =>
      sort === columns.length ? row.units : (row.cells[sort]?.sort ?? row.cells[sort]?.text ?? '');
    return found.sort((a, b) => {
      const [x, y] = [key(a), key(b)];
      const order = typeof x === 'number' && typeof y === 'number' ? x - y : String(x).localeCompare(String(y));
      return down ? -order : order;
    });
  });
  function sortBy(at: number): void {
    down = sort === at ? !down : false;
    sort = at;
  }
</script>

<svelte:head><title>{label.many} · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <h1 class="grow">Crate</h1>
    <div class="find">
      <Search size="sm" labelText="Find {label.many.toLowerCase()}" placeholder="Find" bind:value={find} />
    </div>
    <Button href="{home}/{data.kind}/new" size="field"
      >Add {data.kind === 'enclosure' || data.kind === 'alternative' ? 'an' : 'a'} {label.one}</Button
    >
  </div>
  <nav aria-label="Kinds of part">
    {#each KINDS as kind (kind)}
      <a href="{home}/{kind}" aria-current={kind === data.kind ? 'page' : undefined}
        >{KIND_LABEL[kind].many} <span class="small quiet">{data.counts[kind] ?? 0}</span></a
      >
    {/each}
  </nav>

  {#if data.models.length === 0}
    <div class="empty">
      <h2>No {label.many.toLowerCase()} yet</h2>
      <p>
        What the box says is enough. What is left empty is filled with typical values for the class, and every such
        value is named in the plan.
      </p>
      <p><a href="{home}/{data.kind}/new">Add the first {label.one}</a></p>
    </div>
  {:else}
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div class="scroll-wide" tabindex="0" role="region" aria-label={label.many}>
      <table class="plain-table">
        <thead>
          <tr>
            {#each [...columns, { title: 'Units', number: true }] as column, at (column.title)}
              <SortHead
                label={column.title}
                number={column.number}
                sorted={sort === at ? (down ? 'down' : 'up') : undefined}
                onsort={() => sortBy(at)}
              />
            {/each}
          </tr>
        </thead>
        <tbody>
          {#each shown as row (row.id)}
            <tr>
              {#each row.cells as cell, at (at)}
                <td class:number={columns[at]?.number} class:figure={columns[at]?.number}>
                  {#if at === 0}<a href="{home}/{data.kind}/{row.id}">{cell.text}</a>{:else}{cell.text || '–'}{/if}
                </td>
              {/each}
              <td class="number figure">{row.units}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    {#if shown.length === 0}<p class="quiet">Nothing matches “{find}”.</p>{/if}
  {/if}
</div>

<style>
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
    margin-bottom: 14px;
    border-bottom: 1px solid var(--ash-edge);
  }
  nav a {
    padding: 7px 12px;
    color: var(--ash-ink);
    text-decoration: none;
  }
  nav a:hover {
    background: var(--ash-well);
  }
  nav a[aria-current] {
    font-weight: 700;
    box-shadow: inset 0 -3px 0 var(--ash-ink);
  }
  .find {
    width: 220px;
  }
  td a {
    font-weight: 600;
  }
</style>
