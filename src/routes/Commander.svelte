<script lang="ts">
  import { goto } from '$app/navigation';
  import type FinderType from './Finder.svelte';
  import { keys } from '$lib/ui/frame/keys.svelte';
  import { NOT_LOADED, notices } from '$lib/ui/frame/notices.svelte';

  let { crate, open = $bindable(false) }: { crate: { id: string; slug: string }; open?: boolean } = $props();
  const home = $derived(`/c/${crate.slug}`);

  /** What looks and finds: loaded by the first who looks for something; afterwards it stays. */
  let Finder = $state.raw<typeof FinderType>();
  async function load(): Promise<void> {
    try {
      Finder = (await import('./Finder.svelte')).default;
    } catch {
      open = false;
      notices.add('error', NOT_LOADED);
    }
  }
  $effect(() => {
    if (open && !Finder) void load();
  });

  let words = $state('');
  $effect(() => {
    if (open) words = '';
  });
  /** What is typed before there is a field for it is meant for the field. */
  function early(event: KeyboardEvent): void {
    const { key, target } = event;
    if (!open || event.ctrlKey || event.metaKey || event.altKey) return;
    if (target instanceof Element && target.closest('[role="dialog"]')) return;
    if (key.length === 1) words += key;
    else if (key === 'Backspace') words = words.slice(0, -1);
    else if (key === 'Escape') open = false;
    // Nothing is found yet; Enter is not for what has the focus below.
    else if (key !== 'Enter') return;
    event.preventDefault();
    event.stopPropagation();
  }
  // Works while typing too: it is no single key.
  function onkeydown(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey || event.key.toLowerCase() !== 'k') return;
    event.preventDefault();
    open = !open;
  }
  $effect(() =>
    keys.add([
      { keys: '/', label: 'Find or do (also Ctrl K)', run: () => (open = true) },
      { keys: 'g u', label: 'Go to the items', run: () => void goto(`${home}/items`) },
      { keys: 'g f', label: 'Find an item by its tag', run: () => void goto(`${home}/find`) },
      { keys: 'g r', label: 'Rank', run: () => void goto(`${home}/rank`) },
      { keys: 'g j', label: 'Jobs', run: () => void goto(`${home}/jobs`) },
      { keys: 'g h', label: 'House rules', run: () => void goto(`${home}/house-rules`) },
      { keys: 'g a', label: 'Several at once', run: () => void goto(`${home}/together`) },
      { keys: 'g v', label: 'Paste a specification', run: () => void goto(`${home}/crate/paste`) }
    ])
  );
</script>

<svelte:window {onkeydown} onkeydowncapture={early} />
{#if Finder}<Finder {crate} bind:open bind:words />{/if}
