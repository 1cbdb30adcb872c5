<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { page } from '$app/state';
  import { listAddress } from '$lib/client/list-address';
  import FindBox from '$lib/ui/common/FindBox.svelte';
  import Pages from '$lib/ui/common/Pages.svelte';
  import type { Job } from '#core/parts/job';
  import { changesOf } from '$lib/client/change';
  import { dropDraft, keptDraft } from '$lib/ui/common/drafts';
  import DeleteJob from '$lib/ui/jobs/DeleteJob.svelte';
  import JobTable from '$lib/ui/jobs/JobTable.svelte';
  import Templates from '$lib/ui/jobs/Templates.svelte';
  import RoomHelper from '$lib/ui/jobs/RoomHelper.svelte';
  import RecordForm from '$lib/ui/common/RecordForm.svelte';
  import { jobFields } from '$lib/ui/parts/record-fields';
  import Piece from '$lib/ui/common/Piece.svelte';

  let { data } = $props();
  const list = listAddress(() => page.url);
  const api = $derived(`/api/crates/${data.crate.id}/jobs`);
  const change = $derived(changesOf(data.crate.id));
  /** What is being added: a template's job, a copy, or an empty one. */
  let adding = $state.raw<Partial<Job>>();
  /** Whether the person opened the form just now; a draft that is there again takes no focus. */
  let opened = $state(false);
  const draftKey = $derived(`draft:${data.crate.id}:job:new`);
  $effect(() => {
    // What was begun and not saved is open again; Cancel and Start over forget it.
    if (keptDraft(draftKey)) adding = {};
  });
  let busy = $state(false);
  let deleting = $state.raw<(typeof data.jobs)[number]>();

  /** A template takes the place of what was typed before. */
  function begin(job: Partial<Job>): void {
    dropDraft(draftKey);
    opened = true;
    adding = job;
  }
  async function add(spec: Record<string, unknown>) {
    busy = true;
    const list = `/c/${data.crate.slug}/jobs`;
    const words = `Added the job ${String(spec.name)}.`;
    const onward = { words, to: ({ id }: { id: string }) => `${list}/${id}`, undone: list };
    const refusal = await change('POST', api, { spec }, onward);
    busy = false;
    if (!refusal) dropDraft(draftKey);
    return refusal;
  }
  async function remove(): Promise<void> {
    const job = deleting;
    deleting = undefined;
    if (job) await change('DELETE', `${api}/${job.id}`, { version: job.version }, `Deleted the job ${job.spec.name}.`);
  }
  const copyOf = ({ id: _id, ...spec }: Job): Job => ({ ...spec, name: `${spec.name}, copy`.slice(0, 120) });
</script>

<svelte:head><title>Jobs · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Jobs</h1>
      <p class="quiet">The work a build is for: how much, in how many files, which way, between which systems.</p>
    </div>
    {#if data.all > data.query.size}<FindBox
        label="Find jobs"
        placeholder="Name"
        value={data.query.find}
        onlook={list.look}
      />{/if}
    {#if !adding}<Button size="field" on:click={() => begin({})}>Add a job</Button>{/if}
  </div>

  {#if adding}
    <section class="adding">
      <h2>A new job</h2>
      <Templates onpick={begin} />
      {#key adding}
        <RecordForm
          fields={jobFields()}
          value={adding}
          {busy}
          saveLabel="Add this job"
          refusedPrefix="spec."
          {draftKey}
          focusFirst={opened}
          onsave={add}
          oncancel={() => (adding = undefined)}
        >
          {#snippet help(fill)}<RoomHelper ontake={(tb) => fill('capacityTB', `${tb} TB`)} />{/snippet}
        </RecordForm>
      {/key}
    </section>
  {/if}

  {#if data.all === 0 && !adding}
    <div class="empty">
      <h2>No job yet</h2>
      <p>
        With a job, a plan says how long it takes, whether the cache ends in the middle of it, and which filesystem
        suits.
      </p>
      <Templates about onpick={begin} />
    </div>
  {:else if data.all > 0}
    {#if data.total === 0}<p class="quiet">No job is called “{data.query.find}”.</p>
    {:else}<Piece
        ><JobTable
          jobs={data.jobs}
          home="/c/{data.crate.slug}"
          oncopy={(job) => begin(copyOf(job))}
          ondelete={(id) => (deleting = data.jobs.find((job) => job.id === id))}
        /></Piece
      >{/if}
    {#if data.all > data.query.size}<Pages
        total={data.total}
        page={data.query.page}
        size={data.query.size}
        href={list.pageHref}
      />{/if}
  {/if}
</div>

<Piece><DeleteJob job={deleting} onkeep={() => (deleting = undefined)} ondelete={remove} /></Piece>

<style>
  .adding {
    margin-bottom: 18px;
    padding: 14px 18px 4px;
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
    /* On a white sheet a field is seen by its ground. */
    --cds-field: var(--ash-paper);
    --cds-field-01: var(--ash-paper);
  }
</style>
