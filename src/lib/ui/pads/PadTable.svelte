<script lang="ts">
  import { Select, SelectItem } from 'carbon-components-svelte';
  import { BOARD_LIMITS } from '#core/facts/m2';
  import { figure, quantity } from '#core/quantities/format';
  import Figure from '../common/Figure.svelte';
  import StateMark from '../common/StateMark.svelte';
  import Wide from '../common/Wide.svelte';
  import { ROLE_WORD, VERDICT_MARKS } from '../geometry/pads';
  import CompressionBar from './CompressionBar.svelte';
  import type { PadStation } from './station.svelte';

  /** The pad over each chip, what its gap is, and what becomes of it; another pad is chosen from the menu. */
  let { station, stacking }: { station: PadStation; stacking: boolean } = $props();
  const { gaps, kinds, laid, selected } = $derived(station);
  const stackedKeys = $derived(
    kinds.flatMap((a, i) => kinds.slice(i).map((b) => ({ key: `${a.key} + ${b.key}`, label: `${a.name} + ${b.name}` })))
  );
  const gapOf = (component: number) => gaps.find((gap) => gap.component === component);
</script>

<Wide label="Pads">
  <table class="plain-table">
    <thead
      ><tr
        ><th scope="col">Chip</th><th scope="col" class="number">Gap</th><th scope="col">Pad</th><th scope="col"
          >Compression</th
        ></tr
      ></thead
    >
    <tbody>
      {#each laid.rows as row (row.component)}
        {@const role = ROLE_WORD[row.role as 'nand']}
        {@const gap = gapOf(row.component)}
        {@const layers = station.layersAt(row.component)}
        <tr class:selected={selected === row.component}>
          <td>
            {role}
            {row.component + 1}<span class="small quiet block">{row.side === 'top' ? 'upper side' : 'underside'}</span>
          </td>
          <td class="number"
            ><Figure value={figure(row.gapMm)} unit="mm" />{#if gap}<span class="small quiet block"
                >{gap.measured ? 'measured' : 'at least'}</span
              >{/if}</td
          >
          <td>
            <Select
              size="sm"
              hideLabel
              labelText="Pad over {role} {row.component + 1}"
              selected={layers}
              on:change={(e) => station.choosePad(row.component, (e.target as HTMLSelectElement).value)}
            >
              <SelectItem value="" text="no pad" />
              {#each kinds as pad (pad.key)}<SelectItem
                  value={pad.key}
                  text="{pad.name}, {pad.thicknessMm} mm{pad.from === 'box' ? ' (box)' : ''}"
                />{/each}
              {#if stacking || layers.includes(' + ')}
                {#each stackedKeys as two (two.key)}<SelectItem value={two.key} text={two.label} />{/each}
              {/if}
            </Select>
          </td>
          <td>
            <span class="verdict {VERDICT_MARKS[row.verdict]}">
              <StateMark mark={VERDICT_MARKS[row.verdict]} size={14} />
              {row.pads.length === 0 ? 'bare' : row.verdict.replace('-', ' ')}
              {#if row.pads.length > 0}<Figure value={figure(row.compressionPercent)} unit="%" />{/if}
            </span>
            <CompressionBar percent={row.pads.length === 0 ? -20 : row.compressionPercent} verdict={row.verdict} />
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</Wide>
<p class="small quiet force">
  Pressed freshly: {laid.rows
    .filter((row) => row.forceN > 0)
    .map(
      (row) =>
        `${ROLE_WORD[row.role as 'nand']} ${row.component + 1} ${quantity(row.pressureMPa, 'MPa')}, ${quantity(row.forceN, 'N')}`
    )
    .join('; ') || 'nothing'}. Limit where the board is backed {BOARD_LIMITS.stressMPa} MPa; it relaxes to about half within
  minutes.
</p>

<style>
  td :global(.bx--select) {
    width: 170px;
  }
  @media (max-width: 672px) {
    td :global(.bx--select-input) {
      height: 44px;
    }
  }
  .block {
    display: block;
  }
  tr.selected td {
    background: var(--ash-well);
  }
  .verdict {
    display: flex;
    align-items: center;
    gap: 5px;
    font-weight: 600;
    white-space: nowrap;
  }
  .pass {
    color: var(--ash-pass);
  }
  .check,
  .limit {
    color: var(--ash-caution);
  }
  .fail {
    color: var(--ash-fail);
  }
  .force {
    margin: 6px 0 10px;
  }
</style>
