<script lang="ts">
  import { Checkbox, NumberInput, Select, SelectItem } from 'carbon-components-svelte';
  import { BESIDE, type Scene } from './set-ups';

  /** What is played: which load, how long, in which room, and what stands beside it. */
  let {
    scene,
    wrong,
    job,
    isDisk,
    others,
    onset
  }: {
    scene: Scene;
    wrong: Partial<Record<'gb' | 'minutes' | 'ambient' | 'fill', string | undefined>>;
    /** Name of the build's job, if it has one. */
    job: string | undefined;
    isDisk: boolean;
    others: readonly { id: string; name: string }[];
    onset: (change: Partial<Scene>) => void;
  } = $props();
  const NUMBERS = [
    ['gb', 'GB'],
    ['minutes', 'Minutes'],
    ['ambient', 'Room, °C'],
    ['fill', 'Filled, %']
  ] as const;
</script>

<form class="controls no-print" onsubmit={(e) => e.preventDefault()} aria-label="What is played">
  <Select
    size="sm"
    labelText="Play"
    selected={scene.load}
    on:update={(e) => onset({ load: e.detail as Scene['load'] })}
  >
    {#if job}<SelectItem value="job" text="the job “{job}”" />{/if}
    <SelectItem value="soak" text="writing without end" />
    <SelectItem value="write" text="a write of so many GB" />
  </Select>
  {#each NUMBERS as [field, label] (field)}
    {#if field !== 'gb' || scene.load === 'write'}
      <NumberInput
        size="sm"
        labelText={label}
        hideSteppers
        allowDecimal
        value={scene[field]}
        invalid={wrong[field] !== undefined}
        invalidText={wrong[field]}
        on:change={(e) => onset({ [field]: Number(e.detail ?? NaN) })}
      />
    {/if}
  {/each}
  <Select size="sm" labelText="Begins" selected={scene.start} on:update={(e) => onset({ start: e.detail as 'idle' })}>
    <SelectItem value="idle" text="long connected" />
    <SelectItem value="ambient" text="just plugged in" />
  </Select>
  {#if isDisk}<Checkbox
      labelText="Over old data"
      checked={scene.rewrite}
      on:check={(e) => e.detail !== scene.rewrite && onset({ rewrite: Boolean(e.detail) })}
    />{/if}
  <Select
    size="sm"
    labelText="Beside it"
    selected={scene.beside}
    on:update={(e) => onset({ beside: e.detail as Scene['beside'] })}
  >
    {#each Object.entries(BESIDE) as [value, text] (value)}<SelectItem {value} {text} />{/each}
  </Select>
  {#if scene.beside === 'case'}
    <Select size="sm" labelText="Which" selected={scene.case} on:update={(e) => onset({ case: String(e.detail) })}>
      <SelectItem value="" text="Choose…" />
      {#each others as e (e.id)}<SelectItem value={e.id} text={e.name} />{/each}
    </Select>
  {/if}
</form>

<style>
  .controls {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 8px 14px;
    margin-bottom: 10px;
  }
  .controls :global(.bx--select) {
    width: 190px;
  }
  .controls :global(.bx--number) {
    width: 84px;
  }
  .controls :global(.bx--form-item) {
    flex: 0 0 auto;
  }
</style>
