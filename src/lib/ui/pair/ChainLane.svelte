<script lang="ts">
  import Lane from '../common/Lane.svelte';
  import type { PairingState } from './station.svelte';

  type Props = {
    pairing: PairingState;
    /** The newest measured write, drawn on the lane. */
    measured?: { value: number; label: string } | undefined;
  };
  /** The drawing of the chain: what each link lets through, and what is forecast and measured of it. */
  let { pairing, measured }: Props = $props();
  const report = $derived(pairing.report);
  const lost = $derived(pairing.missing.filter((m) => m.chosen));
</script>

{#if !report}
  <div class="lane blank">
    <p>
      {lost.length > 0
        ? lost.map((m) => m.message).join(' ')
        : 'Choose a computer’s port, an enclosure and a drive; the verdict follows at once.'}
    </p>
  </div>
{:else}
  <div class="lane">
    {#if report.link.stages.length > 0}
      <Lane
        stages={report.link.stages}
        bottleneck={report.link.bottleneck}
        predicted={report.throughput.write}
        measured={measured?.value}
        measuredLabel={measured?.label ?? 'measured'}
        bind:selected={pairing.selected}
      />
      <p class="legend small quiet">
        <span class="key-hatch" aria-hidden="true"></span> forecast of the write{#if measured}<span
            class="key-line"
            aria-hidden="true"
          ></span>
          {measured.label} write{/if} · the higher, the faster
      </p>
    {:else if report.ifItFitted}
      <Lane
        stages={report.ifItFitted.link.stages}
        bottleneck={report.ifItFitted.link.bottleneck}
        predicted={report.ifItFitted.throughput.write}
        ifItFitted
        bind:selected={pairing.selected}
      />
      <p class="legend small quiet">
        <span class="key-hatch" aria-hidden="true"></span> only if the parts fitted: they do not go together, and the findings
        below say why
      </p>
    {:else}
      <p class="blocked">No figures: this chain does not connect as it is. The findings below say why.</p>
    {/if}
  </div>
{/if}

<style>
  .lane {
    position: relative;
    padding: 12px 12px 2px;
  }
  .legend {
    position: absolute;
    top: 1px;
    left: 12px;
    padding-right: 8px;
    background: var(--ash-sheet);
  }
  .key-hatch {
    display: inline-block;
    width: 22px;
    height: 8px;
    border: 1px solid var(--ash-band);
    background: repeating-linear-gradient(135deg, var(--ash-band) 0 2px, transparent 2px 5px);
  }
  .key-line {
    display: inline-block;
    width: 22px;
    margin: 0 2px 3px 10px;
    border-top: 2.5px solid var(--ash-measured);
  }
  .blank,
  .blocked {
    padding: 40px 16px;
    text-align: center;
    color: var(--ash-soft);
  }
</style>
