<script lang="ts">
  import type { SheetProgress } from '#core/sheets/progress';
  import type { RunSheet } from '#core/sheets/sheet';
  import LayOut from './LayOut.svelte';
  import StagePart from './StagePart.svelte';
  import type { SheetActs } from './acts';

  type Props = {
    sheet: RunSheet;
    progress: SheetProgress;
    acts: SheetActs;
    added: ReadonlySet<string>;
    standing: Readonly<Record<string, string>>;
    /** Address of the build. */
    buildHref: string;
    /** Where it says how to plug and unplug; none on a sheet that does. */
    leadsHref?: string | undefined;
    onagain: () => void;
    ondelete: () => void;
  };
  /** The whole sheet: what to lay out, and its stages, the one at hand open. */
  let { sheet, progress, acts, added, standing, buildHref, leadsHref, onagain, ondelete }: Props = $props();
  /** Stages that somebody opened or folded; the others are open where the work is. */
  let folded = $state.raw<Record<string, boolean>>({});
  const isOpen = (stageId: string, n: number) => !(folded[stageId] ?? n !== progress.current);
</script>

<div class="no-print">
  <details class="table" open={progress.current === 0}>
    <summary>What to lay out: parts, tools, spares</summary>
    <LayOut {sheet} {acts} {standing} buyHref="{buildHref}/buy" />
  </details>
  {#each sheet.stages as stage, n (stage.id)}
    {@const own = progress.stages[n]}
    {#if own}
      <StagePart
        {stage}
        number={n + 1}
        of={sheet.stages.length}
        progress={own}
        open={isOpen(stage.id, n)}
        {acts}
        {added}
        imprintHref="{buildHref}/pads"
        ontoggle={(isOpen) => (folded = { ...folded, [stage.id]: !isOpen })}
      />
    {/if}
  {/each}
  <p class="end">
    <button type="button" class="link" onclick={() => window.print()}>Print the sheet</button>
    {#if leadsHref}<a class="small" href={leadsHref}>How to plug and unplug it</a>{/if}
    <button type="button" class="link" onclick={onagain}>Begin a new sheet</button>
    <button type="button" class="link" onclick={ondelete}>Delete this sheet</button>
  </p>
</div>

<style>
  .table {
    border-top: 1px solid var(--ash-edge);
  }
  .table > summary {
    padding: 10px 0;
    font-weight: 650;
    cursor: pointer;
  }
  .end {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 18px;
    padding-top: 12px;
    border-top: 1px solid var(--ash-edge);
  }
</style>
