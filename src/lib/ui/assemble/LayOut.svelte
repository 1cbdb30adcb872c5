<script lang="ts">
  import type { RunSheet } from '#core/sheets/sheet';
  import StateMark from '../common/StateMark.svelte';
  import StepTicks from './StepTicks.svelte';
  import type { SheetActs } from './acts';

  type Props = {
    sheet: RunSheet;
    acts?: SheetActs | undefined;
    /** What of the kit is not there yet, by the id of its part, in words. */
    standing: Readonly<Record<string, string>>;
    buyHref: string;
  };
  /** What has to lie on the table: the kit with its boxes, the tools, what is good to have spare. */
  let { sheet, acts, standing, buyHref }: Props = $props();
</script>

<div class="layout">
  <section>
    <h2>On the table</h2>
    <ul>
      {#each sheet.kit as thing (thing.id)}
        {@const lacking = thing.modelId === undefined ? undefined : standing[thing.modelId]}
        <li>
          {#if acts}<StepTicks step={{ id: thing.id, text: thing.what, once: true }} {acts} />{/if}
          <span
            >{thing.what}
            {#if !lacking}<span class="quiet small">{thing.from}</span>{/if}
            {#if lacking}<span class="lacking"
                ><StateMark mark="check" size={14} /> <a href={buyHref}>{lacking}</a></span
              >{/if}</span
          >
        </li>
      {/each}
    </ul>
  </section>
  <section>
    <h2>Tools</h2>
    <ul class="plainly">
      {#each sheet.tools as tool (tool)}<li>{tool}</li>{/each}
    </ul>
  </section>
  <section>
    <h2>Good to have spare</h2>
    <ul class="plainly">
      {#each sheet.spares as spare (spare)}<li>{spare}</li>{/each}
    </ul>
  </section>
</div>

<style>
  .layout {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(100%, 18rem), 1fr));
    gap: 12px 28px;
    padding: 4px 0 14px;
  }
  ul {
    margin: 4px 0 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .plainly li {
    display: block;
    padding: 4px 0;
  }
  .lacking {
    color: var(--ash-caution);
    font-size: var(--ash-text-small);
  }
</style>
