<script lang="ts">
  import type { Suspect } from '#core/diagnosis/suspects';

  /** Parts that are suspect across builds, by their names. */
  let { suspects, names }: { suspects: readonly Suspect[]; names: Record<string, string> } = $props();
  const WORD = { drive: 'Drive', enclosure: 'Enclosure', cable: 'Cable', port: 'Port', host: 'Computer' } as const;
</script>

{#if suspects.length > 0}
  <section class="suspects" aria-labelledby="suspects-head">
    <h2 id="suspects-head">Suspect across builds</h2>
    <ul>
      {#each suspects as suspect (`${suspect.part} ${suspect.id}`)}
        <li>
          <strong>{WORD[suspect.part]} {names[suspect.id] ?? suspect.id}</strong>: {suspect.because}
          <span class="quiet small">{Math.round(suspect.share * 100)} % that this part is the culprit.</span>
        </li>
      {/each}
    </ul>
    {#if suspects.length > 1}<p class="small quiet">
        Parts that were always used together cannot be told apart by this; use one of them without the others once.
      </p>{/if}
  </section>
{/if}

<style>
  .suspects {
    max-width: 60rem;
    margin: 10px 0;
    padding: 6px 14px 10px;
    border-left: 4px solid var(--ash-caution);
    background: var(--ash-well);
  }
  ul {
    padding-left: 18px;
    list-style: disc;
  }
</style>
