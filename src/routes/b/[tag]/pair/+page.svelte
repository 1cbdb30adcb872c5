<script lang="ts">
  import { page } from '$app/state';
  import type { Choice } from '#core/build/choice';
  import { STAGE_LABEL } from '#core/build/stages';
  import { day } from '#core/quantities/format';
  import { queryOf } from '$lib/client/address';
  import { StoredPairing } from '$lib/client/stored-pairing.svelte';
  import { GrowingLibrary, partsOf as idsOf } from '$lib/client/growing-library.svelte';
  import { AroundChoice } from '$lib/client/what-if.svelte';
  import { choiceKey, compareHref } from '$lib/ui/compare/laid';
  import BuildActions from '$lib/ui/pair/BuildActions.svelte';
  import BuildConflict from '$lib/ui/pair/BuildConflict.svelte';
  import DeleteBuild from '$lib/ui/pair/DeleteBuild.svelte';
  import { measuredByPort } from '$lib/ui/pair/measured';
  import PairStation from '$lib/ui/pair/PairStation.svelte';
  import PartsChanged from '$lib/ui/pair/PartsChanged.svelte';
  import { newestFigures } from '#core/results/newest';
  import { choiceFromQuery } from '$lib/ui/pair/slots';
  import Piece from '$lib/ui/common/Piece.svelte';

  let { data } = $props();
  const home = $derived(`/c/${data.crate.slug}`);
  const growing = new GrowingLibrary(() => ({ crateId: data.crate.id, library: data.library, totals: data.totals }));
  const { library } = $derived(growing);
  const pairing = new StoredPairing(
    () => ({ build: data.build, path: page.url.pathname, builds: `${home}/builds` }),
    choiceFromQuery(queryOf(page.url))
  );
  let deleting = $state(false);
  const measured = $derived.by(() => {
    const run = newestFigures(data.runs, data.crate.demo);
    const value = run?.results.writeMBps;
    return run && value !== undefined && pairing.isStored
      ? { value, label: `${run.simulated ? 'simulated' : 'measured'} ${day(run.date)}` }
      : undefined;
  });
  $effect(() => void growing.load(idsOf(pairing.choice)));
  const around = new AroundChoice();
  $effect(() => around.ask(library, pairing.choice));
  $effect(() => () => around.stop());

  /** A change that is not saved is laid beside what is stored. */
  const compare = $derived(
    compareHref(home, [data.build.tag, ...(pairing.changed ? [choiceKey(pairing.choice)] : [])])
  );
  const nameOf = (kind: 'host' | 'cable' | 'enclosure' | 'drive', id: string | undefined) =>
    id ? (library[kind].get(id)?.name ?? 'gone') : 'none';
  const partsOf = (c: Partial<Choice>) =>
    `${nameOf('host', c.hostId)} port ${c.portId ?? '–'}, ${nameOf('cable', c.cableId)}, ${nameOf('enclosure', c.enclosureId)}, ${nameOf('drive', c.driveId)}`;
  const theirs = $derived(pairing.theirs);
</script>

<svelte:head><title>{data.build.tag} Pair · Ash Crate</title></svelte:head>
<PairStation
  {library}
  {growing}
  choice={pairing.choice}
  onchange={(next) => pairing.choose(next)}
  heading={data.build.name}
  tag={data.build.tag}
  stage={STAGE_LABEL[data.build.stage]}
  {measured}
  around={around.result}
  start={data.build.choice}
  measuredOn={measuredByPort(data.measured, pairing.choice)}
  {home}
  next={pairing.changed ? 'Save the change.' : data.next.text}
>
  {#snippet head({ report })}
    <BuildActions
      stage={data.build.stage}
      bind:name={pairing.name}
      changed={pairing.changed}
      outdated={data.differences.length > 0}
      savable={report !== null && !pairing.busy}
      {compare}
      onstage={(stage) => void pairing.mark(stage)}
      onsave={() => void pairing.save()}
      ondiscard={() => pairing.discard()}
      ondelete={() => (deleting = true)}
    />
  {/snippet}
  {#snippet notice()}
    <PartsChanged differences={data.differences} planned={data.build.updatedAt} />
  {/snippet}
</PairStation>

<Piece
  ><DeleteBuild
    bind:open={deleting}
    tag={data.build.tag}
    name={data.build.name}
    results={data.runs.length}
    ondelete={() => {
      deleting = false;
      void pairing.remove();
    }}
  /></Piece
>
<Piece
  ><BuildConflict
    theirs={theirs && { ...theirs, parts: partsOf(theirs.choice) }}
    yours={{ name: pairing.name, parts: partsOf(pairing.choice), stage: data.build.stage }}
    onclose={() => (pairing.theirs = undefined)}
    onshow={() => pairing.reset()}
    onover={() => void pairing.save(theirs?.version)}
  /></Piece
>
