<script lang="ts">
  import { goto } from '$app/navigation';
  import { Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { day, rate } from '#core/quantities/format';
  import { PROTOCOLS } from '#core/protocols/protocols';
  import { PROTOCOL_LABEL } from '#core/results/newest';
  import EveningQueue from '$lib/ui/measure/EveningQueue.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}`);
  let find = $state('');
  let sort = $state('date');
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
  <div class="tools no-print">
    <TextInput size="sm" labelText="Find" placeholder="a tag, a drive" bind:value={find} />
    <Select
      size="sm"
      labelText="Measured by"
      selected={data.protocol ?? ''}
      on:change={(e) => {
        const { value } = e.currentTarget as HTMLSelectElement;
        void goto(value ? `?protocol=${value}` : '?', { keepFocus: true });
      }}
    >
      <SelectItem value="" text="any way" />
      {#each PROTOCOLS as one (one.id)}<SelectItem value={one.id} text={one.label} />{/each}
    </Select>
    <Select size="sm" labelText="Sorted by" bind:selected={sort}>
      <SelectItem value="date" text="day" />
      <SelectItem value="write" text="write" />
      <SelectItem value="of" text="what was measured" />
    </Select>
  </div>
  {#if data.runs.length === 0}
    <p class="quiet">Nothing measured yet. Open a build and choose Measure; or choose below what else to measure.</p>
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
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 12rem), 1fr));
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
