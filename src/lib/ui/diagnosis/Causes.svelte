<script lang="ts">
  import type { Diagnosis } from '#core/diagnosis/diagnose';
  import { CAUSE_NAMES } from '#core/diagnosis/names';

  /** What it can be, as bars with what speaks for and against each. */
  let { diagnosis, simulated }: { diagnosis: Diagnosis; simulated: boolean } = $props();
  /** Nothing is ever known for certain by this. */
  const percent = (share: number) => (share > 0.99 ? '> 99 %' : `${Math.round(share * 100)} %`);
  const name = (cause: Diagnosis['causes'][number]['cause']) => CAUSE_NAMES[cause] ?? cause;
  const ruledOut = $derived(diagnosis.ruledOut.map(name).slice(0, 12));
</script>

<section aria-labelledby="causes-head">
  <h2 id="causes-head">What it can be</h2>
  <ul class="causes">
    {#each diagnosis.causes as cause, i (cause.cause)}
      <li>
        <details open={i === 0}>
          <summary>
            <span class="share figure">{percent(cause.confidence)}</span>
            <span class="track" aria-hidden="true"><span style:width="{cause.confidence * 100}%"></span></span>
            <span class="name">{name(cause.cause)}</span>
          </summary>
          <div class="working">
            <p>{cause.says}</p>
            {#if cause.evidence.length > 0}
              <p class="small"><strong>For it:</strong></p>
              <ul class="small">
                {#each cause.evidence as text (text)}<li>{text}</li>{/each}
              </ul>
            {/if}
            {#if cause.evidenceAgainst.length > 0}
              <p class="small"><strong>Against it:</strong></p>
              <ul class="small">
                {#each cause.evidenceAgainst as text (text)}<li>{text}</li>{/each}
              </ul>
            {/if}
            {#if cause.evidence.length + cause.evidenceAgainst.length === 0}
              <p class="small quiet">Nothing that was measured speaks for it or against it.</p>
            {/if}
            {#if cause.cause !== 'healthy' && !(i === 0 && diagnosis.state === 'proven')}<p class="small">
                <strong>What helps:</strong>
                {cause.remedy}
              </p>{/if}
          </div>
        </details>
      </li>
    {/each}
  </ul>
  {#if diagnosis.contradictions.length > 0}
    <div class="against" role="note">
      <p><strong>This does not go together</strong> with the likeliest cause; look whether it was read off right:</p>
      <ul>
        {#each diagnosis.contradictions as text (text)}<li>{text}</li>{/each}
      </ul>
    </div>
  {/if}
  <p class="small quiet">
    Shares among the causes that a build like this can have, from estimates of how often each is seen.{simulated
      ? ' The run is a simulated one.'
      : ''}
    {#if ruledOut.length > 0}Ruled out, less than one in a hundred: {ruledOut.join(', ')}.{/if}
  </p>
</section>

<style>
  .causes {
    max-width: 60rem;
    margin: 6px 0 10px;
    padding: 0;
    list-style: none;
  }
  .causes > li {
    border-bottom: 1px solid var(--ash-line);
  }
  summary {
    display: grid;
    grid-template-columns: 4rem 8rem minmax(0, 1fr);
    gap: 10px;
    align-items: center;
    min-height: 40px;
    cursor: pointer;
  }
  summary::-webkit-details-marker {
    display: none;
  }
  .track {
    height: 12px;
    background: var(--ash-channel);
  }
  .track span {
    display: block;
    height: 100%;
    background: var(--ash-band);
  }
  .name::first-letter {
    text-transform: uppercase;
  }
  .working {
    padding: 2px 0 10px 4.2rem;
  }
  .working ul {
    margin: 2px 0 6px;
    padding-left: 18px;
    list-style: disc;
  }
  .against {
    max-width: 60rem;
    margin: 8px 0;
    padding: 6px 12px;
    border-left: 4px solid var(--ash-caution);
    background: var(--ash-well);
  }
  .against ul {
    padding-left: 18px;
    list-style: disc;
  }
  @media (max-width: 600px) {
    summary {
      grid-template-columns: 3rem 4rem minmax(0, 1fr);
    }
    .working {
      padding-left: 0;
    }
  }
</style>
