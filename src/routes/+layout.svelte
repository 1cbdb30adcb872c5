<script lang="ts">
  import 'carbon-components-svelte/css/all.css';
  import '@fontsource-variable/archivo/wght.css';
  import '@fontsource/jetbrains-mono/latin-400.css';
  import '@fontsource/jetbrains-mono/latin-600.css';
  import '$lib/ui/theme.css';
  import '../app.css';
  import { afterNavigate, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { server, watchServer } from '$lib/client/watch.svelte';
  import { whenAlive } from '$lib/ui/common/in-turn';
  import type KeysHelpType from '$lib/ui/frame/KeysHelp.svelte';
  import { keys, onkeydown, onleave } from '$lib/ui/frame/keys.svelte';
  import Notices from '$lib/ui/frame/Notices.svelte';
  import { NOT_LOADED, notices } from '$lib/ui/frame/notices.svelte';

  let { children } = $props();
  const crate = $derived((page.data as { crate?: { slug: string } }).crate);

  /** The list of keys: loaded by the first who asks for it; afterwards it stays. */
  let KeysHelp = $state.raw<typeof KeysHelpType>();
  async function load(): Promise<void> {
    try {
      KeysHelp = (await import('$lib/ui/frame/KeysHelp.svelte')).default;
    } catch {
      keys.setting.help = false;
      notices.add('error', NOT_LOADED);
    }
  }
  $effect(() => {
    if (keys.setting.help && !KeysHelp) void load();
  });

  /** Where a new page is read from: what asks for it, else its heading. Elsewhere on the same page the focus stays where it is. */
  afterNavigate(({ from, to, type }) => {
    if (type === 'enter' || from?.url.pathname === to?.url.pathname || to?.url.hash) return;
    const heading = document.querySelector<HTMLElement>('main h1');
    // A page that is there to be typed into has taken the focus already.
    if (!heading || document.activeElement?.matches('main input, main select, main textarea')) return;
    heading.tabIndex = -1;
    heading.focus({ preventScroll: true });
  });

  $effect(() => {
    keys.load();
    whenAlive(() => (document.documentElement.dataset.ready = 'yes'));
    // Ticks that an earlier page could not send; nothing is read where none can be.
    if (localStorage.getItem('sheet-queue')) void import('$lib/client/refused-entries').then((m) => m.sendLeftOver());
    return watchServer(() => void invalidateAll());
  });
</script>

<svelte:window {onkeydown} onpointerdown={onleave} onfocusin={onleave} />
{#if server.state !== 'up'}
  <p class="away" role="alert">
    {server.state === 'offline'
      ? 'Ash Crate is not answering. What you typed is still here; this goes away by itself when it is back.'
      : `${server.message || 'The database is not answering; it is being started again.'} What you typed is still here.`}
  </p>
{/if}
{@render children()}
<Notices />
{#if KeysHelp}<KeysHelp href={crate ? `/c/${crate.slug}/keys` : undefined} />{/if}

<style>
  .away {
    position: sticky;
    top: 0;
    z-index: 100;
    padding: 8px 24px;
    background: var(--ash-ink);
    color: var(--ash-paper);
    text-align: center;
  }
</style>
