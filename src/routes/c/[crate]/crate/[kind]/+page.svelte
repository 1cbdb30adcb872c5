<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { page } from '$app/state';
  import { aKind, KIND_LABEL } from '#core/parts/kinds';
  import { counted } from '#core/quantities/format';
  import { listAddress } from '$lib/client/list-address';
  import { TickedParts } from '$lib/client/ticked-parts.svelte';
  import Pages from '$lib/ui/common/Pages.svelte';
  import { withTick } from '$lib/ui/common/ticks';
  import ChangeMany from '$lib/ui/parts/ChangeMany.svelte';
  import ChooseColumns from '$lib/ui/parts/ChooseColumns.svelte';
  import Chosen from '$lib/ui/parts/Chosen.svelte';
  import { tableColumns } from '$lib/ui/parts/columns';
  import KindTabs from '$lib/ui/parts/KindTabs.svelte';
  import NoParts from '$lib/ui/parts/NoParts.svelte';
  import PartFilters from '$lib/ui/parts/PartFilters.svelte';
  import PartTable from '$lib/ui/parts/PartTable.svelte';
  import Piece from '$lib/ui/common/Piece.svelte';

  /** Below so many parts there is nothing to narrow down. */
  const FEW = 4;

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}/crate`);
  const label = $derived(KIND_LABEL[data.kind]);
  const count = $derived(data.counts[data.kind] ?? 0);
  const all = $derived(tableColumns(data.kind));
  const list = listAddress(() => page.url);

  // Which columns stand: until the person chooses, the plain ones.
  let chosen = $state<{ kind: string; hidden: string[] }>();
  const usual = $derived(data.hidden.length > 0 ? data.hidden : all.filter((c) => !c.plain).map((c) => c.id));
  const hidden = $derived(chosen?.kind === data.kind ? chosen.hidden : usual);
  function show(id: string, on: boolean): void {
    const next = withTick(hidden, id, !on);
    if (next === hidden) return;
    chosen = { kind: data.kind, hidden: [...next] };
    document.cookie = `columns-${data.kind}=${next.join(',') || 'none'}; path=/; max-age=34560000; samesite=lax`;
  }

  const parts = new TickedParts(() => data.crate.id);
  const these = $derived(counted(parts.picked.size, label.one, label.many.toLowerCase()));
  let dialog = $state<'none' | 'edit' | 'columns'>('none');
  const close = () => (dialog = 'none');
</script>

<svelte:head><title>{label.many} · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <KindTabs {home} here={data.kind} counts={data.counts} />
  <div class="page-head">
    <h1 class="grow">Crate</h1>
    <Button href="{home}/paste" kind="tertiary" size="field">Paste a specification</Button>
    <Button href="{home}/{data.kind}/new" size="field">Add {aKind(data.kind)}</Button>
  </div>

  {#if count === 0}
    <NoParts {label} {home} kind={data.kind} />
  {:else}
    {#if count >= FEW}
      <Piece
        ><PartFilters
          kind={data.kind}
          query={data.query}
          filters={data.filters}
          fields={data.fields}
          onset={(set) => list.show(set)}
          oncolumns={() => (dialog = 'columns')}
        /></Piece
      >
    {/if}
    {#if parts.picked.size > 0}
      <Chosen
        count={parts.picked.size}
        busy={parts.busy}
        onedit={() => (dialog = 'edit')}
        onduplicate={() => void parts.duplicate(data.rows)}
        ondelete={() => void parts.remove(`Deleted ${these}.`)}
        onnone={() => parts.none()}
      />
    {/if}
    <Piece
      ><PartTable
        label={label.many}
        rows={data.rows}
        columns={all.filter((c) => c.id === 'name' || !hidden.includes(c.id))}
        {...data.query}
        picked={parts.picked}
        hrefOf={(row) => `${home}/${data.kind}/${row.id}`}
        onsort={(sort) => list.sortBy(sort, data.query)}
        onpick={(rows, on) => parts.choose(rows, on)}
      /></Piece
    >
    {#if data.rows.length === 0}<p class="quiet">
        Nothing matches. <a href="{home}/{data.kind}">Show all {label.many.toLowerCase()}</a>
      </p>{/if}
    <Pages total={data.total} page={data.query.page} size={data.query.size} href={list.pageHref} />
    <p class="small no-print">
      <a href="/api/crates/{data.crate.id}/export?what=models&kind={data.kind}&format=csv" download
        >CSV of all {label.many.toLowerCase()}</a
      >
      · <a href="/c/{data.crate.slug}/tables">Import</a>
    </p>
  {/if}
</div>

<Piece
  ><ChangeMany
    open={dialog === 'edit'}
    what={these}
    fields={data.fields}
    busy={parts.busy}
    onclose={close}
    onset={(path, value, title) =>
      void parts.set(path, value, `Set ${title} of ${these}.`).then((made) => made && close())}
  /></Piece
>
<Piece><ChooseColumns open={dialog === 'columns'} columns={all} {hidden} onclose={close} onshow={show} /></Piece>
