<script lang="ts">
  import { duration, money, rate } from '#core/quantities/format';
  import type { AlternativePoint } from '#core/compare/ranking/request';
  import Wide from '../common/Wide.svelte';

  /** What can be bought complete, beside the combinations. */
  let { ways, home, currency }: { ways: readonly AlternativePoint[]; home: string; currency: string } = $props();
  /** So many are enough to begin with. */
  const FIRST = 25;
  let all = $state(false);
  const shown = $derived(all ? ways : ways.slice(0, FIRST));
</script>

{#if ways.length === 0}
  <p class="quiet">
    The crate knows no ready-made drives. <a href="{home}/crate/alternative/new">Add one</a>: a larger internal disk, a
    ready-made drive, a stick, a card.
  </p>
{:else}
  <p class="quiet small">
    As their makers state them: no forecast of a cache, so a long job may take longer. A larger internal disk counts
    what it adds.
  </p>
  <Wide label="Ready-made">
    <table class="plain-table">
      <thead
        ><tr
          ><th scope="col">Way</th><th scope="col" class="number">Adds</th><th scope="col" class="number">Write</th><th
            scope="col"
            class="number">Read</th
          ><th scope="col" class="number">Job</th><th scope="col" class="number">Price</th><th
            scope="col"
            class="number">Per TB</th
          ><th scope="col">Room for the job</th></tr
        ></thead
      >
      <tbody>
        {#each shown as way (way.id)}
          <tr>
            <td><a href="{home}/crate/alternative/{way.id}">{way.name}</a></td>
            <td class="number figure">{way.gainedTB}<span class="unit">TB</span></td>
            <td class="number figure">{way.write === null ? '?' : rate(way.write)}<span class="unit">MB/s</span></td>
            <td class="number figure">{way.read === null ? '?' : rate(way.read)}<span class="unit">MB/s</span></td>
            <td class="number figure">{way.seconds === null ? '?' : duration(way.seconds)}</td>
            <td class="number figure">{way.cost === null ? '?' : money(way.cost, currency)}</td>
            <td class="number figure">{way.perTB === null ? '?' : money(way.perTB, currency)}</td>
            <td>{way.fits ? 'yes' : 'no'}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
  {#if shown.length < ways.length}<button type="button" class="link no-print" onclick={() => (all = true)}
      >Show all {ways.length}</button
    >{/if}
{/if}
