<script lang="ts">
  import { restsOn } from '#core/results/measured';
  import { duration, money, rate } from '#core/quantities/format';
  import type { Criterion, RankRow, Trait } from '#core/compare/ranking/request';
  import Verdict from '../common/Verdict.svelte';
  import Wide from '../common/Wide.svelte';
  import { keyOf } from './chart';
  import type { FoldedRow } from './fold';
  import { CRITERION_SHORT, CRITERION_WORD } from './state';

  type Props = {
    rows: readonly FoldedRow[];
    chainOf: (row: RankRow) => string[];
    nameOf: (id: string) => string;
    hrefOf: (row: RankRow) => string;
    currency: string | null;
    selected: string | undefined;
    onselect: (key: string) => void;
  };
  let { rows, chainOf, nameOf, hrefOf, currency, selected, onselect }: Props = $props();
  const price = (value: number | null) => (value === null || !currency ? '?' : money(value, currency));
  /** Why it stands there: how much of the best in the set it reaches, in what counts. */
  const why = (row: RankRow) => Object.entries(row.shares) as [Criterion | Trait, number][];
</script>

<Wide label="Ranking">
  <table class="plain-table">
    <thead>
      <tr>
        <th scope="col" class="number">Rank</th><th scope="col">Combination</th><th scope="col">Verdict</th>
        <th scope="col" class="number">After the cache</th><th scope="col" class="number">Job</th>
        <th scope="col" class="number">Price</th><th scope="col" class="number">To pay</th>
        <th scope="col">Why here: share of the best</th>
      </tr>
    </thead>
    <tbody>
      {#each rows as { row, rank, alike } (keyOf(row))}
        {@const [host, cable, enclosure, drive] = chainOf(row)}
        <tr class:selected={selected === keyOf(row)}>
          <td class="number figure">
            <button
              type="button"
              class="rank"
              aria-pressed={selected === keyOf(row)}
              onclick={() => onselect(keyOf(row))}
              >{rank}<span class="hidden-visually">: look at {enclosure} with {drive}</span></button
            >
          </td>
          <th scope="row">
            <a href={hrefOf(row)}>{enclosure} · {drive}</a><br />
            <span class="small quiet where"
              >{host}{alike.length > 0
                ? ` and ${alike.length} more ${alike.length === 1 ? 'port' : 'ports'}`
                : ''}{cable ? `, ${cable}` : ''}</span
            >
          </th>
          <td
            ><Verdict verdict={row.verdict} />{#if row.frontier}<br /><span
                class="small quiet"
                title="none is both cheaper and faster after the cache">best for the money</span
              >{/if}</td
          >
          <td class="number"
            ><span class="figure">{rate(row.sustainedWrite.typical)}<span class="unit">MB/s</span></span><br /><span
              class="small quiet">read {rate(row.read.typical)}</span
            ></td
          >
          <td class="number figure"
            >{duration(row.seconds)}{#if row.measured}<br /><span class="small quiet rests"
                >{restsOn(row.measured)}</span
              >{/if}</td
          >
          <td class="number"
            ><span class="figure">{price(row.cost)}</span>{#if row.perTB !== null}<br /><span class="small quiet"
                >{price(row.perTB)}/TB</span
              >{/if}</td
          >
          <td class="number"
            ><span class="figure">{row.spend === 0 ? 'nothing' : price(row.spend)}</span>{#if row.toBuy.length > 0}<br
              /><span class="small quiet buy">{row.toBuy.map(nameOf).join(', ')}</span>{/if}</td
          >
          <td class="why">
            {#each why(row) as [criterion, share] (criterion)}
              <span class="share" title={CRITERION_WORD[criterion]}>
                <span class="bar" style:width="{Math.max(2, share * 60)}px" aria-hidden="true"></span>
                {CRITERION_SHORT[criterion]}
                <span class="figure">{Math.round(share * 100)}<span class="unit">%</span></span>
              </span>
            {/each}
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>

<style>
  td,
  tbody th {
    padding: 5px 12px 5px 0;
    white-space: nowrap;
    vertical-align: top;
  }
  tbody th {
    font-size: var(--ash-text);
    font-weight: 600;
    border-bottom: 1px solid var(--ash-line);
    color: var(--ash-ink);
  }
  .selected {
    background: var(--ash-well);
    box-shadow: inset 3px 0 0 var(--ash-ink);
  }
  .rank {
    min-width: 28px;
    min-height: 24px;
    border: 1px solid var(--ash-edge);
    background: none;
    color: inherit;
    font: inherit;
    cursor: pointer;
  }
  .rank[aria-pressed='true'] {
    background: var(--ash-ink);
    color: var(--ash-paper);
  }
  .where {
    font-weight: 400;
    white-space: normal;
  }
  .buy,
  .rests {
    display: inline-block;
    max-width: 11rem;
    white-space: normal;
  }
  .why {
    font-size: var(--ash-text-small);
    line-height: 1.35;
  }
  .share {
    display: grid;
    grid-template-columns: 64px auto 1fr;
    gap: 6px;
    align-items: center;
  }
  .bar {
    display: inline-block;
    height: 7px;
    background: var(--ash-band);
  }
</style>
