<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import type { Diagnosis } from '#core/diagnosis/diagnose';

  type Props = {
    diagnosis: Diagnosis;
    tag: string;
    /** Drive and bridge by their names, where the bridge is known. */
    pair: string | undefined;
    /** Tag of the item that the cause lies with. */
    item: string | undefined;
    busy: boolean;
    onpair: (verdict: 'good' | 'bad') => void;
    onitem: () => void;
  };
  /** What is offered once a cause is proven: the step to go back to, a known combination, a note on the item. */
  let { diagnosis, tag, pair, item, busy, onpair, onitem }: Props = $props();
  const [first] = $derived(diagnosis.causes);
  const proven = $derived(diagnosis.state === 'proven');
</script>

{#if proven && first}
  {#if first.cause !== 'healthy'}<p class="remedy"><strong>What to do:</strong> {first.remedy}</p>{/if}
  <div class="acts no-print">
    {#if first.backTo}<Button size="field" kind="tertiary" href="/b/{tag}/assemble?view=step&back={first.backTo}"
        >Back to that step of the sheet</Button
      >{/if}
    {#if pair && first.cause === 'healthy'}<Button
        size="field"
        kind="tertiary"
        disabled={busy}
        on:click={() => onpair('good')}>Note {pair} as a combination that works</Button
      >{/if}
    {#if pair && first.ofPair}<Button size="field" kind="tertiary" disabled={busy} on:click={() => onpair('bad')}
        >Note {pair} as a bad combination</Button
      >{/if}
    {#if item && first.cause !== 'healthy' && first.cause !== 'slc-cliff'}<Button
        size="field"
        kind="tertiary"
        disabled={busy}
        on:click={onitem}>Note it on {item}</Button
      >{/if}
  </div>
{:else if diagnosis.state === 'cannot-tell' && diagnosis.known.length > 0}
  <p class="remedy">
    <strong>It cannot be told with what you have.</strong> Nothing that this program knows would tell more; give it to somebody
    with a second computer and a second enclosure, or measure it again with temperatures.
  </p>
{/if}

<style>
  .remedy {
    max-width: 60rem;
    margin: 8px 0;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin: 8px 0;
  }
</style>
