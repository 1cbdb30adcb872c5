<script lang="ts">
  import { buildsIn } from '$lib/client/find-builds';
  import { Button } from 'carbon-components-svelte';
  import { goto } from '$app/navigation';
  import { takeBack } from '$lib/client/undo';
  import { actOnUnits } from '$lib/client/item-actions';
  import { changesOf } from '$lib/client/change';
  import HistoryTable from '$lib/ui/common/HistoryTable.svelte';
  import RecordForm from '$lib/ui/common/RecordForm.svelte';
  import { unitFields } from '$lib/ui/parts/record-fields';
  import Files from '$lib/ui/common/Files.svelte';
  import ItemFacts from '$lib/ui/items/ItemFacts.svelte';
  import UnitActions, { type UnitAct } from '$lib/ui/items/ItemActions.svelte';

  let { data } = $props();
  const { unit, model, build } = $derived(data.row);
  const home = $derived(`/c/${data.crate.slug}`);
  let busy = $state(false);
  let editing = $state(false);
  const onchange = $derived(changesOf(data.crate.id));
  /** In a large crate only some builds are offered here; its own is always among them. */
  const offered = $derived(
    build && !data.builds.builds.some(({ id }) => id === build.id) ? [build, ...data.builds.builds] : data.builds.builds
  );
  const fields = $derived(unitFields(offered));

  async function onact(act: UnitAct): Promise<void> {
    busy = true;
    const done = await actOnUnits(data.crate.id, [{ id: data.row.id, version: data.row.version }], act);
    busy = false;
    if (done && act.do === 'delete') await goto(`${home}/items`);
  }

  async function onsave(record: Record<string, unknown>) {
    busy = true;
    const failure = await onchange(
      'PUT',
      `/api/crates/${data.crate.id}/units/${data.row.id}`,
      { version: data.row.version, unit: { ...record, modelId: model.id } },
      `Saved ${String(record.tag)}.`
    );
    busy = false;
    if (failure) return failure;
    editing = false;
    await goto(`${home}/u/${encodeURIComponent(String(record.tag))}`, { replaceState: true });
    return undefined;
  }
</script>

<svelte:head><title>{unit.tag} · {model.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <p class="small"><a href="{home}/items">All items</a></p>
      <h1><span class="tag">{unit.tag}</span> {model.name}</h1>
    </div>
    {#if !editing}<Button size="small" kind="tertiary" disabled={busy} on:click={() => (editing = true)}>Edit</Button
      >{/if}
    <UnitActions
      count={1}
      lent={unit.custodian === undefined ? 0 : 1}
      find={buildsIn(data.crate.id)}
      builds={data.builds}
      {busy}
      {onact}
    />
  </div>
  {#if editing}
    <RecordForm
      {fields}
      value={{ ...unit, buildId: build?.id }}
      {busy}
      saveLabel="Save the item"
      refusedPrefix="unit."
      draftKey="draft:{data.row.id}:{data.row.version}"
      {onsave}
      oncancel={() => (editing = false)}
    />
  {/if}
  <div class="two">
    <ItemFacts {unit} {model} {build} {home} today={data.today} />
    <div class="label">
      <!-- eslint-disable-next-line svelte/no-at-html-tags -- made by this server out of an address, no text of a person in it -->
      <div role="img" aria-label="Code that opens this page">{@html data.label.svg}</div>
      <p class="tag">{unit.tag}</p>
      <p class="small no-print"><a href="{home}/labels?ids={data.row.id}">Print the label</a></p>
    </div>
  </div>
  <h2>Files</h2>
  <Files crateId={data.crate.id} subject={{ table: 'units', id: data.row.id }} files={data.attachments} {onchange} />
  <h2>History</h2>
  <HistoryTable list={data.history} onundo={(group) => void takeBack(data.crate.id, group)} />
</div>

<style>
  h2 {
    margin: 20px 0 6px;
  }
  .two {
    display: grid;
    grid-template-columns: 1fr 180px;
    gap: 24px;
    margin-bottom: 24px;
  }
  .tag {
    font-family: var(--ash-mono);
  }
  .label {
    text-align: center;
  }
  /* Dark on light in both themes: scanners want it so. */
  .label div {
    background: var(--ash-print-paper);
  }
  @media (max-width: 672px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
