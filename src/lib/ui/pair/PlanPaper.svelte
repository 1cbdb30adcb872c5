<script lang="ts">
  import type { PlanAnswer } from '#core/answers/answers';
  import type { PlanInput, PlanReport } from '#core/plan/report';
  import { day, rate } from '#core/quantities/format';
  import { VERDICT_WORD } from '../common/verdicts';
  import { assumedWords } from './assumed';
  import { figureRows } from './figures';

  type Props = {
    heading: string;
    tag?: string | undefined;
    input: PlanInput;
    report: PlanReport;
    answers: readonly PlanAnswer[];
    /** The day of the reader. */
    today: string;
    element?: HTMLElement | undefined;
  };
  /** The whole plan on paper: what it comes to, its figures, how each was worked out, what was assumed. */
  let { heading, tag, input, report, answers, today, element = $bindable() }: Props = $props();
  const port = $derived(input.host.ports.find(({ id }) => id === input.portId)?.label ?? input.portId);
  const parts = $derived([
    ['Computer and port', `${input.host.name}, ${port}`],
    ['Cable', input.cable?.name ?? (input.enclosure.captiveCable ? 'fixed to the case' : 'from the box, or assumed')],
    ['Enclosure', input.enclosure.name],
    ['Drive', input.drive.name],
    ['Job', input.job?.name ?? 'none: judged for continuous writing']
  ]);
  const resultOf = (result: PlanReport['workings'][number]['result']) =>
    typeof result === 'object'
      ? `${rate(result.low)} – ${rate(result.typical)} – ${rate(result.high)}`
      : String(result);
</script>

<article class="plan-paper" bind:this={element}>
  <h2>{tag ? `${tag} ` : ''}{heading}: {VERDICT_WORD[report.verdict]}</h2>
  <p>
    Planned {day(today)} with engine {report.engine}. Forecasts, from – typical – to; nothing here was measured unless
    it says so.
  </p>
  <ul>
    {#each answers as { about, text } (about)}<li>{text}</li>{/each}
  </ul>
  <table>
    <caption>Parts</caption>
    <tbody
      >{#each parts as [name, value] (name)}<tr><th scope="row">{name}</th><td>{value}</td></tr>{/each}</tbody
    >
  </table>
  {#if report.findings.length > 0}
    <h3>Findings</h3>
    <ul>
      {#each report.findings as finding, i (i)}<li>{finding.message} {finding.remedy ?? ''}</li>{/each}
    </ul>
  {/if}
  <table>
    <caption>Figures</caption>
    <tbody>
      {#each figureRows(report) as row (row.key)}
        <tr><th scope="row">{row.label}</th><td>{row.value} {row.unit}</td><td>{row.range}</td></tr>
      {/each}
    </tbody>
  </table>
  <table>
    <caption>How each figure was worked out</caption>
    <thead
      ><tr
        ><th scope="col">Formula</th><th scope="col">Put in</th><th scope="col">Gives</th><th scope="col">Source</th
        ></tr
      ></thead
    >
    <tbody>
      {#each report.workings as working, i (i)}
        <tr
          ><td>{working.formula}</td><td>{working.substituted}</td><td>{resultOf(working.result)} {working.unit}</td><td
            >{working.source}</td
          ></tr
        >
      {/each}
    </tbody>
  </table>
  <h3>Assumed, because nobody stated it</h3>
  <ul>
    {#each report.assumed.map(assumedWords) as one (one.key)}<li>{one.what}: {one.value}, {one.from}</li>{:else}<li>
        Nothing.
      </li>{/each}
  </ul>
</article>

<style>
  .plan-paper {
    display: none;
  }
  .plan-paper :is(table, ul) {
    margin: 0 0 10px;
  }
  .plan-paper li {
    margin-left: 1.2em;
    list-style: disc;
  }
  caption {
    font-weight: 700;
    text-align: left;
  }
  th,
  td {
    padding: 1px 10px 1px 0;
    font-size: 9pt;
    font-weight: 400;
    text-align: left;
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  @media print {
    .plan-paper {
      display: block;
      break-before: page;
    }
  }
</style>
