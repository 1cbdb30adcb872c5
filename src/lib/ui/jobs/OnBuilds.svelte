<script lang="ts">
  import { answerTo } from '#core/answers/answers';
  import { duration } from '#core/quantities/format';
  import { restsOn } from '#core/results/measured';
  import type { PlanAnswer } from '#core/answers/answers';
  import type { PlanOutcome } from '#core/compare/swaps/what-if';
  import type { Measured } from '#core/plan/report';
  import SortHead from '../common/SortHead.svelte';
  import Verdict from '../common/Verdict.svelte';
  import Wide from '../common/Wide.svelte';

  type JobOnBuild = PlanOutcome & {
    tag: string;
    name: string;
    /** Whether the build was made for this job. */
    own: boolean;
    band: { low: number; typical: number; high: number } | null;
    measured: Measured | null;
    fits: boolean | null;
    ways: readonly { direction: 'in' | 'out'; bytes: number; afterCliff: number; files: number }[];
    answers: readonly PlanAnswer[];
  };
  /** A job on every build: how long it takes and where the time goes, with what the plan says of each. */
  let { builds }: { builds: readonly JobOnBuild[] } = $props();

  type Row = JobOnBuild;
  const SORTS: Record<string, { label: string; by: (row: Row) => number | string; number?: boolean }> = {
    build: { label: 'Build', by: (row) => row.tag },
    seconds: {
      label: 'The job takes',
      by: (row) => (row.verdict === 'fails' ? 1e12 : 0) + (row.seconds ?? 1e12),
      number: true
    },
    limit: { label: 'Held up by', by: (row) => row.waitsFor ?? '' },
    pay: { label: 'Price', by: (row) => row.cost?.total ?? 1e12 }
  };
  let sort = $state('seconds');
  let down = $state(false);
  const rows = $derived(
    [...builds].sort((a, b) => {
      const { by } = SORTS[sort]!;
      const [x, y] = [by(a), by(b)];
      return (x < y ? -1 : x > y ? 1 : a.tag < b.tag ? -1 : 1) * (down ? -1 : 1);
    })
  );
  const head = (key: string) => ({
    label: SORTS[key]!.label,
    number: SORTS[key]!.number,
    sorted: (sort === key ? (down ? 'down' : 'up') : undefined) as 'up' | 'down' | undefined,
    onsort: () => {
      down = sort === key ? !down : false;
      sort = key;
    }
  });
  /** The longest typical time sets the length of the bars. */
  const longest = $derived(Math.max(1, ...builds.map((row) => row.seconds ?? 0)));
  const WAY = { in: 'onto', out: 'from' };
</script>

<Wide label="The job on each build">
  <table class="plain-table">
    <thead>
      <tr>
        <SortHead {...head('build')} /><th scope="col">Verdict</th>
        <SortHead {...head('seconds')} /><th scope="col">Where the time goes</th>
        <SortHead {...head('limit')} /><th scope="col">Format</th><th scope="col">Heat</th>
        <SortHead {...head('pay')} />
      </tr>
    </thead>
    <tbody>
      {#each rows as row (row.tag)}
        <tr>
          <td><a href="/b/{row.tag}/pair"><strong>{row.tag}</strong> {row.name}</a>{row.own ? ' · made for it' : ''}</td
          >
          <td title={row.worst}><Verdict verdict={row.verdict} /></td>
          <td class="number"
            >{#if row.band}<span class="figure">{duration(row.band.typical)}</span><br /><span class="small quiet"
                >{duration(row.band.low)} – {duration(row.band.high)}</span
              >{#if row.fits === false}<br /><strong class="bad">does not fit</strong>{/if}{#if row.measured}<br /><span
                  class="small quiet">{restsOn(row.measured)}</span
                >{/if}{:else}–{/if}</td
          >
          <td>
            {#each row.ways as way (way.direction)}
              <span
                class="way"
                role="img"
                aria-label="{WAY[way.direction]} the drive: {duration(way.bytes)} of bytes, {duration(
                  way.afterCliff
                )} after the cache, {duration(way.files)} of files"
              >
                {#each [['bytes', way.bytes], ['cliff', way.afterCliff], ['files', way.files]] as const as [part, seconds] (part)}
                  {#if seconds > 0}<span class="part {part}" style:width="{Math.max(1, (160 * seconds) / longest)}px"
                    ></span>{/if}
                {/each}
              </span>
            {/each}
            {#if row.ways.length > 0}<span class="small quiet"
                >{row.ways
                  .map((way) =>
                    [
                      `${duration(way.bytes)} bytes`,
                      ...(way.afterCliff > 0 ? [`${duration(way.afterCliff)} after the cache`] : []),
                      ...(way.files >= 1 ? [`${duration(way.files)} files`] : [])
                    ].join(' + ')
                  )
                  .join('; ')}</span
              >{/if}
          </td>
          <td>{row.waitsFor ?? '–'}</td>
          {#each ['filesystem', 'heat', 'price'] as const as about (about)}
            {@const answer = answerTo(about, row.answers)}
            <td class={answer?.tone} title={answer?.text}>{answer?.short ?? '–'}</td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>
<p class="legend small quiet">
  <span class="part bytes"></span> bytes into the cache <span class="part cliff"></span> bytes after it
  <span class="part files"></span> opening and closing files
</p>

<style>
  td {
    vertical-align: top;
  }
  .way {
    display: flex;
    height: 9px;
    margin: 4px 0 2px;
  }
  .part {
    display: inline-block;
    height: 9px;
  }
  .bytes {
    background: var(--ash-band);
  }
  .cliff {
    background: repeating-linear-gradient(135deg, var(--ash-ink) 0 2px, transparent 2px 5px);
    box-shadow: inset 0 0 0 1px var(--ash-ink);
  }
  .files {
    background: var(--ash-edge);
  }
  .legend {
    margin-top: 8px;
  }
  .legend .part {
    width: 22px;
    margin-left: 12px;
  }
  .bad {
    color: var(--ash-fail);
  }
  .check {
    color: var(--ash-caution);
  }
</style>
