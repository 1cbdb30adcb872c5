<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import type { ShoppingLine } from '#core/cost/shopping';
  import { money } from '#core/quantities/format';
  import { readQuantity } from '#core/quantities/read';
  import { age } from '../prices/history';

  type Props = {
    line: ShoppingLine;
    currency: string;
    home: string;
    today: string;
    busy: boolean;
    /** One has it, or has ordered it. */
    onhave: (state: 'owned' | 'ordered') => void;
    /** A price that was seen. @returns whether it was kept */
    onprice: (list: number, vendor: string) => Promise<boolean>;
  };
  /** One thing that a build needs: whether it is there, and where it costs least; what is seen of it is entered here. */
  let { line, currency, home, today, busy, onhave, onprice }: Props = $props();
  const ROLE = { host: 'computer', cable: 'cable', enclosure: 'enclosure', drive: 'drive', pad: 'pad' };
  const STATE = { owned: 'in the crate', ordered: 'ordered', 'in-the-box': 'in a box', 'to-buy': 'to buy' };
  const best = $derived(line.offers[0]);
  let price = $state('');
  let vendor = $state('');
  const read = $derived(readQuantity(price, { unit: '', min: 0, max: 1e7 }));
  async function keep(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (read.ok && (await onprice(read.value, vendor.trim() || 'a shop'))) price = vendor = '';
  }
  const formId = $props.id();
</script>

<tr>
  <td>{ROLE[line.role]}</td>
  <td
    >{#if line.modelId}<a href="{home}/crate/{line.role}/{line.modelId}?tab=quotes">{line.name}</a
      >{:else}{line.name}{/if}</td
  >
  <td class={line.state}>
    {line.role === 'host' && line.state === 'owned' && !line.unit ? 'yours' : STATE[line.state]}
    {#if line.modelId && line.state === 'to-buy'}
      <span class="have no-print">
        <button type="button" class="link" disabled={busy} onclick={() => onhave('owned')}
          >I have it<span class="hidden-visually">: {line.name}</span></button
        >
        <button type="button" class="link" disabled={busy} onclick={() => onhave('ordered')}
          >ordered<span class="hidden-visually">: {line.name}</span></button
        >
      </span>
    {/if}
  </td>
  <td>
    {#if line.unit}<a href="{home}/u/{encodeURIComponent(line.unit.tag)}">{line.unit.tag}</a>{line.unit.location
        ? `, ${line.unit.location}`
        : ''}{line.unit.custodian ? `, with ${line.unit.custodian}` : ''}
    {:else if line.inBoxOf}in the box of {line.inBoxOf}{:else}–{/if}
  </td>
  {#if line.state === 'to-buy' && best}
    <td class="number figure">{money(best.landed, currency)}</td>
    <td>{best.vendor}{best.currency === currency ? '' : ` (${best.currency}, converted)`}</td>
    <td>{age(best.date, today)}{best.expired ? ', run out' : ''}</td>
  {:else}<td class="number">{line.state === 'to-buy' ? 'no price' : '–'}</td><td
      >{line.unconverted.length > 0 ? `no rate for ${line.unconverted.join('; ')}` : '–'}</td
    ><td>–</td>{/if}
  <td class="no-print">
    {#if line.modelId && line.state === 'to-buy'}
      <form id={formId} onsubmit={keep}>
        <input
          class="bx--text-input bx--text-input--sm"
          aria-label="Price of {line.name}, {currency} with shipping"
          placeholder="Price, {currency}"
          inputmode="decimal"
          aria-invalid={price !== '' && !read.ok}
          bind:value={price}
        />
        <input
          class="bx--text-input bx--text-input--sm"
          aria-label="Seen at (optional): {line.name}"
          placeholder="Seen at"
          maxlength="120"
          bind:value={vendor}
        />
        <Button type="submit" size="small" kind="ghost" disabled={busy || !read.ok}>Save the price</Button>
      </form>
      {#if price !== '' && !read.ok}<span class="error small" role="alert">{read.message}</span>{/if}
    {/if}
  </td>
</tr>

<style>
  .to-buy {
    color: var(--ash-caution);
    font-weight: 600;
  }
  .owned,
  .in-the-box {
    color: var(--ash-pass);
  }
  .have {
    display: block;
    white-space: nowrap;
    font-weight: 400;
  }
  .have > * + * {
    margin-left: 10px;
  }
  form {
    display: grid;
    grid-template-columns: 6.5rem 6.5rem auto;
    gap: 6px;
    align-items: center;
  }
  .error {
    color: var(--ash-fail);
  }
</style>
