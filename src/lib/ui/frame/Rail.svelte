<script lang="ts">
  export type Station = { id: string; label: string; state: 'done' | 'next' | 'open' };
  /** The stations of a build in the order of the work, and how far it is. */
  let { tag, name, stations, here }: { tag: string; name: string; stations: readonly Station[]; here: string } =
    $props();

  const at = $derived(stations.findIndex((s) => s.id === here));
  const WORD = { done: 'done', next: 'next', open: 'open' };
</script>

<nav class="rail no-print" aria-label="Stations of {tag}">
  <span class="build"><span class="tag">{tag}</span> {name}</span>
  <ol>
    {#each stations as station (station.id)}
      <li>
        <a href="/b/{tag}/{station.id}" aria-current={station.id === here ? 'page' : undefined}>
          <svg class={station.state} viewBox="0 0 12 12" width="12" height="12" aria-hidden="true"
            ><path d="M6 1l5 5-5 5-5-5z" /></svg
          >
          {station.label}<span class="hidden-visually">, {WORD[station.state]}</span>
        </a>
      </li>
    {/each}
  </ol>
  <span class="narrow">
    {#if at > 0}<a href="/b/{tag}/{stations[at - 1]?.id}">← {stations[at - 1]?.label}</a>{/if}
    <span>Step {at + 1} of {stations.length}: {stations[at]?.label}</span>
    {#if at < stations.length - 1}<a href="/b/{tag}/{stations[at + 1]?.id}">{stations[at + 1]?.label} →</a>{/if}
  </span>
</nav>

<style>
  .rail {
    display: flex;
    align-items: center;
    gap: 24px;
    min-height: 40px;
    padding: 0 24px;
    background: var(--ash-well);
    border-bottom: 1px solid var(--ash-line);
  }
  .build {
    font-weight: 600;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .tag {
    font: 600 12px var(--ash-mono);
    color: var(--ash-soft);
    margin-right: 6px;
  }
  ol {
    display: flex;
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li + li::before {
    content: '';
    display: inline-block;
    width: 28px;
    border-top: 1px solid var(--ash-edge);
    vertical-align: middle;
  }
  a {
    display: inline-flex;
    align-items: center;
    gap: 7px;
    padding: 8px 10px;
    color: var(--ash-ink);
    text-decoration: none;
  }
  a:hover {
    text-decoration: underline;
  }
  a[aria-current] {
    font-weight: 700;
    box-shadow: inset 0 -3px 0 var(--ash-ink);
  }
  svg path {
    fill: none;
    stroke: var(--ash-soft);
    stroke-width: 1.5;
  }
  svg.done path {
    fill: var(--ash-soft);
  }
  svg.next path {
    stroke: var(--ash-ink);
    stroke-width: 2.4;
  }
  .narrow {
    display: none;
    gap: 10px;
    align-items: center;
    margin-left: auto;
  }
  @media (max-width: 900px) {
    .rail {
      flex-wrap: wrap;
      gap: 0 16px;
      padding: 4px 14px;
    }
    ol {
      display: none;
    }
    .narrow {
      display: flex;
    }
  }
</style>
