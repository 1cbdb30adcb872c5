<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { goto, invalidateAll } from '$app/navigation';
  import { landedPrice } from '#core/cost/landed';
  import { day, money } from '#core/quantities/format';
  import { send } from '$lib/client/api';
  import { saved } from '$lib/client/undo';
  import { notices } from '$lib/ui/frame/notices.svelte';
  import PartForm from '$lib/ui/parts/PartForm.svelte';
  import { refusedFields } from '$lib/ui/parts/refused';

  let { data } = $props();
  const path = $derived(`/api/crates/${data.crate.id}/models/${data.model.id}`);
  const list = $derived(`/c/${data.crate.slug}/crate/${data.kind}`);
  const draftKey = $derived(`draft:${data.model.id}:${data.model.version}`);
  let refused = $state<Record<string, string>>({});
  let busy = $state(false);

  async function onsave(spec: Record<string, unknown>): Promise<void> {
    busy = true;
    const answer = await send('PUT', path, { version: data.model.version, spec });
    busy = false;
    if (!answer.ok) {
      refused = refusedFields(answer.failure.fields, 'spec.');
      notices.add(
        'error',
        answer.failure.code === 'conflict'
          ? 'This part was changed elsewhere in the meantime; nothing was overwritten. Reload to see it; what you typed is kept until then.'
          : answer.failure.message
      );
      return;
    }
    localStorage.removeItem(draftKey);
    saved(`Saved ${String(spec.name)}.`, data.crate.id, answer.data.group);
    await goto(list);
    await invalidateAll();
  }
  async function remove(): Promise<void> {
    const answer = await send('DELETE', path, { version: data.model.version });
    if (!answer.ok) return notices.add('error', answer.failure.message);
    const also = data.quotes.length > 0 ? ` and its ${data.quotes.length} quotes` : '';
    saved(`Deleted ${data.model.spec.name}${also}.`, data.crate.id, answer.data.group);
    await goto(list);
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
          ? 'No unit of it in the crate.'
          : `${data.units.map((u) => `${u.unit.tag} (${u.unit.state}${u.unit.location ? `, ${u.unit.location}` : ''})`).join('; ')}.`}
        {#if data.quotes[0]}{@const newest = data.quotes[0].quote}Newest quote {money(
            landedPrice(newest),
            newest.currency
          )} landed, {newest.vendor}, {day(newest.date)}.{/if}
      </p>
    </div>
    <Button kind="danger-ghost" size="field" on:click={remove}
      >Delete{data.quotes.length > 0 ? ` with ${data.quotes.length} quotes` : ''}</Button
    >
  </div>
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
</div>
