<script lang="ts">
  import { saveAs } from '$lib/ui/common/save-as';
  import { Button, ProgressBar } from 'carbon-components-svelte';
  import { untrack } from 'svelte';
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { assemble } from '#core/build/assemble';
  import { plan } from '#core/plan/plan';
  import { queryOf } from '$lib/client/address';
  import { Simulations } from '$lib/client/simulations.svelte';
  import { samplesCsv, type Run } from '$lib/ui/pads/heat-chart';
  import HeatCharts from '$lib/ui/pads/HeatCharts.svelte';
  import SceneForm from '$lib/ui/pads/SceneForm.svelte';
  import { queryFor, sceneFrom, setUpsOf, wrongIn, type Scene } from '$lib/ui/pads/set-ups';
  import Piece from '$lib/ui/common/Piece.svelte';

  let { data } = $props();
  const assembled = $derived(assemble(data.library, data.build.choice));
  const input = $derived(assembled.ok ? assembled.input : data.build.snapshot);
  // svelte-ignore state_referenced_locally
  let scene = $state<Scene>(sceneFrom(queryOf(page.url), input));
  const wrong = $derived({
    gb: wrongIn('gb', scene.gb),
    minutes: wrongIn('minutes', scene.minutes),
    ambient: wrongIn('ambient', scene.ambient),
    fill: wrongIn('fill', scene.fill)
  });
  const valid = $derived(Object.values(wrong).every((w) => w === undefined));
  const setUps = $derived(valid ? setUpsOf(scene, input, data.library) : []);
  const simulations = new Simulations();
  $effect(() => {
    const inputs = setUps.map((s) => s.input);
    // What is asked follows from the set-ups alone, not from what is being played.
    if (inputs.length > 0) untrack(() => simulations.ask(inputs));
  });
  $effect(() => () => simulations.stop());
  $effect(() => {
    const query = valid ? queryFor(scene, input) : null;
    if (query === null) return;
    untrack(() => {
      if (location.search !== (query ? `?${query}` : '')) replaceState(query ? `?${query}` : location.pathname, {});
    });
  });

  const runs = $derived(
    simulations.results.flatMap((report, i): Run[] => {
      const name = setUps[i]?.name;
      return report && name !== undefined ? [{ name, report }] : [];
    })
  );
  const report = $derived(plan(input, { workings: false }));
  const thermal = $derived(report.thermal);
  const others = $derived(
    [...data.library.enclosure.values()].filter(
      (e) => e.id !== data.build.choice.enclosureId && e.formFactor === input.enclosure.formFactor
    )
  );
  const set = (change: Partial<Scene>) => (scene = { ...scene, ...change });
  const save = () => saveAs(`${data.build.tag} simulated.csv`, 'text/csv', `\ufeff${samplesCsv(runs)}`);
</script>

<svelte:head><title>{data.build.tag} Heat · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Heat over time</h1>
      <p class="quiet">
        <strong>Simulated.</strong> Typical rates and the plan’s own model of heat, second by second; no device is involved.
      </p>
    </div>
    <Button class="no-print" size="small" kind="tertiary" disabled={runs.length === 0} on:click={save}
      >Samples as CSV</Button
    >
    <Button class="no-print" size="small" kind="ghost" on:click={() => print()}>Print</Button>
  </div>

  <Piece
    ><SceneForm
      {scene}
      {wrong}
      job={input.job?.name}
      isDisk={input.drive.media === 'hdd'}
      {others}
      onset={set}
    /></Piece
  >

  {#if simulations.waiting > 0}
    <div class="wait">
      <ProgressBar
        size="sm"
        labelText="Playing"
        hideLabel
        max={setUps.length}
        value={setUps.length - simulations.waiting}
      />
      <Button kind="ghost" size="small" on:click={() => simulations.stop()}>Stop</Button>
    </div>
  {/if}

  {#if report.link.mode === null || report.throughput.write === null}
    <p class="empty">This build does not connect or does not fit, so there is nothing to play. Pair has the reasons.</p>
  {:else if runs.length > 0}
    <HeatCharts {runs} {thermal} job={input.job?.name} />
  {:else if !valid}
    <p class="empty">One of the numbers above cannot be; the chart waits for it.</p>
  {/if}
</div>

<style>
  .wait {
    display: flex;
    align-items: center;
    gap: 12px;
    height: 24px;
  }
</style>
