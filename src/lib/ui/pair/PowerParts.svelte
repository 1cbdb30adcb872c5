<script lang="ts">
  import { DRAW_WORD } from '#core/plan/workings';
  import type { PlanReport } from '#core/plan/report';

  /** What a build draws, part by part, with what of it is only assumed; the parts add up to the whole. */
  let { power }: { power: NonNullable<PlanReport['power']> } = $props();
  const watts = (value: number) => value.toFixed(1);
  const rows = $derived([
    ...power.parts.map(({ what, W, assumed }) => ({ what: DRAW_WORD[what], W, assumed })),
    { what: 'all of it, writing', W: power.steadyW, assumed: false }
  ]);
</script>

<details open>
  <summary>What adds up to it</summary>
  <table>
    <thead
      ><tr><th scope="col">Part</th><th scope="col">From</th><th scope="col">Typical</th><th scope="col">To, W</th></tr
      ></thead
    >
    <tbody>
      {#each rows as row, i (i)}
        <tr class:sum={i === rows.length - 1}>
          <th scope="row"
            >{row.what}{#if row.assumed}<span class="quiet">, assumed</span>{/if}</th
          >
          <td>{watts(row.W.low)}</td><td>{watts(row.W.typical)}</td><td>{watts(row.W.high)}</td>
        </tr>
      {/each}
      <tr
        ><th scope="row">for moments</th><td>{watts(power.peakW.low)}</td><td>{watts(power.peakW.typical)}</td><td
          >{watts(power.peakW.high)}</td
        ></tr
      >
      <tr><th scope="row">at rest</th><td></td><td>{watts(power.idleW)}</td><td></td></tr>
    </tbody>
  </table>
</details>

<style>
  summary {
    cursor: pointer;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: var(--ash-text-small);
  }
  th {
    font-weight: 400;
    text-align: left;
  }
  td,
  thead th:not(:first-child) {
    text-align: right;
    font-family: var(--ash-mono);
  }
  .sum th,
  .sum td {
    font-weight: 700;
    border-top: 1px solid var(--ash-edge);
  }
</style>
