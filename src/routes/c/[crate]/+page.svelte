<script lang="ts">
  import { changesOf } from '$lib/client/change';
  import { Button } from 'carbon-components-svelte';
  import { invalidateAll } from '$app/navigation';
  import { STAGE_LABEL, type BuildStage } from '#core/build/stages';
  import { aKind, KINDS, KIND_LABEL } from '#core/parts/kinds';
  import BuildLane from '$lib/ui/common/BuildLane.svelte';
  import StateMark from '$lib/ui/common/StateMark.svelte';
  import type { Asked } from '#core/answers/answers';
  import Verdict from '$lib/ui/common/Verdict.svelte';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}`);
  const GROUPS = [
    { tone: 'urgent', heading: 'Stands in the way' },
    { tone: 'do', heading: 'Next at the bench' },
    { tone: 'waits', heading: 'Waiting' }
  ] as const;
  const groups = $derived(
    GROUPS.map((g) => ({ ...g, builds: data.builds.filter((b) => b.next.tone === g.tone) })).filter(
      (g) => g.builds.length > 0
    )
  );
  const have = $derived((['host', 'enclosure', 'drive'] as const).map((kind) => ({ kind, n: data.counts[kind] ?? 0 })));

  /** What stands under the next step, in the words of the ticket. */
  const ABOUT: Asked[] = ['job', 'filesystem', 'heat', 'price'];
  /** A build that measured below its forecast does not simply work, whatever its plan says. */
  const tooSlow = ({ latest, verdict }: (typeof data.builds)[number]) =>
    verdict !== 'fails' && latest?.comparisons.some(({ place }) => place === 'below') === true;

  const change = $derived(changesOf(data.crate.id));
  async function mark(build: (typeof data.builds)[number], stage: BuildStage): Promise<void> {
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
        {data.builds.length === 0
          ? 'No builds yet.'
          : `The one next step of each of ${data.builds.length} ${data.builds.length === 1 ? 'build' : 'builds'}.`}
        {#each KINDS.filter((k) => data.counts[k]) as kind, i (kind)}{i > 0 ? ', ' : ''}{data.counts[kind]}
          {data.counts[kind] === 1 ? KIND_LABEL[kind].one : KIND_LABEL[kind].many.toLowerCase()}{/each}{Object.keys(
          data.counts
        ).length > 0
          ? ' in the crate.'
          : ''}
      </p>
    </div>
    <Button href="{home}/pair" size="field">Pair a new build</Button>
  </div>

  {#if data.builds.length === 0}
    <div class="empty">
      <h2>The first evening</h2>
      <ol>
        {#each have as { kind, n } (kind)}
          <li>
            {#if n > 0}{KIND_LABEL[kind].many}: {n} in the crate.{:else}<a href="{home}/crate/{kind}/new"
                >Add {aKind(kind)}</a
              >: what its box says is enough; the rest is filled in with typical values and marked as assumed.{/if}
          </li>
        {/each}
        <li><a href="{home}/pair">Pair them</a>: the verdict, the slowest link and the format follow at once.</li>
      </ol>
      <p class="quiet">Only looking? <a href="/c/fernhollow">The demo crate</a> is full.</p>
    </div>
  {/if}

  {#each groups as group (group.tone)}
    <section aria-labelledby="group-{group.tone}">
      <h2 id="group-{group.tone}">{group.heading}</h2>
      <ul>
        {#each group.builds as build (build.id)}
          <li>
            <BuildLane {build} />
            <div class="who">
              <a href="/b/{build.tag}/{build.next.station}">{build.name}</a>
              <span class="small quiet">{build.tag} · {STAGE_LABEL[build.stage]}</span>
            </div>
            <div class="what">
              <p>{build.next.text}</p>
              {#if build.stage !== 'retired'}<p class="small quiet">
                  {build.answers
                    .filter(({ about }) => ABOUT.includes(about))
                    .map(({ short }) => short)
                    .join(' · ')}
                </p>{/if}
            </div>
            <span class="state">
              {#if tooSlow(build)}<span class="slow"><StateMark mark="check" /> Too slow</span>{:else}<Verdict
                  verdict={build.verdict}
                />{/if}
            </span>
            <span class="act">
              {#if build.next.marks}{@const stage = build.next.marks}<Button
                  kind="tertiary"
                  size="small"
                  on:click={() => mark(build, stage)}>Mark {STAGE_LABEL[stage]}</Button
                >{/if}
            </span>
          </li>
        {/each}
      </ul>
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
  li {
    display: grid;
    grid-template-columns: 120px 13rem minmax(0, 1fr) 8.5rem 8.5rem;
    gap: 16px;
    align-items: center;
    min-height: 46px;
    padding: 4px 0;
    border-bottom: 1px solid var(--ash-line);
  }
  .empty li {
    display: list-item;
    min-height: 0;
    border: 0;
  }
  .slow {
    display: inline-flex;
    gap: 6px;
    align-items: center;
    font-weight: 600;
    color: var(--ash-caution);
    white-space: nowrap;
  }
  .who {
    display: grid;
    line-height: 1.35;
  }
  .who a {
    font-weight: 600;
  }
  .act {
    text-align: right;
  }
  @media (max-width: 900px) {
    li {
      grid-template-columns: 120px 1fr;
      padding: 8px 0;
    }
    .what {
      grid-column: 1 / -1;
    }
    .act {
      text-align: left;
    }
  }
</style>
