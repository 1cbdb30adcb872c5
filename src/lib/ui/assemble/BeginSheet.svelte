<script lang="ts">
  import { Button, Checkbox, NumberInput } from 'carbon-components-svelte';
  import { counted } from '#core/quantities/format';
  import type { RunSheet } from '#core/sheets/sheet';
  import type { SheetItem } from './acts';

  type Props = {
    sheet: RunSheet;
    /** Items of the drive that are free or in this build. */
    items: readonly SheetItem[];
    drive: string;
    busy: boolean;
    again: boolean;
    onbegin: (unitIds: string[], readyMade: boolean) => void;
    onadd: (count: number) => void;
  };
  /** Before a sheet is begun: how long it takes, for which items, and where the drive comes from. */
  let { sheet, items, drive, busy, again, onbegin, onadd }: Props = $props();
  let chosen = $state<string[]>([]);
  let readyMade = $state(false);
  let more = $state<number | null>(3);
  const several = $derived(chosen.length > 1);
</script>

<div class="begin">
  <p>
    {counted(sheet.stages.length, 'stage')} of a few steps, each with a check at its end. About
    <strong>{sheet.minutes.typical} minutes</strong> for one, from {sheet.minutes.low} to {sheet.minutes.high}. You can
    stop at any step and go on from another browser.
  </p>
  {#if sheet.warnings.length > 0}
    <div class="warnings" role="note">
      <strong>The plan says that these parts do not go together:</strong>
      <ul>
        {#each sheet.warnings as warning (warning)}<li>{warning}</li>{/each}
      </ul>
    </div>
  {/if}
  <fieldset>
    <legend>Several alike at once?</legend>
    {#if items.length === 0}
      <p class="quiet small">No free item of {drive} yet. For one build none is needed.</p>
    {:else}
      <p class="quiet small">Choose two or more items of {drive}: one sheet, with a column of boxes for each.</p>
      <div class="items">
        {#each items as item (item.id)}
          <Checkbox
            labelText={item.tag}
            checked={chosen.includes(item.id)}
            on:check={({ detail }) =>
              (chosen = detail ? [...chosen, item.id] : chosen.filter((other) => other !== item.id))}
          />
        {/each}
      </div>
    {/if}
    <div class="more">
      <NumberInput size="sm" labelText="Add items of it" min={1} max={20} bind:value={more} />
      <Button size="small" kind="tertiary" disabled={busy || !more} on:click={() => onadd(Math.round(more ?? 1))}
        >Add {counted(more ?? 0, 'item')}</Button
      >
    </div>
  </fieldset>
  <Checkbox labelText="The drive comes out of a ready-made external" bind:checked={readyMade} />
  <div class="go">
    <Button size="field" disabled={busy} on:click={() => onbegin(several ? chosen : [], readyMade)}
      >{again ? 'Begin a new sheet' : 'Begin the sheet'}{several ? ` for ${chosen.length}` : ''}</Button
    >
  </div>
</div>

<style>
  .begin {
    display: grid;
    gap: 12px;
    max-width: 46rem;
    padding: 18px 20px;
    border: 1px solid var(--ash-line);
    background: var(--ash-sheet);
  }
  fieldset {
    margin: 0;
    padding: 0;
    border: 0;
  }
  legend {
    font-weight: 600;
  }
  .items {
    display: flex;
    flex-wrap: wrap;
    gap: 0 20px;
  }
  .items :global(.bx--form-item) {
    flex: none;
  }
  .more {
    display: flex;
    gap: 10px;
    align-items: flex-end;
    max-width: 24rem;
  }
  .warnings {
    padding: 8px 12px;
    border-left: 3px solid var(--ash-fail);
    background: var(--ash-well);
  }
  .warnings li {
    margin-left: 1.2em;
    list-style: disc;
  }
</style>
