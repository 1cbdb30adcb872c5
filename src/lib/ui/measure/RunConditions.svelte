<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { LINK_MODES } from '#core/facts/link-modes';
  import type { ConditionId, Conditions } from '#core/results/conditions';
  import type { KeptResult } from '#core/results/run';
  import ConditionsForm from './ConditionsForm.svelte';
  import ConditionsList from './ConditionsList.svelte';

  type Props = {
    conditions: Conditions;
    chain: KeptResult['chain'] & { enclosure: string; drive: string };
    needed: readonly ConditionId[];
    mayChange: boolean;
    /** Keeps them; tells whether they were kept. */
    onkeep: (conditions: Conditions) => Promise<boolean>;
  };
  /** Under which conditions a run was made, and on what; they may be changed. */
  let { conditions, chain, needed, mayChange, onkeep }: Props = $props();
  let edited = $state.raw<Conditions>();
  const on = $derived([
    chain.host,
    chain.port,
    chain.os,
    chain.cable,
    chain.enclosure,
    chain.drive,
    chain.mode ? LINK_MODES[chain.mode].label : ''
  ]);
  async function keep(): Promise<void> {
    if (edited && (await onkeep(edited))) edited = undefined;
  }
  function withNotes(text: string): void {
    const { notes: _had, ...rest } = edited ?? {};
    edited = text.trim() === '' ? rest : { ...rest, notes: text };
  }
</script>

<h2>Conditions</h2>
<p class="small quiet">{on.filter(Boolean).join(' · ')}</p>
{#if edited}
  <ConditionsForm conditions={edited} {needed} tried={false} onchange={(next) => (edited = next)} />
  <label class="small"
    >Notes <textarea
      rows="3"
      maxlength="2000"
      value={edited.notes ?? ''}
      oninput={(e) => withNotes(e.currentTarget.value)}></textarea></label
  >
  <Button size="small" on:click={() => void keep()}>Keep the conditions</Button>
  <Button size="small" kind="ghost" on:click={() => (edited = undefined)}>Leave them as they were</Button>
{:else}
  <ConditionsList {conditions} />
  {#if mayChange}<Button size="small" kind="tertiary" on:click={() => (edited = conditions)}
      >Change the conditions</Button
    >{/if}
{/if}

<style>
  h2 {
    margin: 10px 0 6px;
  }
  label {
    display: block;
    margin: 8px 0;
  }
  textarea {
    display: block;
    width: 100%;
    padding: 4px 6px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
    color: inherit;
    font: inherit;
  }
</style>
