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
</script>

{#if findings.length === 0}
  <p class="none">
    <StateMark mark="pass" /> Nothing stands in the way: it fits, it connects, and no part holds another back.
  </p>
{:else}
  <ul aria-label="Findings">
    {#each findings as finding, at (finding.code + at)}
      <li class={finding.severity}>
        <StateMark mark={finding.severity} />
        <div>
          <strong class="word">{SEVERITY_WORD[finding.severity]}</strong>
          <Explained text={finding.message} />
          {#if finding.remedy}<span class="remedy"><Explained text={finding.remedy} /></span>{/if}
          {#if finding.reason}<details class="why no-print">
              <summary>why</summary>
              <p><Explained text={finding.reason} /></p>
            </details>{/if}
          {#each offers.filter((offer) => offer.code === finding.code) as offer (offer.id)}
            <p class="offer">
              {offer.sentence}
              {#if onswap}<button type="button" class="link no-print" onclick={() => onswap(offer.place, offer.id)}
                  >Put it in<span class="hidden-visually">: {offer.name}</span></button
                >{/if}
            </p>
          {/each}
        </div>
      </li>
    {/each}
  </ul>
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
    padding: 4px 0;
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
  .remedy,
  .why p {
    color: var(--ash-soft);
  }
  .why {
    display: inline;
  }
  .why[open] {
    display: block;
  }
  .why summary {
    display: inline;
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
</style>
