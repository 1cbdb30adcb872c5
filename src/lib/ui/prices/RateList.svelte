<script lang="ts">
  import type { ExchangeRate } from '#core/parts/exchange-rate';
  import { day } from '#core/quantities/format';
  import { age } from './history';

  type Stored = { id: string; version: number; rate: ExchangeRate };
  /** Rates that were entered, each with its day. */
  let { rates, today, ondelete }: { rates: readonly Stored[]; today: string; ondelete: (rate: Stored) => void } =
    $props();
</script>

<ul>
  {#each rates as stored (stored.id)}
    {@const r = stored.rate}
    <li>
      <span class="figure">1 {r.from} = {r.rate} {r.to}</span>, {day(r.date)}
      <span class="quiet small">{age(r.date, today)}</span>
      <button type="button" class="link" aria-label="Delete the rate of {day(r.date)}" onclick={() => ondelete(stored)}
        >Delete</button
      >
    </li>
  {:else}<li class="quiet">No rate yet.</li>{/each}
</ul>

<style>
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
</style>
