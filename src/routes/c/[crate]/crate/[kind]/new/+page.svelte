<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { KIND_LABEL } from '#core/parts/kinds';
  import { send } from '$lib/client/api';
  import { saved } from '$lib/client/undo';
  import { notices } from '$lib/ui/frame/notices.svelte';
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
    const answer = await send('POST', `/api/crates/${data.crate.id}/models`, { spec });
    busy = false;
    if (!answer.ok) {
      refused = refusedFields(answer.failure.fields, 'spec.');
      notices.add('error', answer.failure.message);
      return;
    }
    localStorage.removeItem(draftKey);
    saved(`Added ${String(spec.name)}.`, data.crate.id, answer.data.group);
    await goto(list);
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
