<script lang="ts">
  import type { Band } from '#core/quantities/band';
  import { rate } from '#core/quantities/format';
  import { laneHeight, lanePath, laneSteps, TOP_MBPS } from '../geometry/lane';

  type LaneStage = { stage: string; label: string; MBps: Band };
  type Props = {
    stages: readonly LaneStage[];
    /** Where the chain is narrowest. */
    bottleneck: string | null;
    predicted: Band | null;
    measured?: number | undefined;
    measuredLabel?: string;
    /** A lower rate that it falls to later: behind the cache, or too hot. */
    later?: { MBps: number; label: string } | undefined;
    small?: boolean;
    /** Whether the parts do not go together, and this is only what would be if they did: drawn hatched. */
    ifItFitted?: boolean;
    /** The stage whose working is shown, and what to do when another is picked. */
    selected?: string;
  };
  let {
    stages,
    bottleneck,
    predicted,
    measured,
    measuredLabel = 'measured',
    later,
    small = false,
    ifItFitted = false,
    selected = $bindable()
  }: Props = $props();

  const WIDTH = $derived(small ? 120 : 860);
  const scale = $derived(small ? 0.22 : 0.8);
  const FLOOR = $derived(small ? 28 : 102);
  const slope = $derived(small ? 8 : 46);
  const names: Record<string, string> = {
    port: 'port',
    cable: 'cable',
    bridge: 'bridge',
    slot: 'slot',
    drive: 'drive'
  };
  const uid = $props.id();

  const steps = $derived(
    laneSteps(
      stages.map((s) => s.MBps.typical),
      WIDTH
    ).map((step) => ({ ...step, height: step.height * scale }))
  );
  const path = $derived(lanePath(steps, FLOOR, slope));
  const narrow = $derived(steps[stages.findIndex((s) => s.stage === bottleneck)]);
  const height = (mbps: number) => laneHeight(mbps) * scale;
  const summary = $derived(
    stages.length === 0
      ? 'No chain: the parts do not work together.'
      : `${ifItFitted ? 'If the parts fitted: ' : ''}${stages.map((s) => `${names[s.stage]} ${rate(s.MBps.typical)}`).join(', ')} megabytes per second; narrowest at the ${bottleneck}.`
  );
</script>

