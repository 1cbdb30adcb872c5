<script lang="ts">
  import { duration, figure, quantity } from '#core/quantities/format';
  import Wide from '../common/Wide.svelte';
  import { numberedEvents, type Run } from './heat-chart';

  /** What happens in the runs, by the numbers on their chart. */
  let { runs }: { runs: readonly Run[] } = $props();
  const events = $derived(numberedEvents(runs));
  const quiet = $derived(runs.filter(({ name }) => !events.some(({ run }) => run === name)));
  const first = $derived(runs[0]?.report.summary);
</script>

<Wide label="Events">
  <table class="plain-table">
    <thead
      ><tr
        ><th scope="col" class="number">No.</th><th scope="col" class="number">After</th><th scope="col">Event</th><th
          scope="col">Set-up</th
        ></tr
      ></thead
    >
    <tbody>
      {#each events as event (event.number)}
        <tr
          ><td class="number figure">{event.number}</td><td class="number figure">{duration(event.t)}</td><td
            >{event.words}</td
          ><td>{event.run}</td></tr
        >
      {/each}
      {#each quiet as { name } (name)}
        <tr><td class="number">–</td><td class="number">–</td><td>nothing: one rate all the time</td><td>{name}</td></tr
        >
      {/each}
    </tbody>
  </table>
</Wide>
{#if first}
  <p class="small quiet">
    Of what was drawn, {quantity(first.heatJ / 1000, 'kJ')}, {figure(
      (100 * first.storedJ) / Math.max(1, first.heatJ)
    )}&#8239;% is still in chips and case at the end.
  </p>
{/if}
