<script lang="ts">
  import type { SheetStep } from '#core/sheets/sheet';
  import CopyLine from '../common/CopyLine.svelte';
  import StateMark from '../common/StateMark.svelte';
  import StepNotes from './StepNotes.svelte';
  import type { SheetActs } from './acts';

  /** What a step says beside its box: the reason, the caution, what was noted. */
  let {
    step,
    acts,
    isNew = false,
    imprintHref
  }: { step: SheetStep; acts: SheetActs; isNew?: boolean; imprintHref: string } = $props();
  const SEE_WORDS = {
    guard: 'Open the guard against the wrong disk',
    ladder: 'Compare it with what is expected',
    record: 'Write down what was made',
    plan: 'Write down where the recovery key lies',
    'on-it': 'Say what is on it, and where the copies are'
  } as const;
</script>

<p class="text">
  {step.text}{#if isNew}<span class="new">new</span>{/if}
</p>
{#if step.reason}<p class="small quiet">{step.reason}</p>{/if}
{#if step.caution}<p class="caution"><StateMark mark="check" size={15} /><span>{step.caution}</span></p>{/if}
{#if step.command}<CopyLine text={step.command} />{/if}
{#if step.see && acts.seeHref}
  <p class="small no-print"><a href={acts.seeHref(step.see)}>{SEE_WORDS[step.see]}</a></p>
{/if}
{#if step.code === 'check-imprint'}
  <p class="small no-print">
    <a href={imprintHref}>Write down what the imprints show</a>: the next pads follow from it.
  </p>
{/if}
<StepNotes {step} {acts} />

<style>
  .text {
    font-weight: 600;
  }
  .new {
    margin-left: 8px;
    padding: 0 6px;
    border: 1px solid var(--ash-note);
    color: var(--ash-note);
    font-size: var(--ash-text-small);
    font-weight: 500;
  }
  .caution {
    display: flex;
    gap: 7px;
    margin: 4px 0;
    color: var(--ash-caution);
  }
  .caution :global(svg) {
    margin-top: 3px;
  }
</style>
