<script lang="ts">
  import { assumedWords } from './assumed';
  import { FILESYSTEMS } from '#core/facts/filesystems';
  import { LINK_MODES } from '#core/facts/link-modes';
  import type { PlanInput, PlanReport } from '#core/plan/report';
  import { bandText } from '#core/quantities/format';
  import Verdict from '../common/Verdict.svelte';
  import Figure from '../common/Figure.svelte';

  type Props = {
    tag?: string | undefined;
    stage?: string | undefined;
    input: PlanInput | null;
    report: PlanReport | null;
    next: string;
    folded: boolean;
    onfold: () => void;
  };
  let { tag, stage, input, report, next, folded, onfold }: Props = $props();
  const port = $derived(input?.host.ports.find((p) => p.id === input.portId));
</script>

<aside class:folded aria-label="Ticket">
  <button type="button" class="fold no-print" aria-expanded={!folded} onclick={onfold} title="Fold the ticket (t)">
    {folded ? '‹' : '›'}<span class="hidden-visually">{folded ? 'Unfold the ticket' : 'Fold the ticket'}</span>
  </button>
  {#if folded}
    <p class="strip">
      {tag ?? 'Draft'}{#if report}<span class="bar"><Verdict verdict={report.verdict} /></span>{/if}
    </p>
  {:else}
    <p class="top"><span>Ticket</span><span class="tag">{tag ?? 'draft'}{stage ? ` · ${stage}` : ''}</span></p>
    {#if input && report}
      <p class="verdict"><Verdict verdict={report.verdict} large /></p>
      <dl>
        <div>
          <dt>Computer and port</dt>
          <dd>{input.host.name}, {port?.label}</dd>
        </div>
        <div>
          <dt>Cable</dt>
          <dd>{input.cable?.name ?? (input.enclosure.captiveCable ? 'fixed to the case' : 'assumed')}</dd>
        </div>
        <div>
          <dt>Enclosure</dt>
          <dd>{input.enclosure.name}</dd>
        </div>
        <div>
          <dt>Drive</dt>
          <dd>{input.drive.name}</dd>
        </div>
        <div>
          <dt>Runs as</dt>
          <dd>{report.link.mode ? LINK_MODES[report.link.mode].label : 'nothing in common'}</dd>
        </div>
        <div>
          <dt>Slowest link</dt>
          <dd>{report.link.bottleneck ?? '–'}</dd>
        </div>
        <div>
          <dt>Read</dt>
          <dd>
            {#if report.throughput.read}<Figure
                value={bandText(report.throughput.read, '').trim()}
                unit="MB/s"
              />{:else}–{/if}
          </dd>
        </div>
        <div>
          <dt>Write</dt>
          <dd>
            {#if report.throughput.write}<Figure
                value={bandText(report.throughput.write, '').trim()}
                unit="MB/s"
              />{:else}–{/if}
          </dd>
        </div>
        {#if report.thermal && report.throughput.write}
          <div>
            <dt>Case, settled</dt>
            <dd>
              <Figure
                value="{report.thermal.steadyCaseC.low.toFixed(0)} – {report.thermal.steadyCaseC.high.toFixed(0)}"
                unit="°C"
              />
            </dd>
          </div>
        {/if}
        <div>
          <dt>Filesystem</dt>
          <dd>
            {FILESYSTEMS[report.filesystem.first.filesystem].label}, {report.filesystem.first.scheme.toUpperCase()}
          </dd>
        </div>
        {#if report.cost}
          <div>
            <dt>Price</dt>
            <dd><Figure value={report.cost.total.toFixed(2)} unit={report.cost.currency} /></dd>
          </div>
          <div>
            <dt>Per TB</dt>
            <dd><Figure value={report.cost.perTB.toFixed(2)} unit="{report.cost.currency}/TB" /></dd>
          </div>
        {:else}
          <div>
            <dt>Price</dt>
            <dd class="quiet">no prices</dd>
          </div>
        {/if}
        <div>
          <dt>Assumed</dt>
          <dd>
            {#if report.assumed.length === 0}nothing{:else}
              <details>
                <summary>{report.assumed.length} {report.assumed.length === 1 ? 'value' : 'values'}</summary>
                <ul>
                  {#each report.assumed.map(assumedWords) as a (a.key)}<li>{a.what}: {a.value}</li>{/each}
                </ul>
              </details>
            {/if}
          </dd>
        </div>
      </dl>
    {:else}
      <p class="quiet blank">Fills itself as you choose.</p>
    {/if}
    <p class="next"><strong>Next:</strong> {next}</p>
  {/if}
</aside>

<style>
  aside {
    position: relative;
    align-self: start;
    width: 312px;
    padding: 20px 18px 0;
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
    border-top: 0;
    /* The torn edge. */
    mask:
      conic-gradient(from -45deg at bottom, #0000, #000 1deg 89deg, #0000 90deg) 0 0 / 12px 6px repeat-x,
      linear-gradient(#000 0 0) 0 6px / 100% 100% no-repeat;
  }
  .folded {
    width: 40px;
    min-height: 220px;
    padding: 40px 0 0;
  }
  .strip {
    writing-mode: vertical-rl;
    margin: 8px auto 0;
    width: 40px;
    line-height: 40px;
    font: 600 12px var(--ash-mono);
    line-height: 40px;
    color: var(--ash-soft);
  }
  .bar {
    display: none;
    margin-left: 12px;
    font: 14px var(--ash-font);
  }
  .fold {
    position: absolute;
    top: 12px;
    right: 6px;
    width: 28px;
    height: 28px;
    border: 0;
    background: none;
    color: var(--ash-soft);
    font-size: 18px;
    cursor: pointer;
  }
  .top {
    display: flex;
    justify-content: space-between;
    padding-right: 24px;
    font-size: var(--ash-text-small);
    font-weight: 600;
    color: var(--ash-soft);
  }
  .tag {
    font-family: var(--ash-mono);
  }
  .verdict {
    margin: 6px 0 8px;
  }
  dl > div {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    padding: 4px 0;
    border-top: 1px dashed var(--ash-line);
    line-height: 1.4;
  }
  dt {
    color: var(--ash-soft);
    white-space: nowrap;
  }
  dd {
    margin: 0;
    text-align: right;
    font-weight: 600;
  }
  details ul {
    padding: 4px 0 0;
    list-style: none;
    font-weight: 400;
    font-size: var(--ash-text-small);
  }
  summary {
    color: var(--ash-ember);
    text-decoration: underline;
    text-underline-offset: 3px;
    cursor: pointer;
  }
  .blank {
    margin: 16px 0;
  }
  .next {
    margin: 10px -18px 0;
    padding: 10px 18px 12px;
    background: var(--ash-ember-wash);
  }
  @media (max-width: 900px) {
    aside,
    .folded {
      position: fixed;
      inset: auto 0 0;
      z-index: 20;
      width: auto;
      max-height: 70vh;
      overflow-y: auto;
      padding: 10px 14px 0;
      border-top: 1px solid var(--ash-edge);
      mask: none;
    }
    .folded {
      min-height: 48px;
      padding: 6px 14px;
    }
    .bar {
      display: inline;
    }
    .strip {
      writing-mode: initial;
      width: auto;
      margin: 0;
      line-height: 36px;
    }
  }
  @media print {
    aside {
      width: 90mm;
      mask: none;
      border: 1px solid var(--ash-ink);
    }
  }
</style>
