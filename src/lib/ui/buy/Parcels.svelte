<script lang="ts">
  import type { Parcel } from '#core/cost/shopping';
  import { money } from '#core/quantities/format';
  import Wide from '../common/Wide.svelte';

  /** What comes from which vendor, and what it costs delivered. */
  let { label, split, currency }: { label: string; split: { parcels: Parcel[]; total: number }; currency: string } =
    $props();
</script>

<Wide {label}
  ><table class="plain-table">
    <thead
      ><tr
        ><th>Vendor</th><th>Parts</th><th class="number">Goods with tax</th><th class="number">Shipping</th><th
          class="number">Together</th
        ></tr
      ></thead
    >
    <tbody>
      {#each split.parcels as parcel (parcel.vendor)}
        <tr>
          <td>{parcel.vendor}</td><td>{parcel.names.join(', ')}</td>
          <td class="number figure">{money(parcel.goods, currency)}</td>
          <td class="number figure">{money(parcel.shipping, currency)}</td>
          <td class="number figure">{money(parcel.total, currency)}</td>
        </tr>
      {/each}
      <tr
        ><td colspan="4"><strong>Delivered in all</strong></td><td class="number figure"
          ><strong>{money(split.total, currency)}</strong></td
        ></tr
      >
    </tbody>
  </table></Wide
>
