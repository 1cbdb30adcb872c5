<script lang="ts">
  import { STAGE_LABEL } from '#core/build/stages';
  import { changesOf } from '$lib/client/change';
  import type { Alarm } from '#core/results/gates';
  import { causeOf } from '#core/results/cause';
  import type { RunInput } from '#core/results/run';
  import AgainstForecast from '$lib/ui/measure/AgainstForecast.svelte';
  import Results from '$lib/ui/measure/Results.svelte';
  import ResultForm from '$lib/ui/measure/ResultForm.svelte';
  import { ruleName, chosenOption } from '#core/house-rules/house-rules';
  import type { TimedCopy } from '$lib/ui/measure/timed-copy';
  import Stopwatch from '$lib/ui/measure/Stopwatch.svelte';

  let { data } = $props();
  const path = $derived(`/api/crates/${data.crate.id}/builds/${data.build.id}/runs`);
  const { report } = $derived(data.build);
  let shown = $state<string | null>(null);
  const run = $derived(data.runs.find((r) => r.id === shown) ?? data.runs[0]);
  const cause = $derived(run && causeOf(run.results, data.build.snapshot, report));

  let refused = $state<{ fields: Record<string, string>; alarms: Alarm[] }>({ fields: {}, alarms: [] });
  let busy = $state(false);
  let timed = $state.raw<TimedCopy>();

  const change = $derived(changesOf(data.crate.id));
  /** @returns whether it was kept */
  async function onsave(input: RunInput): Promise<boolean> {
    busy = true;
    const { tag, stage, version, id } = data.build;
    const refusal = await change('POST', path, input, { words: 'The result is kept.', then: () => (shown = null) });
    busy = false;
    refused = {
      fields: Object.fromEntries(refusal?.fields.map((f) => [f.path, f.message]) ?? []),
      alarms: (refusal?.details.alarms as Alarm[] | undefined) ?? []
    };
    // A first result is what the stage measured (`benched`) means.
    if (!refusal && stage === 'formatted')
      await change(
        'PUT',
        `/api/crates/${data.crate.id}/builds/${id}/stage`,
        { version, stage: 'benched' },
        `${tag} is now ${STAGE_LABEL.benched}.`
      );
    return refusal === undefined;
  }
  async function remove(id: string, version: number): Promise<void> {
    await change('DELETE', `${path}/${id}`, { version }, 'The result is deleted.');
  }
</script>

<svelte:head><title>{data.build.tag} Measure · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Measure</h1>
      <p class="quiet">
        {data.runs.length === 0
          ? 'Nothing measured yet. The speed check: 1 MiB blocks, write then read, 1 to 5 GB, five times, the median; then 4 KiB random at queue depth 1.'
          : `${data.runs.length} speed ${data.runs.length === 1 ? 'check' : 'checks'} against the forecast.`}
      </p>
    </div>
  </div>

  <AgainstForecast {report} {run} {cause} troubleHref="/b/{data.build.tag}/assemble/trouble?symptom=slow" />

  {#if chosenOption('judge-by', data.crate.houseRules) !== 'synthetic'}
    <Stopwatch
      until={chosenOption('stop-watch', data.crate.houseRules) === 'last-byte'
        ? 'when the drive has the last byte: the volume shows all of it'
        : 'at the system’s signal, every time the same one'}
      rule={ruleName('stop-watch', data.crate.houseRules)}
      keptUnder="stopwatch:{data.build.id}"
      onkeep={(copy) => (timed = copy)}
    />
  {/if}
  <div class="columns">
    <section>
      <h2>Enter a speed check</h2>
      <ResultForm
        today={data.today}
        filesystem={report.filesystem.first.filesystem}
        isWindows={data.build.snapshot.host.os.family === 'windows'}
        {refused}
        {busy}
        {onsave}
        draftKey="draft:run:{data.build.id}"
        {timed}
        ontaken={() => (timed = undefined)}
      />
    </section>
    <section>
      <h2>Results</h2>
      <Results runs={data.runs} {report} {run} onshow={(id) => (shown = id)} onremove={remove} />
    </section>
  </div>
</div>

<style>
  .columns {
    display: grid;
    grid-template-columns: minmax(300px, 5fr) minmax(0, 7fr);
    gap: 32px;
    margin-top: 16px;
  }
  h2 {
    margin-bottom: 8px;
  }
  @media (max-width: 1000px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
