<script lang="ts">
  import { page } from '$app/state';

  let { data, children } = $props();
  const base = $derived(`/b/${data.build.tag}/pads`);
  const VIEWS = [
    { id: '', label: 'Board and pads' },
    { id: 'cut', label: 'Cut plan' },
    { id: 'heat', label: 'Heat over time' },
    { id: 'log', label: 'Temperature log' }
  ];
  const here = $derived(page.url.pathname.split('/')[4] ?? '');
</script>

<nav class="views no-print" aria-label="Pads and heat">
  <ul>
    {#each VIEWS as view (view.id)}
      <li>
        <a href={view.id ? `${base}/${view.id}` : base} aria-current={here === view.id ? 'page' : undefined}
          >{view.label}</a
        >
      </li>
    {/each}
  </ul>
</nav>
{@render children()}

<style>
  .views {
    border-bottom: 1px solid var(--ash-line);
    background: var(--ash-sheet);
  }
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: 0 22px;
    max-width: 1360px;
    margin: 0 auto;
    padding: 0 24px;
    list-style: none;
  }
  a {
    display: block;
    padding: 8px 0 6px;
    border-bottom: 3px solid transparent;
    color: var(--ash-soft);
    text-decoration: none;
  }
  a[aria-current] {
    border-bottom-color: var(--ash-ink);
    color: var(--ash-ink);
    font-weight: 600;
  }
  a:hover {
    color: var(--ash-ember);
  }
  @media (max-width: 672px) {
    ul {
      padding: 0 14px;
    }
  }
</style>
