<script lang="ts">
  import type { PlanReport } from '#core/plan/report';
  import { assumedWords } from './assumed';

  type Assumed = PlanReport['assumed'][number];
  type Props = {
    assumed: readonly Assumed[];
    /** Where the value is set, by what the part is to the plan; nothing where that is not known. */
    hrefOf?: ((part: Assumed['part']) => string | undefined) | undefined;
    /** Shown at once, for a list that was asked for. */
    open?: boolean;
  };
  /** Values that nobody stated, in the words of the form, each with the way to state it. */
  let { assumed, hrefOf, open = false }: Props = $props();
</script>

{#snippet list()}
  <ul>
    {#each assumed as one (one.part + one.field)}
      {@const words = assumedWords(one)}
      {@const href = hrefOf?.(one.part)}
      <li>
        {words.what}: <strong>{words.value}</strong>, {words.from}{#if href}&ensp;<a class="no-print" {href}
            >set it<span class="hidden-visually">: {words.what}</span></a
          >{/if}
      </li>
    {/each}
  </ul>
{/snippet}
{#if assumed.length === 0}nothing{:else if open}{@render list()}{:else}
  <details>
    <summary>{assumed.length} {assumed.length === 1 ? 'value' : 'values'}</summary>
    {@render list()}
  </details>
{/if}

<style>
  ul {
    padding: 0;
    list-style: none;
    font-weight: 400;
    font-size: var(--ash-text-small);
    text-align: left;
  }
  li {
    padding: 1px 0;
  }
  summary {
    color: var(--ash-ember);
    text-decoration: underline;
    text-underline-offset: 3px;
    cursor: pointer;
  }
</style>
