<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import { Button } from 'carbon-components-svelte';
  import { day, money } from '#core/quantities/format';
  import { changesOf } from '$lib/client/change';
  import Parcels from '$lib/ui/buy/Parcels.svelte';
  import ShoppingRow from '$lib/ui/buy/ShoppingRow.svelte';
  import type { ShoppingLine } from '#core/cost/shopping';

  let { data } = $props();
  const list = $derived(data.list);
  const home = $derived(`/c/${data.crate.slug}`);
  const change = $derived(changesOf(data.crate.id));
  const api = $derived(`/api/crates/${data.crate.id}`);
  let busy = $state(false);

  /** One has it, or it is on its way: it gets an item in this build. */
  async function have({ modelId, name }: ShoppingLine, state: 'owned' | 'ordered'): Promise<void> {
    busy = true;
    const body = { count: 1, unit: { modelId, state, buildId: data.build.id } };
    await change('POST', `${api}/units/many`, body, state === 'owned' ? `You have ${name}.` : `${name} is ordered.`);
    busy = false;
  }
  async function notePrice({ modelId, name }: ShoppingLine, list: number, vendor: string): Promise<boolean> {
    busy = true;
    const quote = { partId: modelId, vendor, date: data.today, currency: data.crate.currency, list };
    const refused = ({ message }: { message: string }) => message;
    const refusal = await change('POST', `${api}/quotes`, quote, { words: `Noted a price of ${name}.`, refused });
    busy = false;
    return refusal === undefined;
  }
  const waiting = $derived([
    ...list.lines.filter((l) => l.state === 'to-buy').map((l) => `${l.name} is not there yet.`),
    ...list.lines
      .filter((l) => l.state === 'ordered')
      .map((l) => `${l.name} (${l.unit?.tag}) is ordered and has not come.`)
  ]);
  const saving = $derived(list.separate.total - list.together.total);
</script>

<svelte:head><title>Buy · {data.build.tag} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Shopping list</h1>
      <p class="quiet">
        {data.build.tag}
        {data.build.name}: what is there, what comes in a box, what is to buy, and where it costs least delivered.
      </p>
    </div>
    <Button kind="tertiary" size="field" class="no-print" on:click={() => window.print()}>Print</Button>
  </div>
  <Wide label="Parts"
    ><table class="plain-table">
      <thead
        ><tr
          ><th>For</th><th>Part</th><th>State</th><th>Where</th><th class="number">Cheapest, delivered</th><th
            >Vendor</th
          ><th>Age of the price</th><th class="no-print">A price that you saw</th></tr
        ></thead
      >
      <tbody>
        {#each list.lines as line, i (i)}
          <ShoppingRow
            {line}
            currency={list.currency}
            {home}
            today={data.today}
            {busy}
            onhave={(state) => have(line, state)}
            onprice={(price, vendor) => notePrice(line, price, vendor)}
          />
        {/each}
      </tbody>
    </table></Wide
  >
  {#if list.separate.parcels.length > 0}
    <h2>Each part where it costs least delivered</h2>
    <Parcels label="Parcels, each part apart" split={list.separate} currency={list.currency} />
    {#if saving > 0.005}
      <h2>In as few parcels as pays</h2>
      <p class="small quiet">
        If a vendor sends what it sells in one parcel and its dearest shipping is paid once: {money(
          saving,
          list.currency
        )} less. Ask before you count on it.
      </p>
      <Parcels label="Parcels, put together" split={list.together} currency={list.currency} />
    {/if}
  {/if}
  {#if list.unpriced.length > 0}<p>Without a price: {list.unpriced.join('; ')}.</p>{/if}
  <h2>Before you can start</h2>
  {#if waiting.length === 0}<p>Every part is there ({day(data.today)}).</p>{/if}
  <ul>
    {#each [...waiting, ...list.checks] as text (text)}<li>{text}</li>{/each}
  </ul>
</div>

<style>
  h2 {
    margin: 22px 0 6px;
  }
  li {
    margin: 0 0 4px 1.2em;
    list-style: disc;
  }
</style>
