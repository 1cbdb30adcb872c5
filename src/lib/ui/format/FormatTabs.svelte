<script lang="ts">
  /** The pages of this station. */
  let { tag, here }: { tag: string; here: 'advice' | 'sheet' | 'guard' | 'record' | 'erase' } = $props();
  const TABS = [
    { id: 'advice', label: 'Advice and plan', path: '' },
    { id: 'sheet', label: 'Sheet', path: '/sheet' },
    { id: 'guard', label: 'Wrong-disk guard', path: '/guard' },
    { id: 'record', label: 'Before and after', path: '/record' },
    { id: 'erase', label: 'Erase for good', path: '/erase' }
  ] as const;
</script>

<nav class="no-print" aria-label="Format of {tag}">
  <ul>
    {#each TABS as { id, label, path } (id)}
      <li><a href="/b/{tag}/format{path}" aria-current={id === here ? 'page' : undefined}>{label}</a></li>
    {/each}
  </ul>
</nav>

<style>
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: 0 4px;
    margin: 0 0 14px;
    padding: 0;
    border-bottom: 1px solid var(--ash-line);
    list-style: none;
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
