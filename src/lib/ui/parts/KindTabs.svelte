<script lang="ts">
  import { KIND_LABEL, KINDS, type Kind } from '#core/parts/kinds';

  /** The kinds of part, with how many there are of each. */
  let { home, here, counts }: { home: string; here: Kind; counts: Partial<Record<Kind, number>> } = $props();
</script>

<nav class="kinds" aria-label="Kinds of part">
  {#each KINDS as kind (kind)}
    <a href="{home}/{kind}" aria-current={kind === here ? 'page' : undefined}
      >{KIND_LABEL[kind].many} <span class="small quiet">{counts[kind] ?? 0}</span></a
    >
  {/each}
</nav>

<style>
  .kinds {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
    margin-bottom: 14px;
    border-bottom: 1px solid var(--ash-edge);
  }
  .kinds a {
    padding: 7px 12px;
    color: var(--ash-ink);
    text-decoration: none;
  }
  .kinds a:hover {
    background: var(--ash-well);
  }
  .kinds a[aria-current] {
    font-weight: 700;
    box-shadow: inset 0 -3px 0 var(--ash-ink);
  }
</style>
