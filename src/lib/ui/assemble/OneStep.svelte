<script lang="ts">
  import type { SheetProgress } from '#core/sheets/progress';
  import type { RunSheet } from '#core/sheets/sheet';
  import AskBox from './AskBox.svelte';
  import StepBody from './StepBody.svelte';
  import StepPicture from './StepPicture.svelte';
  import StepTicks from './StepTicks.svelte';
  import type { SheetActs } from './acts';

  type Props = {
    sheet: RunSheet;
    progress: SheetProgress;
    acts: SheetActs;
    added: ReadonlySet<string>;
    imprintHref: string;
    /** The step that is shown; without, the first that is not done. */
    at: string | undefined;
    onmove: (stepId: string) => void;
  };
  /** The sheet one step at a time, for one hand: the step, large boxes, forward and back. */
  let { sheet, progress, acts, added, imprintHref, at, onmove }: Props = $props();
  const cards = $derived(
    sheet.stages.flatMap((stage, n) => [
      ...stage.steps.map((step, i) => ({ id: step.id, stage, n, step, first: i === 0 })),
      { id: stage.checkId, stage, n, step: undefined, first: false }
    ])
  );
  const isDone = (id: string, once: boolean) =>
    once || acts.items.length === 0
      ? acts.markOf(id)?.done === true
      : acts.items.every((item) => acts.markOf(id, item.id)?.done === true);
  const open = $derived(cards.findIndex(({ id, step }) => !isDone(id, step === undefined || step.once === true)));
  const chosen = $derived(cards.findIndex(({ id }) => id === at));
  const index = $derived(chosen >= 0 ? chosen : open >= 0 ? open : cards.length - 1);
  const card = $derived(cards[index]);

  const move = (by: number) => {
    const next = cards[index + by];
    if (next) onmove(next.id);
  };
  /** The step is done: the next one comes by itself, and can be gone back from. */
  const moving: SheetActs = $derived({
    ...acts,
    tick: (stepId, unitId, done) => {
      acts.tick(stepId, unitId, done);
      const rest = acts.items.filter((item) => item.id !== unitId);
      const last =
        card?.step === undefined ||
        card.step.once === true ||
        rest.every((item) => acts.markOf(stepId, item.id)?.done === true);
      if (done && last && stepId === card?.id) move(1);
    }
  });
</script>

{#if card}
  <section class="one" aria-label="Step {index + 1} of {cards.length}">
    <p class="where">
      Stage {card.n + 1} of {sheet.stages.length}: {card.stage.title}
      <span class="quiet">· {progress.done} of {progress.all} steps done</span>
    </p>
    <div class="bar" aria-hidden="true"><span style:width="{(100 * (index + 1)) / cards.length}%"></span></div>
    {#if card.step}
      {#if card.first}{#each card.stage.asks as ask (ask.question)}<AskBox {ask} onanswer={acts.answer} />{/each}{/if}
      <div class="body"><StepBody step={card.step} {acts} isNew={added.has(card.id)} {imprintHref} /></div>
      {#if card.step.drawing}<StepPicture drawing={card.step.drawing} />{/if}
    {:else}
      <p class="check"><strong>Check:</strong> {card.stage.check}</p>
    {/if}
    <div class="hand">
      <div class="boxes">
        <StepTicks
          step={card.step ?? { id: card.stage.checkId, text: card.stage.check, once: true }}
          acts={moving}
          large
        />
      </div>
      <nav aria-label="Steps" class="moves">
        <button type="button" disabled={index === 0} onclick={() => move(-1)}>← Back</button>
        {#if open >= 0 && open !== index}<button type="button" onclick={() => onmove(cards[open]?.id ?? '')}
            >First open step</button
          >{/if}
        <button type="button" disabled={index === cards.length - 1} onclick={() => move(1)}>Next →</button>
      </nav>
    </div>
  </section>
{/if}

<style>
  .one {
    max-width: 640px;
    margin: 0 auto;
    padding-bottom: 76px;
  }
  .where {
    font-size: var(--ash-text-small);
  }
  .bar {
    height: 3px;
    margin: 6px 0 14px;
    background: var(--ash-line);
  }
  .bar span {
    display: block;
    height: 100%;
    background: var(--ash-ink);
  }
  .body :global(.text),
  .check {
    font-size: 18px;
    line-height: 1.35;
  }
  .hand {
    display: grid;
    gap: 10px;
    margin: 14px 0;
  }
  .boxes {
    max-height: 34vh;
    overflow-y: auto;
  }
  .moves {
    display: flex;
    gap: 10px;
    justify-content: space-between;
  }
  .moves button {
    flex: 1;
    min-height: 48px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
    color: var(--ash-ink);
    cursor: pointer;
  }
  .moves button:disabled {
    opacity: 0.4;
  }
  /* What a thumb needs lies where it is. */
  @media (max-width: 672px) {
    .one {
      padding-bottom: 150px;
    }
    .hand {
      position: fixed;
      inset: auto 0 0 0;
      z-index: 20;
      margin: 0;
      padding: 8px 14px calc(8px + env(safe-area-inset-bottom));
      background: var(--ash-paper);
      border-top: 1px solid var(--ash-edge);
    }
  }
</style>
