<script lang="ts">
  import { duration, figure as plainFigure, rate } from '#core/quantities/format';
  import type { PlanReport, Working } from '#core/plan/report';
  import Explained from '../common/Explained.svelte';
  import Figure from '../common/Figure.svelte';
  import type { FigureDifference } from '#core/compare/swaps/difference';
  import { assumedFor } from './assumed';
  import Assumed from './Assumed.svelte';
  import { figureRows } from './figures';
  import PowerParts from './PowerParts.svelte';

  /** The figures of a plan, and beside them the working of the one that is chosen, by mouse or arrow keys. */
  type Props = {
    report: PlanReport;
    selected: string;
    /** What is different against the starting point, by figure. */
    changes?: ReadonlyMap<string, FigureDifference> | null;
    /** Where a part is changed, by what it is to the plan. */
    hrefOf?: ((part: PlanReport['assumed'][number]['part']) => string | undefined) | undefined;
  };
  let { report, selected = $bindable(), changes = null, hrefOf }: Props = $props();

  /** The difference of a figure as it is read: with its sign, and how much of the old one it is. */
  function changeOf(key: string): { text: string; better: boolean | null } | undefined {
    const difference = changes?.get(key);
    if (!difference) return undefined;
    if (difference.change === null)
      return { text: difference.before === null ? 'new' : 'gone', better: difference.better };
    const { change, percent, better } = difference;
    const size = Math.abs(change);
    const amount =
      key === 'job.seconds' ? duration(size) : key.startsWith('cost.') ? size.toFixed(2) : plainFigure(size);
    const share =
      percent === null || Math.abs(percent) >= 1000
        ? ''
        : ` (${percent > 0 ? '+' : '−'}${plainFigure(Math.abs(percent))}\u202f%)`;
    return { text: `${change > 0 ? '▲' : '▼'} ${amount}${share}`, better };
  }

  const rows = $derived(figureRows(report));
  /** What was chosen may not exist in this plan (a chain that fails has no rates): then its first figure is shown. */
  const current = $derived(
    report.workings.some((w) => w.figure === selected) || rows.some((row) => row.key === selected)
      ? selected
      : (rows[0]?.key ?? '')
  );
  const would = $derived(rows.find((row) => row.key === current)?.ifItFitted === true);
  const working = $derived<Working | undefined>(report.workings.find((w) => w.figure === current));
  const about = $derived(assumedFor(report, current));
  const result = $derived.by(() => {
    if (!working) return '';
    const { result: r } = working;
    if (typeof r === 'string') return r;
    if (typeof r === 'number') return plainFigure(r);
    return `${rate(r.low)} – ${rate(r.typical)} – ${rate(r.high)}`;
  });

  const uid = $props.id();
  const optionId = (key: string) => `figure-${uid}-${key.replaceAll('.', '-')}`;

  function onkeydown(event: KeyboardEvent): void {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    const at = rows.findIndex((row) => row.key === current);
    const next =
      step !== undefined
        ? rows[Math.max(0, Math.min(rows.length - 1, at + step))]
        : event.key === 'Home'
          ? rows[0]
          : event.key === 'End'
            ? rows.at(-1)
            : undefined;
    if (!next) return;
    event.preventDefault();
    selected = next.key;
  }
</script>

