<script lang="ts">
  import { day } from '#core/quantities/format';

  type Difference = { what: string; then: string; now: string };
  /** Says that parts have changed since the build was planned, and how. */
  let { differences, planned }: { differences: readonly Difference[]; planned: string } = $props();
</script>

{#if differences.length > 0}
  <details class="older">
    <summary
      ><strong>Planned {day(planned)}, and its parts have changed since.</strong> What you see is planned from the parts as
      they are now; saving keeps it.</summary
    >
    <table class="plain-table">
      <thead><tr><th>What</th><th>Then</th><th>Now</th></tr></thead>
      <tbody
        >{#each differences as d (d.what)}<tr><td>{d.what}</td><td>{d.then}</td><td>{d.now}</td></tr>{/each}</tbody
      >
    </table>
  </details>
{/if}

<style>
  .older {
    margin-bottom: 10px;
    padding: 8px 12px;
    background: var(--ash-sheet);
    border-left: 4px solid var(--ash-caution);
  }
  .older summary {
    cursor: pointer;
  }
</style>
