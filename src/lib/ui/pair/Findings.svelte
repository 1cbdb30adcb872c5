<script lang="ts">
  import type { ChainPlace } from '#core/build/options';
  import type { Severity } from '#core/findings/finding';
  import Explained from '../common/Explained.svelte';
  import StateMark from '../common/StateMark.svelte';
  import { SEVERITY_WORD } from '../common/verdicts';

  type Shown = {
    code: string;
    severity: Severity;
    message: string;
    reason?: string | undefined;
    remedy?: string | undefined;
  };
  type Offered = { code: string; place: ChainPlace; id: string; name: string; sentence: string };
  type Props = {
    findings: readonly Shown[];
    /** What of the crate would mend them, and what puts it in. */
    offers?: readonly Offered[];
    onswap?: (place: ChainPlace, id: string) => void;
  };
  let { findings, offers = [], onswap }: Props = $props();
  /** So many stand open, the gravest first; notes only where there is nothing else. The rest folds. */
  const MOST = 3;
  const short = $derived.by(() => {
    const grave = findings.filter(({ severity }) => severity !== 'note').length;
    return Math.min(MOST, grave > 0 ? grave : findings.length);
  });
  const offersOf = (code: string) => offers.filter((offer) => offer.code === code);
</script>

{#snippet mending(finding: Shown)}
  {#each offersOf(finding.code) as offer (offer.id)}
    <p class="offer">
      {offer.sentence}
      {#if onswap}<button type="button" class="link no-print" onclick={() => onswap(offer.place, offer.id)}
          >Use it<span class="hidden-visually">: {offer.name}</span></button
        >{/if}
    </p>
  {/each}
{/snippet}
{#snippet row(finding: Shown, first: boolean)}
  <li class={finding.severity}>
    <StateMark mark={finding.severity} />
    <div>
      <strong class="word">{SEVERITY_WORD[finding.severity]}</strong>
      <Explained text={finding.message} />
      <!-- What mends the gravest one stands open; of the others it is a press away. -->
      {#if finding.remedy || finding.reason || (!first && offersOf(finding.code).length > 0)}<details class="why">
          <summary>what to do</summary>
          <p>
            {#if finding.remedy}<Explained text={finding.remedy} />{/if}
            {#if finding.reason}<Explained text={finding.reason} />{/if}
          </p>
          {#if !first}{@render mending(finding)}{/if}
        </details>{/if}
      {#if first}{@render mending(finding)}{/if}
    </div>
  </li>
{/snippet}

{#if findings.length === 0}
  <p class="none">
    <StateMark mark="pass" /> Nothing stands in the way: it fits, it connects, and no part holds another back.
  </p>
{:else}
  <ul aria-label="Findings">
    {#each findings.slice(0, short) as finding, at (finding.code + at)}{@render row(finding, at === 0)}{/each}
  </ul>
  {#if findings.length > short}
    <details class="rest">
      <summary
        >{findings.length - short} more: {findings
          .slice(short)
          .map(({ severity }) => SEVERITY_WORD[severity].toLowerCase())
          .join(', ')}</summary
      >
      <ul aria-label="More findings">
        {#each findings.slice(short) as finding, at (finding.code + at)}{@render row(finding, false)}{/each}
      </ul>
    </details>
  {/if}
{/if}

<style>
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li,
  .none {
    display: flex;
    gap: 10px;
    padding: 2px 0;
    border-top: 1px solid var(--ash-line);
    line-height: 1.4;
  }
  .word {
    font-weight: 700;
  }
  .fail .word {
    color: var(--ash-fail);
  }
  .check .word,
  .limit .word {
    color: var(--ash-caution);
  }
  .note .word {
    color: var(--ash-note);
  }
  .why p {
    color: var(--ash-soft);
  }
  .rest > summary {
    padding: 3px 0;
    border-top: 1px solid var(--ash-line);
    color: var(--ash-ember);
    cursor: pointer;
  }
  @media print {
    .why::details-content,
    .rest::details-content {
      content-visibility: visible;
    }
  }
  .why {
    display: inline;
  }
  .why[open] {
    display: block;
  }
  .why summary {
    display: inline;
    white-space: nowrap;
    font-size: var(--ash-text-small);
    color: var(--ash-ember);
    text-decoration: underline;
    text-underline-offset: 3px;
    cursor: pointer;
    list-style: none;
  }
  .offer {
    padding-left: 12px;
    border-left: 3px solid var(--ash-edge);
    font-weight: 600;
  }
  @media (max-width: 672px) {
    .why summary {
      display: inline-block;
    }
  }
</style>
