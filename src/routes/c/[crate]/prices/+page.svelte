<script lang="ts">
  import { Button, TextInput } from 'carbon-components-svelte';
  import { page } from '$app/state';
  import { listAddress } from '$lib/client/list-address';
  import { changesOf } from '$lib/client/change';
  import RecordForm from '$lib/ui/common/RecordForm.svelte';
  import { rateFields } from '$lib/ui/parts/record-fields';
  import FindBox from '$lib/ui/common/FindBox.svelte';
  import Pages from '$lib/ui/common/Pages.svelte';
  import PriceTable from '$lib/ui/prices/PriceTable.svelte';
  import RateList from '$lib/ui/prices/RateList.svelte';
  import Piece from '$lib/ui/common/Piece.svelte';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}`);
  const api = $derived(`/api/crates/${data.crate.id}`);
  const onchange = $derived(changesOf(data.crate.id));
  let busy = $state(false);
  // svelte-ignore state_referenced_locally
  let currency = $state(data.crate.currency);
  const list = listAddress(() => page.url);

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
    <FindBox label="Find prices" placeholder="Part or shop" value={data.query.find} onlook={list.look} />
  </div>
  <div class="two">
    <div>
      <Piece
        ><PriceTable
          rows={data.rows}
          all={data.all}
          sort={data.query.sort}
          down={data.query.down}
          {home}
          currency={data.crate.currency}
          today={data.today}
          onsort={(sort) => list.sortBy(sort, data.query)}
        />
        <Pages total={data.total} page={data.query.page} size={data.query.size} href={list.pageHref} /></Piece
      >
    </div>
    <section aria-labelledby="rates">
      <h2 id="rates">Exchange rates</h2>
      <p class="small quiet">Nothing is converted with a rate that you did not enter. The newest one counts.</p>
      <Piece
        ><RecordForm
          fields={rateFields(data.crate.currency)}
          value={{ from: 'USD', date: data.today }}
          {busy}
          saveLabel="Note the rate"
          draftKey="draft:{data.crate.id}:rate"
          onsave={addRate}
        /></Piece
      >
      <Piece
        ><RateList
          rates={data.rates}
          today={data.today}
          ondelete={({ id, version }) =>
            void onchange('DELETE', `${api}/rates/${id}`, { version }, 'Deleted the rate.')}
        />
        <form onsubmit={setCurrency}>
          <TextInput size="sm" labelText="This crate adds up in" bind:value={currency} maxlength={3} />
          <Button
            type="submit"
            size="small"
            kind="tertiary"
            disabled={currency.trim().toUpperCase() === data.crate.currency}>Change</Button
          >
        </form></Piece
      >
    </section>
  </div>
</div>

<style>
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
  @media (max-width: 900px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
