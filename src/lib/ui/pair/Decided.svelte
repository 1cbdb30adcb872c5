<script lang="ts">
  import { HOUSE_RULES, optionOf, type HouseRuleId } from '#core/house-rules/house-rules';

  type Decided = { school: string; choice: string; own: boolean; effect: string };
  /** The house rules that decided something in a plan or a ranking, each with what it decided. */
  let { rules, href }: { rules: readonly Decided[]; href?: string | undefined } = $props();
  const known = $derived(rules.filter((rule): rule is Decided & { school: HouseRuleId } => rule.school in HOUSE_RULES));
</script>

{#if known.length > 0}
  <details class="decided">
    <summary
      >{known.length === 1 ? 'One house rule' : `${known.length} house rules`} decided something here:
      {known.map((rule) => HOUSE_RULES[rule.school].name).join(' · ')}</summary
    >
    <ul>
      {#each known as rule (rule.school)}
        <li>
          {#if href}<a href="{href}#{rule.school}">{HOUSE_RULES[rule.school].name}</a>{:else}{HOUSE_RULES[rule.school]
              .name}{/if}: <strong>{optionOf(rule.school, rule.choice).label}</strong>{rule.own ? '' : ' (default)'} – {rule.effect}.
        </li>
      {/each}
    </ul>
  </details>
{/if}

<style>
  .decided {
    padding: 4px 0;
    border-top: 1px solid var(--ash-line);
    font-size: var(--ash-text-small);
    color: var(--ash-soft);
  }
  summary {
    cursor: pointer;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  ul {
    padding: 4px 0 2px 14px;
    list-style: disc;
  }
</style>
