<script lang="ts">
  import { answerTo, type Asked, type PlanAnswer } from '#core/answers/answers';
  import { LINK_MODES } from '#core/facts/link-modes';
  import type { PlanInput, PlanReport } from '#core/plan/report';
  import { bandText } from '#core/quantities/format';
  import Explained from '../common/Explained.svelte';
  import Figure from '../common/Figure.svelte';
  import Verdict from '../common/Verdict.svelte';
  import { VERDICT_WORD } from '../common/verdicts';
  import Assumed from './Assumed.svelte';
  import Piece from '../common/Piece.svelte';

  type Props = {
    tag?: string | undefined;
    stage?: string | undefined;
    input: PlanInput | null;
    report: PlanReport | null;
    /** What a person asks of the plan, in sentences. */
    answers: readonly PlanAnswer[];
    next: string;
    folded: boolean;
    onfold: () => void;
    /** Where a part is changed, by what it is to the plan. */
    hrefOf?: ((part: PlanReport['assumed'][number]['part']) => string | undefined) | undefined;
  };
  let { tag, stage, input, report, answers, next, folded, onfold, hrefOf }: Props = $props();
  const port = $derived(input?.host.ports.find((p) => p.id === input.portId));
  const LEAD: Record<Asked, string> = {
    goes: 'Together',
    job: 'Time',
    limit: 'Limit',
    filesystem: 'Format',
    heat: 'Heat',
    price: 'Price',
    do: 'Next'
  };
  const said = $derived(answers.filter(({ about }) => about !== 'do'));
  const parts = $derived(
    input
      ? [
          ['Computer and port', `${input.host.name}, ${port?.label}`],
          ['Cable', input.cable?.name ?? (input.enclosure.captiveCable ? 'fixed to the case' : 'assumed')],
          ['Enclosure', input.enclosure.name],
          ['Drive', input.drive.name]
        ]
      : []
  );
  const rates = $derived(
    report
      ? ([
          ['Read', report.throughput.read],
          ['Write', report.throughput.write]
        ] as const)
      : []
  );
</script>

<aside class:folded aria-label="Ticket">
  <button
    type="button"
    class="fold no-print"
    aria-expanded={!folded}
    onclick={onfold}
    title="Make the ticket narrow or wide (t)"
  >
    {folded ? '‹' : '›'}<span class="hidden-visually"
      >{folded ? 'Show the whole ticket' : 'Make the ticket narrow'}</span
    >
  </button>
  <!-- The one thing that is read out when something changes. -->
  <p class="hidden-visually" role="status">
    {report ? `${VERDICT_WORD[report.verdict]}. ${answerTo('goes', answers)?.text ?? ''}` : ''}
  </p>
  {#if folded}
    <div class="strip">
      {tag ?? 'Draft'}{#if report}<h2 class="bar"><Verdict verdict={report.verdict} /></h2>{/if}
    </div>
  {:else}
    <p class="top"><span>Ticket</span><span class="tag">{tag ?? 'draft'}{stage ? ` · ${stage}` : ''}</span></p>
    {#if input && report}
      <h2 class="verdict"><Verdict verdict={report.verdict} large /></h2>
      <ul class="answers" aria-label="Answers">
        {#each said as { about, text, tone } (about)}
          <li class={tone}>
            <strong>{about === 'job' && !input.job ? 'Speed' : LEAD[about]}</strong>
            <Explained {text} />
          </li>
        {/each}
      </ul>
      <p class="next"><strong>Next:</strong> {next}</p>
      <dl>
        {#each parts as [name, value] (name)}
          <div class="paper">
            <dt>{name}</dt>
            <dd>{value}</dd>
          </div>
        {/each}
        <div>
          <dt>Runs as</dt>
          <dd>{report.link.mode ? LINK_MODES[report.link.mode].label : 'nothing in common'}</dd>
        </div>
        {#each rates as [name, band] (name)}
          <div>
            <dt>{name}</dt>
            <dd>
              {#if band}<Figure value={bandText(band, '').trim()} unit="MB/s" />{:else}–{/if}
            </dd>
          </div>
        {/each}
        <div>
          <dt>Assumed</dt>
          <dd>
            <Piece
              >{#if report}<Assumed assumed={report.assumed} {hrefOf} />{/if}</Piece
            >
          </dd>
        </div>
      </dl>
    {:else}
      <p class="quiet blank">Fills itself as you choose.</p>
      <p class="next"><strong>Next:</strong> {next}</p>
    {/if}
  {/if}
</aside>

<style>
  .answers {
    padding: 0;
    list-style: none;
  }
  .answers li {
    padding: 4px 0 4px 10px;
    border-left: 3px solid var(--ash-line);
    line-height: 1.35;
    margin: 0 0 4px;
  }
  .answers .good {
    border-left-color: var(--ash-pass);
  }
  .answers .check {
    border-left-color: var(--ash-caution);
  }
  .answers .bad {
    border-left-color: var(--ash-fail);
  }
  .paper {
    display: none;
  }
  aside {
    position: relative;
    align-self: start;
    width: 340px;
    padding: 16px 18px 0;
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
    margin: 4px 0 6px;
    font-size: inherit;
  }
  .bar {
    font-size: inherit;
  }
  dl > div:not(.paper) {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    padding: 3px 0;
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
  .blank {
    margin: 16px 0;
  }
  .next {
    margin: 8px -18px 6px;
    padding: 8px 18px;
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
      width: auto;
      mask: none;
      border: 1px solid var(--ash-ink);
    }
    dl > .paper {
      display: flex;
    }
  }
</style>
