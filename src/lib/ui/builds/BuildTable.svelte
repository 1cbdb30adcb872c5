<script lang="ts">
  import type { ComponentProps } from 'svelte';
  import { STAGE_LABEL } from '#core/build/stages';
  import { bandText, day, rate } from '#core/quantities/format';
  import BuildLane from '../common/BuildLane.svelte';
  import Figure from '../common/Figure.svelte';
  import SortHead from '../common/SortHead.svelte';
  import Verdict from '../common/Verdict.svelte';
  import Wide from '../common/Wide.svelte';
  import { MOST_COLUMNS } from '../compare/laid';
  import { BUILD_SORTS, measuredWrite, type ListedBuild } from './list';

  /** Builds, a row each; those that are ticked can be laid side by side. */
  let {
    builds,
    sort,
    down,
    ticked,
    onsort,
    ontick
  }: {
    builds: readonly (ListedBuild & ComponentProps<typeof BuildLane>['build'])[];
    sort: string;
    down: boolean;
    ticked: readonly string[];
    onsort: (key: string) => void;
    ontick: (tag: string, on: boolean) => void;
  } = $props();
  const PLACE = { below: 'below', within: 'as forecast', above: 'above' };
</script>

<Wide label="Builds">
  <table class="plain-table">
    <thead>
      <tr>
        <td class="no-print"></td>
        <th scope="col">Lane</th>
        {#each Object.entries(BUILD_SORTS) as [key, column] (key)}
          <SortHead
            label={column.label}
            number={column.number}
            sorted={sort === key ? (down ? 'down' : 'up') : undefined}
            onsort={() => onsort(key)}
          />
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each builds as build (build.id)}
        {@const measured = measuredWrite(build)}
        <tr>
          <td class="no-print"
            ><input
              type="checkbox"
              aria-label="Compare {build.tag}"
              checked={ticked.includes(build.tag)}
              disabled={ticked.length >= MOST_COLUMNS && !ticked.includes(build.tag)}
              onchange={(e) => ontick(build.tag, e.currentTarget.checked)}
            /></td
          >
          <td class="lane-cell"><BuildLane {build} /></td>
          <td>
            <a href="/b/{build.tag}/pair">{build.name}</a> <span class="small quiet">{build.tag}</span>
            <span class="parts small quiet"
              >{build.parts.host}, {build.parts.port} · {build.parts.cable ?? 'cable assumed'} · {build.parts.enclosure} ·
              {build.parts.drive}</span
            >
          </td>
          <td
            >{STAGE_LABEL[build.stage]}{#if build.outdated}<span class="parts small quiet">parts changed since</span
              >{/if}</td
          >
          <td><Verdict verdict={build.verdict} /></td>
          <td class="number"
            >{#if build.write}<Figure value={bandText(build.write, '').trim()} unit="MB/s" />{:else}–{/if}</td
          >
          <td class="number">
            {#if measured && build.latest}
              <Figure value={rate(measured.measured)} unit="MB/s" />
              <span class="parts small {measured.place}"
                >{PLACE[measured.place]} · {day(build.latest.date)}{build.latest.simulated ? ' · simulated' : ''}</span
              >
            {:else}<span class="quiet small">not measured</span>{/if}
          </td>
          <td class="number"
            >{#if build.perTB}<Figure
                value={build.perTB.amount.toFixed(2)}
                unit="{build.perTB.currency}/TB"
              />{:else}<span class="quiet small">no prices</span>{/if}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>

<style>
  .lane-cell {
    width: 132px;
  }
  .parts {
    display: block;
  }
  td a {
    font-weight: 600;
  }
  .below {
    color: var(--ash-caution);
    font-weight: 600;
  }
  .within {
    color: var(--ash-pass);
  }
</style>
