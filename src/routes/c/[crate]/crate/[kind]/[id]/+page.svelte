<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import { Button, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { goto, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { landedPrice } from '#core/cost/landed';
  import { readQuantity } from '#core/quantities/read';
  import { day, money, quantity } from '#core/quantities/format';
  import { withQuery } from '$lib/client/address';
  import { send, type Changed } from '$lib/client/api';
  import { saved, takeBack } from '$lib/client/undo';
  import HistoryTable from '$lib/ui/common/HistoryTable.svelte';
  import Plot from '$lib/ui/common/Plot.svelte';
  import { notices } from '$lib/ui/frame/notices.svelte';
  import PartForm from '$lib/ui/parts/PartForm.svelte';
  import { refusedFields } from '$lib/ui/parts/refused';
  import { age, priceTraces } from '$lib/ui/prices/history';
  import QuoteForm from '$lib/ui/prices/QuoteForm.svelte';
  import AddUnits from '$lib/ui/units/AddUnits.svelte';
  import UnitTable from '$lib/ui/units/UnitTable.svelte';

  let { data } = $props();
  const path = $derived(`/api/crates/${data.crate.id}/models/${data.model.id}`);
  const list = $derived(`/c/${data.crate.slug}/crate/${data.kind}`);
  const draftKey = $derived(`draft:${data.model.id}:${data.model.version}`);
  let refused = $state<Record<string, string>>({});
  let busy = $state(false);

  async function onsave(spec: Record<string, unknown>): Promise<void> {
    busy = true;
    const answer = await send('PUT', path, { version: data.model.version, spec });
    busy = false;
    if (!answer.ok) {
      refused = refusedFields(answer.failure.fields, 'spec.');
      notices.add(
        'error',
        answer.failure.code === 'conflict'
          ? 'This part was changed elsewhere in the meantime; nothing was overwritten. Reload to see it; what you typed is kept until then.'
          : answer.failure.message
      );
      return;
    }
    localStorage.removeItem(draftKey);
    saved(`Saved ${String(spec.name)}.`, data.crate.id, answer.data.group);
    await goto(list);
    await invalidateAll();
  }
  async function remove(): Promise<void> {
    const answer = await send('DELETE', path, { version: data.model.version });
    if (!answer.ok) return notices.add('error', answer.failure.message);
    const also = data.quotes.length > 0 ? ` and its ${data.quotes.length} quotes` : '';
    saved(`Deleted ${data.model.spec.name}${also}.`, data.crate.id, answer.data.group);
    await goto(list);
  }

  const crateApi = $derived(`/api/crates/${data.crate.id}`);
  const tab = $derived(page.url.searchParams.get('tab') ?? 'specification');
  const bridge = $derived(data.model.spec.kind === 'enclosure' ? data.model.spec.bridge : undefined);
  const paired = $derived(data.kind === 'drive' || bridge !== undefined);
  const tabs = $derived([
    { id: 'specification', label: 'Specification' },
    { id: 'units', label: 'Units', count: data.units.length },
    { id: 'quotes', label: 'Quotes', count: data.quotes.length },
    ...(paired ? [{ id: 'pairs', label: 'Known pairs', count: data.pairs.length }] : []),
    { id: 'files', label: 'Files', count: data.attachments.length },
    { id: 'history', label: 'History' }
  ]);

  /** Sends one change and says what became of it. @returns whether it was saved */
  async function act(method: 'POST' | 'PUT' | 'DELETE', at: string, body: unknown, words: string): Promise<boolean> {
    busy = true;
    const answer = await send<Changed>(method, at, body);
    busy = false;
    if (!answer.ok) {
      notices.add('error', answer.failure.message);
      return false;
    }
    saved(words, data.crate.id, answer.data.group);
    await invalidateAll();
    return true;
  }
  async function duplicate(): Promise<void> {
    const { id: _id, ...spec } = data.model.spec;
    const answer = await send('POST', `${crateApi}/models`, {
      spec: { ...spec, name: `${spec.name} (copy)`.slice(0, 120) }
    });
    if (!answer.ok) return notices.add('error', answer.failure.message);
    saved(`Added ${spec.name} (copy).`, data.crate.id, answer.data.group);
    await goto(`${list}/${answer.data.id}`);
  }

  let target = $state('');
  const targetRead = $derived(readQuantity(target, { unit: '', min: 0, max: 1e7 }));
  async function aim(amount: number | null): Promise<void> {
    const body = {
      version: data.model.version,
      target: amount === null ? null : { amount, currency: data.crate.currency }
    };
    if (
      await act('PUT', `${path}/target`, body, amount === null ? 'Took the target price off.' : 'Set the target price.')
    )
      target = '';
  }
  const cheapest = $derived(
    data.quotes
      .map(({ quote }) => quote)
      .filter(
        (quote) => quote.currency === data.model.target?.currency && !(quote.expires && quote.expires < data.today)
      )
      .map(landedPrice)
      .sort((a, b) => a - b)[0]
  );

  let pairBridge = $state('');
  let pairDrive = $state('');
  let pairVerdict = $state<'good' | 'bad'>('bad');
  let pairReason = $state('');
  let pairSource = $state('');
  async function notePair(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const body = {
      driveId: data.kind === 'drive' ? data.model.id : pairDrive,
      bridge: bridge ?? pairBridge.trim(),
      verdict: pairVerdict,
      reason: pairReason.trim(),
      ...(pairSource.trim() ? { source: pairSource.trim() } : {}),
      date: data.today
    };
    if (await act('POST', `${crateApi}/pairs`, body, 'Noted the pair.')) pairReason = pairSource = '';
  }

  async function addFile(event: Event): Promise<void> {
    const input = event.target as HTMLInputElement;
    const file = input.files?.[0];
    if (!file) return;
    const bytes = new Uint8Array(await file.arrayBuffer());
    let binary = '';
    for (let i = 0; i < bytes.length; i += 32_768) binary += String.fromCharCode(...bytes.subarray(i, i + 32_768));
    const type = /^[\w.+-]+\/[\w.+-]+$/.test(file.type) ? file.type : 'application/octet-stream';
    const body = { subjectTable: 'models', subjectId: data.model.id, name: file.name, type, content: btoa(binary) };
    await act('POST', `${crateApi}/attachments`, body, `Added ${file.name}.`);
    input.value = '';
  }
</script>

<svelte:head><title>{data.model.spec.name} · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <p class="small"><a href={list}>All {data.kind}s</a></p>
      <h1>{data.model.spec.name}</h1>
      <p class="quiet">
        {data.units.length === 0
          ? 'No unit of it in the crate.'
          : `${data.units.map((u) => `${u.unit.tag} (${u.unit.state}${u.unit.location ? `, ${u.unit.location}` : ''})`).join('; ')}.`}
        {#if data.quotes[0]}{@const newest = data.quotes[0].quote}Newest quote {money(
            landedPrice(newest),
            newest.currency
          )} landed, {newest.vendor}, {day(newest.date)}.{/if}
      </p>
    </div>
    <Button kind="ghost" size="field" on:click={() => void duplicate()}>Duplicate</Button>
    <Button kind="danger-ghost" size="field" on:click={remove}
      >Delete{data.quotes.length > 0 ? ` with ${data.quotes.length} quotes` : ''}</Button
    >
  </div>
  <nav class="tabs no-print" aria-label="About this part">
    {#each tabs as entry (entry.id)}
      <a
        href={withQuery(page.url, { tab: entry.id === 'specification' ? '' : entry.id })}
        aria-current={tab === entry.id ? 'page' : undefined}
        >{entry.label}{#if entry.count !== undefined}<span class="small quiet">&nbsp;{entry.count}</span>{/if}</a
      >
    {/each}
  </nav>
  {#if tab === 'units'}
    <AddUnits
      {busy}
      onadd={(count, state, location) =>
        void act(
          'POST',
          `${crateApi}/units/many`,
          { count, unit: { modelId: data.model.id, state, ...(location ? { location } : {}) } },
          count === 1 ? 'Added a unit.' : `Added ${count} units.`
        )}
    />
    {#if data.units.length === 0}<p class="quiet">No unit yet. Each gets a tag of its own, for a label.</p>
    {:else}
      <UnitTable rows={data.units} home="/c/{data.crate.slug}" today={data.today} model={false} />
      <p class="small"><a href="/c/{data.crate.slug}/labels?model={data.model.id}">Labels for these</a></p>
    {/if}
  {:else if tab === 'quotes'}
    <QuoteForm
      currency={data.crate.currency}
      today={data.today}
      vendors={[...new Set(data.quotes.map((q) => q.quote.vendor))]}
      {busy}
      onsave={(quote) =>
        void act(
          'POST',
          `${crateApi}/quotes`,
          { ...quote, partId: data.model.id },
          `Noted the quote of ${quote.vendor}.`
        )}
    />
    <form
      class="row"
      onsubmit={(e) => {
        e.preventDefault();
        if (targetRead.ok) void aim(targetRead.value);
      }}
    >
      <TextInput
        size="sm"
        labelText="Target price, {data.crate.currency} landed"
        bind:value={target}
        invalid={target !== '' && !targetRead.ok}
        invalidText={targetRead.ok ? '' : targetRead.message}
      />
      <Button type="submit" size="small" kind="tertiary" disabled={busy || !targetRead.ok}>Set</Button>
      {#if data.model.target}
        <p>
          Target {money(data.model.target.amount, data.model.target.currency)}{#if cheapest !== undefined}: {cheapest <=
            data.model.target.amount
              ? `reached, ${money(cheapest, data.model.target.currency)} is offered`
              : `${money(cheapest - data.model.target.amount, data.model.target.currency)} above it`}{/if}.
          <button type="button" class="link" onclick={() => void aim(null)}>Take it off</button>
        </p>
      {/if}
    </form>
    {#if data.quotes.length > 0}
      <Plot
        title="Landed price over time"
        summary="one step line a vendor; {data.quotes.length} quotes"
        traces={priceTraces(
          data.quotes.map((q) => q.quote),
          data.model.target
        )}
        layout={{ yaxis: { title: { text: 'landed price' }, rangemode: 'tozero' } }}
      />
      <Wide label="Quotes"
        ><table class="plain-table">
          <thead
            ><tr
              ><th>Date</th><th>Age</th><th>Vendor</th><th class="number">List</th><th class="number">Less</th><th
                class="number">Shipping</th
              ><th class="number">Tax</th><th class="number">Landed</th><th>Valid until</th><th></th></tr
            ></thead
          >
          <tbody>
            {#each data.quotes as { id, version, quote } (id)}
              <tr>
                <td>{day(quote.date)}</td>
                <td>{age(quote.date, data.today)}</td>
                <td>{quote.vendor}</td>
                <td class="number figure">{money(quote.list, quote.currency)}</td>
                <td class="number figure"
                  >{[
                    quote.discountPercent ? quantity(quote.discountPercent, '%') : '',
                    quote.coupon ? money(quote.coupon, quote.currency) : ''
                  ]
                    .filter(Boolean)
                    .join(' + ') || '–'}</td
                >
                <td class="number figure">{quote.shipping ? money(quote.shipping, quote.currency) : '–'}</td>
                <td class="number figure">{quote.taxPercent ? quantity(quote.taxPercent, '%') : '–'}</td>
                <td class="number figure"><strong>{money(landedPrice(quote), quote.currency)}</strong></td>
                <td>{quote.expires ? `${day(quote.expires)}${quote.expires < data.today ? ', run out' : ''}` : '–'}</td>
                <td
                  ><button
                    type="button"
                    class="link"
                    aria-label="Delete the quote of {quote.vendor}, {day(quote.date)}"
                    onclick={() =>
                      void act(
                        'DELETE',
                        `${crateApi}/quotes/${id}`,
                        { version },
                        `Deleted the quote of ${quote.vendor}.`
                      )}>Delete</button
                  ></td
                >
              </tr>
            {/each}
          </tbody>
        </table></Wide
      >
    {:else}<p class="quiet">No quote yet.</p>{/if}
  {:else if tab === 'pairs' && paired}
    <form class="row" onsubmit={notePair}>
      {#if data.kind === 'drive'}
        <TextInput size="sm" labelText="Bridge chip or board" bind:value={pairBridge} maxlength={120} required />
      {:else}
        <Select size="sm" labelText="Drive" bind:selected={pairDrive}>
          <SelectItem value="" text="choose" />
          {#each data.drives as drive (drive.id)}<SelectItem value={drive.id} text={drive.name} />{/each}
        </Select>
      {/if}
      <Select size="sm" labelText="Verdict" bind:selected={pairVerdict}>
        <SelectItem value="bad" text="gives trouble" />
        <SelectItem value="good" text="works well" />
      </Select>
      <TextInput size="sm" labelText="Reason" bind:value={pairReason} maxlength={300} required />
      <TextInput size="sm" labelText="Source (optional)" bind:value={pairSource} maxlength={200} />
      <Button type="submit" size="small" disabled={busy || pairReason.trim() === ''}>Note the pair</Button>
    </form>
    {#if data.pairs.length === 0}<p class="quiet">
        Nothing is noted. A bad pair makes every plan with it a check.
      </p>{/if}
    <ul class="pairs">
      {#each data.pairs as { id, version, pair } (id)}
        <li>
          <strong>{pair.drive} × {pair.bridge}</strong>: {pair.verdict === 'bad' ? 'gives trouble' : 'works well'} – {pair.reason}
          <span class="quiet small">{[pair.source, pair.date ? day(pair.date) : ''].filter(Boolean).join(', ')}</span>
          <button
            type="button"
            class="link"
            onclick={() => void act('DELETE', `${crateApi}/pairs/${id}`, { version }, 'Deleted the pair.')}
            >Delete</button
          >
        </li>
      {/each}
    </ul>
  {:else if tab === 'files'}
    <p class="row">
      <label class="file">Add a file (8 MB at most) <input type="file" disabled={busy} onchange={addFile} /></label>
    </p>
    {#if data.attachments.length === 0}<p class="quiet">
        No file yet: a receipt, a photograph of the label, a data sheet.
      </p>{/if}
    <ul class="pairs">
      {#each data.attachments as file (file.id)}
        <li>
          <a href="{crateApi}/attachments/{file.id}" download>{file.name}</a>
          <span class="quiet small">{quantity(file.size / 1000, 'kB')}, {day(file.addedAt)}</span>
          <button
            type="button"
            class="link"
            onclick={() =>
              void act(
                'DELETE',
                `${crateApi}/attachments/${file.id}`,
                { version: file.version },
                `Deleted ${file.name}.`
              )}>Delete</button
          >
        </li>
      {/each}
    </ul>
  {:else if tab === 'history'}
    <HistoryTable list={data.history} onundo={(group) => void takeBack(data.crate.id, group)} />
  {:else}
    {#key draftKey}
      <PartForm
        fields={data.fields}
        fixed={{ kind: data.kind }}
        spec={data.model.spec}
        {draftKey}
        {refused}
        {busy}
        saveLabel="Save"
        {onsave}
        oncancel={() => void goto(list)}
      />
    {/key}
  {/if}
</div>

<style>
  .tabs {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
    margin-bottom: 14px;
    border-bottom: 1px solid var(--ash-edge);
  }
  .tabs a {
    padding: 7px 12px;
    color: var(--ash-ink);
    text-decoration: none;
  }
  .tabs a[aria-current] {
    font-weight: 700;
    box-shadow: inset 0 -3px 0 var(--ash-ink);
  }
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
  .link {
    border: 0;
    background: none;
    color: var(--ash-ember);
    text-decoration: underline;
    cursor: pointer;
  }
  .pairs li {
    margin: 0;
    padding: 8px 0;
    border-bottom: 1px solid var(--ash-line);
    list-style: none;
  }
</style>
