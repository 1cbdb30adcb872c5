<script lang="ts">
  import { Button, TextInput } from 'carbon-components-svelte';
  import { deliveredPrice } from '#core/cost/delivered-price';
  import type { Quote } from '#core/parts/quote';
  import { day, money, quantity } from '#core/quantities/format';
  import { readQuantity } from '#core/quantities/read';
  import Explained from '$lib/ui/common/Explained.svelte';
  import Plot from '$lib/ui/common/Plot.svelte';
  import RecordForm from '$lib/ui/common/RecordForm.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import { age, priceTraces } from '$lib/ui/prices/history';
  import type { SentChange } from '../refused';
  import { quoteFields } from '../record-fields';

  type Stored = { id: string; version: number; quote: Quote };
  type Props = {
    crate: { id: string; currency: string };
    part: { id: string; version: number; target?: { amount: number; currency: string } | undefined };
    quotes: readonly Stored[];
    today: string;
    onchange: SentChange;
  };
  let { crate, part, quotes, today, onchange }: Props = $props();
  const api = $derived(`/api/crates/${crate.id}`);
  let busy = $state(false);
  let editing = $state<Stored | null>(null);

  const days = $derived(new Set(quotes.map((q) => q.quote.date)).size);
  const currencies = $derived([...new Set(quotes.map((q) => q.quote.currency))]);
  const fields = $derived(quoteFields(quotes.map((q) => q.quote.vendor)));
  const landed = (record: Record<string, unknown>) =>
    `You pay ${money(deliveredPrice(record as Quote), String(record.currency))}, delivered`;

  const change: SentChange = async (...what) => {
    busy = true;
    const refusal = await onchange(...what);
    busy = false;
    return refusal;
  };
  async function onsave(record: Record<string, unknown>) {
    const quote = { ...record, partId: part.id };
    if (!editing) return change('POST', `${api}/quotes`, quote, `Noted the price of ${String(record.vendor)}.`);
    const { id, version } = editing;
    const refusal = await change(
      'PUT',
      `${api}/quotes/${id}`,
      { version, quote },
      `Changed the price of ${String(record.vendor)}.`
    );
    if (!refusal) editing = null;
    return refusal;
  }

  let target = $state('');
  const targetRead = $derived(readQuantity(target, { unit: '', min: 0, max: 1e7 }));
  async function aim(amount: number | null): Promise<void> {
    const body = { version: part.version, target: amount === null ? null : { amount, currency: crate.currency } };
    const words = amount === null ? 'Took the target price off.' : 'Set the target price.';
    if (!(await change('PUT', `${api}/models/${part.id}/target`, body, words))) target = '';
  }
  const cheapest = $derived(
    quotes
      .map(({ quote }) => quote)
      .filter((quote) => quote.currency === part.target?.currency && !(quote.expires && quote.expires < today))
      .map(deliveredPrice)
      .sort((a, b) => a - b)[0]
  );
  const less = (quote: Quote) =>
    [
      quote.discountPercent ? quantity(quote.discountPercent, '%') : '',
      quote.couponPercent ? quantity(quote.couponPercent, '%') : '',
      quote.coupon ? money(quote.coupon, quote.currency) : ''
    ]
      .filter(Boolean)
      .join(' + ') || '–';
</script>

{#key editing?.id}
  <RecordForm
    {fields}
    value={editing?.quote ?? { currency: crate.currency, date: today }}
    {busy}
    saveLabel={editing ? 'Save the price' : 'Note the price'}
    refusedPrefix={editing ? 'quote.' : ''}
    hint={landed}
    draftKey="draft:{part.id}:quote:{editing?.id ?? 'new'}"
    {onsave}
    {...editing ? { oncancel: () => (editing = null) } : {}}
  />
{/key}
<form
  class="row"
  onsubmit={(e) => {
    e.preventDefault();
    if (targetRead.ok) void aim(targetRead.value);
  }}
>
  <TextInput
    size="sm"
    labelText="Target price, {crate.currency} delivered"
    bind:value={target}
    invalid={target !== '' && !targetRead.ok}
    invalidText={targetRead.ok ? '' : targetRead.message}
  />
  <Button type="submit" size="small" kind="tertiary" disabled={busy || !targetRead.ok}>Set</Button>
  {#if part.target}
    <p>
      Target {money(part.target.amount, part.target.currency)}{#if cheapest !== undefined}: {cheapest <=
        part.target.amount
          ? `reached, ${money(cheapest, part.target.currency)} is offered`
          : `${money(cheapest - part.target.amount, part.target.currency)} above it`}{/if}.
      <button type="button" class="link" onclick={() => void aim(null)}>Take it off</button>
    </p>
  {/if}
</form>
<!-- One day is no course: a chart begins with two. -->
{#if days > 1}
  <Plot
    title="Price delivered over time"
    summary="one step line a vendor; {quotes.length} prices"
    traces={priceTraces(
      quotes.map((q) => q.quote),
      part.target
    )}
    layout={{ yaxis: { title: { text: `price delivered, ${currencies.join(' and ')}` }, rangemode: 'tozero' } }}
  />
{/if}
{#if quotes.length > 0}
  <Wide label="Prices">
    <table class="plain-table">
      <thead
        ><tr
          ><th>Date</th><th>Age</th><th>Vendor</th><th class="number">List</th><th class="number">Less</th><th
            class="number">Shipping</th
          ><th class="number">Tax</th><th class="number"><Explained text="Price delivered" /></th><th>Valid until</th
          ><th class="no-print"></th></tr
        ></thead
      >
      <tbody>
        {#each quotes as stored (stored.id)}
          {@const { id, version, quote } = stored}
          <tr>
            <td>{day(quote.date)}</td>
            <td>{age(quote.date, today)}</td>
            <td
              >{quote.vendor}{#if quote.note}<br /><span class="small quiet">{quote.note}</span>{/if}</td
            >
            <td class="number figure">{money(quote.list, quote.currency)}</td>
            <td class="number figure">{less(quote)}</td>
            <td class="number figure">{quote.shipping ? money(quote.shipping, quote.currency) : '–'}</td>
            <td class="number figure">{quote.taxPercent ? quantity(quote.taxPercent, '%') : '–'}</td>
            <td class="number figure"><strong>{money(deliveredPrice(quote), quote.currency)}</strong></td>
            <td>{quote.expires ? `${day(quote.expires)}${quote.expires < today ? ', run out' : ''}` : '–'}</td>
            <td class="no-print acts">
              <button
                type="button"
                class="link"
                aria-label="Edit the price of {quote.vendor}, {day(quote.date)}"
                onclick={() => (editing = stored)}>Edit</button
              >
              <button
                type="button"
                class="link"
                aria-label="Delete the price of {quote.vendor}, {day(quote.date)}"
                onclick={() =>
                  void change('DELETE', `${api}/quotes/${id}`, { version }, `Deleted the price of ${quote.vendor}.`)}
                >Delete</button
              >
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{:else}<p class="quiet">No price yet.</p>{/if}

<style>
  .row {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 10px 14px;
    padding: 12px 0;
  }
  .row :global(.bx--form-item) {
    flex: 0 1 200px;
  }
  .acts {
    white-space: nowrap;
  }
</style>
