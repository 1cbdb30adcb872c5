<script lang="ts">
  import type { together } from '#core/compare/together/together';
  import Findings from '../pair/Findings.svelte';
  import SharedLoads from './SharedLoads.svelte';

  /** What comes of builds that work at once: what stands out, and what they share. */
  let { result, host, hostHref }: { result: ReturnType<typeof together>; host: string; hostHref: string } = $props();
</script>

<div class="below">
  <section>
    <h2>What stands out</h2>
    {#if result.findings.length === 0}
      <p class="quiet">Each keeps what it has alone; nothing that they share is full.</p>
    {:else}<Findings
        findings={result.findings.map((finding, i) => ({
          code: String(i),
          ...finding,
          remedy: finding.remedy || undefined
        }))}
      />{/if}
  </section>
  <section>
    <SharedLoads {result} {host} {hostHref} />
  </section>
</div>

<style>
  .below {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 28px;
    margin-top: 16px;
  }
  h2 {
    margin-bottom: 4px;
  }
  @media (max-width: 900px) {
    .below {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
