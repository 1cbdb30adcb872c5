<script lang="ts">
  import { planQueue } from '#core/protocols/queue';
  import { duration } from '#core/quantities/format';

  type Queueable = { id: string; name: string; soakS: number; checkS: number; coolS: number };
  /** Several builds in one evening: one cools while another runs. */
  let { builds, hrefOf }: { builds: readonly Queueable[]; hrefOf: (id: string) => string } = $props();
  let chosen = $state<string[]>([]);
  let what = $state<'soak' | 'check'>('soak');
  let times = $state(3);
  const plan = $derived(
    planQueue(
      builds
        .filter(({ id }) => chosen.includes(id))
        .map(({ id, name, soakS, checkS, coolS }) => ({
          id,
          name,
          runS: what === 'soak' ? soakS : checkS,
          // A speed check warms it a little only.
          coolS: what === 'soak' ? coolS : Math.round(coolS / 4),
          times
        }))
    )
  );
  const toggle = (id: string, on: boolean) => (chosen = on ? [...chosen, id] : chosen.filter((one) => one !== id));
</script>

<h2>Several in one evening</h2>
{#if builds.length === 0}<p class="quiet">No build that runs yet.</p>
{:else}
  <p class="small quiet">Choose what is on the desk: one cools while another runs.</p>
  <fieldset>
    <legend class="small">Builds</legend>
    {#each builds as build (build.id)}
      <label
        ><input
          type="checkbox"
          checked={chosen.includes(build.id)}
          onchange={(e) => toggle(build.id, e.currentTarget.checked)}
        />
        {build.name}</label
      >
    {/each}
  </fieldset>
  <p class="set">
    <label>Each <input type="number" min="1" max="20" bind:value={times} aria-label="Times each" /> times</label>
    <label><input type="radio" bind:group={what} value="soak" /> a soak</label>
    <label><input type="radio" bind:group={what} value="check" /> a speed check</label>
  </p>
  {#if plan.slots.length > 0}
    <p role="status">
      <strong>{duration(plan.totalS)}</strong> in all; one build after the other would take {duration(plan.oneByOneS)}.
    </p>
    <ol>
      {#each plan.slots as slot, i (i)}
        <li>
          after {duration(slot.fromS)}{slot.waitedS > 0 ? ` (wait ${duration(slot.waitedS)} until it is cool)` : ''}:
          <a href={hrefOf(slot.id)}>{slot.name}</a>, {slot.turn} of {times},
          {duration(slot.toS - slot.fromS)}
        </li>
      {/each}
    </ol>
  {/if}
{/if}

<style>
  h2 {
    margin-bottom: 6px;
  }
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
    max-height: 11rem;
    margin: 6px 0;
    padding: 0;
    border: 0;
    overflow-y: auto;
  }
  .set {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 20px;
    margin: 8px 0;
  }
  label {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    min-height: 24px;
  }
  input {
    accent-color: var(--ash-ember);
  }
  input[type='number'] {
    width: 4.5em;
    padding: 4px 6px;
    border: 1px solid var(--ash-edge);
    background: var(--ash-sheet);
    color: inherit;
    font: inherit;
  }
  ol {
    max-height: 18rem;
    padding-left: 26px;
    list-style: decimal;
    overflow-y: auto;
  }
</style>
