<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { SYMPTOM_WORDS, type Symptom } from '#core/diagnosis/question';
  import type { TroubleReport } from '#core/diagnosis/trouble';
  import { minuteWords } from './path';

  type Props = {
    report: TroubleReport;
    symptom: Symptom;
    sheetHref: string;
    busy: boolean;
    /** What can be noted besides: a known combination of drive and bridge, or a note on an item. */
    pair: string | undefined;
    item: string | undefined;
    onrecord: () => void;
    onpair: () => void;
    onitem: () => void;
  };
  /** Where a search ended: the cause with its remedy, or what would tell. */
  let { report, symptom, sheetHref, busy, pair, item, onrecord, onpair, onitem }: Props = $props();
  const [first] = $derived(report.causes);
  const percent = (share: number) => (share > 0.99 ? 'More than 99 %' : `${Math.round(share * 100)} %`);
</script>

<section class="found" role="status">
  {#if report.end === 'cause' && first}
    <h2>{first.says}</h2>
    {#if first.evidence.length > 0}
      <p class="small quiet">What speaks for it: {first.evidence.join('; ')}.</p>
    {/if}
    <p class="remedy"><strong>What to do:</strong> {first.remedy}</p>
    <p class="small quiet">
      {percent(first.confidence)} sure, among the causes of “it {SYMPTOM_WORDS[symptom]}”. The shares behind it are
      estimates.
    </p>
  {:else}
    <h2>This cannot be told with what you have.</h2>
    {#if report.causes.length > 0}
      <p>Still possible:</p>
      <ul>
        {#each report.causes as cause (cause.cause)}
          <li>
            {cause.says}
            <span class="quiet small">{percent(cause.confidence)}</span><br /><span class="small">{cause.remedy}</span>
          </li>
        {/each}
      </ul>
    {/if}
    {#if report.wouldTell.length > 0}
      <p>What would tell:</p>
      <ul>
        {#each report.wouldTell as way (way.text)}
          <li>
            {way.text}
            <span class="quiet small"
              >{minuteWords(way.minutes)}{way.tools.length > 0 ? `, with ${way.tools.join(' and ')}` : ''}</span
            >
          </li>
        {/each}
      </ul>
    {:else}
      <p>
        Nothing that this program knows would tell more. Give it to somebody with a second computer and a second
        enclosure.
      </p>
    {/if}
  {/if}
  <div class="acts no-print">
    {#if first?.backTo && report.end === 'cause'}
      <Button size="field" href="{sheetHref}?view=step&back={first.backTo}">Back to that step of the sheet</Button>
    {/if}
    <Button size="field" kind="tertiary" disabled={busy} on:click={onrecord}>Keep this in the log</Button>
    {#if first?.ofPair && pair}
      <Button size="field" kind="tertiary" disabled={busy} on:click={onpair}>Note {pair} as a bad combination</Button>
    {/if}
    {#if item && first}
      <Button size="field" kind="tertiary" disabled={busy} on:click={onitem}>Note it on {item}</Button>
    {/if}
  </div>
</section>

<style>
  .found {
    display: grid;
    gap: 8px;
    max-width: 46rem;
    padding: 16px 20px;
    border: 1px solid var(--ash-ink);
    background: var(--ash-sheet);
  }
  h2 {
    font-size: 18px;
    line-height: 1.35;
  }
  li {
    margin: 6px 0 6px 1.2em;
    list-style: disc;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    margin-top: 6px;
  }
</style>
