<script lang="ts">
  import { STAGE_LABEL } from '#core/build/stages';
  import { bandText, day, rate } from '#core/quantities/format';
  import BuildLane from '../common/BuildLane.svelte';
  import Figure from '../common/Figure.svelte';
  import SortHead from '../common/SortHead.svelte';
  import Verdict from '../common/Verdict.svelte';
  import Wide from '../common/Wide.svelte';
  import { MOST_COLUMNS } from '../compare/laid';
  import { BUILD_COLUMNS, measuredWrite, type ListedBuild } from './list';

  /** Builds, a row each; those that are ticked can be laid side by side. */
  let {
    builds,
    sort,
    down,
    ticked,
    onsort,
    ontick
  }: {
    builds: readonly ListedBuild[];
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
        <th scope="col" class="lane-cell">Lane</th>
        {#each Object.entries(BUILD_COLUMNS) as [key, column] (key)}
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
      {#each builds as { id, tag, name, stage, row } (id)}
        {@const measured = row && measuredWrite(row)}
        <tr>
          <td class="no-print"
            ><input
              type="checkbox"
              aria-label="Compare {tag}"
              checked={ticked.includes(tag)}
              disabled={ticked.length >= MOST_COLUMNS && !ticked.includes(tag)}
              onchange={(e) => ontick(tag, e.currentTarget.checked)}
            /></td
          >
          <td class="lane-cell"
            >{#if row}<BuildLane build={row} />{/if}</td
          >
          <td class="name">
            <a href="/b/{tag}/pair">{name}</a> <span class="small quiet">{tag}</span>
            {#if row}<span class="parts small quiet"
                >{row.parts.host}, {row.parts.port} · {row.parts.cable ?? 'cable assumed'} · {row.parts.enclosure} ·
                {row.parts.drive}</span
              >{/if}
          </td>
          <td
            >{STAGE_LABEL[stage]}{#if row?.outdated}<span class="parts small quiet">parts changed since</span>{/if}</td
          >
          {#if row}
            <td><Verdict verdict={row.verdict} /></td>
            <td class="number"
              >{#if row.write}<Figure value={bandText(row.write, '').trim()} unit="MB/s" />{:else}–{/if}</td
            >
            <td class="number">
              {#if measured && row.latest}
                <Figure value={rate(measured.measured)} unit="MB/s" />
                <span class="parts small {measured.place}"
                  >{PLACE[measured.place]} · {day(row.latest.date)}{row.latest.simulated ? ' · simulated' : ''}</span
                >
              {:else}<span class="quiet small">not measured</span>{/if}
            </td>
            <td class="number"
              >{#if row.perTB}<Figure value={row.perTB.amount.toFixed(2)} unit="{row.perTB.currency}/TB" />{:else}<span
                  class="quiet small">no prices</span
                >{/if}</td
            >
          {:else}
            <td class="quiet">being judged</td>
            <td class="number quiet">–</td>
            <td class="number quiet">–</td>
            <td class="number quiet">–</td>
          {/if}
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>

<style>
  .lane-cell {
    width: 132px;
  }
  .name {
    min-width: 12rem;
  }
  /* On a phone the name is worth more than its drawing, which Today and the build itself have. */
  @media (max-width: 672px) {
    .lane-cell {
      display: none;
    }
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
