<script lang="ts">
  import type { Step } from './steps';

  /** Where one is on the first evening, over the form of a part; every step can be opened. */
  let { steps, here }: { steps: readonly Step[]; here: string } = $props();
</script>

<nav aria-label="The first evening">
  {#each steps as step (step.key)}
    <a href={step.href} aria-current={step.key === here ? 'step' : undefined}
      >{#if step.done}<span aria-hidden="true">✓</span><span class="hidden-visually">done: </span>{/if}
      {step.label}</a
    >
  {/each}
</nav>

<style>
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 20px;
    margin-bottom: 12px;
    padding: 6px 0;
    border-bottom: 1px solid var(--ash-line);
  }
  a {
    padding: 4px 0;
    color: var(--ash-ink);
  }
  a[aria-current] {
    font-weight: 700;
    border-bottom: 3px solid var(--ash-ink);
    text-decoration: none;
  }
</style>
