<script lang="ts">
  import { day, rate } from '#core/quantities/format';
  import { checkRatio } from '#core/results/copy-gates';
  import { differingConditions } from '#core/results/like-for-like';
  import { ratioOf } from '#core/results/repeats';
  import type { Conditions } from '#core/results/conditions';
  import type { ProtocolId } from '#core/results/protocol-ids';
  import type { PairResults } from '#core/results/run';
  import { REPEAT_SPREAD } from '#core/protocols/planner';
  import { protocolOf } from '#core/protocols/protocols';

  type Run = {
    id: string;
    protocol: ProtocolId;
    date: string;
    simulated: boolean;
    results: PairResults;
    conditions: Conditions;
    chain: { host: string; port: string; cable?: string | undefined; enclosure: string; drive: string; os: string };
    rig: { state: string } | null;
  };
  /** A run beside another of the same: by how much, whether that is more than its error, and what else differs. */
  let { run, others }: { run: Run; others: readonly Run[] } = $props();
  const comparable = $derived(others.filter(({ rig }) => rig?.state !== 'running'));
  let against = $state('');
  /** What somebody was told of the two: a number of times, or a percentage. */
  let claimed = $state('');
  const claim = $derived.by(() => {
    const text = claimed.trim().replace(',', '.');
    const value = Number.parseFloat(text);
    if (text === '' || !Number.isFinite(value)) return undefined;
    return text.endsWith('%') ? { percent: value } : { times: value };
  });
  const other = $derived(comparable.find(({ id }) => id === against));
  const differs = $derived(other ? differingConditions(run, other) : []);
  const FIELDS = [
    ['writeMBps', 'Write'],
    ['readMBps', 'Read'],
    ['sustainedWriteMBps', 'Write after the cache'],
    ['copyInMBps', 'Copy to the drive'],
    ['copyOutMBps', 'Copy from the drive']
  ] as const;
</script>

{#if comparable.length > 0}
  <h2>Compare</h2>
  <label class="small"
    >With <select bind:value={against} aria-label="Compare with">
      <option value="">choose another result of the same</option>
      {#each comparable as one (one.id)}<option value={one.id}
          >{protocolOf(one.protocol).label} of {day(one.date)}{one.simulated ? ', simulated' : ''}</option
        >{/each}
    </select></label
  >
  {#if other}
    <ul>
      {#each FIELDS as [field, label] (field)}
        {@const [a, b] = [run.results[field], other.results[field]]}
        {#if a !== undefined && b !== undefined}<li>
            {label}: {rate(a)} against {rate(b)} MB/s. {ratioOf(
              { value: a, error: REPEAT_SPREAD },
              { value: b, error: REPEAT_SPREAD },
              `that of ${day(other.date)}`
            ).says}
          </li>{/if}
      {/each}
    </ul>
    <label class="small"
      >You were told <input
        type="text"
        size="8"
        placeholder="2, or 80 %"
        bind:value={claimed}
        aria-label="Claimed ratio, times or percent"
      /></label
    >
    {#if claim}
      <ul aria-live="polite">
        {#each FIELDS as [field, label] (field)}
          {@const [a, b] = [run.results[field], other.results[field]]}
          {#if a !== undefined && b !== undefined}<li>
              {label}: {checkRatio({ one: a, other: b, ...claim }) ?? 'that follows from the two figures.'}
            </li>{/if}
        {/each}
      </ul>
    {/if}
    {#if differs.length > 1}<p class="note">Not like for like: {differs.join(', ')} differ.</p>
    {:else if differs.length === 1}<p class="small">One thing differs: {differs[0]}.</p>
    {:else}<p class="small">Nothing that was written down differs.</p>{/if}
  {/if}
{/if}

<style>
  h2 {
    margin: 10px 0 6px;
  }
  .note {
    margin: 8px 0;
    padding: 6px 12px;
    border-left: 4px solid var(--ash-note);
    background: var(--ash-well);
  }
  input,
  select {
    padding: 4px 6px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
    color: inherit;
    font: inherit;
  }
  select {
    max-width: 100%;
    min-height: 32px;
  }
</style>
