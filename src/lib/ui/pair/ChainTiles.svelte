<script lang="ts">
  import type { ChainPlace } from '#core/build/options';
  import Piece from '../common/Piece.svelte';
  import type { PairingState } from './station.svelte';
  import type { Tile } from './slots';
  import TilePicker from './TilePicker.svelte';
  import { PLACE_WORD } from './what-if-rows';

  /** The four places of the chain, each with what is picked there and the steps to the next part. */
  let { pairing }: { pairing: PairingState } = $props();
  const chain = $derived(pairing.tiles.filter((tile) => tile.key !== 'job'));

  /** How many there are to choose from. Of computers that are not here nobody knows how many ports they have. */
  function countOf(tile: Tile, where: ChainPlace): string {
    const more = pairing.more(where);
    return where === 'port' && more > 0 ? `${tile.options.length}+` : String(tile.options.length + more);
  }
  function detail(tile: Tile): string {
    const picked = tile.options.find((o) => o.id === tile.selectedId);
    if (picked) return picked.detail;
    if (tile.key === 'cable' && pairing.input?.enclosure.captiveCable) return 'fixed to the case';
    if (!tile.optional || pairing.lost(tile)) return '\u00a0';
    return tile.key === 'cable' ? 'from the box, or assumed' : 'optional';
  }
</script>

<div class="tiles no-print">
  {#each chain as tile (tile.key)}
    {@const where = tile.key as ChainPlace}
    {@const at = tile.options.findIndex((o) => o.id === tile.selectedId)}
    <div class="tile" class:marked={where === pairing.place} onfocusin={() => (pairing.place = where)}>
      <Piece><TilePicker {pairing} {tile} /></Piece>
      <div class="foot">
        <p class="detail small">{detail(tile)}</p>
        {#if tile.options.length > 1}
          <span class="step small">
            <button
              type="button"
              aria-label="Previous {PLACE_WORD[where]}"
              title="k"
              onclick={() => pairing.step(-1, where)}>‹</button
            >
            <span class="figure"
              >{at < 0 ? '–' : at + 1}<span class="quiet">&thinsp;of&thinsp;{countOf(tile, where)}</span></span
            >
            <button type="button" aria-label="Next {PLACE_WORD[where]}" title="j" onclick={() => pairing.step(1, where)}
              >›</button
            >
          </span>
        {/if}
      </div>
    </div>
  {/each}
</div>

<style>
  .tiles {
    display: grid;
    grid-template-columns: 1.3fr 1fr 1fr 1fr;
    border-bottom: 1px solid var(--ash-line);
  }
  .tile {
    min-width: 0;
    padding: 6px 10px 4px;
  }
  .tile + .tile {
    border-left: 1px solid var(--ash-line);
  }
  .tile :global(.bx--label) {
    margin-bottom: 2px;
    font-size: var(--ash-text-small);
    color: var(--ash-soft);
  }
  .tile :global(.bx--text-input) {
    padding-left: 8px;
    padding-right: 48px;
    font-weight: 600;
    text-overflow: ellipsis;
  }
  .tile :global(.bx--list-box__menu-icon) {
    right: 6px;
  }
  .tile :global(.bx--list-box__selection) {
    right: 24px;
  }
  .tile.marked {
    box-shadow: inset 0 3px 0 var(--ash-ink);
  }
  .foot {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 6px;
    margin-top: 3px;
  }
  .step {
    display: inline-flex;
    align-items: center;
    gap: 2px;
    white-space: nowrap;
  }
  .step .figure {
    font-size: var(--ash-text-small);
  }
  .step button {
    min-width: 24px;
    min-height: 24px;
    padding: 0;
    border: 0;
    background: none;
    color: var(--ash-ember);
    font-size: 16px;
    line-height: 1;
    cursor: pointer;
  }
  .detail {
    min-width: 0;
    color: var(--ash-soft);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  @media (max-width: 1100px) {
    .tiles {
      grid-template-columns: 1fr 1fr;
    }
    .tile:nth-child(odd) {
      border-left: 0;
    }
  }
  @media (max-width: 560px) {
    .tiles {
      grid-template-columns: 1fr;
    }
    .tile + .tile {
      border-left: 0;
      border-top: 1px solid var(--ash-line);
    }
    .step button {
      min-width: 44px;
      min-height: 44px;
    }
  }
</style>
