<script lang="ts">
  import { protocolsFor } from '#core/protocols/protocols';
  import { MeasureRun } from '$lib/client/measure-run.svelte';
  import MeasurePlan from '$lib/ui/measure/MeasurePlan.svelte';
  import ProtocolList from '$lib/ui/measure/ProtocolList.svelte';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}`);
  const query = $derived(data.kind === 'host' ? `host=${data.id}` : `model=${data.id}`);
  const protocols = $derived(protocolsFor(data.kind === 'host' ? 'host' : 'model'));
  const protocol = $derived(
    protocols.find(({ id }) => id === data.protocol) ?? (protocols.length === 1 ? protocols[0] : undefined)
  );
  const measuring = new MeasureRun(() => ({
    crateId: data.crate.id,
    home,
    subject: data.kind === 'host' ? { hostId: data.id } : { modelId: data.id }
  }));
</script>

<svelte:head><title>Measure {data.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <p class="small"><a href="{home}/runs">All results</a></p>
      <h1>{data.name}</h1>
      <p class="quiet">{protocol?.answers ?? 'What do you want to know of it?'}</p>
    </div>
  </div>
  {#if protocol && data.subject}
    {#key protocol.id}
      <MeasurePlan
        {protocol}
        subject={data.subject}
        others={[]}
        known={data.known}
        day={data.day}
        noRig="The rig plays builds: pair this with a computer to rehearse it."
        refused={measuring.refused}
        busy={measuring.busy}
        draftKey="measure:{data.id}:{protocol.id}"
        onkeep={(run, picture) => measuring.keep(run, undefined, picture)}
        onrig={() => {}}
      />
    {/key}
  {:else if data.subject}
    <ProtocolList {protocols} subject={data.subject} hrefOf={(id) => `?${query}&protocol=${id}`} />
  {/if}
</div>
