<script lang="ts">
  import type { Snippet } from 'svelte';
  import ThemeSwitch from './ThemeSwitch.svelte';
  import { keys } from './keys.svelte';

  type Props = {
    crate?: { slug: string; name: string; demo: boolean };
    path: string;
    rail?: Snippet;
    children: Snippet;
    /** Opens the palette, where there is a crate to look through. */
    onfind?: () => void;
  };
  let { crate, path, rail, children, onfind }: Props = $props();

  const home = $derived(crate ? `/c/${crate.slug}` : '/');
  const places = $derived(
    crate
      ? [
          { href: home, label: 'Today', here: path === home },
          { href: `${home}/crate`, label: 'Crate', here: path.startsWith(`${home}/crate`) },
          {
            href: `${home}/builds`,
            label: 'Builds',
            here: path.startsWith(`${home}/builds`) || path.startsWith('/b/')
          },
          { href: `${home}/pair`, label: 'Pair', here: path === `${home}/pair` },
          { href: `${home}/items`, label: 'Items', here: path.startsWith(`${home}/u`) }
        ]
      : []
  );
  const more = $derived(
    crate
      ? [
          { href: `${home}/rank`, label: 'Which should I buy? (Rank)' },
          { href: `${home}/compare`, label: 'Side by side' },
          { href: `${home}/together`, label: 'Several at once' },
          { href: `${home}/jobs`, label: 'Jobs' },
          { href: `${home}/house-rules`, label: 'House rules' },
          { href: `${home}/filesystems`, label: 'Filesystems' },
          { href: `${home}/find`, label: 'Find an item' },
          { href: `${home}/prices`, label: 'Prices and rates' },
          { href: `${home}/runs`, label: 'Results' },
          { href: `${home}/combinations`, label: 'Known combinations' },
          { href: `${home}/tables`, label: 'Import and export' },
          { href: `${home}/history`, label: 'History' },
          { href: `${home}/glossary`, label: 'Glossary' },
          { href: `${home}/keys`, label: 'Keys' },
          { href: '/backup', label: 'Backup' }
        ].map((place) => ({ ...place, here: path === place.href }))
      : []
  );
  /** Past the header and past what leads to the pages beside this one. */
  function toHeading(event: MouseEvent): void {
    const heading = document.querySelector<HTMLElement>('main h1');
    if (!heading) return;
    event.preventDefault();
    heading.tabIndex = -1;
    heading.focus();
    heading.scrollIntoView({ block: 'nearest' });
  }
  let open = $state(false);
  $effect(() => {
    void path;
    open = false;
  });
</script>

