<script lang="ts">
  import type { NextTest } from '#core/diagnosis/next-test';
  import { CAUSE_NAMES } from '#core/diagnosis/names';
  import { CANNOT_TELL } from '#core/diagnosis/question';
  import { day } from '#core/quantities/format';
  import { PROTOCOL_LABEL } from '#core/results/newest';
  import type { ProtocolId } from '#core/results/protocol-ids';
  import Outcomes from '../trouble/Outcomes.svelte';
  import { minuteWords } from '../trouble/path';

  type Props = {
    next: NextTest;
    busy: boolean;
    /** Later runs that answer it. */
    answers: readonly { runId: string; protocol: ProtocolId; date: string; simulated: boolean; outcome: string }[];
    runHref: (id: string) => string;
    onanswer: (outcome: string) => void;
    /** Where a way of measuring is begun on this build. */
    measureHref: (protocol: ProtocolId) => string;
  };
  /** The one test that tells most for its minutes, with everything that it can show as a button. */
  let { next, busy, answers, runHref, onanswer, measureHref }: Props = $props();
  const { protocol } = $derived(next);
  const outcomes = $derived([
    ...next.outcomes.map(({ outcome, text, points }) => ({ outcome, text, then: CAUSE_NAMES[points] ?? points })),
    { outcome: CANNOT_TELL, text: next.tools.length > 0 ? 'I cannot try that' : 'I cannot tell' }
  ]);
</script>

<section class="next" aria-labelledby="next-head">
  <p class="small quiet">
    Find out next · {minuteWords(next.minutes)}{next.tools.length > 0
      ? ` · takes ${next.tools.join(' and ')}`
      : ' · without tools'}
  </p>
  <h2 id="next-head">{next.text}</h2>
  <p class="small">{next.because}</p>
  {#if protocol}<p class="small">
      <a href={measureHref(protocol)}>Measure it: {PROTOCOL_LABEL[protocol]}</a>, on the rig or by hand; what it shows
      can then be taken here.
    </p>{/if}
  {#each answers as { runId, protocol: by, date, simulated, outcome } (runId)}
    <p class="small">
      The <a href={runHref(runId)}>{PROTOCOL_LABEL[by]} of {day(date)}</a>{simulated ? ', a simulated one,' : ''} answers
      it:
      <strong>{next.outcomes.find((one) => one.outcome === outcome)?.text ?? outcome}</strong>
      <button type="button" class="link no-print" disabled={busy} onclick={() => onanswer(outcome)}>Take it</button>
    </p>
  {/each}
  <Outcomes {outcomes} quietly={CANNOT_TELL} {busy} {onanswer} />
</section>

<style>
  .next {
    max-width: 60rem;
    margin: 12px 0;
    padding: 12px 18px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
  }
  h2 {
    margin: 2px 0 6px;
    font-size: 18px;
    line-height: 1.35;
  }
</style>
