<script lang="ts">
  import { invalidateAll } from '$app/navigation';
  import { Button } from 'carbon-components-svelte';
  import { coolDown } from '#core/protocols/planner';
  import { protocolOf } from '#core/protocols/protocols';
  import { testedBuild } from '#core/protocols/tested';
  import { day, duration, figure, quantity } from '#core/quantities/format';
  import { compareWithPlan, comparisonSentence, repeatsBehind } from '#core/results/compare';
  import { changesOf } from '$lib/client/change';
  import { FoundOut } from '$lib/client/found-out.svelte';
  import { MeasureRun } from '$lib/client/measure-run.svelte';
  import { askRig, chime, LiveRun } from '$lib/client/live-run.svelte';
  import RunJudgement from '$lib/ui/diagnosis/RunJudgement.svelte';
  import CompareRuns from '$lib/ui/measure/CompareRuns.svelte';
  import CopyRepeats from '$lib/ui/measure/CopyRepeats.svelte';
  import { FAULT_WORDS } from '$lib/ui/measure/fault-words';
  import RigProgress from '$lib/ui/measure/RigProgress.svelte';
  import RunChart from '$lib/ui/measure/RunChart.svelte';
  import RunConditions from '$lib/ui/measure/RunConditions.svelte';
  import RunPictures from '$lib/ui/measure/RunPictures.svelte';

  let { data } = $props();
  const { run, build } = $derived(data);
  const home = $derived(`/c/${data.crate.slug}`);
  const path = $derived(`/api/crates/${data.crate.id}/runs/${run.id}`);
  const protocol = $derived(protocolOf(run.protocol));
  const of = $derived(
    build ? `${build.tag} ${build.name}` : run.hostId ? `internal disk of ${run.chain.host}` : run.chain.drive
  );
  const change = $derived(changesOf(data.crate.id));

  /** Longer than this in life a run calls at its end, s. */
  const LONG_S = 20;
  let began = Date.now();
  const live = new LiveRun(() => {
    if ((Date.now() - began) / 1000 > LONG_S) chime();
    void invalidateAll();
  });
  // Once the run itself is known not to go on, what was told last while it did counts no more.
  const rig = $derived(run.rig?.state === 'running' && live.state ? live.state : run.rig);
  const running = $derived(rig?.state === 'running');
  $effect(() => {
    if (run.rig?.state !== 'running') return;
    began = Date.now();
    return live.listen(`${path}/events`);
  });
  const series = $derived(data.series ?? (live.drawn.t.length > 0 ? live.drawn : null));
  const percent = $derived(rig ? Math.floor(Math.min(0.999, rig.atS / Math.max(1, rig.wantedS)) * 100) : 0);
  const title = $derived(running ? `${percent} % · ${protocol.label}` : protocol.label);

  const reads = $derived(run.results.writeMBps === undefined && run.results.readMBps !== undefined);
  // The internal disk is not the chain: nothing of the chain's forecast is held against it.
  const ofChain = $derived(run.protocol === 'baseline' ? null : build);
  const forecast = $derived(
    ofChain ? (reads ? ofChain.report.throughput.read : ofChain.report.throughput.write) : null
  );
  const rows = $derived(ofChain ? compareWithPlan(run.results, ofChain.report) : []);
  const judged = $derived(data.judged);
  const finding = new FoundOut(() => ({ crateId: data.crate.id, run, tag: build?.tag ?? '' }));
  const bridge = $derived(build?.snapshot.enclosure.bridge);
  const pair = $derived(
    build && bridge ? { driveId: build.choice.driveId, drive: build.snapshot.drive.name, bridge } : undefined
  );
  const cool = $derived(build ? coolDown(testedBuild(build.snapshot, build.report), series?.caseC?.at(-1)) : null);
  /** When a build that has just been measured is cool, by the clock of the day. */
  let now = $state(Date.now());
  const endedAt = $derived(
    build && !run.simulated && now - Date.parse(run.at) < 6 * 3_600_000 ? Date.parse(run.at) : 0
  );
  const coolLeft = $derived(cool && endedAt > 0 ? Math.max(0, cool.seconds - (now - endedAt) / 1000) : 0);
  $effect(() => {
    const ticking = setInterval(() => (now = Date.now()), 1000);
    return () => clearInterval(ticking);
  });

  const ask = (what: 'cancel' | 'resume', body: object) => askRig(path, what, body);
  async function keepConditions(conditions: typeof run.conditions): Promise<boolean> {
    const body = { version: run.version, conditions };
    return (await change('PUT', path, body, 'The conditions are changed.')) === undefined;
  }
  const remove = () =>
    change(
      'DELETE',
      path,
      { version: run.version },
      { words: 'The result is deleted.', to: () => (build ? `/b/${build.tag}/measure` : `${home}/runs`) }
    );

  let adding = $state(false);
  const measuring = new MeasureRun(() => ({ crateId: data.crate.id, home, subject: { buildId: '' } }));
  async function addPicture(file: File): Promise<void> {
    adding = true;
    await measuring.addPicture(run.id, file);
    adding = false;
  }
</script>

