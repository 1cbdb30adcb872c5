<script lang="ts">
  import type { RankAnswer } from './answer';

  /** What the ranking says before anything is asked. */
  let { answer, hrefs }: { answer: RankAnswer; hrefs: { first?: string; both?: string } } = $props();
</script>

<section class="answer" aria-label="Which should I buy?">
  <h2>{answer.first}</h2>
  <p>{answer.why}</p>
  {#if answer.next}<p><strong>Next:</strong> {answer.next}</p>{/if}
  {#if answer.cheapest}<p><strong>Cheapest that does the job:</strong> {answer.cheapest}</p>{/if}
  <p class="no-print">
    {#if hrefs.first}<a href={hrefs.first}>Open the first in Pair</a>{/if}
    {#if hrefs.both}· <a href={hrefs.both}>Lay the first two side by side</a>{/if}
  </p>
</section>

<style>
  .answer {
    margin-bottom: 12px;
    padding: 12px 16px;
    background: var(--ash-sheet);
    border-left: 4px solid var(--ash-ink);
  }
  p {
    max-width: 70rem;
    margin-top: 4px;
  }
</style>
