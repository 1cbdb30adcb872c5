<script lang="ts">
  import { protocolsFor } from '#core/protocols/protocols';
  import { testedBuild } from '#core/protocols/tested';
  import { MeasureRun } from '$lib/client/measure-run.svelte';
  import MeasurePlan from '$lib/ui/measure/MeasurePlan.svelte';

  let { data } = $props();
  const { tag } = $derived(data.build);
  const home = $derived(`/c/${data.crate.slug}`);
  const subject = $derived(testedBuild(data.build.snapshot, data.build.report));
  const protocols = $derived(protocolsFor('build', data.build.snapshot.drive.media));
  const protocol = $derived(protocols.find(({ id }) => id === data.protocol));
  const measuring = new MeasureRun(() => ({
    crateId: data.crate.id,
    home,
    subject: { buildId: data.build.id },
    build: data.build
  }));
  const noRig = $derived(
    data.build.report.throughput.read === null
      ? 'The forecast of this build is that it does not run: there is nothing that the rig could play.'
      : protocol?.id === 'baseline' && !data.build.snapshot.host.internalDisk
        ? `The rig knows nothing of the internal disk of ${data.build.snapshot.host.name}. Enter its rates with the computer first.`
        : undefined
  );
</script>

<svelte:head><title>{tag} {protocol?.label ?? 'Measure'} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <p class="small"><a href="/b/{tag}/measure">Measure</a></p>
      <h1>{protocol?.label ?? 'Choose what to measure'}</h1>
      <p class="quiet">{protocol ? protocol.answers : 'This way of measuring is not for this drive.'}</p>
    </div>
  </div>
  {#if protocol}
    {#key protocol.id}
      <MeasurePlan
        {protocol}
        {subject}
        others={data.others}
        known={data.known}
        day={data.today}
        {noRig}
        refused={measuring.refused}
        busy={measuring.busy}
        draftKey="measure:{data.build.id}:{protocol.id}"
        onkeep={(run, picture) => measuring.keep(run, undefined, picture)}
        onrig={(asked) => void measuring.rig(data.build.id, protocol.id, asked)}
      />
    {/key}
  {:else}
    <ul>
      {#each protocols as one (one.id)}<li><a href="?protocol={one.id}">{one.label}</a>: {one.answers}</li>{/each}
    </ul>
  {/if}
</div>
