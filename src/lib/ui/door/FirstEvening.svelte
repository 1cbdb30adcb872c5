<script lang="ts">
  import StateMark from '../common/StateMark.svelte';
  import type { Step } from './steps';

  /** The steps from an empty crate to the first judged build. Finished ones stay links: more can be added. */
  let { steps, next }: { steps: readonly Step[]; next: Step | undefined } = $props();
</script>

<section class="empty" aria-labelledby="first-evening">
  <h2 id="first-evening">The first evening</h2>
  <ol>
    {#each steps as step (step.key)}
      <li class:now={step === next}>
        {#if step.done}<StateMark mark="pass" />{/if}
        <a href={step.href}>{step.label}</a>{step.optional ? ' (may be left out)' : ''}: {step.about}.
      </li>
    {/each}
  </ol>
  <p class="quiet">Only looking? <a href="/c/fernhollow">The demo crate</a> is full, and nothing in it is yours.</p>
</section>

<style>
  li {
    margin: 0 0 6px 1.4em;
    list-style: decimal;
  }
  .now a {
    font-weight: 700;
  }
</style>
