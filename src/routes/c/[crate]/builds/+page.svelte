<script lang="ts">
  import Wide from '$lib/ui/common/Wide.svelte';
  import { Button, Search } from 'carbon-components-svelte';
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { queryOf } from '$lib/client/address';
  import { VERDICT_ORDER } from '#core/findings/finding';
  import { STAGE_LABEL, STAGES } from '#core/build/stages';
  import { bandText, day, rate } from '#core/quantities/format';
  import { compareHref, MOST_COLUMNS } from '$lib/ui/compare/laid';
  import BuildLane from '$lib/ui/common/BuildLane.svelte';
  import SortHead from '$lib/ui/common/SortHead.svelte';
  import Figure from '$lib/ui/common/Figure.svelte';
  import Verdict from '$lib/ui/common/Verdict.svelte';

  let { data } = $props();
  /** Builds that are ticked to be laid side by side. */
  let ticked = $state.raw<string[]>([]);
  type Row = (typeof data.builds)[number];
  const SORTS: Record<string, { label: string; by: (row: Row) => number | string; number?: boolean }> = {
    tag: { label: 'Build', by: (r) => r.tag },
    stage: { label: 'Stage', by: (r) => STAGES.indexOf(r.stage) },
    verdict: { label: 'Verdict', by: (r) => -VERDICT_ORDER[r.verdict] },
    write: { label: 'Write, forecast', by: (r) => r.write?.typical ?? -1, number: true },
    measured: { label: 'Write, measured', by: (r) => measuredOf(r)?.measured ?? -1, number: true },
    price: { label: 'Per TB', by: (r) => r.perTB?.amount ?? Infinity, number: true }
  };
  const asked = queryOf(page.url);
  let sort = $state(asked.get('sort') ?? 'tag');
  let down = $state(asked.get('down') === 'yes');
  let find = $state(asked.get('find') ?? '');

  const measuredOf = (row: Row) => row.latest?.comparisons.find((c) => c.field === 'writeMBps');
  const shown = $derived.by(() => {
    const { by } = (Object.hasOwn(SORTS, sort) ? SORTS[sort] : undefined) ?? SORTS.tag!;
    const words = find.toLowerCase().split(/\s+/).filter(Boolean);
    const text = (r: Row) => [r.tag, r.name, STAGE_LABEL[r.stage], ...Object.values(r.parts)].join(' ').toLowerCase();
    const rows = data.builds.filter((r) => words.every((w) => text(r).includes(w)));
    return rows.sort((a, b) => {
      const [x, y] = [by(a), by(b)];
      return (x < y ? -1 : x > y ? 1 : a.tag < b.tag ? -1 : 1) * (down ? -1 : 1);
    });
  });

  function keep(): void {
    const query = new URLSearchParams();
    if (sort !== 'tag') query.set('sort', sort);
    if (down) query.set('down', 'yes');
    if (find) query.set('find', find);
    replaceState(`?${query}`, {});
  }
  function sortBy(key: string): void {
    down = sort === key ? !down : false;
    sort = key;
    keep();
  }
  const PLACE = { below: 'below', within: 'as forecast', above: 'above' };
</script>

<svelte:head><title>Builds · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Builds</h1>
      <p class="quiet">
        {data.builds.length}
        {data.builds.length === 1 ? 'build' : 'builds'}; hatching is the forecast of the write, the solid line what was
        measured.
      </p>
    </div>
    <div class="find">
      <Search
        size="sm"
        labelText="Find builds"
        placeholder="Name, tag, part, stage"
        bind:value={find}
        on:input={keep}
        on:clear={keep}
      />
    </div>
    {#if ticked.length > 0}<Button
        kind="tertiary"
        size="field"
        href={compareHref(`/c/${data.crate.slug}`, ticked)}
        disabled={ticked.length < 2}
        >{ticked.length < 2 ? 'Tick a second one' : `Compare these ${ticked.length}`}</Button
      >{/if}
    <Button href="/c/{data.crate.slug}/pair" size="field">Pair a new build</Button>
  </div>

  {#if data.builds.length === 0}
    <div class="empty">
      <h2>No builds yet</h2>
      <p>
        A build is a computer’s port, a cable, an enclosure and a drive that belong together, with the plan made from
        them.
      </p>
      <p><a href="/c/{data.crate.slug}/pair">Pair the first one</a></p>
    </div>
  {:else}
    <Wide label="Builds">
      <table class="plain-table">
        <thead>
          <tr>
            <td class="no-print"></td>
            <th scope="col">Lane</th>
            {#each Object.entries(SORTS) as [key, column] (key)}
              <SortHead
                label={column.label}
                number={column.number}
                sorted={sort === key ? (down ? 'down' : 'up') : undefined}
                onsort={() => sortBy(key)}
              />
            {/each}
          </tr>
        </thead>
        <tbody>
          {#each shown as build (build.id)}
            {@const measured = measuredOf(build)}
            <tr>
              <td class="no-print"
                ><input
                  type="checkbox"
                  aria-label="Compare {build.tag}"
                  checked={ticked.includes(build.tag)}
                  disabled={ticked.length >= MOST_COLUMNS && !ticked.includes(build.tag)}
                  onchange={(e) =>
                    (ticked = e.currentTarget.checked
                      ? [...ticked, build.tag]
                      : ticked.filter((tag) => tag !== build.tag))}
                /></td
              >
              <td class="lane-cell"><BuildLane {build} /></td>
              <td>
                <a href="/b/{build.tag}/pair">{build.name}</a> <span class="small quiet">{build.tag}</span>
                <span class="parts small quiet"
                  >{build.parts.host}, {build.parts.port} · {build.parts.cable ?? 'cable assumed'} · {build.parts
                    .enclosure} · {build.parts.drive}</span
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
                    >{PLACE[measured.place]} · {day(build.latest.date)}{build.latest.simulated
                      ? ' · simulated'
                      : ''}</span
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
    {#if shown.length === 0}<p class="quiet">No build matches “{find}”.</p>{/if}
  {/if}
</div>

<style>
  .find {
    width: 260px;
  }
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
