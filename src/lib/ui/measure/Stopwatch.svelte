<script lang="ts">
  import { Button, TextInput } from 'carbon-components-svelte';
  import { timedRate } from '#core/results/stopwatch';
  import { figure, rate } from '#core/quantities/format';
  import { readQuantity } from '#core/quantities/read';
  import { dropDraft, keepDraft, keptDraft } from '../common/drafts';
  import { keys } from '../frame/keys.svelte';
  import type { TimedCopy } from './timed-copy';

  type Props = {
    /** When to stop, as the house rule has it. */
    until: string;
    rule: string;
    /** Where the running watch is kept, so that a reload or another page does not stop it. */
    keptUnder: string;
    /** Takes a stopped copy over as a result. */
    onkeep: (copy: TimedCopy) => void;
  };
  let { until, rule, keptUnder, onkeep }: Props = $props();

  type Kept = { size: string; startedAt?: number | undefined; stoppedAt?: number | undefined };
  let size = $state('');
  // By the clock of the day, ms: the page's own begins anew with every load.
  let startedAt = $state<number>();
  let stoppedAt = $state<number>();
  let now = $state(0);
  const running = $derived(startedAt !== undefined && stoppedAt === undefined);
  const seconds = $derived(startedAt === undefined ? 0 : Math.max(0, ((stoppedAt ?? now) - startedAt) / 1000));
  const reading = $derived(size.trim() === '' ? null : readQuantity(size, { unit: 'GB', min: 0.001, max: 200_000 }));
  const timed = $derived(
    reading?.ok && stoppedAt !== undefined && seconds > 0 ? timedRate(reading.value, seconds, false) : null
  );
  const face = $derived(
    `${Math.floor(seconds / 60)}:${(Math.floor(seconds) % 60).toString().padStart(2, '0')}.${Math.floor((seconds * 10) % 10)}`
  );

  $effect(() => {
    const kept = keptDraft<Kept>(keptUnder);
    if (!kept) return;
    now = Date.now();
    ({ size, startedAt, stoppedAt } = kept);
  });
  const keep = () => keepDraft(keptUnder, { size, startedAt, stoppedAt });
  function press(): void {
    const at = Date.now();
    if (running) stoppedAt = at;
    else {
      startedAt = now = at;
      stoppedAt = undefined;
    }
    keep();
  }
  function clear(): void {
    startedAt = stoppedAt = undefined;
    dropDraft(keptUnder);
  }
  function take(way: TimedCopy['way']): void {
    if (!timed || !reading?.ok) return;
    onkeep({ way, GB: reading.value, seconds, MBps: timed.MBps, errorS: timed.errorS });
    clear();
  }
  $effect(() => {
    if (!running) return;
    const ticking = setInterval(() => (now = Date.now()), 100);
    return () => clearInterval(ticking);
  });
  $effect(() => keys.add([{ keys: ' ', label: 'On Measure: start and stop the stopwatch (Space)', run: press }]));
</script>

<section class="watch no-print" aria-label="Stopwatch">
  <Button kind={running ? 'danger' : 'primary'} on:click={press}>{running ? 'Stop' : 'Start the stopwatch'}</Button>
  <p class="face figure" role="timer">{face}<span class="unit">min</span></p>
  <div class="size">
    <TextInput
      size="sm"
      labelText="What is copied, GB"
      placeholder="420 GB"
      value={size}
      on:input={(e) => {
        size = String(e.detail ?? '');
        keep();
      }}
      invalid={reading !== null && !reading.ok}
      invalidText={reading && !reading.ok ? reading.message : ''}
    />
  </div>
  <p class="out" aria-live="polite">
    {#if timed}
      <span class="figure"><strong>{rate(timed.MBps)}</strong><span class="unit">MB/s</span></span>
      <span class="small quiet"
        >{rate(timed.low)} – {rate(timed.high)}, for your finger may be off by ±{figure(timed.errorS)}&#8239;s ({figure(
          timed.percent
        )}&#8239;%)</span
      >
    {:else if stoppedAt !== undefined}<span class="small quiet"
        >Type how much was copied, and the rate stands here.</span
      >
    {:else}<span class="small quiet">Stop {until} ({rule}).</span>{/if}
  </p>
  {#if stoppedAt !== undefined}
    <p class="keep">
      {#if timed}
        <button type="button" onclick={() => take('write')}>Keep as a write result</button>
        <button type="button" onclick={() => take('read')}>Keep as a read result</button>
      {/if}
      <button type="button" onclick={clear}>Set back to zero</button>
    </p>
  {/if}
</section>

<style>
  .keep {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    flex-basis: 100%;
  }
  .keep button {
    padding: 4px 10px;
    border: 1px solid var(--ash-ember);
    background: none;
    color: var(--ash-ember);
    cursor: pointer;
  }
  .watch {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 10px 20px;
    margin: 14px 0;
    padding: 10px 14px;
    background: var(--ash-sheet);
    --cds-field: var(--ash-paper);
    --cds-field-01: var(--ash-paper);
    border: 1px solid var(--ash-line);
  }
  .face {
    min-width: 130px;
    font-size: var(--ash-text-large);
  }
  .size {
    width: 160px;
  }
  .out {
    flex: 1 1 240px;
  }
  @media (max-width: 560px) {
    /* One hand, at the bench. */
    .watch :global(.bx--btn) {
      width: 100%;
      max-width: none;
      min-height: 72px;
      font-size: 18px;
    }
  }
</style>
