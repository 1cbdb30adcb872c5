<script lang="ts">
  /** The pages of this station: one stop for the Tab key, arrows move between them. */
  let {
    tag,
    here,
    sheet
  }: {
    tag: string;
    here: 'advice' | 'sheet' | 'guard' | 'record' | 'erase';
    /** Which of several sheets it is about. */
    sheet?: string | undefined;
  } = $props();
  const query = $derived(sheet ? `?sheet=${sheet}` : '');
  const TABS = [
    { id: 'advice', label: 'Advice and plan', path: '' },
    { id: 'sheet', label: 'Sheet', path: '/sheet' },
    { id: 'guard', label: 'Wrong-disk guard', path: '/guard' },
    { id: 'record', label: 'Before and after', path: '/record' },
    { id: 'erase', label: 'Erase for good', path: '/erase' }
  ] as const;

  function move(event: KeyboardEvent): void {
    const links = [...(event.currentTarget as HTMLElement).querySelectorAll('a')];
    const at = links.indexOf(document.activeElement as HTMLAnchorElement);
    const to = { ArrowRight: at + 1, ArrowLeft: at - 1, Home: 0, End: links.length - 1 }[event.key];
    if (to === undefined || at < 0) return;
    event.preventDefault();
    links[(to + links.length) % links.length]?.focus();
  }
</script>

<nav class="no-print" aria-label="Format of {tag}">
  <div role="toolbar" tabindex="-1" aria-label="Pages of Format, by arrow keys" onkeydown={move}>
    {#each TABS as { id, label, path } (id)}
      <a
        href="/b/{tag}/format{path}{query}"
        aria-current={id === here ? 'page' : undefined}
        tabindex={id === here ? undefined : -1}>{label}</a
      >
    {/each}
  </div>
</nav>

<style>
  div {
    display: flex;
    flex-wrap: wrap;
    gap: 0 4px;
    margin: 0 0 14px;
    border-bottom: 1px solid var(--ash-line);
  }
  a {
    display: block;
    padding: 8px 12px;
    color: var(--ash-ink);
    text-decoration: none;
  }
  a:hover {
    background: var(--ash-well);
  }
  a[aria-current] {
    font-weight: 650;
    box-shadow: inset 0 -3px 0 var(--ash-ink);
  }
  @media (max-width: 672px) {
    a {
      min-height: 44px;
      padding: 11px 12px;
    }
  }
</style>
