<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { untrack } from 'svelte';
  import { page } from '$app/state';
  import { plotLibrary } from '$lib/ui/common/plot-library';
  import { beginWeights, USUAL_WEIGHTS } from '#core/compare/ranking/request';
  import { KIND_LABEL } from '#core/parts/kinds';
  import { chosenOption } from '#core/house-rules/house-rules';
  import { queryOf } from '$lib/client/address';
  import { Ranking } from '$lib/client/ranking.svelte';
  import { saveAs } from '$lib/ui/common/save-as';
  import TaskProgress from '$lib/ui/common/TaskProgress.svelte';
  import Controls from '$lib/ui/rank/Controls.svelte';
  import { rankCsv } from '$lib/ui/rank/csv';
  import { namesOf } from '$lib/ui/rank/names';
  import Results from '$lib/ui/rank/Results.svelte';
  import { stateFromQuery } from '$lib/ui/rank/state';

  let { data } = $props();
  const asked = stateFromQuery(queryOf(page.url));
  // svelte-ignore state_referenced_locally
  const jobId = data.jobs.some((job) => job.id === asked.jobId) ? asked.jobId : data.jobs[0]?.id;
  // svelte-ignore state_referenced_locally
  const ranking = new Ranking(data.crate.id, { ...asked, ...(jobId ? { jobId } : {}) });
  $effect(() => untrack(() => ranking.open()));

  // While the combinations are worked out, what draws their chart is loaded.
  $effect(() => void plotLibrary().catch(() => undefined));
  const home = $derived(`/c/${data.crate.slug}`);
  const job = $derived(data.jobs.find((one) => one.id === ranking.chosen.jobId));
  const report = $derived(ranking.report);
  const NOTHING = { host: [], cable: [], enclosure: [], drive: [], pad: [] };
  const names = $derived(namesOf(report?.parts ?? NOTHING, home, ranking.chosen.jobId));
  const KINDS = ['host', 'cable', 'enclosure', 'drive'] as const;
  const usual = $derived(
    Object.fromEntries(
      KINDS.map((kind) => {
        const [total, first] = [data.totals[kind], data.atFirst[kind]];
        return [kind, total <= first || ranking.chosen.everything ? `all ${total}` : `${first} of ${total}`];
      })
    ) as Record<(typeof KINDS)[number], string>
  );
  const left = $derived(
    KINDS.flatMap((kind) => {
      const { taken = 0, leftOut = 0 } = report?.scope[kind] ?? {};
      return leftOut > 0 ? [`${taken} of ${taken + leftOut} ${KIND_LABEL[kind].many.toLowerCase()}`] : [];
    })
  );
  const currency = $derived(report?.currency ?? data.crate.currency);
  const buy = $derived({
    choice: chosenOption('buy', data.crate.houseRules),
    own: data.crate.houseRules.buy !== undefined
  });
</script>

<svelte:head><title>Rank · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Rank</h1>
      <p class="quiet">
        Every combination of computers, cables, enclosures and drives for one job, each judged as Pair judges it.
      </p>
    </div>
    {#if report && report.rows.length > 0}
      <Button
        kind="ghost"
        size="small"
        on:click={() => saveAs(`ranking ${job?.name ?? ''}.csv`, 'text/csv', rankCsv(report, names))}
        >CSV of these rows</Button
      >
      <Button kind="ghost" size="small" on:click={() => print()}>Print</Button>
    {/if}
  </div>

  {#if data.jobs.length === 0}
    <div class="empty">
      <p>A ranking is for a job: what is copied, how much, in which direction, and between which systems.</p>
      <p><a href="{home}/jobs">Make the first job</a></p>
    </div>
  {:else}
    <div class="columns">
      <div class="results">
        {#if ranking.task.state && ranking.task.running}
          <TaskProgress task={ranking.task.state} oncancel={() => void ranking.task.cancel()} />
        {:else if ranking.task.state?.state === 'cancelled' && !report}
          <p class="quiet">
            Cancelled. <button type="button" class="link" onclick={() => void ranking.start()}>Rank again</button>
          </p>
        {/if}
        {#if ranking.problem}<p class="problem" role="alert">
            {ranking.problem}
            {#if ranking.asks}<button type="button" class="link" onclick={() => void ranking.start(true)}
                >Rank them all the same</button
              >{/if}
          </p>{/if}
        {#if report && left.length > 0}<p class="small">
            {left.join(', ')} take part: what you own first, then what has a price.
            <button type="button" class="link" onclick={() => ranking.change({ ...ranking.chosen, everything: true })}
              >Take in all of them</button
            >
          </p>{/if}
        {#if report}
          <Results {report} {names} {home} {buy} {currency} perDay={job?.perDay} today={data.today} />
        {/if}
      </div>
      <Controls
        state={ranking.chosen}
        jobs={data.jobs}
        parts={data.parts}
        {usual}
        begin={job ? beginWeights(job, data.crate.houseRules).weights : USUAL_WEIGHTS}
        {currency}
        onchange={(next) => ranking.change(next)}
      />
    </div>
  {/if}
</div>

<style>
  .columns {
    display: grid;
    grid-template-columns: 200px minmax(0, 1fr);
    gap: 24px;
  }
  /* The answer is read first; the controls stand at its left, where the eye looks for them. */
  .columns > :global(form) {
    grid-area: 1 / 1;
  }
  .results {
    grid-area: 1 / 2;
  }
  .results :global(.bx--tab-content) {
    padding: 10px 0 0;
  }
  .problem {
    color: var(--ash-fail);
  }
  @media (max-width: 1000px) {
    .columns {
      display: block;
    }
  }
  @media print {
    .columns {
      display: block;
    }
  }
</style>
