<script lang="ts">
  type Outcome = { outcome: string; text: string; then?: string | undefined };
  /** What a look or a test can show, each as a button; `quietly` is the one of who cannot tell. */
  let {
    outcomes,
    quietly,
    busy = false,
    onanswer
  }: { outcomes: readonly Outcome[]; quietly: string; busy?: boolean; onanswer: (outcome: string) => void } = $props();
</script>

<div class="outcomes">
  {#each outcomes as { outcome, text, then } (outcome)}
    <button type="button" class:quietly={outcome === quietly} disabled={busy} onclick={() => onanswer(outcome)}
      >{text}{#if then}<span class="small quiet">then: {then}</span>{/if}</button
    >
  {/each}
</div>

<style>
  .outcomes {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
  button {
    display: grid;
    align-content: center;
    gap: 2px;
    min-height: 44px;
    padding: 8px 16px;
    border: 1px solid var(--ash-edge);
    background: none;
    color: var(--ash-ink);
    text-align: left;
    cursor: pointer;
  }
  button:hover {
    background: var(--ash-well);
  }
  .quietly {
    color: var(--ash-soft);
    border-style: dashed;
  }
  @media print {
    .outcomes {
      display: none;
    }
  }
</style>
