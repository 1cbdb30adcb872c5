<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { FILESYSTEMS, OS_LABEL } from '#core/facts/filesystems';
  import { ladderOf } from '#core/format/sheet';
  import { FormatStation } from '$lib/client/format-station.svelte';
  import AdvicePanel from '$lib/ui/format/AdvicePanel.svelte';
  import ChoicesForm from '$lib/ui/format/ChoicesForm.svelte';
  import FormatTabs from '$lib/ui/format/FormatTabs.svelte';
  import Ladder from '$lib/ui/format/Ladder.svelte';
  import Volumes from '$lib/ui/format/Volumes.svelte';
  import Piece from '$lib/ui/common/Piece.svelte';

  let { data } = $props();
  const tag = $derived(data.build.tag);
  const home = $derived(`/c/${data.crate.slug}`);
  const station = new FormatStation(() => ({ crateId: data.crate.id, build: data.build, whole: data.whole }));
  const parts = $derived(data.build.snapshot);
  const settled = $derived(station.settled);
  let observed = $state('');
  let observedBytes = $state<number | undefined>(undefined);
  const ladder = $derived(ladderOf(parts, settled, observedBytes));

  $effect(() => (station.begun ? station.open.start() : undefined));
</script>

<svelte:head><title>{tag} Format · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Format</h1>
      <p class="quiet">
        {parts.drive.name} in {parts.enclosure.name}: {FILESYSTEMS[settled.filesystem].label}, {settled.scheme.toUpperCase()},
        made on
        {OS_LABEL[settled.system.family]}{settled.system.version ? ` ${settled.system.version}` : ''}.
      </p>
    </div>
    <Button size="field" href="/b/{tag}/format/sheet"
      >{station.begun ? 'Go on with the sheet' : 'To the format sheet'}</Button
    >
  </div>
  <FormatTabs {tag} here="advice" sheet={data.sheets.length > 1 ? data.whole?.stored.id : undefined} />
  <div class="columns">
    <Piece
      ><AdvicePanel
        advice={data.build.report.filesystem}
        chosen={settled.filesystem}
        rulesHref="{home}/house-rules"
        matrixHref="{home}/filesystems"
        jobHref={parts.job?.id ? `${home}/jobs/${parts.job.id}` : undefined}
        onchoose={(filesystem) => void station.choose({ filesystem })}
      /></Piece
    >
    <Piece
      ><ChoicesForm
        {settled}
        media={parts.drive.media}
        problems={station.problems}
        onchange={(choices) => void station.choose(choices)}
      /></Piece
    >
  </div>
  <Piece
    ><Ladder
      {ladder}
      {observed}
      onobserve={(text, bytes) => {
        observed = text;
        observedBytes = bytes;
      }}
    /></Piece
  >
  <Piece
    ><Volumes
      volumes={settled.volumes}
      shared={settled.shared}
      diskGB={parts.drive.capacityTB * 1000}
      scheme={settled.scheme}
      system={settled.system.family}
      filesystem={settled.filesystem}
      name={settled.name}
      onchange={(volumes, shared) => void station.choose({ volumes, shared })}
    /></Piece
  >
</div>

<style>
  .columns {
    display: grid;
    grid-template-columns: minmax(0, 6fr) minmax(0, 6fr);
    gap: 18px 32px;
    align-items: start;
    margin-bottom: 18px;
  }
  @media (max-width: 1000px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
