<script lang="ts">
  import { PURPOSE_LABEL, type Job } from '#core/parts/job';
  import { quantity } from '#core/quantities/format';
  import { often } from '#core/quantities/often';
  import Wide from '../common/Wide.svelte';

  type Row = { id: string; version: number; spec: Job; builds: readonly string[] };
  /** The jobs of a crate, with the builds that were made for them. */
  let {
    jobs,
    home,
    oncopy,
    ondelete
  }: {
    jobs: readonly Row[];
    home: string;
    oncopy: (job: Job) => void;
    ondelete: (id: string) => void;
  } = $props();
  /** So many builds are named in a row. */
  const NAMED = 4;
  /** Of the columns: said beforehand, so that nothing moves when the font arrives. */
  const WIDTHS = ['15%', '16%', '8%', '7%', '9%', '8%', '10%', '13%', '14%'];
  const DIRECTION = { in: 'onto the drive', out: 'from the drive', both: 'both ways' };
</script>

<Wide label="Jobs">
  <table class="plain-table">
    <colgroup
      >{#each WIDTHS as width, i (i)}<col style:width />{/each}</colgroup
    >
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
      {#each jobs as job (job.id)}
        <tr>
          <td><a href="{home}/jobs/{job.id}"><strong>{job.spec.name}</strong></a></td>
          <td>{job.spec.purposes.map((purpose) => PURPOSE_LABEL[purpose]).join(', ')}</td>
          <td class="number figure">{quantity(job.spec.transferGB, 'GB')}</td>
          <td class="number figure">{job.spec.files ?? '–'}</td>
          <td>{DIRECTION[job.spec.direction]}</td>
          <td class="number figure">{job.spec.perDay === undefined ? '–' : often(job.spec.perDay)}</td>
          <td class="number figure"
            >{job.spec.minSustainedWriteMBps === undefined ? '–' : quantity(job.spec.minSustainedWriteMBps, 'MB/s')}</td
          >
          <td
            >{#each job.builds.slice(0, NAMED) as tag, i (tag)}{i > 0 ? ', ' : ''}<a href="/b/{tag}/pair">{tag}</a
              >{:else}–{/each}{#if job.builds.length > NAMED}, and {job.builds.length - NAMED} more{/if}</td
          >
          <td class="acts">
            <a href="{home}/rank?job={job.id}">Rank for it</a>
            <button type="button" class="link" onclick={() => oncopy(job.spec)}
              >Copy<span class="hidden-visually"> {job.spec.name}</span></button
            >
            <button type="button" class="link" onclick={() => ondelete(job.id)}
              >Delete<span class="hidden-visually"> {job.spec.name}</span></button
            >
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>

<style>
  table {
    table-layout: fixed;
    min-width: 1100px;
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
