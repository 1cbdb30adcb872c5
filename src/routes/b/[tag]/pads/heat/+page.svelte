<script lang="ts">
  import { saveAs } from '$lib/ui/common/save-as';
  import { Button, Checkbox, NumberInput, ProgressBar, Select, SelectItem } from 'carbon-components-svelte';
  import { untrack } from 'svelte';
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { assemble } from '#core/build/assemble';
  import { TOUCH } from '#core/facts/thermal';
  import { plan } from '#core/plan/plan';
  import { duration, figure, quantity } from '#core/quantities/format';
  import { queryOf } from '$lib/client/address';
  import { Simulations } from '$lib/client/simulations.svelte';
  import Plot from '$lib/ui/common/Plot.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import {
    eventMarks,
    limitMark,
    namedEvents,
    rateTraces,
    runSentence,
    samplesCsv,
    temperatureTraces,
    type Run
  } from '$lib/ui/pads/heat-chart';
  import { BESIDE, queryFor, sceneFrom, setUpsOf, wrongIn, type Scene } from '$lib/ui/pads/set-ups';

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
  const first = $derived(runs[0]?.report);
  const report = $derived(plan(input, { workings: false }));
  const thermal = $derived(report.thermal);
  const others = $derived(
    [...data.library.enclosure.values()].filter(
      (e) => e.id !== data.build.choice.enclosureId && e.formFactor === input.enclosure.formFactor
    )
  );
  const isDisk = $derived(input.drive.media === 'hdd');
  let colours = $state<string[]>(['', '', '']);
  $effect(() => {
    const read = () => {
      const style = getComputedStyle(document.documentElement);
      colours = ['--ash-fail', '--ash-note', '--ash-ink'].map((name) => style.getPropertyValue(name).trim());
    };
    read();
    const watcher = new MutationObserver(read);
    watcher.observe(document.documentElement, { attributes: true, attributeFilter: ['theme'] });
    return () => watcher.disconnect();
  });
  const marks = $derived(eventMarks(runs));
  const limit = $derived(limitMark(first?.summary.startC ?? null));
  const NUMBERS = [
    ['gb', 'GB'],
    ['minutes', 'Minutes'],
    ['ambient', 'Room, °C'],
    ['fill', 'Filled, %']
  ] as const;
  const set = (change: Partial<Scene>) => (scene = { ...scene, ...change });

  const save = () => saveAs(`${data.build.tag} simulated.csv`, 'text/csv', `\ufeff${samplesCsv(runs)}`);
  const TOUCH_WORDS = {
    comfortable: 'may be held for hours',
    brief: 'may be touched briefly',
    'do-not-hold': 'do not hold it'
  } as const;
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

  <form class="controls no-print" onsubmit={(e) => e.preventDefault()} aria-label="What is played">
    <Select
      size="sm"
      labelText="Play"
      selected={scene.load}
      on:update={(e) => set({ load: e.detail as Scene['load'] })}
    >
      {#if input.job}<SelectItem value="job" text="the job “{input.job.name}”" />{/if}
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
          on:change={(e) => set({ [field]: Number(e.detail ?? NaN) })}
        />
      {/if}
    {/each}
    <Select size="sm" labelText="Begins" selected={scene.start} on:update={(e) => set({ start: e.detail as 'idle' })}>
      <SelectItem value="idle" text="long connected" />
      <SelectItem value="ambient" text="just plugged in" />
    </Select>
    {#if isDisk}<Checkbox labelText="Over old data" bind:checked={scene.rewrite} />{/if}
    <Select
      size="sm"
      labelText="Beside it"
      selected={scene.beside}
      on:update={(e) => set({ beside: e.detail as Scene['beside'] })}
    >
      {#each Object.entries(BESIDE) as [value, text] (value)}<SelectItem {value} {text} />{/each}
    </Select>
    {#if scene.beside === 'case'}
      <Select size="sm" labelText="Which" selected={scene.case} on:update={(e) => set({ case: String(e.detail) })}>
        <SelectItem value="" text="Choose…" />
        {#each others as e (e.id)}<SelectItem value={e.id} text={e.name} />{/each}
      </Select>
    {/if}
  </form>

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
  {:else if runs.length > 0 && first}
    <ul class="sentences">
      {#each runs as run (run.name)}<li>{runSentence(run)}</li>{/each}
    </ul>
    <div class="charts">
      <Plot
        title="Rate, MB/s"
        summary="simulated, over minutes{runs.length > 1 ? `; dashed: ${runs[1]!.name}` : ''}"
        traces={rateTraces(runs)}
        layout={{
          height: 290,
          xaxis: { title: { text: 'minutes' }, rangemode: 'tozero' },
          yaxis: { title: { text: 'MB/s' }, rangemode: 'tozero' },
          margin: { l: 56, r: 12, t: 30, b: 40 },
          legend: { orientation: 'h', y: 1.02, yanchor: 'bottom' },
          showlegend: runs.length > 1,
          ...marks
        }}
      />
      <Plot
        title="Temperatures, °C"
        summary="simulated, over minutes"
        traces={temperatureTraces(runs, colours)}
        layout={{
          height: 290,
          xaxis: { title: { text: 'minutes' }, rangemode: 'tozero' },
          yaxis: { title: { text: '°C' } },
          margin: { l: 56, r: 12, t: 48, b: 40 },
          legend: { orientation: 'h', y: 1.02, yanchor: 'bottom' },
          ...limit
        }}
      />
    </div>
    <div class="below">
      <section>
        <h2>What happens</h2>
        <Wide label="Events">
          <table class="plain-table">
            <thead
              ><tr><th scope="col">Set-up</th><th scope="col" class="number">After</th><th scope="col">Event</th></tr
              ></thead
            >
            <tbody>
              {#each runs as run (run.name)}
                {#each namedEvents(run.report) as event (event.kind)}
                  <tr><td>{run.name}</td><td class="number">{duration(event.t)}</td><td>{event.words}</td></tr>
                {:else}
                  <tr><td>{run.name}</td><td class="number">–</td><td>nothing: one rate all the time</td></tr>
                {/each}
              {/each}
            </tbody>
          </table>
        </Wide>
        <p class="small quiet">
          Of what was drawn, {quantity(first.summary.heatJ / 1000, 'kJ')}, {figure(
            (100 * first.summary.storedJ) / Math.max(1, first.summary.heatJ)
          )} % is still in chips and case at the end.
        </p>
      </section>
      {#if thermal}
        <section>
          <h2>To touch and to carry</h2>
          <dl>
            <div>
              <dt>Case, long write</dt>
              <dd>
                {figure(thermal.steadyCaseC.typical)}&#8239;°C ({figure(thermal.steadyCaseC.low)} to {figure(
                  thermal.steadyCaseC.high
                )}): <strong>{TOUCH_WORDS[thermal.touch]}</strong>
              </dd>
            </div>
            <div>
              <dt>Limits, {thermal.material === 'plastic' ? 'plastic' : 'metal'}</dt>
              <dd>
                {TOUCH[thermal.material].hoursC}&#8239;°C for hours, {TOUCH[thermal.material].tenMinutesC}&#8239;°C ten
                minutes,
                {TOUCH[thermal.material].minuteC}&#8239;°C a minute, {TOUCH[thermal.material].tenSecondsC}&#8239;°C ten
                seconds (ISO 13732-1)
              </dd>
            </div>
            <div>
              <dt>After ejecting</dt>
              <dd>
                {thermal.coolsInS === null
                  ? 'stays too warm to hold while it is plugged in: unplug it'
                  : thermal.coolsInS === 0
                    ? 'can be held at once; still warm'
                    : `can be held for hours after ${duration(thermal.coolsInS)}`}
              </dd>
            </div>
            <div>
              <dt>Draws</dt>
              <dd>
                {quantity(thermal.watts, 'W')} at work, {quantity(thermal.idleW, 'W')} at rest; ejected and left in
                {quantity(thermal.ejectedWhPerDay.low, 'Wh')} to {quantity(thermal.ejectedWhPerDay.high, 'Wh')} a day: unplug
                it on battery
              </dd>
            </div>
            <div>
              <dt>Most uncertain</dt>
              <dd>
                {thermal.influences
                  .slice(0, 3)
                  .map(
                    (i) =>
                      `${i.what} (${i.hotK >= 0 ? '+' : ''}${i.hotK.toFixed(1)} / ${i.coolK.toFixed(1)} K at the controller)`
                  )
                  .join('; ')}
              </dd>
            </div>
          </dl>
          <p class="small quiet">
            The plan’s figures are for {input.job
              ? `the job “${input.job.name}”${thermal.load.share < 1 ? ', as often as it comes' : ' over and over'}`
              : 'writing without end'} at
            {figure(thermal.ambientC)}&#8239;°C; the charts for what is chosen above. A hot case is judged by the house
            rule “Hot case”.
          </p>
        </section>
      {/if}
    </div>
  {:else if !valid}
    <p class="empty">One of the numbers above cannot be; the chart waits for it.</p>
  {/if}
</div>

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
  .wait {
    display: flex;
    align-items: center;
    gap: 12px;
    height: 24px;
  }
  .sentences {
    margin: 0 0 8px;
    padding: 0;
    list-style: none;
  }
  .sentences li {
    padding: 2px 0 2px 12px;
    border-left: 4px solid var(--ash-band);
  }
  .charts {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 12px;
    padding: 10px 12px;
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
  }
  .below {
    display: grid;
    grid-template-columns: minmax(0, 5fr) minmax(0, 7fr);
    gap: 28px;
    margin-top: 16px;
  }
  h2 {
    margin-bottom: 6px;
  }
  dl > div {
    display: grid;
    grid-template-columns: 130px minmax(0, 1fr);
    gap: 12px;
    padding: 5px 0;
    border-top: 1px dashed var(--ash-line);
  }
  dt {
    color: var(--ash-soft);
  }
  dd {
    margin: 0;
  }
  @media (max-width: 900px) {
    .charts,
    .below {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
