<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { LINK_MODES } from '#core/facts/link-modes';
  import type { PlanReport } from '#core/plan/report';
  import { bandText, day, rate } from '#core/quantities/format';
  import { BAND_OF, compareWithPlan, RESULT_LABEL } from '#core/results/compare';
  import type { KeptResult } from '#core/results/run';
  import Figure from '../common/Figure.svelte';
  import Wide from '../common/Wide.svelte';

  import { PROTOCOL_LABEL } from '#core/results/newest';
  import type { ProtocolId } from '#core/results/protocol-ids';

  type Kept = KeptResult & { id: string; version: number; protocol: ProtocolId };
  type Props = {
    runs: readonly Kept[];
    report: PlanReport;
    /** The one that is held against the forecast above. */
    run: Kept | undefined;
    /** The page of a result. */
    hrefOf: (id: string) => string;
    onshow: (id: string) => void;
    onremove: (id: string, version: number) => void;
  };
  /** The results of a build under its forecast, the newest first. */
  let { runs, report, run, hrefOf, onshow, onremove }: Props = $props();
  const FIELDS = Object.keys(BAND_OF) as (keyof typeof BAND_OF)[];
  const conditionWords = (r: Kept) =>
    [
      `${r.chain.host}, ${r.chain.port} (${r.chain.os})`,
      r.chain.cable,
      r.chain.mode ? LINK_MODES[r.chain.mode].label : undefined,
      r.conditions.filesystem,
      r.conditions.testGB ? `${r.conditions.testGB} GB test` : undefined,
      r.conditions.repeats ? `${r.conditions.repeats} repeats` : undefined,
      r.conditions.fillPercent !== undefined ? `${r.conditions.fillPercent} % full` : undefined,
      r.conditions.ambientC !== undefined ? `${r.conditions.ambientC} °C room` : undefined,
      r.conditions.power,
      r.conditions.encrypted ? 'encrypted' : undefined,
      r.conditions.notes
    ]
      .filter(Boolean)
      .join(' · ');
</script>

{#if runs.length === 0}
  <p class="quiet">None yet.</p>
{:else}
  <Wide label="Results">
    <table class="plain-table">
      <thead>
        <tr
          ><th scope="col">Day</th>{#each FIELDS as field (field)}<th scope="col" class="number"
              >{RESULT_LABEL[field]}</th
            >{/each}<th></th></tr
        >
      </thead>
      <tbody>
        <tr class="forecast">
          <td>forecast</td>
          {#each FIELDS as field (field)}{@const band = report.throughput[BAND_OF[field]]}<td class="number"
              >{#if band}<Figure value={bandText(band, '').trim()} />{:else}–{/if}</td
            >{/each}
          <td></td>
        </tr>
        {#each runs as r (r.id)}
          {@const compared = compareWithPlan(r.results, report)}
          <tr class:chosen={r === run}>
            <td>
              <button type="button" class="pick" aria-pressed={r === run} onclick={() => onshow(r.id)}
                >{day(r.date)}</button
              >
              <a class="small" href={hrefOf(r.id)}>{PROTOCOL_LABEL[r.protocol]}</a>
              {#if r.simulated}<span class="small quiet">simulated</span>{/if}
            </td>
            {#each FIELDS as field (field)}
              {@const value = r.results[field]}
              {@const place = compared.find((c) => c.field === field)?.place}
              <td class="number"
                >{#if value !== undefined}<Figure
                    value={rate(value)}
                    unit="MB/s"
                  />{#if place && place !== 'within'}<span class="place small {place}">{place}</span
                    >{/if}{:else}–{/if}</td
              >
            {/each}
            <td><Button kind="ghost" size="small" on:click={() => onremove(r.id, r.version)}>Delete</Button></td>
          </tr>
          <tr class="under"><td colspan={FIELDS.length + 2} class="small quiet">{conditionWords(r)}</td></tr>
        {/each}
      </tbody>
    </table>
  </Wide>
{/if}

<style>
  .place {
    display: block;
    color: var(--ash-caution);
    font-weight: 600;
  }
  .forecast td {
    color: var(--ash-soft);
    white-space: nowrap;
  }
  .under td {
    padding-top: 0;
  }
  tr:has(+ .under) td {
    border-bottom: 0;
  }
  .chosen {
    background: var(--ash-well);
  }
  .pick {
    padding: 0;
    border: 0;
    background: none;
    color: var(--ash-ember);
    text-decoration: underline;
    text-underline-offset: 3px;
    cursor: pointer;
    white-space: nowrap;
  }
</style>
