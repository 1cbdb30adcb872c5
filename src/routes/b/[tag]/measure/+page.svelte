<script lang="ts">
  import { STAGE_LABEL } from '#core/build/stages';
  import { changesOf } from '$lib/client/change';
  import Wide from '$lib/ui/common/Wide.svelte';
  import { Button } from 'carbon-components-svelte';
  import type { Alarm } from '#core/results/gates';
  import { compareWithPlan, comparisonSentence, RESULT_LABEL, BAND_OF } from '#core/results/compare';
  import type { RunInput } from '#core/results/run';
  import { LINK_MODES } from '#core/facts/link-modes';
  import { bandText, day, rate } from '#core/quantities/format';
  import ResultForm from '$lib/ui/measure/ResultForm.svelte';
  import Figure from '$lib/ui/common/Figure.svelte';
  import Lane from '$lib/ui/common/Lane.svelte';
  import { ruleName, chosenOption } from '#core/house-rules/house-rules';
  import type { TimedCopy } from '$lib/ui/measure/timed-copy';
  import Stopwatch from '$lib/ui/measure/Stopwatch.svelte';

  let { data } = $props();
  const path = $derived(`/api/crates/${data.crate.id}/builds/${data.build.id}/runs`);
  const { report } = $derived(data.build);
  let shown = $state<string | null>(null);
  const run = $derived(data.runs.find((r) => r.id === shown) ?? data.runs[0]);
  const rows = $derived(run ? compareWithPlan(run.results, report) : []);
  const measured = $derived(run?.results.writeMBps ?? run?.results.readMBps);
  const laneForecast = $derived(
    run?.results.writeMBps === undefined && run ? report.throughput.read : report.throughput.write
  );
  const FIELDS = Object.keys(BAND_OF) as (keyof typeof BAND_OF)[];

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
  const conditionWords = (r: (typeof data.runs)[number]) =>
    [
      `${r.chain.host}, ${r.chain.port} (${r.chain.os})`,
      r.chain.cable,
      r.chain.mode ? LINK_MODES[r.chain.mode].label : undefined,
      r.conditions.filesystem,
      r.conditions.testGB ? `${r.conditions.testGB} GB test` : undefined,
      r.conditions.repeats ? `${r.conditions.repeats} repeats` : undefined,
      r.conditions.fillPercent !== undefined ? `${r.conditions.fillPercent} % full` : undefined,
      r.conditions.ambientC !== undefined ? `${r.conditions.ambientC} °C room` : undefined,
      r.conditions.power,
      r.conditions.encrypted ? 'encrypted' : undefined,
      r.conditions.notes
    ]
      .filter(Boolean)
      .join(' · ');
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

  {#if report.link.stages.length > 0}
    <div class="panel">
      <Lane
        stages={report.link.stages}
        bottleneck={report.link.bottleneck}
        predicted={laneForecast}
        {measured}
        measuredLabel={run?.simulated ? 'simulated' : 'measured'}
      />
      <p class="small quiet">
        Hatching: forecast of the {laneForecast === report.throughput.read ? 'read' : 'write'}.
        {#if run}Solid line: {run.results.writeMBps === undefined ? 'read' : 'write'} of {day(run.date)}{run.simulated
            ? ', from the simulated rig'
            : ''}.{:else}The solid line appears with the first result.{/if}
      </p>
    </div>
  {:else}
    <p class="panel">
      The plan of this build says that it does not work; there is no forecast to measure against. Results can be kept
      all the same.
    </p>
  {/if}

  {#if run}
    <ul class="sentences" aria-label="Measured against the forecast">
      {#each rows as row (row.field)}<li class={row.place}>{comparisonSentence(row)}</li>{/each}
    </ul>
    {#if run.simulated}<p class="simulated">
        <strong>Simulated.</strong> These figures come from the stand-in rig that ships with Ash Crate, not from a device.
      </p>{/if}
  {/if}

  {#if chosenOption('judge-by', data.crate.houseRules) !== 'synthetic'}
    <Stopwatch
      until={chosenOption('stop-watch', data.crate.houseRules) === 'last-byte'
        ? 'when the last byte is down: the volume shows all of it'
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
      {#if data.runs.length === 0}
        <p class="quiet">None yet.</p>
      {:else}
        <Wide label="Results">
          <table class="plain-table">
            <thead>
              <tr
                ><th scope="col">Day</th>{#each FIELDS as field (field)}<th scope="col" class="number"
                    >{RESULT_LABEL[field]}</th
                  >{/each}<th></th></tr
              >
            </thead>
            <tbody>
              <tr class="forecast">
                <td>forecast</td>
                {#each FIELDS as field (field)}{@const band = report.throughput[BAND_OF[field]]}<td class="number"
                    >{#if band}<Figure value={bandText(band, '').trim()} />{:else}–{/if}</td
                  >{/each}
                <td></td>
              </tr>
              {#each data.runs as r (r.id)}
                {@const compared = compareWithPlan(r.results, report)}
                <tr class:chosen={r === run}>
                  <td>
                    <button type="button" class="pick" aria-pressed={r === run} onclick={() => (shown = r.id)}
                      >{day(r.date)}</button
                    >
                    {#if r.simulated}<span class="small quiet">simulated</span>{/if}
                  </td>
                  {#each FIELDS as field (field)}
                    {@const value = r.results[field]}
                    {@const place = compared.find((c) => c.field === field)?.place}
                    <td class="number"
                      >{#if value !== undefined}<Figure
                          value={rate(value)}
                          unit="MB/s"
                        />{#if place && place !== 'within'}<span class="place small {place}">{place}</span
                          >{/if}{:else}–{/if}</td
                    >
                  {/each}
                  <td><Button kind="ghost" size="small" on:click={() => remove(r.id, r.version)}>Delete</Button></td>
                </tr>
                <tr class="under"><td colspan={FIELDS.length + 2} class="small quiet">{conditionWords(r)}</td></tr>
              {/each}
            </tbody>
          </table>
        </Wide>
      {/if}
    </section>
  </div>
</div>

<style>
  .panel {
    max-width: 960px;
    padding: 14px 14px 8px;
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
  }
  .sentences {
    margin: 10px 0;
    padding: 0;
    list-style: none;
  }
  .sentences li {
    padding: 4px 0 4px 12px;
    border-left: 4px solid var(--ash-pass);
  }
  .sentences .below,
  .sentences .above {
    border-left-color: var(--ash-caution);
  }
  .simulated {
    padding: 6px 12px;
    margin-bottom: 8px;
    background: var(--ash-well);
  }
  .columns {
    display: grid;
    grid-template-columns: minmax(300px, 5fr) minmax(0, 7fr);
    gap: 32px;
    margin-top: 16px;
  }
  h2 {
    margin-bottom: 8px;
  }
  .place {
    display: block;
  }
  .forecast td {
    color: var(--ash-soft);
    white-space: nowrap;
  }
  .under td {
    padding-top: 0;
  }
  tr:has(+ .under) td {
    border-bottom: 0;
  }
  .chosen {
    background: var(--ash-well);
  }
  .pick {
    padding: 0;
    border: 0;
    background: none;
    color: var(--ash-ember);
    text-decoration: underline;
    text-underline-offset: 3px;
    cursor: pointer;
    white-space: nowrap;
  }
  .below,
  .above {
    color: var(--ash-caution);
    font-weight: 600;
  }
  .sentences .below,
  .sentences .above {
    color: inherit;
    font-weight: 400;
  }
  @media (max-width: 1000px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
