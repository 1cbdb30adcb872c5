<script lang="ts">
  import { figure, quantity } from '#core/quantities/format';
  import { stockPadsFor } from '#core/pads/gap';
  import type { FilledGap } from '#core/pads/plan-pads';
  import StateMark from '../common/StateMark.svelte';
  import { ROLE_WORD } from '../geometry/pads';

  /** Pads that must not be cut, each with what is wrong and the thickness that is right. */
  let { rejected, buyHref }: { rejected: readonly FilledGap[]; buyHref: string } = $props();
  const wrong = ({ choice }: FilledGap) =>
    choice?.verdict === 'no-contact'
      ? 'it does not touch the chip'
      : `it would be pressed by ${figure((choice?.compression ?? 0) * 100)}\u202f%, and bend the board`;
  const thickness = ({ choice }: FilledGap) => (choice?.layers ?? []).map((pad) => figure(pad.thicknessMm)).join(' + ');
</script>

{#if rejected.length > 0}
  <div class="rejected" role="alert">
    <h2><StateMark mark="fail" /> Not to be cut</h2>
    <ul>
      {#each rejected as place (place.at)}
        {@const right = stockPadsFor(place.gapMm)}
        <li>
          The {thickness(place)} mm pad over the {ROLE_WORD[place.chip.role as 'nand']}
          {place.at + 1}: the gap is {quantity(place.gapMm, 'mm')}, so that {wrong(place)}.
          {#if right.length === 1}
            <strong>A {quantity(right[0] ?? 0, 'mm')} pad closes it.</strong> It is on the
            <a href={buyHref}>shopping list</a>.
          {:else if right.length > 1}
            <strong>Two layers of {right.map(figure).join(' and ')} mm close it.</strong> They are on the
            <a href={buyHref}>shopping list</a>.
          {:else}No thickness that is sold closes this gap: another enclosure, or its maker’s own pad.{/if}
        </li>
      {/each}
    </ul>
  </div>
{/if}

<style>
  .rejected {
    margin-bottom: 16px;
    padding: 10px 14px;
    background: var(--ash-sheet);
    border: 2px solid var(--ash-fail);
  }
  h2 {
    display: flex;
    gap: 8px;
    align-items: center;
    color: var(--ash-fail);
  }
  li {
    margin: 0 0 4px 1.2em;
    list-style: disc;
  }
</style>
