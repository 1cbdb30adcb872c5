<script lang="ts">
  import { Button, Checkbox, Tab, TabContent, Tabs } from 'carbon-components-svelte';
  import { untrack } from 'svelte';
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { queryOf } from '$lib/client/address';
  import { guard } from '#core/tables/table';
  import { chosenOption } from '#core/house-rules/house-rules';
  import { duration, money, rate } from '#core/quantities/format';
  import { beginWeights, type Combination, type RankReport, type RankRow } from '#core/compare/ranking/request';
  import { send } from '$lib/client/api';
  import { WatchedTask, type TaskView } from '$lib/client/task.svelte';
  import Plot from '$lib/ui/common/Plot.svelte';
  import TaskProgress from '$lib/ui/common/TaskProgress.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import Decided from '$lib/ui/pair/Decided.svelte';
  import { choiceToQuery } from '$lib/ui/pair/slots';
  import Answer from '$lib/ui/rank/Answer.svelte';
  import { rankAnswer } from '$lib/ui/rank/answer';
  import { compareHref } from '$lib/ui/compare/laid';
  import Against from '$lib/ui/rank/Against.svelte';
  import { chartSummary, keyOf, rankTraces } from '$lib/ui/rank/chart';
  import Controls from '$lib/ui/rank/Controls.svelte';
  import Rejected from '$lib/ui/rank/Rejected.svelte';
  import { foldPorts } from '$lib/ui/rank/fold';
  import { heldAgainst, stateFromQuery, stateToQuery, type RankState } from '$lib/ui/rank/state';
  import Table from '$lib/ui/rank/Table.svelte';

  /** Rows that come over at once, and how many a page of the table shows. */
  const ROWS = 200;
  const PAGE = 25;
  /** A slider that is moved asks once it rests. */
  const REST_MS = 150;

  let { data } = $props();
  const asked = stateFromQuery(queryOf(page.url));
  // svelte-ignore state_referenced_locally
  const known = data.jobs.some((job) => job.id === asked.jobId);
  // svelte-ignore state_referenced_locally
  let chosen = $state.raw<RankState>({ ...asked, ...(known ? {} : { jobId: data.jobs[0]?.id }) } as RankState);
  let report = $state.raw<RankReport>();
  let problem = $state('');
  let selected = $state<string>();
  let against = $state<string>();
  let at = $state(1);
  let tab = $state(0);
  const job = $derived(data.jobs.find((one) => one.id === chosen.jobId));

  // svelte-ignore state_referenced_locally
  const task = new WatchedTask(`task:rank:${data.crate.id}`, ended);
  let resting: ReturnType<typeof setTimeout> | undefined;
  $effect(() => {
    // A ranking that was under way when the page was loaded again goes on; else it begins.
    untrack(() => {
      void task.resume().then((found) => {
        if (!found) void start();
      });
    });
    return () => {
      clearTimeout(resting);
      task.stop();
    };
  });

  async function start(): Promise<void> {
    if (!chosen.jobId) return;
    if (task.running) await task.cancel();
    const { weights, filters, takeApart, jobId, hostIds, cableIds, enclosureIds, driveIds } = chosen;
    const answer = await send<TaskView>('POST', `/api/crates/${data.crate.id}/rank`, {
      jobId,
      hostIds,
      cableIds,
      enclosureIds,
      driveIds,
      ...(Object.keys(weights).length > 0 ? { weights } : {}),
      filters,
      takeApart,
      limit: ROWS
    });
    if (answer.ok) task.follow(answer.data);
    else problem = answer.failure.message;
  }
  function ended(state: TaskView): void {
    if (state.state === 'done') {
      report = state.result as RankReport;
      problem = '';
      at = 1;
      if (!report.rows.some((row) => keyOf(row) === selected)) selected = undefined;
    } else if (state.state === 'failed') problem = state.error?.message ?? 'The ranking failed.';
  }
  function onchange(next: RankState): void {
    chosen = next;
    replaceState(`?${stateToQuery(next)}`, {});
    clearTimeout(resting);
    resting = setTimeout(() => void start(), REST_MS);
  }

  const byId = $derived(
    new Map(Object.values(data.parts).flatMap((list) => list.map(({ id, name }) => [id, name] as const)))
  );
  const nameOf = (id: string) => byId.get(id) ?? 'gone';
  const portOf = (row: Combination) =>
    data.parts.host.find(({ id }) => id === row.hostId)?.ports.find(({ id }) => id === row.portId)?.label ?? row.portId;
  const chainOf = (row: Combination) => [
    `${nameOf(row.hostId)}, ${portOf(row)}`,
    row.cableId ? nameOf(row.cableId) : '',
    nameOf(row.enclosureId),
    nameOf(row.driveId)
  ];
  const lineOf = (row: Combination) => {
    const [host, cable, enclosure, drive] = chainOf(row);
    return `${enclosure} · ${drive} on ${host}${cable ? ` with ${cable}` : ''}`;
  };
  const hrefOf = ({ hostId, portId, cableId, enclosureId, driveId }: Combination) =>
    `/c/${data.crate.slug}/pair?${choiceToQuery({
      hostId,
      portId,
      enclosureId,
      driveId,
      ...(cableId ? { cableId } : {}),
      ...(chosen.jobId ? { jobId: chosen.jobId } : {})
    })}`;
  const capacityOf = (id: string) => data.parts.drive.find((drive) => drive.id === id)?.capacityTB ?? 1;

  const currency = $derived(report?.currency ?? data.crate.currency);
  const traces = $derived(
    report ? rankTraces(report.rows, report.frontierPerTB, report.alternatives, lineOf, capacityOf, currency) : []
  );
  let fold = $state(true);
  const folded = $derived(foldPorts(report?.rows ?? [], fold));
  const pages = $derived(Math.max(1, Math.ceil(folded.length / PAGE)));
  const pageRows = $derived(folded.slice((Math.min(at, pages) - 1) * PAGE, Math.min(at, pages) * PAGE));
  const looked = $derived(report?.rows.find((row) => keyOf(row) === selected) ?? report?.rows[0]);
  const wayOf = (row: RankRow) => ({ key: keyOf(row), name: lineOf(row), cost: row.cost, seconds: row.seconds });
  /** The pairing that stands next to the one that is looked at: below the first, above all others. */
  const runnerUp = $derived.by(() => {
    const at = folded.findIndex(({ row }) => looked && keyOf(row) === keyOf(looked));
    return (at <= 0 ? folded[1] : folded[0])?.row;
  });
  const ways = $derived.by(() => {
    if (!report || !looked) return [];
    const others = report.alternatives.map(({ id, name, cost, seconds }) => ({ key: id, name, cost, seconds }));
    const cheapest = report.frontier[0]?.first;
    const plain = cheapest && report.rows.find((row) => keyOf(row) === keyOf(cheapest));
    return [
      ...(runnerUp ? [{ ...wayOf(runnerUp), name: `the next one: ${lineOf(runnerUp)}` }] : []),
      ...others,
      ...(plain && keyOf(plain) !== keyOf(looked) ? [{ ...wayOf(plain), name: `the cheapest: ${lineOf(plain)}` }] : [])
    ];
  });
  const buyRule = $derived(chosenOption('buy', data.crate.houseRules));
  // Held against the next pairing, unless the crate decided otherwise by a house rule of its own.
  const standing = $derived(
    against ??
      (data.crate.houseRules.buy === undefined && runnerUp
        ? keyOf(runnerUp)
        : report && heldAgainst(report.alternatives, buyRule)?.id)
  );
  const answer = $derived(
    report &&
      rankAnswer(
        folded.map(({ row }) => row),
        report.weights,
        { lineOf, currency: report.currency, cheapest: report.frontier[0] }
      )
  );
  const firstTwo = $derived(folded.slice(0, 2).map(({ row }) => new URL(hrefOf(row), page.url).search.slice(1)));
  const rules = $derived([
    ...(report?.houseRules ?? []),
    ...(report && report.alternatives.length > 0
      ? [
          {
            school: 'buy',
            choice: buyRule,
            own: data.crate.houseRules.buy !== undefined,
            effect: 'it chooses what a combination is held against at first'
          }
        ]
      : [])
  ]);

  function save(): void {
    if (!report) return;
    const quote = (cell: string | number) => `"${guard(String(cell)).replaceAll('"', '""')}"`;
    const lines = [
      [
        'rank',
        'host',
        'port',
        'cable',
        'enclosure',
        'drive',
        'verdict',
        'sustainedWriteMBps',
        'readMBps',
        'jobSeconds',
        'cost',
        'perTB',
        'toPay',
        'currency',
        'score'
      ],
      ...report.rows.map((row, i) => [
        i + 1,
        nameOf(row.hostId),
        portOf(row),
        row.cableId ? nameOf(row.cableId) : '',
        nameOf(row.enclosureId),
        nameOf(row.driveId),
        row.verdict,
        row.sustainedWrite.typical.toFixed(1),
        row.read.typical.toFixed(1),
        row.seconds.toFixed(1),
        row.cost?.toFixed(2) ?? '',
        row.perTB?.toFixed(2) ?? '',
        row.spend?.toFixed(2) ?? '',
        report!.currency ?? '',
        row.score.toFixed(4)
      ])
    ].map((cells) => cells.map(quote).join(','));
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([`\ufeff${lines.join('\r\n')}\r\n`], { type: 'text/csv' }));
    link.download = `ranking ${job?.name ?? ''}.csv`;
    link.click();
    URL.revokeObjectURL(link.href);
  }
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
      <Button kind="ghost" size="small" on:click={save}>CSV of these rows</Button>
      <Button kind="ghost" size="small" on:click={() => print()}>Print</Button>
    {/if}
  </div>

  {#if data.jobs.length === 0}
    <div class="empty">
      <p>A ranking is for a job: what is copied, how much, in which direction, and between which systems.</p>
      <p><a href="/c/{data.crate.slug}/jobs">Make the first job</a></p>
    </div>
  {:else}
    <div class="columns">
      <Controls
        state={chosen}
        jobs={data.jobs}
        parts={data.parts}
        begin={job
          ? beginWeights(job, data.crate.houseRules).weights
          : { sustainedWrite: 1, read: 0, seconds: 1, cost: 0, perTB: 1 }}
        {currency}
        {onchange}
      />
      <div class="results">
        {#if task.state && task.running}
          <TaskProgress task={task.state} oncancel={() => void task.cancel()} />
        {:else if task.state?.state === 'cancelled' && !report}
          <p class="quiet">
            Cancelled. <button type="button" class="link" onclick={() => void start()}>Rank again</button>
          </p>
        {/if}
        {#if problem}<p class="problem" role="alert">{problem}</p>{/if}
        {#if report}
          <p class="summary" aria-live="polite">
            <strong class="figure">{report.considered}</strong> combinations:
            <strong class="figure">{report.accepted}</strong> ranked{report.filtered > 0
              ? `, ${report.filtered} left out by your limits`
              : ''}, <span class="figure">{report.rejected.reduce((sum, { count }) => sum + count, 0)}</span>
            rejected{report.accepted > report.rows.length ? `. The first ${report.rows.length} are shown` : ''}.
          </p>
          {#if report.rows.length === 0}
            <div class="empty">
              <p>
                {report.filtered > 0
                  ? 'What goes together is left out by the limits that you set.'
                  : 'Nothing here goes together for this job. The rejected ones say why.'}
              </p>
            </div>
          {:else}
            {#if answer}
              <Answer
                {answer}
                hrefs={{
                  ...(folded[0] ? { first: hrefOf(folded[0].row) } : {}),
                  ...(firstTwo.length > 1 ? { both: compareHref(`/c/${data.crate.slug}`, firstTwo) } : {})
                }}
              />
            {/if}
            <div class="top">
              <Plot
                title="Price of a terabyte against the write after the cache"
                summary={chartSummary(report.frontierPerTB, lineOf, currency)}
                {traces}
                onpick={(key) => (selected = key)}
                layout={{
                  height: 280,
                  margin: { l: 56, r: 12, t: 26, b: 40 },
                  legend: { orientation: 'h', y: 1.2 },
                  xaxis: { title: { text: `${currency}/TB` }, rangemode: 'tozero' },
                  yaxis: {
                    title: { text: 'write after the cache, MB/s' },
                    type: 'log',
                    tickvals: [20, 50, 100, 200, 500, 1000, 2000, 5000]
                  }
                }}
              />
              {#if looked}
                <Against
                  row={wayOf(looked)}
                  {ways}
                  against={standing}
                  perDay={job?.perDay}
                  {currency}
                  today={data.today}
                  onagainst={(key) => (against = key)}
                />
              {/if}
            </div>
          {/if}
          <Decided {rules} href="/c/{data.crate.slug}/house-rules" />
          <Tabs bind:selected={tab}>
            <Tab label="Ranking" />
            <Tab label="Rejected" />
            <Tab label="Ready-made" />
            {#snippet content()}
              <TabContent>
                <div class="no-print">
                  <Checkbox labelText="One row for a pairing, whatever the computer" bind:checked={fold} />
                </div>
                <Table
                  rows={pageRows}
                  {chainOf}
                  {nameOf}
                  {hrefOf}
                  currency={report!.currency}
                  selected={looked && keyOf(looked)}
                  onselect={(key) => (selected = key)}
                />
                {#if pages > 1}
                  <p class="pages no-print">
                    <Button kind="ghost" size="small" disabled={at === 1} on:click={() => (at -= 1)}>Previous</Button>
                    Page {at} of {pages}
                    <Button kind="ghost" size="small" disabled={at === pages} on:click={() => (at += 1)}>Next</Button>
                  </p>
                {/if}
              </TabContent>
              <TabContent>
                <Rejected rejected={report!.rejected} considered={report!.considered} {chainOf} {hrefOf} />
              </TabContent>
              <TabContent>
                {#if report!.alternatives.length === 0}
                  <p class="quiet">
                    The crate knows no ready-made drives. <a href="/c/{data.crate.slug}/crate/alternative/new"
                      >Add one</a
                    >: a larger internal disk, a ready-made drive, a stick, a card.
                  </p>
                {:else}
                  <p class="quiet small">
                    As their makers state them: no forecast of a cache, so a long job may take longer. A larger internal
                    disk counts what it adds.
                  </p>
                  <Wide label="Ready-made">
                    <table class="plain-table">
                      <thead
                        ><tr
                          ><th scope="col">Way</th><th scope="col" class="number">Adds</th><th
                            scope="col"
                            class="number">Write</th
                          ><th scope="col" class="number">Read</th><th scope="col" class="number">Job</th><th
                            scope="col"
                            class="number">Price</th
                          ><th scope="col" class="number">Per TB</th><th scope="col">Room for the job</th></tr
                        ></thead
                      >
                      <tbody>
                        {#each report!.alternatives as way (way.id)}
                          <tr>
                            <td><a href="/c/{data.crate.slug}/crate/alternative/{way.id}">{way.name}</a></td>
                            <td class="number figure">{way.gainedTB}<span class="unit">TB</span></td>
                            <td class="number figure"
                              >{way.write === null ? '?' : rate(way.write)}<span class="unit">MB/s</span></td
                            >
                            <td class="number figure"
                              >{way.read === null ? '?' : rate(way.read)}<span class="unit">MB/s</span></td
                            >
                            <td class="number figure">{way.seconds === null ? '?' : duration(way.seconds)}</td>
                            <td class="number figure">{way.cost === null ? '?' : money(way.cost, currency)}</td>
                            <td class="number figure">{way.perTB === null ? '?' : money(way.perTB, currency)}</td>
                            <td>{way.fits ? 'yes' : 'no'}</td>
                          </tr>
                        {/each}
                      </tbody>
                    </table>
                  </Wide>
                {/if}
              </TabContent>
            {/snippet}
          </Tabs>
        {/if}
      </div>
    </div>
  {/if}
</div>

<style>
  .columns {
    display: grid;
    grid-template-columns: 200px minmax(0, 1fr);
    gap: 24px;
  }
  .summary {
    margin-bottom: 8px;
  }
  .problem {
    color: var(--ash-fail);
  }
  .top {
    display: grid;
    grid-template-columns: minmax(0, 1.7fr) minmax(260px, 1fr);
    gap: 16px;
    align-items: start;
    margin-bottom: 8px;
  }
  .results :global(.bx--tab-content) {
    padding: 10px 0 0;
  }
  .pages {
    display: flex;
    align-items: center;
    gap: 12px;
  }
  @media (max-width: 1000px) {
    .columns,
    .top {
      grid-template-columns: minmax(0, 1fr);
    }
    /* On a phone the answer comes before the questions. */
    .results {
      order: -1;
    }
  }
  @media print {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
