<script lang="ts">
  import { quantity } from '#core/quantities/format';
  import type { StackRow } from '#core/pads/plan-pads';
  import type { Proposal, Proposals } from '#core/pads/propose';
  import StateMark from '../common/StateMark.svelte';
  import { ROLE_WORD } from '../geometry/pads';

  type Props = { proposals: Proposals; current: readonly StackRow[]; onpick: (proposal: Proposal) => void };
  let { proposals, current, onpick }: Props = $props();
  const keyOf = (rows: readonly StackRow[]) => rows.map((row) => `${row.component}:${row.pads.join('+')}`).join(' ');
  const here = $derived(keyOf(current));
  /** Chips with the same pads are named together. */
  function words(rows: readonly StackRow[]): string {
    const groups = new Map<string, string[]>();
    for (const row of rows) {
      const pads = row.pads.length > 0 ? `${row.pads.join(' + ')} mm` : 'bare';
      const name = `${ROLE_WORD[row.role as 'nand']}${row.side === 'bottom' ? ' underneath' : ''}`;
      groups.set(pads, [...new Set([...(groups.get(pads) ?? []), name])]);
    }
    return [...groups].map(([pads, names]) => `${pads} over ${names.join(' and ')}`).join(', ');
  }
  const MARK = (proposal: Proposal) =>
    proposal.allGood
      ? 'pass'
      : proposal.rows.some((r) => r.verdict === 'no-contact' || r.verdict === 'over-compressed')
        ? 'fail'
        : 'check';
</script>

<h2>Proposals</h2>
<ol>
  {#each proposals.sets as proposal, i (keyOf(proposal.rows))}
    {@const chosen = keyOf(proposal.rows) === here}
    <li class:chosen>
      <button type="button" aria-pressed={chosen} onclick={() => onpick(proposal)}>
        <span class="mark {MARK(proposal)}"><StateMark mark={MARK(proposal)} size={14} /></span>
        <span
          >{words(proposal.rows)}{i > 0 ? '' : MARK(proposal) === 'fail' ? ' (nothing at hand fits)' : ' (best)'}</span
        >
      </button>
      {#if chosen || i === 0}<p class="small quiet">{proposal.because.join('; ')}.</p>{/if}
    </li>
  {/each}
</ol>
{#if proposals.toBuy.length > 0}
  <p class="buy">
    <strong>To buy:</strong>
    {proposals.toBuy
      .map(
        (pad) =>
          `a ${quantity(pad.thicknessMm, 'mm')} pad of at least ${Math.ceil(pad.lengthMm)} × ${Math.ceil(pad.widthMm)} mm for the ${quantity(pad.gapMm, 'mm')} gap over the ${ROLE_WORD[pad.role as 'nand']}${pad.side === 'bottom' ? ' underneath' : ''}`
      )
      .join('; ')}.
  </p>
{/if}

<style>
  ol {
    margin: 4px 0 8px;
    padding: 0;
    list-style: none;
  }
  li {
    border-bottom: 1px solid var(--ash-line);
  }
  li.chosen {
    background: var(--ash-well);
  }
  button {
    display: flex;
    gap: 8px;
    width: 100%;
    padding: 6px 8px;
    border: 0;
    background: none;
    color: var(--ash-ember);
    text-align: left;
    text-decoration: underline;
    text-underline-offset: 3px;
    cursor: pointer;
  }
  .chosen button {
    color: var(--ash-ink);
    font-weight: 600;
    text-decoration: none;
  }
  li p {
    padding: 0 8px 6px 30px;
  }
  .pass {
    color: var(--ash-pass);
  }
  .check {
    color: var(--ash-caution);
  }
  .fail {
    color: var(--ash-fail);
  }
  .buy {
    margin-bottom: 10px;
    padding: 6px 10px;
    background: var(--ash-ember-wash);
  }
</style>
