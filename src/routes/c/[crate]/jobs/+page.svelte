<script lang="ts">
  import { Button, Modal } from 'carbon-components-svelte';
  import { quantity } from '#core/quantities/format';
  import { often } from '#core/quantities/often';
  import { JOB_TEMPLATES } from '#core/parts/job-templates';
  import { PURPOSE_LABEL, type Job } from '#core/parts/job';
  import { changesOf } from '$lib/client/change';
  import { dropDraft, keptDraft } from '$lib/ui/common/drafts';
  import RoomHelper from '$lib/ui/jobs/RoomHelper.svelte';
  import RecordForm from '$lib/ui/common/RecordForm.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import { jobFields } from '$lib/ui/parts/record-fields';

  let { data } = $props();
  const api = $derived(`/api/crates/${data.crate.id}/jobs`);
  const change = $derived(changesOf(data.crate.id));
  /** What is being added: a template's job, a copy, or an empty one. */
  let adding = $state.raw<Partial<Job>>();
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
  const DIRECTION = { in: 'onto the drive', out: 'from the drive', both: 'both ways' };
  const copyOf = ({ id: _id, ...spec }: Job): Job => ({ ...spec, name: `${spec.name}, copy`.slice(0, 120) });
</script>

<svelte:head><title>Jobs · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Jobs</h1>
      <p class="quiet">The work a build is for: how much, in how many files, which way, between which systems.</p>
    </div>
    {#if !adding}<Button size="field" on:click={() => (adding = {})}>Add a job</Button>{/if}
  </div>

  {#if adding}
    <section class="adding">
      <h2>A new job</h2>
      <p class="begin">
        Begin from
        {#each JOB_TEMPLATES as template (template.id)}
          <button type="button" class="link" title={template.about} onclick={() => begin(template.job)}
            >{template.title}</button
          >
        {/each}
      </p>
      {#key adding}
        <RecordForm
          fields={jobFields()}
          value={adding}
          {busy}
          saveLabel="Add this job"
          refusedPrefix="spec."
          {draftKey}
          onsave={add}
          oncancel={() => (adding = undefined)}
        >
          {#snippet help(fill)}<RoomHelper ontake={(tb) => fill('capacityTB', `${tb} TB`)} />{/snippet}
        </RecordForm>
      {/key}
    </section>
  {/if}

  {#if data.jobs.length === 0 && !adding}
    <div class="empty">
      <h2>No job yet</h2>
      <p>
        With a job, a plan says how long it takes, whether the cache ends in the middle of it, and which filesystem
        suits.
      </p>
      <ol>
        {#each JOB_TEMPLATES as template (template.id)}
          <li>
            <button type="button" class="link" onclick={() => begin(template.job)}>{template.title}</button>:
            {template.about.toLowerCase()}
          </li>
        {/each}
      </ol>
    </div>
  {:else if data.jobs.length > 0}
    <Wide label="Jobs">
      <table class="plain-table">
        <thead>
          <tr>
            <th scope="col">Job</th><th scope="col">What it is for</th><th scope="col" class="number">In one go</th>
            <th scope="col" class="number">Files</th><th scope="col">Direction</th><th scope="col" class="number"
              >How often</th
            >
            <th scope="col" class="number">Needs, write after the cache</th><th scope="col">Builds made for it</th>
            <th scope="col"><span class="hidden-visually">Change it</span></th>
          </tr>
        </thead>
        <tbody>
          {#each data.jobs as job (job.id)}
            <tr>
              <td><a href="/c/{data.crate.slug}/jobs/{job.id}"><strong>{job.spec.name}</strong></a></td>
              <td>{job.spec.purposes.map((purpose) => PURPOSE_LABEL[purpose]).join(', ')}</td>
              <td class="number figure">{quantity(job.spec.transferGB, 'GB')}</td>
              <td class="number figure">{job.spec.files ?? '–'}</td>
              <td>{DIRECTION[job.spec.direction]}</td>
              <td class="number figure">{job.spec.perDay === undefined ? '–' : often(job.spec.perDay)}</td>
              <td class="number figure"
                >{job.spec.minSustainedWriteMBps === undefined
                  ? '–'
                  : quantity(job.spec.minSustainedWriteMBps, 'MB/s')}</td
              >
              <td
                >{#each job.builds as tag, i (tag)}{i > 0 ? ', ' : ''}<a href="/b/{tag}/pair">{tag}</a
                  >{:else}–{/each}</td
              >
              <td class="acts">
                <a href="/c/{data.crate.slug}/rank?job={job.id}">Rank for it</a>
                <button type="button" class="link" onclick={() => (adding = copyOf(job.spec))}
                  >Copy<span class="hidden-visually"> {job.spec.name}</span></button
                >
                <button type="button" class="link" onclick={() => (deleting = job)}
                  >Delete<span class="hidden-visually"> {job.spec.name}</span></button
                >
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
    </Wide>
  {/if}
</div>

<Modal
  danger
  open={deleting !== undefined}
  modalHeading="Delete the job {deleting?.spec.name ?? ''}?"
  primaryButtonText="Delete"
  secondaryButtonText="Keep it"
  on:close={() => (deleting = undefined)}
  on:click:button--secondary={() => (deleting = undefined)}
  on:submit={remove}
>
  <p>
    {deleting && deleting.builds.length > 0
      ? `${deleting.builds.join(', ')} ${deleting.builds.length === 1 ? 'was' : 'were'} made for it: what was planned stays as it is, and says that the job is gone when it is opened.`
      : 'No build was made for it.'} You can take this back.
  </p>
</Modal>

<style>
  .adding {
    margin-bottom: 18px;
    padding: 14px 18px 4px;
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
  }
  .begin {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 16px;
    margin: 6px 0 8px;
  }
  .acts {
    white-space: nowrap;
  }
  .acts > * + * {
    margin-left: 10px;
  }
  .acts a {
    font-size: var(--ash-text-small);
  }
</style>
