<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { duration } from '#core/quantities/format';

  type Props = {
    rig: { state: string; sampled: number; atS: number; wantedS: number; speed: number; why: string | null };
    /** Whether the server does not answer just now. */
    away: boolean;
    oncancel: () => void;
    onresume: (speed: number) => void;
  };
  /** How far a simulated run is, with a way to hold it; of one that was held, with a way to go on. */
  let { rig, away, oncancel, onresume }: Props = $props();
  const running = $derived(rig.state === 'running');
  const percent = $derived(Math.floor(Math.min(0.999, rig.atS / Math.max(1, rig.wantedS)) * 100));
  const leftS = $derived(Math.max(0, (rig.wantedS - rig.atS) / rig.speed));
  let speed = $state(60);
</script>

<section class="progress" aria-label="Progress">
  {#if running}
    <p role="status">
      {percent} %: {duration(rig.atS)} of about {duration(rig.wantedS)}, {rig.sampled} samples{rig.speed > 1
        ? `, ${rig.speed} times faster than life`
        : ''}; about {duration(Math.max(1, Math.round(leftS)))} left.
    </p>
    <progress max="100" value={percent} aria-label="Progress of the run"></progress>
    {#if away}<p class="quiet">
        Ash Crate does not answer just now. What is sampled meanwhile comes as soon as it is back.
      </p>{/if}
    <Button size="small" kind="tertiary" on:click={() => oncancel()}>Cancel, and keep what is there</Button>
  {:else}
    <p role="status">
      {rig.why ?? 'It does not go on.'}
      {rig.sampled} samples, {duration(rig.atS)} of about {duration(rig.wantedS)}.
    </p>
    <label class="small">Speed <input type="number" min="1" max="100000" bind:value={speed} /> times</label>
    <Button size="small" on:click={() => onresume(Math.min(100_000, Math.max(1, Number(speed) || 60)))}
      >Go on from there</Button
    >
  {/if}
</section>

<style>
  .progress {
    display: grid;
    justify-items: start;
    gap: 8px;
    margin: 10px 0;
  }
  progress {
    width: min(100%, 520px);
    accent-color: var(--ash-ember);
  }
  input {
    padding: 4px 6px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
    color: inherit;
    font: inherit;
  }
</style>
