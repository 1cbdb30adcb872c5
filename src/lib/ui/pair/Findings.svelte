<script lang="ts">
  import type { Severity } from '#core/findings/finding';
  import Explained from '../common/Explained.svelte';
  import StateMark from '../common/StateMark.svelte';
  import { SEVERITY_WORD } from '../common/verdicts';

  type Shown = { code: string; severity: Severity; message: string; remedy?: string | undefined };
  let { findings }: { findings: readonly Shown[] } = $props();
</script>

{#if findings.length === 0}
  <p class="none">
    <StateMark mark="pass" /> Nothing stands in the way: it fits, it connects, and no part holds another back.
  </p>
{:else}
  <ul aria-label="Findings">
    {#each findings as finding (finding.code + finding.message)}
      <li class={finding.severity}>
        <StateMark mark={finding.severity} />
        <p>
          <strong class="word">{SEVERITY_WORD[finding.severity]}</strong>
          <Explained text={finding.message} />
          {#if finding.remedy}<span class="remedy"><Explained text={finding.remedy} /></span>{/if}
        </p>
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
    padding: 5px 0;
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
  .remedy {
    color: var(--ash-soft);
  }
</style>
