<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import type { Asked, PlanAnswer } from '#core/answers/answers';
  import type { NextStep } from '#core/build/next-step';
  import { STAGE_LABEL, type BuildStage } from '#core/build/stages';
  import type { Verdict as VerdictOf } from '#core/findings/finding';
  import type { PlanReport } from '#core/plan/report';
  import type { Comparison } from '#core/results/compare';
  import BuildLane from '../common/BuildLane.svelte';
  import Piece from '../common/Piece.svelte';
  import StateMark from '../common/StateMark.svelte';
  import Verdict from '../common/Verdict.svelte';

  type Build = {
    tag: string;
    name: string;
    stage: BuildStage;
    verdict: VerdictOf;
    next: NextStep;
    answers: readonly PlanAnswer[];
    stages: PlanReport['link']['stages'];
    bottleneck: PlanReport['link']['bottleneck'];
    write: PlanReport['throughput']['write'];
    ifItFitted: boolean;
    latest: { comparisons: Comparison[]; date: string; simulated: boolean } | undefined;
  };
  /** One build with its next step, and under it what the ticket says, in a few words. */
  let { build, onmark }: { build: Build; onmark: (stage: BuildStage) => void } = $props();
  const ABOUT: readonly Asked[] = ['job', 'filesystem', 'heat', 'price'];
  const said = $derived(
    build.answers
      .filter(({ about }) => ABOUT.includes(about))
      .map(({ short }) => short)
      .join(' · ')
  );
  /** A build that measured below its forecast does not simply work, whatever its plan says. */
  const tooSlow = $derived(
    build.verdict !== 'fails' && build.latest?.comparisons.some(({ place }) => place === 'below') === true
  );
</script>

<li>
  <Piece>
    <BuildLane {build} />
    <div class="who">
      <a href="/b/{build.tag}/{build.next.station}">{build.name}</a>
      <span class="small quiet">{build.tag} · {STAGE_LABEL[build.stage]}</span>
    </div>
    <div class="what">
      <p>{build.next.text}</p>
      {#if build.stage !== 'retired'}<p class="small quiet">{said}</p>{/if}
    </div>
    <span>
      {#if tooSlow}<span class="slow"><StateMark mark="check" /> Too slow</span>{:else}<Verdict
          verdict={build.verdict}
        />{/if}
    </span>
    <span class="act">
      {#if build.next.marks}{@const stage = build.next.marks}<Button
          kind="tertiary"
          size="small"
          on:click={() => onmark(stage)}>Mark {STAGE_LABEL[stage]}</Button
        >{/if}
    </span>
  </Piece>
</li>

<style>
  li {
    display: grid;
    grid-template-columns: 120px 13rem minmax(0, 1fr) 8.5rem 8.5rem;
    gap: 16px;
    align-items: center;
    min-height: 46px;
    padding: 4px 0;
    border-bottom: 1px solid var(--ash-line);
  }
  .who {
    display: grid;
    line-height: 1.35;
  }
  .who a {
    font-weight: 600;
  }
  .slow {
    display: inline-flex;
    gap: 6px;
    align-items: center;
    font-weight: 600;
    color: var(--ash-caution);
    white-space: nowrap;
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
