<script lang="ts">
  import type { TroubleReport } from '#core/diagnosis/trouble';

  /** What it could be, as far as was looked. */
  let { causes }: { causes: TroubleReport['causes'] } = $props();
</script>

<section class="sofar">
  <h2>What it could be so far</h2>
  <ul>
    {#each causes as cause (cause.cause)}
      <li>
        <span class="figure">{Math.round(cause.confidence * 100)} %</span>
        <span class="track" aria-hidden="true"><span style:width="{cause.confidence * 100}%"></span></span>
        <span>{cause.says}</span>
      </li>
    {/each}
  </ul>
  <p class="small quiet">
    Shares among the causes that a build like this can have; estimates, and each answer moves them.
  </p>
</section>

<style>
  ul {
    padding: 0;
    margin: 6px 0 10px;
    list-style: none;
  }
  li {
    display: grid;
    grid-template-columns: 3.2rem 6rem minmax(0, 1fr);
    gap: 10px;
    align-items: start;
    padding: 6px 0;
    border-bottom: 1px solid var(--ash-line);
  }
  .track {
    height: 10px;
    margin-top: 5px;
    background: var(--ash-channel);
  }
  .track span {
    display: block;
    height: 100%;
    background: var(--ash-band);
  }
</style>
