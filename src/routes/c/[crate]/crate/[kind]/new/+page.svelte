<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { KIND_LABEL } from '#core/parts/kinds';
  import { changesOf } from '$lib/client/change';
  import PartForm from '$lib/ui/parts/PartForm.svelte';
  import { refusedFields } from '$lib/ui/parts/refused';

  let { data } = $props();
  const label = $derived(KIND_LABEL[data.kind].one);
  const list = $derived(`/c/${data.crate.slug}/crate/${data.kind}`);
  const draftKey = $derived(`draft:${data.crate.id}:${data.kind}:new`);
  let refused = $state<Record<string, string>>({});
  let busy = $state(false);

  async function onsave(spec: Record<string, unknown>): Promise<void> {
    busy = true;
    const refusal = await changesOf(data.crate.id)(
      'POST',
      `/api/crates/${data.crate.id}/models`,
      { spec },
      {
        words: `Added ${String(spec.name)}.`,
        then: () => localStorage.removeItem(draftKey),
        to: () => list,
        refused: ({ message }) => message
      }
    );
    busy = false;
    if (refusal) refused = refusedFields(refusal.fields, 'spec.');
  }
</script>

<svelte:head><title>New {label} · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>New {label}</h1>
      <p class="quiet">What the box says is enough. Units may be typed: 10 Gb/s, 1,2 GB/s, 3.64 TiB, 0.5 mm.</p>
    </div>
  </div>
  {#key data.kind}
    <PartForm
      fields={data.fields}
      fixed={{ kind: data.kind }}
      {draftKey}
      pasted={page.url.searchParams.get('from') === 'paste'}
      {refused}
      {busy}
      saveLabel="Add the {label}"
      {onsave}
      oncancel={() => void goto(list)}
    />
  {/key}
</div>
