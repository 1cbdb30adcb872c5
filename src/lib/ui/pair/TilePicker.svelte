<script lang="ts">
  import { ComboBox } from 'carbon-components-svelte';
  import type { PairingState } from './station.svelte';
  import type { Tile } from './slots';

  /** Picks a part for one place of the chain, or the job. */
  let { pairing, tile }: { pairing: PairingState; tile: Tile } = $props();
  const problem = $derived(pairing.lost(tile));
  const more = $derived(pairing.more(tile.key));
  let typed = $state('');
  const chosen = $derived(tile.options.find((o) => o.id === tile.selectedId)?.text);
  $effect(() => {
    // Of a large crate only some are here: what is typed is looked for among the others too.
    if (typed !== '' && typed !== chosen) pairing.find(tile.key, typed);
  });
</script>

<ComboBox
  size="sm"
  labelText={tile.label}
  placeholder={more > 0
    ? 'choose, or type'
    : tile.options.length === 0
      ? 'none in the crate yet'
      : tile.optional
        ? 'none chosen'
        : 'choose'}
  items={tile.options}
  bind:value={typed}
  selectedId={tile.selectedId}
  invalid={problem !== undefined}
  invalidText={problem ?? ''}
  shouldFilterItem={(item, words) =>
    // The text of what is chosen is no search: opening a box shows everything there is.
    !words ||
    words === chosen ||
    words
      .toLowerCase()
      .split(/\s+/)
      .every((word) => item.text.toLowerCase().includes(word))}
  on:select={(e) => {
    if (e.detail.selectedId !== tile.selectedId) pairing.swap(tile.key, e.detail.selectedId);
  }}
  on:clear={() => pairing.swap(tile.key, undefined)}
/>
