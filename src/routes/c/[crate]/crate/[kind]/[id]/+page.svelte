<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { KIND_LABEL } from '#core/parts/kinds';
  import { withQuery } from '$lib/client/address';
  import { changesOf } from '$lib/client/change';
  import { OnePart } from '$lib/client/one-part.svelte';
  import { takeBack } from '$lib/client/undo';
  import HistoryTable from '$lib/ui/common/HistoryTable.svelte';
  import PartForm from '$lib/ui/parts/PartForm.svelte';
  import Files from '$lib/ui/common/Files.svelte';
  import Pairs from '$lib/ui/parts/tabs/KnownCombinations.svelte';
  import Quotes from '$lib/ui/parts/tabs/Prices.svelte';
  import Units from '$lib/ui/parts/tabs/Items.svelte';
  import PartHead from '$lib/ui/parts/PartHead.svelte';
  import PartTabs from '$lib/ui/parts/PartTabs.svelte';

  let { data } = $props();
  const list = $derived(`/c/${data.crate.slug}/crate/${data.kind}`);
  const part = new OnePart(() => ({
    crateId: data.crate.id,
    model: data.model,
    prices: data.quotes.length,
    usedBy: data.usedBy,
    list
  }));
  const onchange = $derived(changesOf(data.crate.id));
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
</script>

<svelte:head><title>{data.model.spec.name} · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <PartHead
    name={data.model.spec.name}
    {list}
    many={KIND_LABEL[data.kind].many.toLowerCase()}
    units={data.units}
    usedBy={data.usedBy}
    quotes={data.quotes}
    onduplicate={() => void part.duplicate()}
    ondelete={() => void part.remove()}
  />
  <PartTabs {tabs} here={tab} hrefOf={(id) => withQuery(page.url, { tab: id === 'specification' ? '' : id })} />
  {#if tab === 'units'}
    <Units
      rows={data.units}
      home="/c/{data.crate.slug}"
      modelId={data.model.id}
      today={data.today}
      busy={part.busy}
      onadd={(count, state, location) => part.addItems(count, state, location)}
    />
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
    {#key part.draftKey}
      <PartForm
        fields={data.fields}
        fixed={{ kind: data.kind }}
        spec={data.model.spec}
        draftKey={part.draftKey}
        refused={part.refused}
        busy={part.busy}
        saveLabel="Save"
        onsave={(spec) => part.save(spec)}
        oncancel={() => void goto(list)}
      />
    {/key}
  {/if}
</div>
