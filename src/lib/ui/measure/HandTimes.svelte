<script lang="ts">
  import { TextInput } from 'carbon-components-svelte';
  import type { ProtocolPhase } from '#core/protocols/phase';
  import { duration, quantity, rate } from '#core/quantities/format';
  import { readQuantity } from '#core/quantities/read';
  import { looksLikeTime, readTime } from '#core/quantities/read-time';
  import Wide from '../common/Wide.svelte';
  import type { HandTime } from './hand-times';
  type Props = {
    phases: readonly ProtocolPhase[];
    /** What was typed for each phase. */
    times: readonly HandTime[];
    /** The phase that is timed now, and since when, ms. */
    running: { at: number; since: number } | null;
    ontype: (i: number, time: HandTime) => void;
    onwatch: (i: number) => void;
  };
  /** The steps of a protocol done by hand: for each the rate that the tool shows, or the time it took, typed or stopped here. */
  let { phases, times, running, ontype, onwatch }: Props = $props();
  let now = $state(0);
  $effect(() => {
    if (!running) return;
    now = Date.now();
    const ticking = setInterval(() => (now = Date.now()), 200);
    return () => clearInterval(ticking);
  });
  function typed(i: number, event: Event): void {
    const text = (event.target as HTMLInputElement).value.trim();
    if (text === '') return ontype(i, { text });
    const isTime = looksLikeTime(text);
    const read = isTime ? readTime(text) : readQuantity(text, { unit: 'MB/s', min: 0.001, max: 1e6 });
    if (!read.ok) ontype(i, { text, error: read.message });
    else ontype(i, isTime ? { text, seconds: read.value } : { text, MBps: read.value });
  }
  const rateOf = ({ MBps, seconds }: HandTime, GB: number | undefined) =>
    MBps ?? (seconds && GB ? (GB * 1000) / seconds : undefined);
</script>

<Wide label="Steps by hand">
  <table class="plain-table">
    <thead>
      <tr
        ><th scope="col">Step</th><th scope="col">MB/s, or how long</th><th scope="col" class="number">Rate</th><th
        ></th></tr
      >
    </thead>
    <tbody>
      {#each phases as phase, i (i)}
        {@const time = times[i] ?? { text: '' }}
        {@const made = rateOf(time, phase.GB)}
        <tr class:now={running?.at === i}>
          <td
            >{phase.label}
            <span class="small quiet"
              >{phase.GB ? quantity(phase.GB, 'GB') : ''}{phase.work === 'rest' && phase.seconds
                ? duration(phase.seconds)
                : ''}</span
            ></td
          >
          {#if phase.work === 'rest'}
            <td colspan="3" class="small quiet">let it rest</td>
          {:else}
            <td>
              <TextInput
                size="sm"
                hideLabel
                labelText="{phase.label}, MB/s or how long"
                placeholder="950 MB/s, or 3:42"
                value={time.text}
                invalid={time.error !== undefined}
                invalidText={time.error ?? ''}
                on:blur={(e) => typed(i, e)}
              />
            </td>
            <td class="number">{made === undefined ? '–' : `${rate(made)} MB/s`}</td>
            <td
              ><button
                type="button"
                aria-label="{running?.at === i ? 'Stop' : 'Time it'}: {phase.label}"
                onclick={() => onwatch(i)}
                >{running?.at === i
                  ? `Stop, ${duration(Math.max(0, (now - running.since) / 1000))}`
                  : 'Time it'}</button
              ></td
            >
          {/if}
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>

<style>
  .now {
    background: var(--ash-well);
  }
  button {
    padding: 3px 10px;
    border: 1px solid var(--ash-ember);
    background: none;
    color: var(--ash-ember);
    white-space: nowrap;
    cursor: pointer;
  }
</style>
