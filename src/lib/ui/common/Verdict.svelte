<script lang="ts">
  import type { Verdict } from '#core/findings/finding';
  import StateMark from './StateMark.svelte';
  import { VERDICT_MARK, VERDICT_WORD } from './verdicts';

  let { verdict, large = false }: { verdict: Verdict; large?: boolean } = $props();
</script>

<span class="verdict {VERDICT_MARK[verdict]}" class:large>
  <StateMark mark={VERDICT_MARK[verdict]} size={large ? 24 : 16} />{VERDICT_WORD[verdict]}
</span>

<style>
  .verdict {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    font-weight: 600;
    white-space: nowrap;
  }
  .large {
    gap: 10px;
    font-size: var(--ash-text-large);
    font-weight: 700;
  }
  .pass {
    color: var(--ash-pass);
  }
  .limit,
  .check {
    color: var(--ash-caution);
  }
  .fail {
    color: var(--ash-fail);
  }
</style>