<svelte:head><title>{title} · {of} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <p class="small">
        {#if build}<a href="/b/{build.tag}/measure">{build.tag} {build.name}</a>{:else}<a href="{home}/runs"
            >All results</a
          >{/if}
      </p>
      <h1>{protocol.label}{run.simulated ? ', simulated' : ''}</h1>
      <p class="quiet">{of}, {day(run.date)}. {protocol.answers}</p>
    </div>
    {#if !running}<Button kind="ghost" size="small" on:click={() => void remove()}>Delete</Button>{/if}
  </div>

  {#if run.simulated}<p class="simulated">
      <strong>Simulated.</strong> Played on the stand-in rig, not measured on a device{run.rig
        ? `: seed ${run.rig.seed}${run.rig.fault ? `, with a fault: ${FAULT_WORDS[run.rig.fault]}` : ''}`
        : ''}.
    </p>{/if}

  {#if rig && rig.state !== 'done'}
    <RigProgress
      {rig}
      away={live.away}
      oncancel={() => void ask('cancel', {})}
      onresume={(speed) => void ask('resume', { speed })}
    />
  {/if}
  {#if build && run.rig && run.rig.buildVersion !== build.version}<p class="note">
      {build.tag} was changed since this run began: it went on with the parts it began with.
    </p>{/if}

  {#if judged}<p class="first {judged.sentence.tone}" role="status">{judged.sentence.text}</p>
  {:else if data.plain}<p class="first">{data.plain}</p>{/if}
  {#if run.results.limitedBy}<p>
      <strong>{run.results.limitedBy === 'program' ? 'The program is the limit' : 'The drive is the limit'}</strong>{run
        .results.limitedBy === 'program'
        ? ': on a faster drive the work would take as long. Nothing is wrong with this one.'
        : ': the work takes longer than on the internal disk.'}
    </p>{/if}

  {#if series && series.t.length > 0}
    <RunChart {series} {forecast} {of} simulated={run.simulated} phases={run.series?.phases} events={data.events} />
    <p class="no-print small">
      {#if !running}<a href="{path}/series?format=csv" download>All samples as CSV</a> ·
        <a href="{path}/series" download="run-{run.id}.json">as JSON</a>{/if}
      {#if run.series}<span class="quiet">{run.series.samples} samples, {quantity(run.series.movedGB, 'GB')} moved</span
        >{/if}
    </p>
  {:else if running}<p class="quiet">The first samples are on their way.</p>
  {/if}

  {#if rows.length > 0}
    <ul class="sentences" aria-label="Measured against the forecast">
      {#each rows as row (row.field)}<li class={row.place}>
          {comparisonSentence(row, repeatsBehind(row.field, run.results))}
        </li>{/each}
    </ul>
  {/if}
  {#if judged && build}
    <RunJudgement
      {judged}
      {finding}
      tag={build.tag}
      {pair}
      simulated={run.simulated}
      runHref={(id) => `${home}/runs/${id}`}
    />
  {/if}

  <div class="columns">
    <section aria-label="Repeats">
      {#if (run.results.repeats?.length ?? 0) > 1}<h2>Repeats</h2>
        <CopyRepeats repeats={run.results.repeats ?? []} />{/if}
      <h2>Next</h2>
      {#if run.simulated && cool && run.protocol !== 'pair-check' && cool.seconds > 0}
        <p class="small quiet">
          In life it would now cool for {duration(cool.seconds)}, until the case is at {figure(cool.toC)} °C.
        </p>
      {:else if coolLeft > 0}<p role="status">
          Let it cool for {duration(coolLeft)} before the next run: until the case is at {figure(cool?.toC ?? 0)} °C.
        </p>
      {:else if cool && endedAt > 0}<p role="status"><strong>Ready:</strong> it is cool again for the next run.</p>{/if}
      {#if build}
        {#if judged?.sentence.tone === 'open' || judged?.sentence.tone === 'fault'}<p>
            <a href="/b/{build.tag}/assemble/trouble?symptom=slow">Find the cause step by step</a>
          </p>{/if}
        <p>
          <a href="/b/{build.tag}/measure/plan?protocol={run.protocol}">The same once more</a>, with the same settings,
          so that the two can be compared.
        </p>
        {#if run.protocol === 'pair-check'}<p>
            <a href="/b/{build.tag}/measure/plan?protocol=soak">A soak</a> shows what comes after the first seconds.
          </p>{/if}
        {#if run.protocol === 'copy'}<p>
            <a href="/b/{build.tag}/measure/plan?protocol=cross-copy">Between two externals</a> tells the case from the internal
            disk.
          </p>{/if}
      {:else if run.hostId}<p><a href="{home}/runs/new?host={run.hostId}">The same once more</a></p>
      {:else}<p><a href="{home}/runs/new?model={run.modelId}">Measure it again</a></p>{/if}
      <CompareRuns {run} others={data.same} />
    </section>
    <section aria-label="Conditions">
      <RunConditions
        conditions={run.conditions}
        chain={run.chain}
        needed={protocol.needs}
        mayChange={!running}
        onkeep={keepConditions}
      />
      <RunPictures
        pictures={data.pictures}
        srcOf={(id) => `/api/crates/${data.crate.id}/attachments/${id}`}
        busy={adding}
        onadd={(file) => void addPicture(file)}
        onremove={({ id, version, name }) =>
          void change('DELETE', `/api/crates/${data.crate.id}/attachments/${id}`, { version }, `Deleted ${name}.`)}
      />
    </section>
  </div>
</div>

<style>
  .simulated,
  .note {
    margin: 8px 0;
    padding: 6px 12px;
    border-left: 4px solid var(--ash-note);
    background: var(--ash-well);
  }
  .first {
    max-width: 60rem;
    margin: 10px 0 12px;
    padding: 8px 14px;
    border-left: 6px solid var(--ash-edge);
    background: var(--ash-sheet);
    font-size: 20px;
    line-height: 1.35;
  }
  .first.sound,
  .first.known {
    border-left-color: var(--ash-pass);
  }
  .first.fault {
    border-left-color: var(--ash-fail);
  }
  .first.open {
    border-left-color: var(--ash-caution);
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
  .sentences li.below,
  .sentences li.above {
    border-left-color: var(--ash-caution);
  }
  .columns {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 12px 32px;
    margin-top: 14px;
  }
  h2 {
    margin: 10px 0 6px;
  }
  @media (max-width: 900px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
