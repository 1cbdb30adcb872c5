<script lang="ts">
  import type { SheetStep } from '#core/sheets/sheet';
  import When from '../common/When.svelte';
  import type { SheetActs } from './acts';

  /** The boxes of a step: one, or one for each item. What two hands said against each other is shown, and asked. */
  let {
    step,
    acts,
    large = false
  }: { step: Pick<SheetStep, 'id' | 'text' | 'once'>; acts: SheetActs; large?: boolean } = $props();
  const items = $derived(step.once || acts.items.length === 0 ? [undefined] : acts.items);
  const disputed = $derived(
    items.flatMap((item) => {
      const mark = acts.markOf(step.id, item?.id);
      return mark?.disputed && mark.entry ? [{ item, mine: mark.entry, theirs: mark.disputed }] : [];
    })
  );
</script>

<div class="ticks" class:large class:many={items.length > 1}>
  {#each items as item (item?.id ?? '')}
    {@const mark = acts.markOf(step.id, item?.id)}
    <label class:done={mark?.done}>
      <input
        type="checkbox"
        checked={mark?.done ?? false}
        indeterminate={mark?.disputed ? true : false}
        aria-label="{step.text}{item ? `, ${item.tag}` : ''}"
        onchange={(e) => acts.tick(step.id, item?.id, e.currentTarget.checked)}
      />
      {#if item}<span class="tag">{item.tag}</span>{:else if large}<span>Done</span>{/if}
    </label>
  {/each}
</div>
{#each disputed as { item, mine, theirs } (item?.id ?? '')}
  <p class="disputed" role="alert">
    {item ? `${item.tag}: ` : ''}{mine.by}
    {mine.done ? 'ticked' : 'unticked'} it <When at={mine.at} />, {theirs.by}
    {theirs.done ? 'ticked' : 'unticked'} it <When at={theirs.at} /> without having seen that. How is it?
    <button type="button" class="plain" onclick={() => acts.tick(step.id, item?.id, true)}>It is done</button>
    <button type="button" class="plain" onclick={() => acts.tick(step.id, item?.id, false)}>It is not done</button>
  </p>
{/each}

<style>
  .ticks {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
  }
  label {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    min-height: 32px;
    cursor: pointer;
  }
  input {
    width: 20px;
    height: 20px;
    margin: 0;
    accent-color: var(--ash-ink);
  }
  .tag {
    font: 600 12px var(--ash-mono);
  }
  .large label {
    min-height: 56px;
    padding: 0 18px 0 8px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
    font-weight: 600;
  }
  .large .done {
    background: var(--ash-well);
  }
  .disputed {
    margin: 6px 0;
    padding: 8px 10px;
    border-left: 3px solid var(--ash-caution);
    background: var(--ash-well);
  }
  .plain {
    min-height: 32px;
    margin: 4px 6px 0 0;
    padding: 4px 12px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
    color: var(--ash-ink);
    cursor: pointer;
  }
  @media (max-width: 672px) {
    label {
      min-height: 44px;
    }
  }
</style>