<div class="frame no-print">
  <div class="reasons">
    <div
      class="figures"
      role="listbox"
      tabindex="0"
      aria-label="Figures of the plan"
      aria-activedescendant={rows.some((r) => r.key === current) ? optionId(current) : undefined}
      {onkeydown}
    >
      {#each rows as row (row.key)}
        {@const changed = changeOf(row.key)}
        <!-- svelte-ignore a11y_click_events_have_key_events -->
        <div
          id={optionId(row.key)}
          role="option"
          tabindex="-1"
          aria-selected={row.key === current}
          class="row"
          class:would={row.ifItFitted}
          onclick={() => (selected = row.key)}
        >
          <span class="label"
            >{row.label}{#if row.ifItFitted}<span class="hidden-visually">, only if the parts fitted</span>{/if}</span
          >
          <span class="value" class:words={row.words}
            >{#if row.words}{row.value}{:else}<Figure value={row.value} unit={row.unit} />{/if}</span
          >
          <span class="range"
            >{#if changed}<span
                class="change"
                class:better={changed.better === true}
                class:worse={changed.better === false}
                >{changed.text}<span class="hidden-visually"
                  >{changed.better === null ? '' : changed.better ? ', better' : ', worse'}</span
                ></span
              >{:else if row.range}<span class="hidden-visually">{row.band ? ' typical, from ' : ', '}</span
              >{row.range}{/if}</span
          >
        </div>
      {/each}
    </div>
    <section class="working" aria-label="Working of the chosen figure">
      {#if working}
        <h2>
          {rows.find((r) => r.key === current)?.label ??
            current.replace('stage.', 'Stage: ').replace('link.mode', 'Runs as')}
        </h2>
        <dl>
          <dt>Formula</dt>
          <dd><Explained text={working.formula} /></dd>
          <dt>Put in</dt>
          <dd>{working.substituted}</dd>
          <dt>Gives</dt>
          <dd><Figure value={result} unit={working.unit} /></dd>
          <dt>Source</dt>
          <dd><Explained text={working.source} /></dd>
          {#if current === 'power.steady' && report.power}
            <dt>Parts</dt>
            <dd><PowerParts power={report.power} /></dd>
          {/if}
          {#if about.length > 0}
            <dt>Assumed</dt>
            <dd><Assumed assumed={about} {hrefOf} open /></dd>
          {/if}
        </dl>
      {:else if would}
        <h2>{rows.find((r) => r.key === current)?.label}, if it fitted</h2>
        <p>
          These parts do not go together, so nothing can be measured on them. The hatched figures are what the chain
          would do if they did; the findings say what is in the way.
        </p>
      {:else}
        <p class="quiet">Choose a figure to see how it was worked out.</p>
      {/if}
    </section>
  </div>
</div>

<style>
  .reasons {
    display: grid;
    grid-template-columns: minmax(0, 2.15fr) minmax(0, 1fr);
    gap: 16px;
    border-top: 1px solid var(--ash-edge);
  }
  .figures {
    columns: 2;
    column-gap: 14px;
    padding-top: 4px;
  }
  .row {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto minmax(5.1rem, auto);
    align-items: baseline;
    gap: 6px;
    break-inside: avoid;
    padding: 1px 4px;
    font-size: 13px;
    border-bottom: 1px solid var(--ash-line);
    cursor: pointer;
    line-height: 1.3;
  }
  .row:hover {
    background: var(--ash-well);
  }
  .row[aria-selected='true'] {
    background: var(--ash-well);
    box-shadow: inset 3px 0 0 var(--ash-ink);
  }
  .row.would {
    background: repeating-linear-gradient(135deg, var(--ash-line) 0 1.5px, transparent 1.5px 7px);
  }
  .row.would .value {
    font-weight: 400;
    color: var(--ash-soft);
  }
  .label {
    color: var(--ash-soft);
  }
  .value {
    text-align: right;
    font-weight: 600;
  }
  .value.words {
    grid-column: 2 / 4;
  }
  .value.words + .range {
    display: none;
  }
  .change {
    font: 12px var(--ash-mono);
    color: var(--ash-soft);
    white-space: nowrap;
  }
  .change.better {
    color: var(--ash-pass);
  }
  .change.worse {
    color: var(--ash-fail);
  }
  .range {
    font: 12px var(--ash-mono);
    color: var(--ash-soft);
    text-align: right;
    white-space: nowrap;
  }
  .working {
    padding: 8px 0 0;
    min-height: 150px;
  }
  h2 {
    margin-bottom: 4px;
  }
  dl {
    display: grid;
    grid-template-columns: 4.2rem minmax(0, 1fr);
    gap: 2px 8px;
    line-height: 1.4;
  }
  dt {
    color: var(--ash-soft);
    font-size: var(--ash-text-small);
    padding-top: 1px;
  }
  dd {
    margin: 0;
    overflow-wrap: anywhere;
  }
  /* Its own width counts, not the window's: the ticket may stand beside it. */
  .frame {
    container-type: inline-size;
  }
  @container (max-width: 620px) {
    .figures {
      columns: 1;
    }
  }
  @container (max-width: 760px) {
    .reasons {
      grid-template-columns: 1fr;
    }
    .range {
      white-space: normal;
    }
  }
</style>
