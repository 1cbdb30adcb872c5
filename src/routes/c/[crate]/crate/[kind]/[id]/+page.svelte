<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { deliveredPrice } from '#core/cost/delivered-price';
  import { day, money } from '#core/quantities/format';
  import { withQuery } from '$lib/client/address';
  import { changesOf } from '$lib/client/change';
  import { takeBack } from '$lib/client/undo';
  import HistoryTable from '$lib/ui/common/HistoryTable.svelte';
  import { notices } from '$lib/ui/frame/notices.svelte';
  import PartForm from '$lib/ui/parts/PartForm.svelte';
  import { refusedFields } from '$lib/ui/parts/refused';
  import Files from '$lib/ui/common/Files.svelte';
  import Pairs from '$lib/ui/parts/tabs/KnownCombinations.svelte';
  import Quotes from '$lib/ui/parts/tabs/Prices.svelte';
  import AddUnits from '$lib/ui/items/AddItems.svelte';
  import UnitTable from '$lib/ui/items/ItemTable.svelte';

  const CHANGED_ELSEWHERE =
    'This part was changed elsewhere in the meantime; nothing was overwritten. Reload to see it; what you typed is kept until then.';
  let { data } = $props();
  const path = $derived(`/api/crates/${data.crate.id}/models/${data.model.id}`);
  const list = $derived(`/c/${data.crate.slug}/crate/${data.kind}`);
  const draftKey = $derived(`draft:${data.model.id}:${data.model.version}`);
  let refused = $state<Record<string, string>>({});
  let busy = $state(false);

  async function onsave(spec: Record<string, unknown>): Promise<void> {
    busy = true;
    const body = { version: data.model.version, spec };
    const refusal = await onchange('PUT', path, body, {
      words: `Saved ${String(spec.name)}.`,
      then: () => localStorage.removeItem(draftKey),
      to: () => list,
      refused: ({ code, message }) => (code === 'conflict' ? CHANGED_ELSEWHERE : message)
    });
    busy = false;
    if (refusal) refused = refusedFields(refusal.fields, 'spec.');
  }
  /** What goes with the part when it is deleted. */
  const prices = $derived(
    data.quotes.length === 0 ? '' : data.quotes.length === 1 ? '1 price' : `${data.quotes.length} prices`
  );
  async function remove(): Promise<void> {
    const words = `Deleted ${data.model.spec.name}${prices && ` and its ${prices}`}.`;
    await onchange('DELETE', path, { version: data.model.version }, { words, to: () => list });
  }

  const onchange = $derived(changesOf(data.crate.id));
  const crateApi = $derived(`/api/crates/${data.crate.id}`);
  const tab = $derived(page.url.searchParams.get('tab') ?? 'specification');
  const bridge = $derived(data.model.spec.kind === 'enclosure' ? data.model.spec.bridge : undefined);
  const paired = $derived(data.kind === 'drive' || bridge !== undefined);
  const tabs = $derived([
    { id: 'specification', label: 'Specification' },
    { id: 'units', label: 'Items', count: data.units.length },
    { id: 'quotes', label: 'Prices', count: data.quotes.length },
    ...(paired ? [{ id: 'pairs', label: 'Known combinations', count: data.pairs.length }] : []),
    { id: 'files', label: 'Files', count: data.attachments.length },
    { id: 'history', label: 'History' }
  ]);

  async function duplicate(): Promise<void> {
    const { id: _id, ...spec } = data.model.spec;
    const copy = { ...spec, name: `${spec.name} (copy)`.slice(0, 120) };
    const to = ({ id }: { id: string }) => `${list}/${id}`;
    await onchange('POST', `${crateApi}/models`, { spec: copy }, { words: `Added ${copy.name}.`, to });
  }
</script>

<svelte:head><title>{data.model.spec.name} · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <p class="small"><a href={list}>All {data.kind}s</a></p>
      <h1>{data.model.spec.name}</h1>
      <p class="quiet">
        {data.units.length === 0
          ? 'No item of it in the crate.'
          : `${data.units.map((u) => `${u.unit.tag} (${u.unit.state}${u.unit.location ? `, ${u.unit.location}` : ''})`).join('; ')}.`}
        {#if data.quotes[0]}{@const newest = data.quotes[0].quote}Newest price {money(
            deliveredPrice(newest),
            newest.currency
          )} delivered, {newest.vendor}, {day(newest.date)}.{/if}
      </p>
    </div>
    <Button kind="ghost" size="field" on:click={() => void duplicate()}>Duplicate</Button>
    <Button kind="danger-ghost" size="field" on:click={remove}>Delete{prices && ` with ${prices}`}</Button>
  </div>
  <nav class="tabs no-print" aria-label="About this part">
    {#each tabs as entry (entry.id)}
      <a
        href={withQuery(page.url, { tab: entry.id === 'specification' ? '' : entry.id })}
        aria-current={tab === entry.id ? 'page' : undefined}
        >{entry.label}{#if entry.count !== undefined}<span class="small quiet">&nbsp;{entry.count}</span>{/if}</a
      >
    {/each}
  </nav>
  {#if tab === 'units'}
    <AddUnits
      {busy}
      onadd={async (count, state, location) => {
        busy = true;
        const unit = { modelId: data.model.id, state, ...(location ? { location } : {}) };
        const words = count === 1 ? 'Added an item.' : `Added ${count} items.`;
        const failure = await onchange('POST', `${crateApi}/units/many`, { count, unit }, words);
        if (failure && failure.fields.length > 0) notices.add('error', failure.message);
        busy = false;
      }}
    />
    {#if data.units.length === 0}<p class="quiet">No item yet. Each gets a tag of its own, for a label.</p>
    {:else}
      <UnitTable rows={data.units} home="/c/{data.crate.slug}" today={data.today} model={false} />
      <p class="small"><a href="/c/{data.crate.slug}/labels?model={data.model.id}">Labels for these</a></p>
    {/if}
  {:else if tab === 'quotes'}
    <Quotes
      crate={data.crate}
      part={{ id: data.model.id, version: data.model.version, target: data.model.target }}
      quotes={data.quotes}
      today={data.today}
      {onchange}
    />
  {:else if tab === 'pairs' && paired}
    <Pairs
      crateId={data.crate.id}
      drive={data.model.id}
      {bridge}
      drives={data.drives}
      pairs={data.pairs}
      today={data.today}
      {onchange}
    />
  {:else if tab === 'files'}
    <Files
      crateId={data.crate.id}
      subject={{ table: 'models', id: data.model.id }}
      files={data.attachments}
      {onchange}
    />
  {:else if tab === 'history'}
    <HistoryTable list={data.history} onundo={(group) => void takeBack(data.crate.id, group)} />
  {:else}
    {#key draftKey}
      <PartForm
        fields={data.fields}
        fixed={{ kind: data.kind }}
        spec={data.model.spec}
        {draftKey}
        {refused}
        {busy}
        saveLabel="Save"
        {onsave}
        oncancel={() => void goto(list)}
      />
    {/key}
  {/if}
</div>

<style>
  .tabs {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
    margin-bottom: 14px;
    border-bottom: 1px solid var(--ash-edge);
  }
  .tabs a {
    padding: 7px 12px;
    color: var(--ash-ink);
    text-decoration: none;
  }
  .tabs a[aria-current] {
    font-weight: 700;
    box-shadow: inset 0 -3px 0 var(--ash-ink);
  }
</style>