{#snippet drawing()}
  <defs>
    <pattern id="hatch-{uid}" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <line class="hatch" x1="0" y1="0" x2="0" y2="6" />
    </pattern>
  </defs>
  {#if !small}
    {#each [1000, 3000, 6000] as tick (tick)}
      <line class="tick" x1="0" x2={WIDTH} y1={FLOOR - height(tick)} y2={FLOOR - height(tick)} />
      <text class="tick-label" x={WIDTH + 8} y={FLOOR - height(tick) + 4}>{tick}</text>
    {/each}
  {/if}
  <path class="channel" class:would={ifItFitted} d={path} fill={ifItFitted ? `url(#hatch-${uid})` : undefined} />
  {#each steps as step, i (stages[i]!.stage)}
    {#if step.cut}
      <path
        class="torn"
        d="M{step.x + 4} {FLOOR - step.height}{Array.from(
          { length: Math.max(1, Math.floor((step.width - 8) / 8)) },
          (_, n) => `l4 ${n % 2 ? 3 : -3}l4 ${n % 2 ? -3 : 3}`
        ).join('')}"
      />
    {/if}
  {/each}
  {#if predicted && !ifItFitted}
    {@const top = FLOOR - height(predicted.high)}
    {@const bottom = FLOOR - height(predicted.low)}
    <rect class="band" x="0" width={WIDTH} y={top} height={Math.max(2, bottom - top)} fill="url(#hatch-{uid})" />
  {/if}
  {#if narrow}
    {@const y = FLOOR - narrow.height}
    <line
      class="narrow"
      x1={narrow.x + (small ? 1 : 12)}
      x2={narrow.x + narrow.width - (small ? 1 : 12)}
      y1={y}
      y2={y}
    />
    {#if !small}
      {@const middle = narrow.x + narrow.width / 2}
      <path class="notch" d="M{middle - 7} {y - 12}h14l-7 9z" />
    {/if}
  {/if}
  {#if measured !== undefined}
    <line class="measured" x1="0" x2={WIDTH} y1={FLOOR - height(measured)} y2={FLOOR - height(measured)} />
    {#if !small}<text class="measured-label" x={WIDTH - 4} y={FLOOR - height(measured) - 5} text-anchor="end"
        >{measuredLabel} {rate(measured)} MB/s</text
      >{/if}
  {/if}
  {#if later}
    {@const y = FLOOR - height(later.MBps)}
    <line class="measured later" x1="0" x2={WIDTH} y1={y} y2={y} />
    {#if !small}<text class="measured-label" x="4" y={y > FLOOR - 18 ? y - 5 : y + 15}
        >{later.label} {rate(later.MBps)} MB/s</text
      >{/if}
  {/if}
  <line class="floor" x1="0" x2={WIDTH} y1={FLOOR} y2={FLOOR} />
{/snippet}

{#if small}
  <svg class="lane small" viewBox="0 0 {WIDTH} 30" width={WIDTH} height="30" aria-hidden="true" focusable="false"
    >{@render drawing()}</svg
  >
{:else}
  <figure class="lane-figure">
    <svg class="lane" viewBox="0 -4 {WIDTH + 44} {FLOOR + 6}" role="img" aria-label={summary}>{@render drawing()}</svg>
    {#if stages.length > 0}
      <ol class="stages" style:--columns={stages.length} style:--share="{(100 * WIDTH) / (WIDTH + 44)}%">
        {#each stages as stage (stage.stage)}
          <li>
            <button
              type="button"
              class:narrowest={stage.stage === bottleneck}
              aria-pressed={selected === `stage.${stage.stage}`}
              onclick={() => (selected = `stage.${stage.stage}`)}
            >
              <span class="name"
                >{names[stage.stage]}{#if stage.stage === bottleneck}, slowest link{/if}</span
              >
              <span class="label"
                ><span class="figure"
                  >{rate(stage.MBps.typical)}<span class="unit">MB/s</span>{#if stage.MBps.typical > TOP_MBPS}<span
                      class="hidden-visually"
                    >
                      (drawn cut off)</span
                    >{/if}</span
                >
                {stage.label}</span
              >
            </button>
          </li>
        {/each}
      </ol>
    {/if}
  </figure>
{/if}

<style>
  .lane-figure {
    margin: 0;
  }
  .lane {
    display: block;
    width: 100%;
    height: auto;
    overflow: visible;
  }
  .lane.small {
    width: 120px;
  }
  .channel:not(.would) {
    fill: var(--ash-channel);
  }
  .channel.would {
    stroke: var(--ash-edge);
    stroke-dasharray: 4 4;
  }
  .floor {
    stroke: var(--ash-edge);
    stroke-width: 1;
  }
  .tick {
    stroke: var(--ash-line);
    stroke-dasharray: 2 5;
  }
  .tick-label {
    font: 12px var(--ash-mono);
    fill: var(--ash-faint);
  }
  @media (max-width: 560px) {
    /* Five columns would break every word: on a telephone they stand below each other. */
    .stages {
      grid-template-columns: 1fr !important;
      width: 100% !important;
    }
    .stages button {
      grid-template-columns: 5.5rem minmax(0, 1fr);
      min-height: 44px;
      align-items: center;
    }
  }
  @media (max-width: 560px) {
    .tick-label,
    .measured-label {
      display: none;
    }
  }
  .hatch {
    stroke: var(--ash-band);
    stroke-width: 2.4;
  }
  .band {
    stroke: var(--ash-band);
    stroke-width: 0.8;
  }
  .narrow {
    stroke: var(--ash-ink);
    stroke-width: 2.5;
  }
  .small .narrow {
    stroke-width: 2;
  }
  .notch {
    fill: var(--ash-ink);
  }
  .torn {
    fill: none;
    stroke: var(--ash-edge);
    stroke-width: 1.5;
  }
  .measured {
    stroke: var(--ash-measured);
    stroke-width: 2.5;
  }
  .later {
    stroke-dasharray: 7 4;
  }
  .small .measured {
    stroke-width: 1.6;
  }
  .measured-label {
    font: 600 12px var(--ash-mono);
    fill: var(--ash-ink);
    paint-order: stroke;
    stroke: var(--ash-sheet);
    stroke-width: 4px;
  }
  .stages {
    display: grid;
    grid-template-columns: repeat(var(--columns), minmax(0, 1fr));
    width: var(--share);
    margin: 2px 0 0;
    padding: 0;
    list-style: none;
  }
  .stages button {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    width: 100%;
    padding: 2px 6px 4px 2px;
    border: 0;
    background: none;
    color: inherit;
    text-align: left;
    cursor: pointer;
    line-height: 1.3;
  }
  .stages button:hover,
  .stages button[aria-pressed='true'] {
    background: var(--ash-well);
  }
  .name,
  .label {
    font-size: var(--ash-text-small);
    color: var(--ash-soft);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .label .figure {
    font-size: var(--ash-text);
    color: var(--ash-ink);
    margin-right: 4px;
  }
  .label .unit {
    display: inline-block;
    white-space: nowrap;
    overflow-wrap: normal;
  }
  .narrowest .name,
  .narrowest .figure {
    color: var(--ash-ink);
    font-weight: 700;
  }
</style>
