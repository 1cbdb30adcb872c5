<script lang="ts">
  import { Button, Checkbox, Tab, TabContent, Tabs } from 'carbon-components-svelte';
  import type { AppliedRule } from '#core/house-rules/house-rules';
  import type { RankReport } from '#core/compare/ranking/request';
  import { countText, duration } from '#core/quantities/format';
  import { inTurn } from '../common/in-turn';
  import Plot from '../common/Plot.svelte';
  import { compareHref } from '../compare/laid';
  import Decided from '../pair/Decided.svelte';
  import Against from './Against.svelte';
  import Answer from './Answer.svelte';
  import { rankAnswer } from './answer';
  import { besideOf, wayOf } from './beside';
  import { chartSummary, keyOf, rankTraces } from './chart';
  import { foldPorts } from './fold';
  import type { RankNames } from './names';
  import ReadyMade from './ReadyMade.svelte';
  import Rejected from './Rejected.svelte';
  import Table from './Table.svelte';

  /** How many rows a page of the table shows. */
  const PAGE = 25;

  /** What a ranking came to: the answer in sentences, the chart, and every row with its reasons. */
  let {
    report,
    names,
    home,
    buy,
    currency,
    perDay,
    today
  }: {
    report: RankReport & { computedMs: number };
    names: RankNames;
    home: string;
    /** The house rule on what a combination is held against, and whether it is the crate's own. */
    buy: { choice: string; own: boolean };
    currency: string;
    perDay: number | undefined;
    today: string;
  } = $props();

  let selected = $state<string>();
  let against = $state<string>();
  let at = $state(1);
  let tab = $state(0);
  /** The rows come after the answer, in a task of their own: both at once would hold up whoever types just then. */
  let withRows = $state(false);
  $effect(() => inTurn(() => (withRows = true)));
  let fold = $state(true);
  const traces = $derived(
    rankTraces(report.rows, report.frontierPerTB, report.alternatives, names.lineOf, names.capacityOf, currency)
  );
  const folded = $derived(foldPorts(report.rows, fold));
  const pages = $derived(Math.max(1, Math.ceil(folded.length / PAGE)));
  const here = $derived(Math.min(at, pages));
  const pageRows = $derived(folded.slice((here - 1) * PAGE, here * PAGE));
  const looked = $derived(report.rows.find((row) => keyOf(row) === selected) ?? report.rows[0]);
  const beside = $derived(looked && besideOf(report, folded, looked, { names, rule: buy }));
  const answer = $derived(
    rankAnswer(
      folded.map(({ row }) => row),
      report.weights,
      { lineOf: names.lineOf, currency: report.currency, cheapest: report.frontier[0] }
    )
  );
  const firstTwo = $derived(folded.slice(0, 2).map(({ row }) => names.hrefOf(row).split('?')[1] ?? ''));
  const rules = $derived([
    ...report.houseRules,
    ...(report.alternatives.length > 0
      ? [{ school: 'buy', ...buy, effect: 'it chooses what a combination is compared with at first' } as AppliedRule]
      : [])
  ]);
</script>

<p class="summary" aria-live="polite">
  <strong class="figure">{countText(report.considered)}</strong> combinations:
  <strong class="figure">{countText(report.accepted)}</strong> ranked{report.filtered > 0
    ? `, ${countText(report.filtered)} left out by your limits`
    : ''}, <span class="figure">{countText(report.rejected.reduce((sum, one) => sum + one.count, 0))}</span>
  rejected{report.accepted > report.rows.length ? `. The first ${report.rows.length} are shown` : ''}.
  <span class="quiet small">Combined in {duration(report.computedMs / 1000)}.</span>
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
        ...(folded[0] ? { first: names.hrefOf(folded[0].row) } : {}),
        ...(firstTwo.length > 1 ? { both: compareHref(home, firstTwo) } : {})
      }}
    />
  {/if}
  <div class="top">
    <Plot
      title="Price of a terabyte against the write after the cache"
      summary={chartSummary(report.frontierPerTB, names.lineOf, currency)}
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
    {#if looked && beside}
      <Against
        row={wayOf(looked, names)}
        ways={beside.ways}
        against={against ?? beside.first}
        {perDay}
        {currency}
        {today}
        onagainst={(key) => (against = key)}
      />
    {/if}
  </div>
{/if}
<Decided {rules} href="{home}/house-rules" />
{#if withRows}<Tabs bind:selected={tab}>
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
          chainOf={names.chainOf}
          nameOf={names.nameOf}
          hrefOf={names.hrefOf}
          currency={report.currency}
          selected={looked && keyOf(looked)}
          onselect={(key) => (selected = key)}
        />
        {#if pages > 1}
          <p class="pages no-print">
            <Button kind="ghost" size="small" disabled={here === 1} on:click={() => (at = here - 1)}>Previous</Button>
            Page {here} of {pages}
            <Button kind="ghost" size="small" disabled={here === pages} on:click={() => (at = here + 1)}>Next</Button>
          </p>
        {/if}
      </TabContent>
      <TabContent>
        {#if tab === 1}<Rejected
            rejected={report.rejected}
            considered={report.considered}
            chainOf={names.chainOf}
            hrefOf={names.hrefOf}
          />{/if}
      </TabContent>
      <TabContent>
        {#if tab === 2}<ReadyMade ways={report.alternatives} {home} {currency} />{/if}
      </TabContent>
    {/snippet}
  </Tabs>{/if}

<style>
  .summary {
    margin-bottom: 8px;
  }
  .top {
    display: grid;
    grid-template-columns: minmax(0, 1.7fr) minmax(260px, 1fr);
    gap: 16px;
    align-items: start;
    margin-bottom: 8px;
  }
  .pages {
    display: flex;
    align-items: center;
    gap: 12px;
  }
  @media (max-width: 1000px) {
    .top {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
