<script lang="ts">
  import { Button, Checkbox, Select, SelectItem } from 'carbon-components-svelte';
  import { BOARD_LIMITS, M2_HEIGHT_CODES } from '#core/facts/m2';
  import { figure, quantity } from '#core/quantities/format';
  import { ROLE_WORD } from '../geometry/pads';
  import BoardPlan from './BoardPlan.svelte';
  import ChipFields from './ChipFields.svelte';
  import Section from './Section.svelte';
  import type { PadStation } from './station.svelte';

  /** The board from above and from the side, to scale: chips are moved here, and their sizes are typed. */
  let { station }: { station: PadStation } = $props();
  let tall = $state(true);
  const { board, chips, laid, problems, room, selected, side, stored } = $derived(station);
</script>

{#if board}
  <div class="bar">
    <div role="radiogroup" aria-label="Side" class="sides">
      {#each [['top', 'Upper side'], ['bottom', 'Underside']] as const as [id, label] (id)}
        <button type="button" role="radio" aria-checked={side === id} onclick={() => station.show(id)}>{label}</button>
      {/each}
    </div>
    <span class="grow"></span>
    <Select
      size="sm"
      hideLabel
      labelText="Usual layout"
      selected=""
      on:update={(e) => station.useLayout(String(e.detail))}
    >
      <SelectItem value="" text="Usual layout…" />
      {#each Object.entries(M2_HEIGHT_CODES) as [code, height] (code)}<SelectItem
          value={code}
          text="{board.lengthMm} mm, {code}: {height.top}{height.bottom ? ` / ${height.bottom}` : ''} mm"
        />{/each}
    </Select>
    <Button kind="ghost" size="small" on:click={() => station.addChip()}>Add a chip</Button>
  </div>
  <div class="sheet">
    <BoardPlan
      {board}
      {chips}
      rows={laid.rows}
      {problems}
      {side}
      {selected}
      onselect={(i) => (station.selected = i)}
      onchange={(i, chip) => station.setChip(i, chip)}
      onremove={(i) => station.removeChip(i)}
    />
    <p class="small quiet hint">
      {stored?.from === 'template' && !station.edited
        ? `Usual layout at height code ${stored.heightCode}: the drive states no chips. Measure yours.`
        : 'Drag a chip, or move it with the arrow keys (Shift: a tenth of a millimetre); Delete takes it away.'}
    </p>
    {#if selected !== null && chips[selected]}
      <ChipFields
        chip={chips[selected]!}
        index={selected}
        {problems}
        onchange={(chip) => station.setChip(selected!, chip)}
        onremove={() => station.removeChip(selected!)}
      />
    {:else if problems.length > 0}
      <ul class="problems" role="alert">
        {#each problems as p (`${p.chip}${p.field}`)}<li>
            {ROLE_WORD[chips[p.chip]!.role]}
            {p.chip + 1}: {p.message}.
          </li>{/each}
      </ul>
    {/if}
  </div>
  <div class="bar">
    <h2 class="grow">Section</h2>
    <Checkbox labelText="Heights three times as large" bind:checked={tall} />
  </div>
  <div class="sheet">
    <Section {board} rows={laid.rows} {room} stretch={tall ? 3 : 1} {selected} />
    <p class="small quiet">
      {room.top === undefined
        ? 'The enclosure states no room over the board: no gap is known until you measure one, under “Measured a gap yourself?”.'
        : `Lid ${figure(room.top)} mm over the board, ${room.bottom === undefined ? 'floor not stated' : `floor ${figure(room.bottom)} mm under it`}; board 0.8 mm.`}
      {#if laid.bowMm}
        The pads press the board down by {quantity(laid.bowMm.typical, 'mm')} ({figure(laid.bowMm.low)} to {figure(
          laid.bowMm.high
        )}); {BOARD_LIMITS.bowMm} mm is the limit without support. Estimate.
      {/if}
    </p>
  </div>
{/if}

<style>
  .bar {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 12px;
    margin-bottom: 6px;
  }
  .bar .grow {
    flex: 1 1 10rem;
  }
  .bar :global(.bx--select) {
    width: 190px;
  }
  .bar :global(.bx--form-item) {
    flex: 0 0 auto;
  }
  .sides {
    display: flex;
    border: 1px solid var(--ash-edge);
  }
  .sides button {
    padding: 4px 10px;
    border: 0;
    background: none;
    color: var(--ash-soft);
    cursor: pointer;
  }
  .sides button[aria-checked='true'] {
    background: var(--ash-ink);
    color: var(--ash-paper);
  }
  @media (max-width: 672px) {
    .sides button {
      min-height: 44px;
    }
  }
  .sheet {
    margin-bottom: 14px;
    padding: 10px 12px;
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
  }
  .problems {
    color: var(--ash-fail);
  }
  .hint {
    margin-bottom: 6px;
  }
</style>
