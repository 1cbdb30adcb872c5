<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { counted } from '#core/quantities/format';
  import type { SheetChanges } from '#core/sheets/progress';

  /** What the parts have made of the sheet since it was looked through. */
  let { changes, onseen }: { changes: SheetChanges; onseen: () => void } = $props();
  const done = $derived(changes.gone.filter((step) => step.done).length);
</script>

{#if changes.added.length + changes.gone.length > 0}
  <div class="changes no-print" role="status">
    <p>
      <strong>The parts of this build were changed since the sheet was begun.</strong>
      {#if changes.added.length > 0}{counted(changes.added.length, 'step')}
        {changes.added.length === 1 ? 'is' : 'are'} new and not done.{/if}
      {#if changes.gone.length > 0}{counted(changes.gone.length, 'step')} fell away{done > 0
          ? `; ${done} of them ${done === 1 ? 'was' : 'were'} done, which stays in the log`
          : ''}.{/if}
    </p>
    <details>
      <summary>Which ones</summary>
      <ul>
        {#each changes.added as step (step.id)}<li>New: {step.text}</li>{/each}
        {#each changes.gone as step (step.id)}<li>
            Fell away{step.done ? ', had been done' : ''}: <s>{step.text}</s>
          </li>{/each}
      </ul>
    </details>
    <Button size="small" kind="tertiary" on:click={onseen}>I have looked through it</Button>
  </div>
{/if}

<style>
  .changes {
    display: grid;
    gap: 8px;
    justify-items: start;
    padding: 10px 14px;
    margin: 8px 0 14px;
    border-left: 3px solid var(--ash-note);
    background: var(--ash-well);
  }
  summary {
    cursor: pointer;
  }
  li {
    margin-left: 1.2em;
    list-style: disc;
  }
</style>
