<script lang="ts">
  import { figure } from '#core/quantities/format';
  import Figure from '../common/Figure.svelte';
  import StateMark from '../common/StateMark.svelte';
  import type { PadStation } from './station.svelte';

  /** What the plan says of these pads: what is wrong with them, or that all is well, and how warm it gets. */
  let { station, tag }: { station: PadStation; tag: string } = $props();
  const { findings, input, laid, report } = $derived(station);
  const load = $derived(
    report.thermal?.load.work === 'idle' ? 'rest' : input.job ? `“${input.job.name}”` : 'writing without end'
  );
</script>

{#if findings.length > 0}
  <ul class="findings">
    {#each findings as finding (finding.code + finding.message)}
      <li class={finding.severity}>
        <StateMark mark={finding.severity === 'fail' ? 'fail' : 'check'} size={14} />
        <span>{finding.message} {finding.remedy ?? ''}</span>
      </li>
    {/each}
  </ul>
{/if}
{#if laid.rows.length > 0 && laid.findings.length === 0}
  <p class="all-good"><StateMark mark="pass" size={14} /> Every chip has contact, and the board stays flat.</p>
{/if}
{#if report.thermal}
  <p class="temperatures">
    After a long time of {load}: case <Figure value={figure(report.thermal.steadyCaseC.typical)} unit="°C" />,
    controller
    <Figure value={figure(report.thermal.steadyControllerC.typical)} unit="°C" />.
    <a href="/b/{tag}/pads/heat">Over time</a>
  </p>
{/if}

<style>
  .check,
  .limit {
    color: var(--ash-caution);
  }
  .fail {
    color: var(--ash-fail);
  }
  .findings {
    margin: 0 0 10px;
    padding: 0;
    list-style: none;
  }
  .findings li {
    display: flex;
    gap: 8px;
    padding: 4px 0;
  }
  .findings span {
    color: var(--ash-ink);
  }
  .all-good {
    display: flex;
    align-items: center;
    gap: 8px;
    margin-bottom: 10px;
    color: var(--ash-pass);
    font-weight: 600;
  }
  .temperatures {
    margin-bottom: 12px;
    padding: 6px 10px;
    background: var(--ash-well);
  }
</style>
