<script lang="ts">
  import type { together } from '#core/compare/together/together';
  import { figure, quantity, rate } from '#core/quantities/format';
  import Wide from '../common/Wide.svelte';

  /** Controllers and hubs that several ports share, with what goes through them. */
  let { result, host, hostHref }: { result: ReturnType<typeof together>; host: string; hostHref: string } = $props();
</script>

<section>
  <h2>What they share</h2>
  {#if result.shared.length === 0}
    <p class="quiet">
      No port of {host} says that it shares a controller or hub. Where two share one, give both the same short name,
      <a href={hostHref}>on the page of the computer</a>.
    </p>
  {:else}
    <Wide label="What they share">
      <table class="plain-table">
        <thead
          ><tr
            ><th scope="col">Controller or hub</th><th scope="col" class="number">Carries</th><th
              scope="col"
              class="number">Written</th
            ><th scope="col" class="number">Read</th><th scope="col" class="number">Power</th></tr
          ></thead
        >
        <tbody>
          {#each result.shared as load (load.id)}
            {@const power = result.power.find((p) => p.label === load.label)}
            <tr>
              <td>{load.label}</td>
              <td class="number figure"
                >{rate(load.MBps)}<span class="unit">MB/s{load.assumed ? ', assumed' : ''}</span></td
              >
              <td class="number figure">{rate(load.write)}<span class="unit">MB/s</span></td>
              <td class="number figure">{rate(load.read)}<span class="unit">MB/s</span></td>
              <td class="number figure"
                >{#if power}{figure(power.steadyW)} – {figure(power.peakW)}<span class="unit"
                    >of {quantity(power.budgetW, 'W')}</span
                  >{:else}–{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </Wide>
  {/if}
  <p class="small quiet">
    Shared so that none gets more while one that has less gets less. Each direction of a link counts by itself; a copy
    from one build to another leaves the computer’s own disk out. Power: steady and at the peak.
  </p>
</section>

<style>
  h2 {
    margin-bottom: 4px;
  }
</style>
