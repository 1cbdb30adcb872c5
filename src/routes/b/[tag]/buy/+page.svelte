<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import { Button } from 'carbon-components-svelte';
  import { day, money } from '#core/quantities/format';
  import { age } from '$lib/ui/prices/history';
  import type { Parcel } from '#core/cost/shopping';

  let { data } = $props();
  const list = $derived(data.list);
  const home = $derived(`/c/${data.crate.slug}`);
  const STATE = { owned: 'in the crate', ordered: 'ordered', 'in-the-box': 'in a box', 'to-buy': 'to buy' };
  const waiting = $derived([
    ...list.lines.filter((l) => l.state === 'to-buy').map((l) => `${l.name} is not there yet.`),
    ...list.lines
      .filter((l) => l.state === 'ordered')
      .map((l) => `${l.name} (${l.unit?.tag}) is ordered and has not come.`)
  ]);
  const saving = $derived(list.separate.total - list.together.total);
</script>

<svelte:head><title>Buy · {data.build.tag} · Ash Crate</title></svelte:head>
{#snippet parcels(label: string, split: { parcels: Parcel[]; total: number })}
  <Wide {label}
    ><table class="plain-table">
      <thead
        ><tr
          ><th>Vendor</th><th>Parts</th><th class="number">Goods with tax</th><th class="number">Shipping</th><th
            class="number">Together</th
          ></tr
        ></thead
      >
      <tbody>
        {#each split.parcels as parcel (parcel.vendor)}
          <tr>
            <td>{parcel.vendor}</td><td>{parcel.names.join(', ')}</td>
            <td class="number figure">{money(parcel.goods, list.currency)}</td>
            <td class="number figure">{money(parcel.shipping, list.currency)}</td>
            <td class="number figure">{money(parcel.total, list.currency)}</td>
          </tr>
        {/each}
        <tr
          ><td colspan="4"><strong>Delivered in all</strong></td><td class="number figure"
            ><strong>{money(split.total, list.currency)}</strong></td
          ></tr
        >
      </tbody>
    </table></Wide
  >
{/snippet}
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Shopping list</h1>
      <p class="quiet">
        {data.build.tag}
        {data.build.name}: what is there, what comes in a box, what is to buy and where it lands cheapest.
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
          ><th>Age of the price</th></tr
        ></thead
      >
      <tbody>
        {#each list.lines as line, i (i)}
          {@const best = line.offers[0]}
          <tr>
            <td>{line.role}</td>
            <td
              >{#if line.modelId}<a href="{home}/crate/{line.role}/{line.modelId}?tab=quotes">{line.name}</a
                >{:else}{line.name}{/if}</td
            >
            <td class={line.state}>{STATE[line.state]}</td>
            <td>
              {#if line.unit}<a href="{home}/u/{encodeURIComponent(line.unit.tag)}">{line.unit.tag}</a>{line.unit
                  .location
                  ? `, ${line.unit.location}`
                  : ''}{line.unit.custodian ? `, with ${line.unit.custodian}` : ''}
              {:else if line.inBoxOf}in the box of {line.inBoxOf}{:else}–{/if}
            </td>
            {#if line.state === 'to-buy' && best}
              <td class="number figure">{money(best.landed, list.currency)}</td>
              <td>{best.vendor}{best.currency === list.currency ? '' : ` (${best.currency}, converted)`}</td>
              <td>{age(best.date, data.today)}{best.expired ? ', run out' : ''}</td>
            {:else}<td class="number">{line.state === 'to-buy' ? 'no price' : '–'}</td><td
                >{line.unconverted.length > 0 ? `no rate for ${line.unconverted.join('; ')}` : '–'}</td
              ><td>–</td>{/if}
          </tr>
        {/each}
      </tbody>
    </table></Wide
  >
  {#if list.separate.parcels.length > 0}
    <h2>Each part where it lands cheapest</h2>
    {@render parcels('Parcels, each part apart', list.separate)}
    {#if saving > 0.005}
      <h2>In as few parcels as pays</h2>
      <p class="small quiet">
        If a vendor sends what it sells in one parcel and its dearest shipping is paid once: {money(
          saving,
          list.currency
        )} less. Ask before you count on it.
      </p>
      {@render parcels('Parcels, put together', list.together)}
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
  .to-buy {
    color: var(--ash-caution);
    font-weight: 600;
  }
  .owned,
  .in-the-box {
    color: var(--ash-pass);
  }
</style>
