<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import { Button, Search, TextInput } from 'carbon-components-svelte';
  import { exchange } from '#core/cost/convert';
  import { deliveredPrice } from '#core/cost/delivered-price';
  import { day, money } from '#core/quantities/format';
  import { changesOf } from '$lib/client/change';
  import RecordForm from '$lib/ui/common/RecordForm.svelte';
  import SortHead from '$lib/ui/common/SortHead.svelte';
  import { rateFields } from '$lib/ui/parts/record-fields';
  import { age } from '$lib/ui/prices/history';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}`);
  const api = $derived(`/api/crates/${data.crate.id}`);
  const onchange = $derived(changesOf(data.crate.id));
  let find = $state('');
  let sort = $state<'name' | 'price' | 'age' | 'target'>('name');
  let down = $state(false);
  let busy = $state(false);
  // svelte-ignore state_referenced_locally
  let currency = $state(data.crate.currency);
  const rates = $derived(data.rates.map((r) => r.rate));

  const rows = $derived(
    data.parts.flatMap((part) => {
      const valid = data.quotes.filter((q) => q.partId === part.id && !(q.expires && q.expires < data.today));
      const priced = valid
        .map((quote) => ({ quote, home: exchange(deliveredPrice(quote), quote.currency, data.crate.currency, rates) }))
        .sort((a, b) => (a.home?.amount ?? Infinity) - (b.home?.amount ?? Infinity));
      const best = priced[0];
      return best ? [{ part, best, count: valid.length }] : [];
    })
  );
  const shown = $derived.by(() => {
    const words = find.toLowerCase().split(/\s+/).filter(Boolean);
    const key = (row: (typeof rows)[number]) =>
      sort === 'name'
        ? row.part.name
        : sort === 'price'
          ? (row.best.home?.amount ?? Infinity)
          : sort === 'age'
            ? row.best.quote.date
            : row.part.target
              ? (row.best.home?.amount ?? Infinity) - row.part.target.amount
              : Infinity;
    return rows
      .filter(({ part, best }) =>
        words.every((w) => `${part.name} ${part.kind} ${best.quote.vendor}`.toLowerCase().includes(w))
      )
      .sort((a, b) => {
        const [x, y] = [key(a), key(b)];
        const order = typeof x === 'number' && typeof y === 'number' ? x - y : String(x).localeCompare(String(y));
        return down ? -order : order;
      });
  });
  const heads = [
    ['name', 'Part'],
    ['price', 'Cheapest, delivered'],
    ['age', 'Age'],
    ['target', 'To the target']
  ] as const;

  async function addRate(record: Record<string, unknown>) {
    busy = true;
    const body = { ...record, to: data.crate.currency };
    const failure = await onchange('POST', `${api}/rates`, body, 'Noted the rate.');
    busy = false;
    return failure;
  }
  async function setCurrency(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const code = currency.trim().toUpperCase();
    const body = { version: data.crate.version, name: data.crate.name, currency: code };
    await onchange('PUT', api, body, {
      words: `This crate adds up in ${code} now.`,
      refused: ({ message }) => message
    });
  }
</script>

<svelte:head><title>Prices · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Prices and rates</h1>
      <p class="quiet">
        The cheapest price that still holds, delivered, in {data.crate.currency}. Prices are noted on the page of their
        part.
      </p>
    </div>
    <div class="find"><Search size="sm" labelText="Find prices" placeholder="Part or vendor" bind:value={find} /></div>
  </div>
  <div class="two">
    <Wide label="Prices">
      <table class="plain-table">
        <thead
          ><tr>
            {#each heads as [id, label] (id)}
              <SortHead
                {label}
                number={id === 'price'}
                sorted={sort === id ? (down ? 'down' : 'up') : undefined}
                onsort={() => {
                  down = sort === id && !down;
                  sort = id;
                }}
              />
            {/each}
            <th>Vendor</th><th class="number">Prices</th></tr
          ></thead
        >
        <tbody>
          {#each shown as { part, best, count } (part.id)}
            <tr>
              <td><a href="{home}/crate/{part.kind}/{part.id}?tab=quotes">{part.name}</a></td>
              <td class="number figure"
                >{best.home
                  ? money(best.home.amount, data.crate.currency)
                  : `${money(deliveredPrice(best.quote), best.quote.currency)} – no rate`}</td
              >
              <td>{age(best.quote.date, data.today)}</td>
              <td
                >{#if part.target && best.home && part.target.currency === data.crate.currency}{best.home.amount <=
                  part.target.amount
                    ? 'reached'
                    : `${money(best.home.amount - part.target.amount, data.crate.currency)} above`}{:else}–{/if}</td
              >
              <td>{best.quote.vendor}</td>
              <td class="number figure">{count}</td>
            </tr>
          {/each}
        </tbody>
      </table>
      {#if shown.length === 0}<p class="quiet">{rows.length === 0 ? 'No price yet.' : 'Nothing matches.'}</p>{/if}
    </Wide>
    <section aria-labelledby="rates">
      <h2 id="rates">Exchange rates</h2>
      <p class="small quiet">Nothing is converted with a rate that you did not enter. The newest one counts.</p>
      <RecordForm
        fields={rateFields(data.crate.currency)}
        value={{ from: 'USD', date: data.today }}
        {busy}
        saveLabel="Note the rate"
        draftKey="draft:{data.crate.id}:rate"
        onsave={addRate}
      />
      <ul>
        {#each data.rates as { id, version, rate: r } (id)}
          <li>
            <span class="figure">1 {r.from} = {r.rate} {r.to}</span>, {day(r.date)}
            <span class="quiet small">{age(r.date, data.today)}</span>
            <button
              type="button"
              class="link"
              aria-label="Delete the rate of {day(r.date)}"
              onclick={() => void onchange('DELETE', `${api}/rates/${id}`, { version }, 'Deleted the rate.')}
              >Delete</button
            >
          </li>
        {:else}<li class="quiet">No rate yet.</li>{/each}
      </ul>
      <form onsubmit={setCurrency}>
        <TextInput size="sm" labelText="This crate adds up in" bind:value={currency} maxlength={3} />
        <Button
          type="submit"
          size="small"
          kind="tertiary"
          disabled={currency.trim().toUpperCase() === data.crate.currency}>Change</Button
        >
      </form>
    </section>
  </div>
</div>

<style>
  .find {
    width: 240px;
  }
  .two {
    display: grid;
    grid-template-columns: minmax(0, 2.2fr) minmax(260px, 1fr);
    gap: 32px;
  }
  form {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 8px 10px;
    margin: 10px 0;
  }
  form :global(.bx--form-item) {
    flex: 0 1 104px;
  }
  li {
    margin: 0;
    padding: 4px 0;
    list-style: none;
  }
  li button {
    border: 0;
    background: none;
    color: var(--ash-ember);
    text-decoration: underline;
    cursor: pointer;
  }
  @media (max-width: 900px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
