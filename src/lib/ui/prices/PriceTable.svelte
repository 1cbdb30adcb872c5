<script lang="ts">
  import { deliveredPrice } from '#core/cost/delivered-price';
  import { money } from '#core/quantities/format';
  import SortHead from '../common/SortHead.svelte';
  import Wide from '../common/Wide.svelte';
  import { aboveTarget, type Cheapest, type PriceOrder } from '#core/cost/cheapest';
  import { age } from './history';

  type Part = Cheapest<{ id: string; kind: string; name: string }>;
  /** The cheapest price of each part, and how far it is from what one wants to pay. */
  let {
    rows,
    all,
    sort,
    down,
    home,
    currency,
    today,
    onsort
  }: {
    rows: readonly Part[];
    /** How many parts have a price. */
    all: number;
    sort: PriceOrder;
    down: boolean;
    home: string;
    currency: string;
    today: string;
    onsort: (order: PriceOrder) => void;
  } = $props();
  const HEADS = [
    ['name', 'Part'],
    ['price', 'Cheapest, delivered'],
    ['age', 'Age'],
    ['target', 'To the target']
  ] as const;
  const toTarget = (row: Part) => {
    const above = aboveTarget(row, currency);
    return above === undefined ? '–' : above <= 0 ? 'reached' : `${money(above, currency)} above`;
  };
</script>

<Wide label="Prices">
  <table class="plain-table">
    <thead
      ><tr>
        {#each HEADS as [id, label] (id)}
          <SortHead
            {label}
            number={id === 'price'}
            sorted={sort === id ? (down ? 'down' : 'up') : undefined}
            onsort={() => onsort(id)}
          />
        {/each}
        <th scope="col">Shop</th><th scope="col" class="number">Prices</th></tr
      ></thead
    >
    <tbody>
      {#each rows as row (row.part.id)}
        {@const { part, quote, count } = row}
        <tr>
          <td class="name"><a href="{home}/crate/{part.kind}/{part.id}?tab=quotes">{part.name}</a></td>
          <td class="number figure"
            >{row.home === undefined
              ? `${money(deliveredPrice(quote), quote.currency)} – no rate`
              : money(row.home, currency)}</td
          >
          <td>{age(quote.date, today)}</td>
          <td>{toTarget(row)}</td>
          <td>{quote.vendor}</td>
          <td class="number figure">{count}</td>
        </tr>
      {/each}
    </tbody>
  </table>
  {#if rows.length === 0}<p class="quiet">{all === 0 ? 'No price yet.' : 'Nothing matches.'}</p>{/if}
</Wide>

<style>
  .name {
    min-width: 9rem;
  }
</style>
