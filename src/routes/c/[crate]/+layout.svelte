<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import Piece from '$lib/ui/common/Piece.svelte';
  import Frame from '$lib/ui/frame/Frame.svelte';
  import Commander from '../../Commander.svelte';
  import { keys } from '$lib/ui/frame/keys.svelte';

  let { data, children } = $props();
  let finding = $state(false);
  const home = $derived(`/c/${data.crate.slug}`);
  $effect(() =>
    keys.add([
      { keys: 'g t', label: 'Go to Today', run: () => void goto(home) },
      { keys: 'g c', label: 'Go to the crate', run: () => void goto(`${home}/crate`) },
      { keys: 'g b', label: 'Go to the builds', run: () => void goto(`${home}/builds`) },
      { keys: 'g p', label: 'Go to Pair', run: () => void goto(`${home}/pair`) },
      { keys: 'n', label: 'New build', run: () => void goto(`${home}/pair`) }
    ])
  );
</script>

<Frame crate={data.crate} path={page.url.pathname} onfind={() => (finding = true)}
  ><Piece>{@render children()}</Piece></Frame
>
<Commander crate={data.crate} bind:open={finding} />
