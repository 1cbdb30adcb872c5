<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { restsOn } from '#core/results/measured';
  import { duration, quantity, rate } from '#core/quantities/format';
  import { changesOf } from '$lib/client/change';
  import RecordForm from '$lib/ui/common/RecordForm.svelte';
  import SortHead from '$lib/ui/common/SortHead.svelte';
  import Verdict from '$lib/ui/common/Verdict.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import { jobFields } from '$lib/ui/parts/record-fields';

  let { data } = $props();
  const spec = $derived(data.job.spec);
  const change = $derived(changesOf(data.crate.id));
  let editing = $state(false);
  let busy = $state(false);

  type Row = (typeof data.builds)[number];
  const SORTS: Record<string, { label: string; by: (row: Row) => number | string; number?: boolean }> = {
    build: { label: 'Build', by: (row) => row.tag },
    seconds: {
      label: 'The job takes',
      by: (row) => (row.verdict === 'fails' ? 1e12 : 0) + (row.seconds ?? 1e12),
      number: true
    },
    limit: { label: 'It waits for', by: (row) => row.waitsFor ?? '' }
  };
  let sort = $state('seconds');
  let down = $state(false);
  const rows = $derived(
    [...data.builds].sort((a, b) => {
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
  const longest = $derived(Math.max(1, ...data.builds.map((row) => row.seconds ?? 0)));
  const WAY = { in: 'onto', out: 'from' };

  async function save(record: Record<string, unknown>) {
    busy = true;
    const refused = await change(
      'PUT',
      `/api/crates/${data.crate.id}/jobs/${data.job.id}`,
      { version: data.job.version, spec: record },
      `Saved the job ${String(record.name)}.`
    );
    busy = false;
    if (!refused) editing = false;
    return refused;
  }
</script>

<svelte:head><title>{spec.name} · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <p class="small"><a href="/c/{data.crate.slug}/jobs">Jobs</a></p>
      <h1>{spec.name}</h1>
      <p class="quiet">
        {quantity(spec.transferGB, 'GB')}{spec.files ? ` in ${spec.files} files` : ''}
        {spec.direction === 'in'
          ? 'onto the drive'
          : spec.direction === 'out'
            ? 'from the drive'
            : 'both ways'}{spec.perDay ? `, ${spec.perDay} a day` : ''}; {spec.purposes.join(', ')}.
      </p>
    </div>
    <Button kind="tertiary" size="small" href="/c/{data.crate.slug}/rank?job={data.job.id}">Rank for it</Button>
    <Button kind="ghost" size="small" on:click={() => (editing = !editing)}>{editing ? 'Close' : 'Edit'}</Button>
  </div>
  {#if editing}
    {#key data.job.version}
      <RecordForm
        fields={jobFields()}
        value={spec}
        {busy}
        saveLabel="Save the job"
        refusedPrefix="spec."
        draftKey="draft:{data.job.id}:{data.job.version}"
        onsave={save}
        oncancel={() => (editing = false)}
      />
    {/key}
  {/if}

  <h2>On the builds of this crate, as their parts are now</h2>
  {#if rows.length === 0}
    <div class="empty">
      <p>There is no build yet. <a href="/c/{data.crate.slug}/pair">Pair one</a>, or rank for this job.</p>
    </div>
  {:else}
    <Wide label="The job on each build">
      <table class="plain-table">
        <thead>
          <tr>
            <SortHead {...head('build')} /><th scope="col">Verdict</th>
            <SortHead {...head('seconds')} /><th scope="col">Where the time goes</th>
            <SortHead {...head('limit')} /><th scope="col" class="number">Over all of it</th>
            <th scope="col" class="number">Cache full after</th><th scope="col">Room</th>
          </tr>
        </thead>
        <tbody>
          {#each rows as row (row.tag)}
            <tr>
              <td
                ><a href="/b/{row.tag}/pair"><strong>{row.tag}</strong> {row.name}</a>{row.own
                  ? ' · made for it'
                  : ''}</td
              >
              <td title={row.worst}><Verdict verdict={row.verdict} /></td>
              <td class="number"
                >{#if row.band}<span class="figure">{duration(row.band.typical)}</span><br /><span class="small quiet"
                    >{duration(row.band.low)} – {duration(row.band.high)}</span
                  >{#if row.measured}<br /><span class="small quiet">{restsOn(row.measured)}</span
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
                      {#if seconds > 0}<span
                          class="part {part}"
                          style:width="{Math.max(1, (160 * seconds) / longest)}px"
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
              <td class="number figure"
                >{row.ways.map((way) => rate(way.MBps)).join(' / ') || '–'}{#if row.ways.length > 0}<span class="unit"
                    >MB/s</span
                  >{/if}</td
              >
              <td class="number figure">{row.cliffAtGB === null ? 'none' : quantity(row.cliffAtGB, 'GB')}</td>
              <td>{row.fits === null ? '–' : row.fits ? 'enough' : 'too little'}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </Wide>
    <p class="legend small quiet">
      <span class="part bytes"></span> bytes into the cache <span class="part cliff"></span> bytes after it
      <span class="part files"></span> opening and closing files
    </p>
  {/if}
</div>

<style>
  h2 {
    margin: 14px 0 4px;
  }
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
</style>
