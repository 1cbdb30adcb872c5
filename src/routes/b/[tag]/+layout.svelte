<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { STAGES } from '#core/build/stages';
  import Piece from '$lib/ui/common/Piece.svelte';
  import Frame from '$lib/ui/frame/Frame.svelte';
  import Commander from '../../Commander.svelte';
  import { keys } from '$lib/ui/frame/keys.svelte';
  import Rail, { type Station } from '$lib/ui/frame/Rail.svelte';

  let { data, children } = $props();
  let finding = $state(false);
  const here = $derived(page.url.pathname.split('/')[3] ?? 'pair');
  const home = $derived(`/c/${data.crate.slug}`);
  const stations = $derived.by((): Station[] => {
    const { stage } = data.build;
    const benched = STAGES.indexOf(stage) >= STAGES.indexOf('benched');
    const state = (id: string, done: boolean): Station['state'] =>
      data.next.station === id ? 'next' : done ? 'done' : 'open';
    return [
      { id: 'pair', label: 'Pair', state: state('pair', true) },
      { id: 'buy', label: 'Buy', state: state('buy', STAGES.indexOf(stage) >= STAGES.indexOf('bought')) },
      {
        id: 'pads',
        label: 'Pads and heat',
        state: state('pads', STAGES.indexOf(stage) >= STAGES.indexOf('assembled'))
      },
      {
        id: 'assemble',
        label: 'Assemble',
        state: state('assemble', STAGES.indexOf(stage) >= STAGES.indexOf('assembled'))
      },
      {
        id: 'format',
        label: 'Format',
        state: state('format', STAGES.indexOf(stage) >= STAGES.indexOf('formatted'))
      },
      { id: 'measure', label: 'Measure', state: state('measure', benched) },
      { id: 'log', label: 'Log', state: state('log', stage === 'retired') }
    ];
  });
  const station = (id: string, keysOf: string, label: string) => ({
    keys: keysOf,
    label,
    run: () => void goto(`/b/${data.build.tag}/${id}`)
  });
  $effect(() =>
    keys.add([
      { keys: 'g t', label: 'Go to Today', run: () => void goto(home) },
      { keys: 'g c', label: 'Go to the crate', run: () => void goto(`${home}/crate`) },
      { keys: 'g b', label: 'Go to the builds', run: () => void goto(`${home}/builds`) },
      station('pair', 'g p', 'Go to Pair of this build'),
      station('buy', 'g y', 'Go to Buy of this build'),
      station('pads', 'g s', 'Go to Pads and heat of this build'),
      station('assemble', 'g m', 'Go to Assemble of this build'),
      station('format', 'g d', 'Go to Format of this build'),
      station('measure', 'g e', 'Go to Measure of this build'),
      station('log', 'g l', 'Go to Log of this build'),
      { keys: 'n', label: 'New build', run: () => void goto(`${home}/pair`) }
    ])
  );
</script>

<Frame crate={data.crate} path={page.url.pathname} onfind={() => (finding = true)}>
  {#snippet rail()}<Rail tag={data.build.tag} name={data.build.name} {stations} {here} />{/snippet}
  <Piece>{@render children()}</Piece>
</Frame>
<Commander crate={data.crate} bind:open={finding} />
