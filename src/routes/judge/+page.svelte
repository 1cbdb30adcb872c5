<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import { libraryOf } from '#core/build/assemble';
  import type { Choice } from '#core/build/choice';
  import { classParts } from '#core/parts/classes';
  import { queryOf } from '$lib/client/address';
  import { keepPairing } from '$lib/client/keep-pairing';
  import { AroundChoice } from '$lib/client/what-if.svelte';
  import Frame from '$lib/ui/frame/Frame.svelte';
  import PairStation from '$lib/ui/pair/PairStation.svelte';
  import { choiceFromQuery, choiceToQuery } from '$lib/ui/pair/slots';

  /** What is judged here are classes of parts, made in the browser: nothing is stored until somebody keeps it. */
  const library = libraryOf(classParts(), []);
  const USUAL = {
    hostId: 'host-laptop-10g',
    portId: 'c1',
    cableId: 'cable-10g',
    enclosureId: 'case-m2-10g',
    driveId: 'nvme-4-2'
  };
  const asked = choiceFromQuery(queryOf(page.url));
  let choice = $state.raw<Partial<Choice>>(Object.keys(asked).length > 0 ? asked : USUAL);
  let busy = $state(false);

  const around = new AroundChoice();
  $effect(() => around.ask(library, choice));
  $effect(() => () => around.stop());

  function onchange(next: Partial<Choice>): void {
    choice = next;
    replaceState(`?${choiceToQuery(next)}`, {});
  }
  async function keep(): Promise<void> {
    busy = true;
    await keepPairing(library, choice);
    busy = false;
  }
</script>

<svelte:head><title>Judge a pairing · Ash Crate</title></svelte:head>
<Frame path={page.url.pathname}>
  <PairStation
    {library}
    {choice}
    {onchange}
    heading="Judge a pairing"
    about="Pick each part by its class; what a class does not say is assumed, and said."
    around={around.result}
    next="Keep it as a crate of your own."
  >
    {#snippet head({ report })}
      <Button size="field" disabled={report === null || busy} on:click={keep}>Keep it as my own</Button>
    {/snippet}
  </PairStation>
</Frame>
