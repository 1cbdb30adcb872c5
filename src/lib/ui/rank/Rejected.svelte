<script lang="ts">
  import { REASONS } from '#core/findings/reasons';
  import type { FindingCode } from '#core/findings/finding';
  import type { Combination } from '#core/compare/ranking/request';
  import { countText } from '#core/quantities/format';
  import Explained from '../common/Explained.svelte';

  type Group = { code: string; count: number; examples: readonly Combination[] };
  type Props = {
    rejected: readonly Group[];
    considered: number;
    chainOf: (row: Combination) => string[];
    hrefOf: (row: Combination) => string;
  };
  let { rejected, considered, chainOf, hrefOf }: Props = $props();
  /** A code as words: it is made of them. */
  const words = (code: string) => {
    const text = code
      .replace(/^m2-/, 'M.2 ')
      .replace(/^mbr/, 'MBR')
      .replace(/-2tib$/, ' 2 TiB')
      .replaceAll('-', ' ');
    return text.charAt(0).toUpperCase() + text.slice(1);
  };
</script>

{#if rejected.length === 0}
  <p class="quiet">Every combination goes together.</p>
{:else}
  <p class="quiet small">
    Each is counted once, under the first rule that it fails, in the order in which a person would look. Up to 50 of
    each can be looked at.
  </p>
  {#each rejected as { code, count, examples } (code)}
    <details>
      <summary>
        <span class="figure count">{countText(count)}</span>
        <strong>{words(code)}</strong>
        <span class="small quiet"
          >{((100 * count) / considered).toFixed(count * 100 < considered ? 1 : 0)}&#8239;% of all</span
        >
      </summary>
      <p class="quiet"><Explained text={REASONS[code as FindingCode] ?? ''} /></p>
      <ul>
        {#each examples as example (JSON.stringify(example))}
          {@const [host, cable, enclosure, drive] = chainOf(example)}
          <li><a href={hrefOf(example)}>{enclosure} · {drive}</a> on {host}{cable ? `, ${cable}` : ''}</li>
        {/each}
      </ul>
      {#if count > examples.length}<p class="small quiet">and {count - examples.length} more of the same</p>{/if}
    </details>
  {/each}
{/if}

<style>
  details {
    padding: 6px 0;
    border-bottom: 1px solid var(--ash-line);
  }
  summary {
    cursor: pointer;
  }
  .count {
    display: inline-block;
    min-width: 5.5rem;
    text-align: right;
    margin-right: 10px;
  }
  ul {
    columns: 2;
    padding: 4px 0 4px 18px;
    list-style: disc;
  }
  @media (max-width: 900px) {
    ul {
      columns: 1;
    }
  }
</style>
