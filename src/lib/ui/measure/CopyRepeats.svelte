<script lang="ts">
  import { duration, quantity, rate } from '#core/quantities/format';
  import { median, repeatsWords } from '#core/results/repeats';
  import type { Repeat } from '#core/results/run';
  import { RATIO_FROM_S, timedRatio } from '#core/results/stopwatch';

  /** Copies that were timed, with what they come to each way, and how the two ways compare. */
  let { repeats, onremove }: { repeats: readonly Repeat[]; onremove?: (i: number) => void } = $props();
  const LABEL = {
    'copy-in': 'Copies to the drive',
    'copy-out': 'Copies from the drive',
    write: 'Writes',
    read: 'Reads',
    rewrite: 'Rewrites',
    task: 'The work'
  } as const;
  const rateOf = ({ GB, seconds, MBps }: Repeat) => MBps ?? (GB && seconds ? (GB * 1000) / seconds : undefined);
  const ways = $derived(
    [...new Set(repeats.map(({ what }) => what))].map((what) => {
      const own = repeats.filter((repeat) => repeat.what === what);
      return { what, own, rates: own.flatMap((repeat) => rateOf(repeat) ?? []) };
    })
  );
  const middleOf = (what: Repeat['what']) => {
    const own = repeats.filter((repeat) => repeat.what === what && repeat.GB && repeat.seconds);
    if (own.length === 0) return undefined;
    return { GB: median(own.map(({ GB }) => GB ?? 0)), seconds: median(own.map(({ seconds }) => seconds ?? 0)) };
  };
  const both = $derived({ into: middleOf('copy-in'), from: middleOf('copy-out') });
  const byHand = $derived(repeats.some((repeat) => repeat.byHand));
  const ratio = $derived(
    both.into && both.from && byHand ? timedRatio(both.from, both.into, 'the copy to the drive') : undefined
  );
</script>

{#if repeats.length > 0}
  <div class="repeats">
    {#each ways as { what, own, rates } (what)}
      {#if rates.length > 0}<p><strong>{LABEL[what]}:</strong> {repeatsWords(rates)}.</p>
      {:else}<p><strong>{LABEL[what]}:</strong> {own.map(({ seconds }) => duration(seconds ?? 0)).join(', ')}.</p>{/if}
    {/each}
    {#if ratio}<p>From the drive: {ratio.says}</p>
    {:else if ratio === null}<p class="small quiet">
        A copy under {RATIO_FROM_S} s is too short for a ratio by hand.
      </p>{/if}
    <ol>
      {#each repeats as repeat, i (i)}
        {@const made = rateOf(repeat)}
        <li>
          {LABEL[repeat.what]}{repeat.GB ? `: ${quantity(repeat.GB, 'GB')}` : ''}{repeat.seconds
            ? ` in ${duration(repeat.seconds)}`
            : ''}{made ? `, ${rate(made)} MB/s` : ''}
          {#if onremove}<button type="button" onclick={() => onremove(i)}>Take {i + 1} away</button>{/if}
        </li>
      {/each}
    </ol>
  </div>
{/if}

<style>
  .repeats {
    margin: 8px 0;
  }
  ol {
    margin: 4px 0;
    padding-left: 22px;
    max-height: 14rem;
    overflow-y: auto;
  }
  button {
    padding: 0 6px;
    border: 0;
    background: none;
    color: var(--ash-ember);
    text-decoration: underline;
    cursor: pointer;
  }
</style>
