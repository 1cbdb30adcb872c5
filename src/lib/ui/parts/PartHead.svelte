<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { deliveredPrice } from '#core/cost/delivered-price';
  import type { Unit } from '#core/parts/item';
  import type { Quote } from '#core/parts/quote';
  import { counted, day, money } from '#core/quantities/format';

  /** A part in a sentence: its items, the builds that use it, its newest price. */
  let {
    name,
    list,
    many,
    units,
    usedBy,
    quotes,
    onduplicate,
    ondelete
  }: {
    name: string;
    /** Address of the list that it stands in, and what that is called. */
    list: string;
    many: string;
    units: readonly { unit: Unit }[];
    usedBy: readonly string[];
    quotes: readonly { quote: Quote }[];
    onduplicate: () => void;
    ondelete: () => void;
  } = $props();
  const items = $derived(
    units.length === 0
      ? 'No item of it in the crate.'
      : `${units.map(({ unit }) => `${unit.tag} (${unit.state}${unit.location ? `, ${unit.location}` : ''})`).join('; ')}.`
  );
  const newest = $derived(quotes[0]?.quote);
</script>

<div class="page-head">
  <div class="grow">
    <p class="small"><a href={list}>All {many}</a></p>
    <h1>{name}</h1>
    <p class="quiet">
      {items}
      {#if usedBy.length > 0}In {#each usedBy as tag, i (tag)}{i > 0 ? ', ' : ''}<a href="/b/{tag}/pair">{tag}</a
          >{/each}.{/if}
      {#if newest}Newest price {money(deliveredPrice(newest), newest.currency)} delivered, {newest.vendor}, {day(
          newest.date
        )}.{/if}
    </p>
  </div>
  <Button kind="ghost" size="field" on:click={onduplicate}>Duplicate</Button>
  <Button kind="danger-ghost" size="field" on:click={ondelete}
    >Delete{quotes.length > 0 ? ` with ${counted(quotes.length, 'price')}` : ''}</Button
  >
</div>
