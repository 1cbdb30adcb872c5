<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { figure, money, quantity, rate } from '#core/quantities/format';
  import type { FigureDifference } from '#core/compare/swaps/difference';

  type Price = { of: 'write' | 'read'; amount: number; currency: string } | null;
  type Props = {
    /** The places that were swapped: what stood there, and what stands there now. */
    swapped: readonly { label: string; from: string; to: string }[];
    changes: ReadonlyMap<string, FigureDifference>;
    currency: string;
    perGain: Price;
    /** What has to be paid for what was put in; null where a price is missing. */
    toPay: { amount: number; currency: string } | null;
    onback: () => void;
    onstart: () => void;
  };
  let { swapped, changes, currency, perGain, toPay, onback, onstart }: Props = $props();
  const signed = (value: number, text: string) => `${value > 0 ? '+' : '−'}${text}`;
  const told = $derived(
    (
      [
        ['throughput.read', 'read', 'MB/s'],
        ['throughput.write', 'write', 'MB/s'],
        ['throughput.sustainedWrite', 'after the cache', 'MB/s'],
        ['job.seconds', 'job', 's'],
        ['cost.total', 'price of all parts', currency]
      ] as const
    ).flatMap(([key, label, unit]) => {
      const difference = changes.get(key);
      if (!difference || difference.change === null) return [];
      const size = Math.abs(difference.change);
      const text = unit === 'MB/s' ? `${rate(size)}\u202fMB/s` : unit === 's' ? quantity(size, 's') : money(size, unit);
      return [{ label, text: signed(difference.change, text), better: difference.better }];
    })
  );
</script>

<section class="since no-print" aria-label="Compared with the parts you began with" aria-live="polite">
  <p>
    <strong>Compared with before</strong>
    {#each swapped as { label, from, to } (label)}<span class="swap">{label}: {from} → {to}</span>{/each}
    {#each told as { label, text, better } (label)}
      <span class="told">{label} <span class="figure" class:better class:worse={better === false}>{text}</span></span>
    {:else}<span class="told">the figures stay the same</span>{/each}
    {#if toPay?.amount === 0}<span class="told">nothing to pay: it is at hand</span>
    {:else if toPay}<span class="told">to pay <span class="figure">{money(toPay.amount, toPay.currency)}</span></span
      >{/if}
    {#if perGain && perGain.amount > 0}<span class="told"
        ><span class="figure">{figure(perGain.amount)}&#8239;{perGain.currency}</span> per MB/s of {perGain.of} gained</span
      >{/if}
  </p>
  <Button kind="ghost" size="small" on:click={onback}>Back to the parts before</Button>
  <Button kind="ghost" size="small" on:click={onstart}>Compare with these from now on</Button>
</section>

<style>
  .since {
    display: flex;
    align-items: center;
    gap: 4px;
    margin-bottom: 6px;
    padding: 2px 0 2px 10px;
    background: var(--ash-well);
    border-left: 3px solid var(--ash-ink);
  }
  p {
    display: flex;
    flex: 1;
    flex-wrap: wrap;
    gap: 0 14px;
  }
  .swap {
    color: var(--ash-soft);
  }
  .better {
    color: var(--ash-pass);
  }
  .worse {
    color: var(--ash-fail);
  }
  @media (max-width: 672px) {
    .since {
      flex-wrap: wrap;
    }
  }
</style>
