<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { invalidateAll } from '$app/navigation';
  import { STAGE_LABEL, type BuildStage } from '#core/build/stages';
  import { KINDS, KIND_LABEL } from '#core/parts/kinds';
  import { changesOf } from '$lib/client/change';
  import BeingJudged from '$lib/ui/builds/BeingJudged.svelte';
  import FirstEvening from '$lib/ui/door/FirstEvening.svelte';
  import { nextStepAfter, stepsOf } from '$lib/ui/door/steps';
  import TodayRow from '$lib/ui/today/TodayRow.svelte';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}`);
  const GROUPS = [
    { tone: 'urgent', heading: 'Stands in the way' },
    { tone: 'do', heading: 'Next at the bench' },
    { tone: 'waits', heading: 'Waiting' }
  ] as const;
  const groups = $derived(
    GROUPS.map((g) => ({
      ...g,
      builds: data.builds.flatMap(({ row, ...build }) => (row?.next.tone === g.tone ? [{ ...row, ...build }] : [])),
      count: data.counts[g.tone]
    })).filter((g) => g.count > 0)
  );
  const steps = $derived(stepsOf(home, data.parts, data.all));
  const next = $derived(nextStepAfter(steps));
  const known = $derived(
    KINDS.filter((kind) => data.parts[kind])
      .map((kind) => {
        const n = data.parts[kind] ?? 0;
        return `${n} ${n === 1 ? KIND_LABEL[kind].one : KIND_LABEL[kind].many.toLowerCase()}`;
      })
      .join(', ')
  );

  const change = $derived(changesOf(data.crate.id));
  async function mark(build: { id: string; tag: string; version: number }, stage: BuildStage): Promise<void> {
    const path = `/api/crates/${data.crate.id}/builds/${build.id}/stage`;
    const body = { version: build.version, stage };
    const refusal = await change('PUT', path, body, `${build.tag} is now ${STAGE_LABEL[stage]}.`);
    // Somebody else was first: what is there now is shown.
    if (refusal) await invalidateAll();
  }
</script>

<svelte:head><title>Today · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Today</h1>
      <p class="quiet">
        {data.all === 0
          ? 'No builds yet.'
          : `The one next step of each of ${data.all} ${data.all === 1 ? 'build' : 'builds'}.`}
        {known ? `${known} in the crate.` : ''}
      </p>
    </div>
    {#if data.all === 0 && next}<Button href={next.href} size="field">{next.label}</Button>
    {:else}<Button href="{home}/pair" size="field">Pair a new build</Button>{/if}
  </div>

  {#if data.all === 0}<FirstEvening {steps} {next} />{/if}
  <BeingJudged due={data.due} all={data.all} onagain={() => void invalidateAll()} />

  {#each groups as group (group.tone)}
    <section aria-labelledby="group-{group.tone}">
      <h2 id="group-{group.tone}">
        {group.heading}{#if group.builds.length < group.count}<span class="quiet small">, {group.count} builds</span
          >{/if}
      </h2>
      <ul>
        {#each group.builds as build (build.id)}<TodayRow {build} onmark={(stage) => mark(build, stage)} />{/each}
      </ul>
      {#if group.builds.length < group.count}<p>
          <a href="{home}/builds?next={group.tone}"
            >{group.builds.length === 0 ? 'Show' : 'Show all'} {group.count} of these builds</a
          >
        </p>{/if}
    </section>
  {/each}
</div>

<style>
  section {
    margin-bottom: 20px;
  }
  h2 {
    padding: 4px 0;
    border-bottom: 1px solid var(--ash-edge);
  }
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }
</style>
