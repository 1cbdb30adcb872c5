<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { leadsOf } from '#core/assembly/leads';
  import LeadsCard from '$lib/ui/assemble/LeadsCard.svelte';

  let { data } = $props();
  const { tag } = $derived(data.build);
  const parts = $derived(data.build.snapshot);
  const leads = $derived(leadsOf(parts, data.build.report));
</script>

<svelte:head><title>{tag} Plug and unplug · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head no-print">
    <div class="grow">
      <h1>Plug and unplug</h1>
      <p class="quiet">The order for this build, as a card to lay beside it.</p>
    </div>
    <Button size="field" kind="tertiary" href="/b/{tag}/assemble">Back to the sheet</Button>
    <Button size="field" on:click={() => window.print()}>Print the card</Button>
  </div>
  <LeadsCard
    {leads}
    title="{tag} {data.build.name}"
    parts="{parts.drive.name} in {parts.enclosure.name}, at {parts.host.name}"
  />
</div>
