<script lang="ts">
  import { MOST_QUESTIONS, type TroubleReport } from '#core/diagnosis/trouble';
  import { CANNOT_TELL } from '#core/diagnosis/question';
  import Outcomes from './Outcomes.svelte';
  import { minuteWords } from './path';

  type Props = {
    ask: NonNullable<TroubleReport['ask']>;
    number: number;
    onanswer: (outcome: string) => void;
  };
  /** One thing to look at, with everything that it can show as a button. */
  let { ask, number, onanswer }: Props = $props();
  /** The question is read where the eye is: below the answer that led to it. */
  function focusIt(node: HTMLElement): void {
    if (number > 1) node.focus({ preventScroll: true });
  }
</script>

<section class="ask">
  <p class="small quiet">
    Look {number} of at most {MOST_QUESTIONS} · {minuteWords(ask.minutes)}{ask.tools.length > 0
      ? ` · takes ${ask.tools.join(' and ')}`
      : ' · without tools'}
  </p>
  {#key ask.test}<h2 tabindex="-1" {@attach focusIt}>{ask.text}</h2>{/key}
  <Outcomes outcomes={ask.outcomes} quietly={CANNOT_TELL} {onanswer} />
</section>

<style>
  .ask {
    align-self: start;
    max-width: 46rem;
    padding: 16px 20px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
  }
  h2 {
    margin: 4px 0 12px;
    font-size: 18px;
    line-height: 1.35;
    outline: none;
  }
</style>
