<script lang="ts">
  import type { Job } from '#core/parts/job';
  import { JOB_TEMPLATES } from '#core/parts/job-templates';

  /** Jobs to begin from: in a row, or one below the other with what each is about. */
  let { about = false, onpick }: { about?: boolean; onpick: (job: Partial<Job>) => void } = $props();
</script>

{#if about}
  <ol>
    {#each JOB_TEMPLATES as template (template.id)}
      <li>
        <button type="button" class="link" onclick={() => onpick(template.job)}>{template.title}</button>:
        {template.about.toLowerCase()}
      </li>
    {/each}
  </ol>
{:else}
  <p>
    Begin from
    {#each JOB_TEMPLATES as template (template.id)}
      <button type="button" class="link" title={template.about} onclick={() => onpick(template.job)}
        >{template.title}</button
      >
    {/each}
  </p>
{/if}

<style>
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 16px;
    margin: 6px 0 8px;
  }
</style>