<a class="skip" href="#main" onclick={toHeading}>To the content</a>
<header class="no-print">
  <a class="brand" href={crate ? home : '/'}>
    <svg viewBox="0 0 22 20" width="22" height="20" aria-hidden="true"
      ><path class="slat" d="M1 4h20M1 10h20M1 16h20M4 1v18M18 1v18" /><path
        class="flame"
        d="M11 5.4c1.9 1.8 2.7 2.9 2.7 4.3a2.7 2.7 0 0 1-5.4 0c0-1.4.8-2.5 2.7-4.3z"
      /></svg
    >
    Ash Crate
  </a>
  <a class="crate" href="/crates" title="Switch, make or reset a crate"
    >{crate?.name ?? 'Crates'}<span aria-hidden="true">▾</span><span class="hidden-visually"> – switch crate</span></a
  >
  <nav aria-label="Main">
    {#each places as place (place.href)}
      <a href={place.href} aria-current={place.here ? 'page' : undefined}>{place.label}</a>
    {/each}
    {#if more.length > 0}
      <details bind:open>
        <summary class:here={more.some((place) => place.here)}>More</summary>
        <ul>
          {#each more as place (place.href)}
            <li><a href={place.href} aria-current={place.here ? 'page' : undefined}>{place.label}</a></li>
          {/each}
        </ul>
      </details>
    {/if}
  </nav>
  <span class="side">
    {#if onfind}<button type="button" class="keys find" onclick={onfind}>Find <kbd>/</kbd></button>{/if}
    <ThemeSwitch />
    <button type="button" class="keys" onclick={() => (keys.setting.help = true)}>Keys <kbd>?</kbd></button>
  </span>
</header>
{#if crate?.demo}
  <p class="demo no-print">
    This is the demo: an invented herbarium, its drives and measurements. Nothing here is yours, and you may change
    anything. <a href="/?own">Start your own</a>
  </p>
{/if}
{@render rail?.()}
<main id="main" tabindex="-1">{@render children()}</main>

<style>
  .skip {
    position: absolute;
    left: -999px;
  }
  .skip:focus {
    left: 8px;
    top: 8px;
    z-index: 10;
    padding: 8px 12px;
    background: var(--ash-sheet);
  }
  header {
    display: flex;
    align-items: stretch;
    gap: 4px 22px;
    flex-wrap: wrap;
    min-height: 48px;
    padding: 0 24px;
    background: var(--ash-sheet);
    border-bottom: 1px solid var(--ash-line);
  }
  header > * {
    display: flex;
    align-items: center;
  }
  .brand {
    gap: 10px;
    font-size: 16px;
    font-weight: 700;
    color: var(--ash-ink);
    text-decoration: none;
  }
  .slat {
    fill: none;
    stroke: currentColor;
    stroke-width: 2;
  }
  .flame {
    fill: var(--ash-ember);
  }
  .crate {
    gap: 5px;
    color: var(--ash-soft);
    text-decoration: none;
  }
  .crate:hover {
    text-decoration: underline;
  }
  nav {
    gap: 4px;
    flex: 1;
  }
  nav a {
    display: flex;
    align-items: center;
    align-self: stretch;
    padding: 0 12px;
    color: var(--ash-ink);
    text-decoration: none;
    border-bottom: 3px solid transparent;
    border-top: 3px solid transparent;
  }
  nav a:hover {
    background: var(--ash-well);
  }
  nav a[aria-current] {
    font-weight: 700;
    border-bottom-color: var(--ash-ink);
  }
  details {
    position: relative;
    display: flex;
    align-self: stretch;
  }
  summary {
    display: flex;
    align-items: center;
    height: 100%;
    padding: 0 12px;
    cursor: pointer;
    list-style: none;
  }
  summary::after {
    content: '▾';
    margin-left: 6px;
    color: var(--ash-soft);
  }
  summary.here {
    font-weight: 700;
  }
  summary:hover {
    background: var(--ash-well);
  }
  details ul {
    position: absolute;
    top: 100%;
    left: 0;
    z-index: 50;
    min-width: 190px;
    margin: 0;
    padding: 6px 0;
    background: var(--ash-sheet);
    border: 1px solid var(--ash-edge);
  }
  details li {
    margin: 0;
    list-style: none;
  }
  details li a {
    padding: 8px 16px;
    border: 0;
  }
  .side {
    gap: 10px;
  }
  .keys {
    padding: 4px 8px;
    border: 0;
    background: none;
    color: var(--ash-soft);
    cursor: pointer;
    font-size: var(--ash-text);
  }
  kbd {
    padding: 0 6px;
    border: 1px solid var(--ash-edge);
    font: 12px var(--ash-mono);
  }
  .demo {
    padding: 3px 24px;
    background: var(--ash-ember-wash);
    font-size: var(--ash-text-small);
  }
  main:focus {
    outline: none;
  }
  @media (max-width: 672px) {
    header {
      padding: 6px 14px;
    }
    nav {
      order: 3;
      gap: 0;
      flex-basis: 100%;
      min-height: 40px;
    }
    .crate {
      flex: 1;
      min-width: 0;
    }
    nav a,
    summary {
      padding: 0 8px;
    }
    /* A telephone has no keys to learn; finding is for the thumb, too. */
    .keys:not(.find) {
      display: none;
    }
    .keys kbd {
      display: none;
    }
    .keys,
    nav a,
    summary {
      min-height: 44px;
    }
  }
</style>
