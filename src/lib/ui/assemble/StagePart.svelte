<script lang="ts">
  import { tick } from 'svelte';
  import type { StageProgress } from '#core/sheets/progress';
  import type { SheetStage } from '#core/sheets/sheet';
  import AskBox from './AskBox.svelte';
  import StepBody from './StepBody.svelte';
  import StepPicture from './StepPicture.svelte';
  import StepTicks from './StepTicks.svelte';
  import type { SheetActs } from './acts';

  type Props = {
    stage: SheetStage;
    number: number;
    of: number;
    progress: StageProgress;
    open: boolean;
    acts: SheetActs;
    added: ReadonlySet<string>;
    imprintHref: string;
    ontoggle: (open: boolean) => void;
  };
  /** One stage: its questions, its steps, and the check that ends it. */
  let { stage, number, of, progress, open, acts, added, imprintHref, ontoggle }: Props = $props();
  const left = $derived(progress.all - progress.done);
  let check = $state<HTMLElement>();

  async function toCheck(): Promise<void> {
    await tick();
    if (left === 0 && !progress.checked) check?.scrollIntoView({ block: 'nearest' });
  }
  $effect(() => {
    if (left === 0) void toCheck();
  });
</script>

<details class="stage" {open} ontoggle={(e) => ontoggle(e.currentTarget.open)} id="stage-{stage.id}">
  <summary>
    <span class="count">{number} of {of}</span>
    <span class="title">{stage.title}</span>
    <span class="state" class:complete={progress.complete}
      >{progress.complete
        ? 'checked'
        : progress.done === 0
          ? `${progress.all} steps`
          : `${progress.done} of ${progress.all}`}</span
    >
  </summary>
  {#each stage.asks as ask (ask.question)}<AskBox {ask} onanswer={acts.answer} />{/each}
  <ol>
    {#each stage.steps as step (step.id)}
      <li id={step.id} class:pictured={step.drawing !== undefined} class:several={acts.items.length > 1}>
        <div class="box"><StepTicks {step} {acts} /></div>
        <div class="body"><StepBody {step} {acts} isNew={added.has(step.id)} {imprintHref} /></div>
        {#if step.drawing}<div class="picture"><StepPicture drawing={step.drawing} /></div>{/if}
      </li>
    {/each}
  </ol>
  <div class="check" class:ready={left === 0} bind:this={check}>
    <StepTicks step={{ id: stage.checkId, text: stage.check, once: true }} {acts} />
    <p>
      <strong>Check:</strong>
      {stage.check}
      {#if left > 0}<span class="quiet small">{left === 1 ? 'One step' : `${left} steps`} before it.</span>{/if}
    </p>
  </div>
</details>

<style>
  .stage {
    border-top: 1px solid var(--ash-edge);
  }
  summary {
    display: flex;
    gap: 12px;
    align-items: baseline;
    padding: 10px 0;
    cursor: pointer;
    list-style: none;
  }
  summary::-webkit-details-marker {
    display: none;
  }
  .count {
    min-width: 3.4rem;
    font: 500 12px var(--ash-mono);
    color: var(--ash-soft);
  }
  .title {
    flex: 1;
    font-weight: 650;
  }
  .state {
    font-size: var(--ash-text-small);
    color: var(--ash-soft);
  }
  .complete {
    color: var(--ash-pass);
    font-weight: 600;
  }
  ol {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: grid;
    grid-template-columns: minmax(32px, max-content) minmax(0, 1fr) minmax(0, 22rem);
    gap: 4px 14px;
    padding: 9px 0;
    border-top: 1px solid var(--ash-line);
    scroll-margin-top: 80px;
  }
  li:not(.pictured) .body {
    grid-column: 2 / -1;
  }
  /* Where no drawing stands on the right, what adds to a step does: a row is as high as its words. */
  @media (min-width: 801px) {
    li:not(.pictured) .body {
      display: grid;
      grid-template-columns: minmax(0, 1fr) max-content;
      gap: 0 14px;
    }
    li:not(.pictured) .body > :global(*) {
      grid-column: 1;
    }
    li:not(.pictured) .body > :global(.add) {
      grid-column: 2;
      grid-row: 1 / span 3;
      align-self: start;
    }
  }
  .check {
    display: flex;
    gap: 14px;
    align-items: center;
    padding: 10px 12px;
    margin: 4px 0 14px;
    border: 1px dashed var(--ash-edge);
    background: var(--ash-sheet);
  }
  .ready {
    border-style: solid;
    border-color: var(--ash-ink);
  }
  @media (max-width: 800px) {
    li {
      grid-template-columns: minmax(44px, max-content) minmax(0, 1fr);
    }
    .picture {
      grid-column: 1 / -1;
    }
    /* Boxes of several items leave no room beside them. */
    li.several,
    li.several:not(.pictured) .body {
      display: block;
    }
  }
</style>
