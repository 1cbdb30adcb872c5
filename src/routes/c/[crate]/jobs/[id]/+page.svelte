<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { PURPOSE_LABEL } from '#core/parts/job';
  import { often } from '#core/quantities/often';
  import { quantity } from '#core/quantities/format';
  import { changesOf } from '$lib/client/change';
  import RoomHelper from '$lib/ui/jobs/RoomHelper.svelte';
  import RecordForm from '$lib/ui/common/RecordForm.svelte';
  import OnBuilds from '$lib/ui/jobs/OnBuilds.svelte';
  import { jobFields } from '$lib/ui/parts/record-fields';

  let { data } = $props();
  const spec = $derived(data.job.spec);
  const change = $derived(changesOf(data.crate.id));
  let editing = $state(false);
  let busy = $state(false);

  async function save(record: Record<string, unknown>) {
    busy = true;
    const refused = await change(
      'PUT',
      `/api/crates/${data.crate.id}/jobs/${data.job.id}`,
      { version: data.job.version, spec: record },
      `Saved the job ${String(record.name)}.`
    );
    busy = false;
    if (!refused) editing = false;
    return refused;
  }
</script>

<svelte:head><title>{spec.name} · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <p class="small"><a href="/c/{data.crate.slug}/jobs">Jobs</a></p>
      <h1>{spec.name}</h1>
      <p class="quiet">
        {quantity(spec.transferGB, 'GB')}{spec.files ? ` in ${spec.files} files` : ''}
        {spec.direction === 'in'
          ? 'onto the drive'
          : spec.direction === 'out'
            ? 'from the drive'
            : 'both ways'}{spec.perDay ? `, ${often(spec.perDay)}` : ''}{spec.purposes.length > 0
          ? `; to ${spec.purposes.map((purpose) => PURPOSE_LABEL[purpose]).join(', ')}`
          : ''}.
      </p>
    </div>
    <Button kind="tertiary" size="small" href="/c/{data.crate.slug}/rank?job={data.job.id}">Rank for it</Button>
    <Button kind="ghost" size="small" on:click={() => (editing = !editing)}>{editing ? 'Close' : 'Edit'}</Button>
  </div>
  {#if editing}
    {#key data.job.version}
      <RecordForm
        fields={jobFields()}
        value={spec}
        {busy}
        saveLabel="Save the job"
        refusedPrefix="spec."
        draftKey="draft:{data.job.id}:{data.job.version}"
        onsave={save}
        oncancel={() => (editing = false)}
      >
        {#snippet help(fill)}<RoomHelper ontake={(tb) => fill('capacityTB', `${tb} TB`)} />{/snippet}
      </RecordForm>
    {/key}
  {/if}

  <h2>On the builds of this crate, as their parts are now</h2>
  {#if data.builds.length === 0}
    <div class="empty">
      <p>There is no build yet. <a href="/c/{data.crate.slug}/pair">Pair one</a>, or rank for this job.</p>
    </div>
  {:else}
    <OnBuilds builds={data.builds} />
  {/if}
</div>

<style>
  h2 {
    margin: 14px 0 4px;
  }
</style>
