<script lang="ts">
  import { goto } from '$app/navigation';
  import { day, rate } from '#core/quantities/format';
  import { PROTOCOLS } from '#core/protocols/protocols';
  import { PROTOCOL_LABEL } from '#core/results/newest';
  import EveningQueue from '$lib/ui/measure/EveningQueue.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}`);
  let find = $state('');
  let sort = $state<'date' | 'write' | 'of'>('date');
  type Run = (typeof data.runs)[number];
  const nameOf = (run: Run) => {
    const build = run.buildId ? data.tags[run.buildId] : undefined;
    return build ? `${build.tag} ${build.name}` : run.hostId ? `Internal disk of ${run.chain.host}` : run.chain.drive;
  };
  const shown = $derived.by(() => {
    const wanted = find.trim().toLowerCase();
    const list = data.runs.filter((run) =>
      `${nameOf(run)} ${run.chain.drive} ${PROTOCOL_LABEL[run.protocol]}`.toLowerCase().includes(wanted)
    );
    if (sort === 'write') return list.toSorted((a, b) => (b.results.writeMBps ?? 0) - (a.results.writeMBps ?? 0));
    if (sort === 'of') return list.toSorted((a, b) => nameOf(a).localeCompare(nameOf(b)));
    return list;
  });
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
  <p class="tools no-print">
    <label>Find <input type="search" bind:value={find} /></label>
    <label
      >Measured by <select
        value={data.protocol ?? ''}
        onchange={(e) =>
          void goto(e.currentTarget.value ? `?protocol=${e.currentTarget.value}` : '?', { keepFocus: true })}
      >
        <option value="">any way</option>
        {#each PROTOCOLS as one (one.id)}<option value={one.id}>{one.label}</option>{/each}
      </select></label
    >
    <label
      >Sorted by <select bind:value={sort}
        ><option value="date">day</option><option value="write">write</option><option value="of"
          >what was measured</option
        ></select
      ></label
    >
  </p>
  {#if data.runs.length === 0}
    <p class="quiet">
      Nothing measured yet. Open a build and choose Measure; or measure {#if data.hosts.length > 0}the internal disk of
        a computer,
      {/if}something ready-made below.
    </p>
  {:else}
    <Wide label="Results">
      <table class="plain-table">
        <thead
          ><tr
            ><th scope="col">Day</th><th scope="col">Of</th><th scope="col">Measured by</th><th
              scope="col"
              class="number">Write, MB/s</th
            ><th scope="col" class="number">Read, MB/s</th><th scope="col" class="number">After the cache, MB/s</th></tr
          ></thead
        >
        <tbody>
          {#each shown as run (run.id)}
            <tr>
              <td><a href="{home}/runs/{run.id}">{day(run.date)}</a></td>
              <td>{nameOf(run)}</td>
              <td
                >{PROTOCOL_LABEL[run.protocol]}{run.simulated ? ', simulated' : ''}{run.rig && run.rig.state !== 'done'
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
    </Wide>
    {#if shown.length === 0}<p class="quiet">None is called “{find}”.</p>{/if}
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
      <EveningQueue
        builds={data.queueable}
        hrefOf={(id) => {
          const build = data.tags[id];
          return build ? `/b/${build.tag}/measure/plan?protocol=soak` : home;
        }}
      />
    </section>
  </div>
</div>

<style>
  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 20px;
    margin-bottom: 10px;
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
  @media (max-width: 900px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
