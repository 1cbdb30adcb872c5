<script lang="ts">
  import { buildsIn } from '$lib/client/find-builds';
  import { page } from '$app/state';
  import { listAddress } from '$lib/client/list-address';
  import FindBox from '$lib/ui/common/FindBox.svelte';
  import Pages from '$lib/ui/common/Pages.svelte';
  import BuildPicker from '$lib/ui/common/BuildPicker.svelte';
  import { Select, SelectItem } from 'carbon-components-svelte';
  import { day, rate } from '#core/quantities/format';
  import { PROTOCOLS } from '#core/protocols/protocols';
  import { PROTOCOL_LABEL } from '#core/results/newest';
  import EveningQueue from '$lib/ui/measure/EveningQueue.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import Piece from '$lib/ui/common/Piece.svelte';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}`);
  type Run = (typeof data.rows)[number];
  const list = listAddress(() => page.url);
  const nameOf = (run: Run) =>
    run.tag ? `${run.tag} ${run.name}` : run.hostId ? `Internal disk of ${run.chain.host}` : run.chain.drive;
  const figure = (value: number | undefined) => (value === undefined ? '–' : rate(value));
</script>

<svelte:head><title>Results · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Results</h1>
      <p class="quiet">Everything that was measured: builds, the computers’ own disks, and what was bought complete.</p>
    </div>
  </div>
  <div class="tools no-print">
    <Piece
      ><FindBox label="Find results" placeholder="A tag, a drive" value={data.query.find} onlook={list.look} /></Piece
    >
    <Piece
      ><Select
        size="sm"
        labelText="Measured by"
        selected={data.query.protocol ?? ''}
        on:change={(e) => {
          const { value } = e.currentTarget as HTMLSelectElement;
          list.show({ protocol: value });
        }}
      >
        <SelectItem value="" text="any way" />
        {#each PROTOCOLS as one (one.id)}<SelectItem value={one.id} text={one.label} />{/each}
      </Select></Piece
    >
    <Piece
      ><Select
        size="sm"
        labelText="Sorted by"
        selected={data.query.sort}
        on:update={(e) => list.show({ sort: e.detail === 'date' ? '' : String(e.detail) })}
      >
        <SelectItem value="date" text="day" />
        <SelectItem value="write" text="write" />
        <SelectItem value="of" text="what was measured" />
      </Select></Piece
    >
  </div>
  {#if data.all === 0}
    <p class="quiet">Nothing measured yet. Open a build and choose Measure; or choose below what else to measure.</p>
  {:else}
    <Piece
      ><Wide label="Results">
        <table class="plain-table">
          <thead
            ><tr
              ><th scope="col">Day</th><th scope="col">Of</th><th scope="col">Measured by</th><th
                scope="col"
                class="number">Write, MB/s</th
              ><th scope="col" class="number">Read, MB/s</th><th scope="col" class="number">After the cache, MB/s</th
              ></tr
            ></thead
          >
          <tbody>
            {#each data.rows as run (run.id)}
              <tr>
                <td class="day"><a href="{home}/runs/{run.id}">{day(run.date)}</a></td>
                <td>{nameOf(run)}</td>
                <td
                  >{PROTOCOL_LABEL[run.protocol]}{run.simulated ? ', simulated' : ''}{run.rig &&
                  run.rig.state !== 'done'
                    ? run.rig.state === 'running'
                      ? ', running'
                      : ', broken off'
                    : ''}</td
                >
                <td class="number">{figure(run.results.writeMBps ?? run.results.copyInMBps)}</td>
                <td class="number">{figure(run.results.readMBps ?? run.results.copyOutMBps)}</td>
                <td class="number">{figure(run.results.sustainedWriteMBps)}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </Wide></Piece
    >
    {#if data.total === 0}<p class="quiet">None is called “{data.query.find}”.</p>{/if}
    <Pages total={data.total} page={data.query.page} size={data.query.size} href={list.pageHref} />
  {/if}

  <div class="columns">
    <section aria-label="Measure something else">
      <h2>Measure something else</h2>
      {#if data.hosts.length + data.readyMade.length === 0}<p class="quiet">
          No computer and nothing ready-made is in this crate yet.
        </p>{/if}
      <ul>
        {#each data.hosts as host (host.id)}<li>
            <a href="{home}/runs/new?host={host.id}">Internal disk of {host.name}</a>
          </li>{/each}
        {#each data.readyMade as model (model.id)}<li>
            <a href="{home}/runs/new?model={model.id}">{model.name}</a>
          </li>{/each}
      </ul>
    </section>
    <section aria-label="Several in one evening">
      <Piece
        ><EveningQueue
          builds={data.queueable}
          hrefOf={(id) => {
            const build = data.queueable.find((one) => one.id === id);
            return build ? `/b/${build.tag}/measure/plan?protocol=soak` : home;
          }}
        /></Piece
      >
      {#if data.others.total > data.others.builds.length}
        <Piece
          >{#key data.desk}
            <BuildPicker
              label="Another build"
              find={buildsIn(data.crate.id)}
              builds={data.others.builds}
              total={data.others.total}
              none="type a tag or a name"
              picked=""
              onpick={(build) => {
                if (build) list.show({ desk: [build.tag, ...data.desk].slice(0, 12).join(',') });
              }}
            />
          {/key}</Piece
        >
      {/if}
    </section>
  </div>
</div>

<style>
  .day {
    white-space: nowrap;
  }
  .tools {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 12rem), 1fr));
    align-items: end;
    gap: 8px 20px;
    max-width: 760px;
    margin-bottom: 12px;
  }
  .columns {
    display: grid;
    grid-template-columns: minmax(0, 4fr) minmax(0, 8fr);
    gap: 12px 32px;
    margin-top: 18px;
  }
  h2 {
    margin-bottom: 6px;
  }
  li a {
    display: inline-block;
    min-height: 24px;
  }
  @media (max-width: 900px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
