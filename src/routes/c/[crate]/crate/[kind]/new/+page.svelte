<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { classesOf } from '#core/parts/classes';
  import { KIND_LABEL } from '#core/parts/kinds';
  import { changesOf } from '$lib/client/change';
  import StepBar from '$lib/ui/door/StepBar.svelte';
  import { nextStepAfter, stepsOf } from '$lib/ui/door/steps';
  import PartForm from '$lib/ui/parts/PartForm.svelte';
  import { refusedFields } from '$lib/ui/parts/refused';

  let { data } = $props();
  const label = $derived(KIND_LABEL[data.kind].one);
  const home = $derived(`/c/${data.crate.slug}`);
  const list = $derived(`${home}/crate/${data.kind}`);
  const draftKey = $derived(`draft:${data.crate.id}:${data.kind}:new`);
  // On the first evening each part leads to the next; later one comes back to the list.
  const evening = $derived(data.builds === 0 && !data.crate.demo);
  const steps = $derived(stepsOf(home, data.counts, data.builds));
  const next = $derived.by(() => {
    const counts = { ...data.counts, [data.kind]: (data.counts[data.kind] ?? 0) + 1 };
    return nextStepAfter(stepsOf(home, counts, data.builds), data.kind);
  });
  const onward = $derived(evening && next ? next.href : list);
  let refused = $state<Record<string, string>>({});
  let busy = $state(false);
  /** Counts what was saved here: each begins with an empty form. */
  let saved = $state(0);

  async function onsave(spec: Record<string, unknown>, have: 'yes' | 'ordered' | 'no', again: boolean): Promise<void> {
    busy = true;
    const refusal = await changesOf(data.crate.id)(
      'POST',
      `/api/crates/${data.crate.id}/models`,
      { spec, have },
      {
        words: `Added ${String(spec.name)}.`,
        then: () => localStorage.removeItem(draftKey),
        ...(again ? {} : { to: () => onward }),
        refused: ({ message }) => message
      }
    );
    busy = false;
    refused = refusal ? refusedFields(refusal.fields, 'spec.') : {};
    if (!refusal && again) saved++;
  }
  const paste = $derived(`${home}/crate/paste`);
</script>

<svelte:head><title>New {label} · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  {#if evening}<StepBar {steps} here={data.kind} />{/if}
  <div class="page-head">
    <div class="grow">
      <h1>New {label}</h1>
      <p class="quiet">
        What the box says is enough{#if data.kind !== 'host'}: <a href={paste}>paste it</a>{/if}. Units may be typed: 10
        Gb/s, 1,2 GB/s, 3.64 TiB, 0.5 mm.
      </p>
    </div>
  </div>
  {#key `${data.kind} ${saved}`}
    <PartForm
      fields={data.fields}
      fixed={{ kind: data.kind }}
      {draftKey}
      pasted={page.url.searchParams.get('from') === 'paste'}
      {refused}
      {busy}
      classes={classesOf(data.kind)}
      having={data.kind === 'alternative' ? undefined : data.kind === 'host' ? 'yes' : 'no'}
      saveLabel={evening && next
        ? `Add it, then: ${next.label.charAt(0).toLowerCase()}${next.label.slice(1)}`
        : `Add the ${label}`}
      againLabel="Add it and another {label}"
      {onsave}
      oncancel={() => void goto(list)}
    />
  {/key}
</div>
