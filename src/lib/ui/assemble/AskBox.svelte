<script lang="ts">
  import type { Ask, SheetAnswer } from '#core/sheets/sheet';

  /** What the part does not say and the sheet depends on; one press answers it. */
  let { ask, onanswer }: { ask: Ask; onanswer: (answer: SheetAnswer) => void } = $props();
  let count = $state(4);
  const id = $props.id();

  function say(value: string): void {
    if (ask.question === 'screws') {
      const head = value as 'cross' | 'star' | 'hex';
      onanswer({ question: 'screws', value: { head, count: Math.min(24, Math.max(1, Math.round(count || 1))) } });
    } else if (ask.question === 'directionMark') onanswer({ question: 'directionMark', value: value === 'true' });
    else onanswer({ question: ask.question, value } as SheetAnswer);
  }
</script>

<fieldset class="no-print">
  <legend>{ask.text}</legend>
  <p class="small quiet">
    The answer is kept with the part, so that it is asked once. Without one the steps say what holds for all.
  </p>
  {#if ask.question === 'screws'}
    <label class="small" for="{id}-count">How many</label>
    <input id="{id}-count" type="number" min="1" max="24" bind:value={count} />
  {/if}
  <div class="options">
    {#each ask.options as { value, label } (value)}
      <button type="button" onclick={() => say(value)}>{label}</button>
    {/each}
  </div>
</fieldset>

<style>
  fieldset {
    margin: 0 0 10px;
    padding: 8px 12px 10px;
    border: 1px solid var(--ash-line);
    border-left: 3px solid var(--ash-note);
    background: var(--ash-sheet);
  }
  legend {
    float: left;
    width: 100%;
    font-weight: 600;
  }
  .options {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin-top: 6px;
  }
  button {
    min-height: 32px;
    padding: 4px 12px;
    border: 1px solid var(--ash-edge);
    background: none;
    color: var(--ash-ink);
    cursor: pointer;
  }
  button:hover {
    background: var(--ash-well);
  }
  input {
    width: 4.5rem;
    min-height: 32px;
    border: 1px solid var(--ash-edge);
    background: none;
    color: var(--ash-ink);
  }
  @media (max-width: 672px) {
    input {
      min-height: 44px;
    }
  }
</style>
