<script lang="ts">
  import { tick } from 'svelte';
  import { Button, Checkbox } from 'carbon-components-svelte';
  import { counted } from '#core/quantities/format';

  /** The last step of an import: what is wrong left out or not, and all the rest taken in. */
  let {
    wrong,
    writes,
    ready,
    mending,
    skipWrong = $bindable(),
    onstart
  }: {
    /** Rows that are wrong, and rows that would be written. */
    wrong: number;
    writes: number;
    ready: boolean;
    /** Whether cells were put right by hand. */
    mending: boolean;
    skipWrong: boolean;
    onstart: () => void;
  } = $props();
  let here = $state<HTMLElement>();
  // Where the last thing to mend went away under the focus, the next thing to do has it.
  $effect(() => {
    if (!mending || !ready) return;
    void tick().then(() => {
      if (document.activeElement === document.body) here?.querySelector('button')?.focus();
    });
  });
</script>

<div bind:this={here}>
  {#if wrong > 0 && writes > 0}
    <Checkbox
      labelText="Import the rest and leave out {wrong === 1 ? 'the wrong row' : `the ${wrong} wrong rows`}"
      bind:checked={skipWrong}
    />
  {/if}
  <Button size="field" disabled={!ready} on:click={onstart}>Import {counted(writes, 'row')}</Button>
</div>

<style>
  div {
    margin-top: 10px;
  }
</style>
