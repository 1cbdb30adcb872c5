<script lang="ts">
  import type { Brief } from '#core/protocols/brief';
  import { coolDown, planForAccuracy } from '#core/protocols/planner';
  import type { Protocol } from '#core/protocols/protocols';
  import type { TestedSubject } from '#core/protocols/tested';
  import { counted, duration, figure, quantity } from '#core/quantities/format';
  import { bytesWords, takesWords } from './words';

  type Props = {
    protocol: Protocol;
    brief: Brief;
    subject: TestedSubject;
    onset: (change: { GB: number; rounds: number }) => void;
  };
  /** What a protocol costs, needs, and can be spoilt by; and how large and how often for a wanted accuracy. */
  let { protocol, brief, subject, onset }: Props = $props();
  let within = $state(5);
  const planned = $derived(
    protocol.asks.GB && protocol.asks.rounds ? planForAccuracy(within / 100, protocol.byHand, subject) : null
  );
  const cool = $derived(coolDown(subject));
  const serious = $derived(brief.spoilers.filter((one) => one.serious));
  const others = $derived(brief.spoilers.filter((one) => !one.serious));
</script>

<dl class="costs">
  <div>
    <dt>Takes</dt>
    <dd>{takesWords(brief.seconds)}</dd>
  </div>
  <div>
    <dt>Writes</dt>
    <dd>{bytesWords(brief.writesGB)}</dd>
  </div>
  <div>
    <dt>Reads</dt>
    <dd>{bytesWords(brief.readsGB)}</dd>
  </div>
  <div>
    <dt>Of the rated endurance</dt>
    <dd>{brief.wearPercent === null ? 'the drive states none' : `${figure(brief.wearPercent)} %`}</dd>
  </div>
  <div>
    <dt>Free on the drive</dt>
    <dd>{quantity(brief.needsGB.drive, 'GB')}</dd>
  </div>
  {#if brief.needsGB.other > 0}<div>
      <dt>Free at the other end</dt>
      <dd>{quantity(brief.needsGB.other, 'GB')}</dd>
    </div>{/if}
  {#if cool && cool.seconds > 0}<div>
      <dt>Rest before the next one</dt>
      <dd>{duration(cool.seconds)}, until the case is at {figure(cool.toC)} °C</dd>
    </div>{/if}
</dl>

{#if serious.length > 0}
  <ul class="serious" aria-label="Must be put right first">
    {#each serious as { code, text } (code)}<li><strong>First:</strong> {text}</li>{/each}
  </ul>
{/if}
<h3>What would spoil it</h3>
<ul class="spoilers">
  {#each others as { code, text } (code)}<li>{text}</li>{/each}
</ul>

{#if planned}
  <details>
    <summary>How large and how often, for a wanted accuracy</summary>
    <p>
      <label
        >Within <input type="range" min="1" max="20" bind:value={within} aria-label="Wanted accuracy, percent" />
        ±{within} %</label
      >:
      {quantity(planned.GB, 'GB')}, {counted(planned.repeats, 'time')}.
      <button type="button" onclick={() => onset({ GB: planned.GB, rounds: planned.repeats })}>Take these</button>
    </p>
    <ul class="small quiet">
      {#each planned.because as because (because)}<li>{because}</li>{/each}
    </ul>
  </details>
{/if}
<details>
  <summary>Step by step, {counted(brief.phases.length, 'step')}</summary>
  <ol class="phases">
    {#each brief.phases as phase, i (i)}
      <li>
        {phase.label}{phase.GB ? `: ${quantity(phase.GB, 'GB')}` : ''}{phase.seconds && phase.work !== 'task'
          ? `: ${duration(phase.seconds)}`
          : ''}{phase.files ? `, ${counted(phase.files, 'file')}` : ''}
      </li>
    {/each}
  </ol>
</details>

<style>
  .costs {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 10rem), 1fr));
    gap: 10px 18px;
    margin: 10px 0 14px;
  }
  dt {
    color: var(--ash-soft);
    font-size: var(--ash-text-small);
  }
  dd {
    margin: 0;
    font-weight: 600;
  }
  .serious {
    margin: 0 0 12px;
    padding: 8px 12px;
    border-left: 4px solid var(--ash-fail);
    background: var(--ash-well);
    list-style: none;
  }
  h3 {
    margin: 6px 0 4px;
    font-size: inherit;
  }
  .spoilers {
    margin: 0 0 10px;
    padding-left: 18px;
    list-style: disc;
  }
  summary {
    padding: 6px 0;
    cursor: pointer;
  }
  input[type='range'] {
    vertical-align: middle;
    accent-color: var(--ash-ember);
  }
  button {
    padding: 2px 8px;
    border: 1px solid var(--ash-ember);
    background: none;
    color: var(--ash-ember);
    cursor: pointer;
  }
  .phases {
    max-height: 16rem;
    padding-left: 26px;
    overflow-y: auto;
    list-style: decimal;
  }
</style>
