<script lang="ts">
  import { changesOf } from '$lib/client/change';
  import { MeasureRun } from '$lib/client/measure-run.svelte';
  import { day } from '#core/quantities/format';
  import { adviceOf, judgeRun } from '#core/diagnosis/of-run';
  import { situationOf } from '#core/diagnosis/situation';
  import { compareWithPlan } from '#core/results/compare';
  import { hasFigures, newestFigures, PROTOCOL_LABEL } from '#core/results/newest';
  import type { RunInput } from '#core/results/run';
  import { protocolsFor } from '#core/protocols/protocols';
  import { testedBuild } from '#core/protocols/tested';
  import AgainstForecast from '$lib/ui/measure/AgainstForecast.svelte';
  import OtherRuns from '$lib/ui/measure/OtherRuns.svelte';
  import ProtocolList from '$lib/ui/measure/ProtocolList.svelte';
  import Results from '$lib/ui/measure/Results.svelte';
  import ResultForm from '$lib/ui/measure/ResultForm.svelte';
  import { ruleName, chosenOption } from '#core/house-rules/house-rules';
  import { copyResults, type TimedCopies } from '$lib/ui/measure/timed-copy';
  import Stopwatch from '$lib/ui/measure/Stopwatch.svelte';
  import Piece from '$lib/ui/common/Piece.svelte';

  let { data } = $props();
  const path = $derived(`/api/crates/${data.crate.id}/builds/${data.build.id}/runs`);
  const { report, snapshot } = $derived(data.build);
  const home = $derived(`/c/${data.crate.slug}`);
  let shown = $state<string | null>(null);
  /** Those with the figures of a speed check, whatever they were made with. */
  const checks = $derived(data.runs.filter(hasFigures));
  const run = $derived(checks.find((r) => r.id === shown) ?? newestFigures(checks, data.crate.demo));
  const newest = $derived(newestFigures(checks, data.crate.demo));
  /** What the shown result asks for: of the newest with its series, of another by its figures. */
  const advice = $derived.by(() => {
    if (!run || run.id === newest?.id) return data.advice;
    const below = compareWithPlan(run.results, report).some(({ place }) => place === 'below');
    return adviceOf(judgeRun(run, situationOf(snapshot)), below);
  });
  const subject = $derived(testedBuild(snapshot, report));

  const measuring = new MeasureRun(() => ({
    crateId: data.crate.id,
    home,
    subject: { buildId: data.build.id },
    build: data.build
  }));
  const change = $derived(changesOf(data.crate.id));
  const onsave = (input: RunInput) => measuring.keep(input, () => (shown = null));
  const keepCopies = ({ repeats, conditions, accepted }: TimedCopies) =>
    onsave({ protocol: 'copy', date: data.today, results: copyResults(repeats), conditions, accepted });
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
          ? 'Nothing measured yet. Choose what you want to know; each says before it starts what it takes.'
          : `${data.runs.length} ${data.runs.length === 1 ? 'result' : 'results'}.${run ? ` In the drawing: the ${PROTOCOL_LABEL[run.protocol]} of ${day(run.date)}.` : ''}`}
      </p>
    </div>
  </div>

  <Piece
    ><AgainstForecast
      {report}
      {run}
      {advice}
      runHref={run && `${home}/runs/${run.id}`}
      troubleHref="/b/{data.build.tag}/assemble/trouble?symptom=slow"
    /></Piece
  >

  <section class="ways" aria-label="Ways of measuring">
    <Piece
      ><ProtocolList
        protocols={protocolsFor('build', snapshot.drive.media)}
        {subject}
        hrefOf={(id) => `/b/${data.build.tag}/measure/plan?protocol=${id}`}
      /></Piece
    >
  </section>

  {#if chosenOption('judge-by', data.crate.houseRules) !== 'synthetic'}
    <h2>Time a copy</h2>
    <Piece
      ><Stopwatch
        until={chosenOption('stop-watch', data.crate.houseRules) === 'last-byte'
          ? 'when the drive has the last byte: the volume shows all of it'
          : 'at the system’s signal, every time the same one'}
        rule={ruleName('stop-watch', data.crate.houseRules)}
        keptUnder="stopwatch:{data.build.id}"
        build={{ input: snapshot, report }}
        memoryGB={snapshot.host.memoryGB}
        onkeep={keepCopies}
      /></Piece
    >
  {/if}
  <div class="columns">
    <section>
      <h2>Enter a speed check</h2>
      <Piece
        ><ResultForm
          today={data.today}
          filesystem={report.filesystem.first.filesystem}
          isWindows={snapshot.host.os.family === 'windows'}
          refused={measuring.refused}
          busy={measuring.busy}
          {onsave}
          draftKey="draft:run:{data.build.id}"
        /></Piece
      >
    </section>
    <section>
      <h2>Results</h2>
      <Piece
        ><Results
          runs={checks}
          {report}
          {run}
          hrefOf={(id) => `${home}/runs/${id}`}
          onshow={(id) => (shown = id)}
          onremove={remove}
        /></Piece
      >
      <Piece><OtherRuns runs={data.runs.filter((one) => !checks.includes(one))} {home} onremove={remove} /></Piece>
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
    margin: 16px 0 8px;
  }
  .ways {
    margin-top: 14px;
  }
  @media (max-width: 1000px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
