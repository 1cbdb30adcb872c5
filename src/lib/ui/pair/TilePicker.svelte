<script lang="ts">
  import { ComboBox } from 'carbon-components-svelte';
  import type { PairingState } from './station.svelte';
  import type { Tile } from './slots';

  /** Picks a part for one place of the chain, or the job. */
  let { pairing, tile }: { pairing: PairingState; tile: Tile } = $props();
  const problem = $derived(pairing.lost(tile));
</script>

<ComboBox
  size="sm"
  labelText={tile.label}
  placeholder={tile.options.length === 0 ? 'none in the crate yet' : tile.optional ? 'none chosen' : 'choose'}
  items={tile.options}
  selectedId={tile.selectedId}
  invalid={problem !== undefined}
  invalidText={problem ?? ''}
  shouldFilterItem={(item, typed) => {
    // The text of what is chosen is no search: opening a box shows everything there is.
    const text = tile.options.find((o) => o.id === tile.selectedId)?.text;
    return !typed || typed === text || item.text.toLowerCase().includes(typed.toLowerCase());
  }}
  on:select={(e) => {
    if (e.detail.selectedId !== tile.selectedId) pairing.swap(tile.key, e.detail.selectedId);
  }}
  on:clear={() => pairing.swap(tile.key, undefined)}
/>
