<script lang="ts">
  import type { ComponentProps } from 'svelte';
  import DryFit from './DryFit.svelte';
  import GapFields from './GapFields.svelte';
  import PadTable from './PadTable.svelte';
  import PadVerdict from './PadVerdict.svelte';
  import Proposals from './Proposals.svelte';
  import type { PadStation } from './station.svelte';
  import Piece from '../common/Piece.svelte';

  /** From the gap that is there to the pad that closes it: measured, chosen, judged, proposed, and tried on. */
  let {
    station,
    tag,
    kept,
    stacking,
    last,
    busy,
    onrecord
  }: {
    station: PadStation;
    tag: string;
    /** Whether the build has pads of its own choice. */
    kept: boolean;
    stacking: boolean;
    last: ComponentProps<typeof DryFit>['last'];
    busy: boolean;
    onrecord: ComponentProps<typeof DryFit>['onrecord'];
  } = $props();
  const { chips, gaps, laid, proposals, tried } = $derived(station);
</script>

<Piece><GapFields {chips} rows={laid.rows} {gaps} onset={(component, mm) => station.measureGap(component, mm)} /></Piece
>
<Piece
  >{#if laid.rows.length > 0}
    <h2>Pads{tried ? ', tried and not kept yet' : kept ? ', as kept' : ', chosen by the program'}</h2>
    <PadTable {station} {stacking} />
  {/if}</Piece
>
<Piece><PadVerdict {station} {tag} /></Piece>
<Piece
  >{#if proposals}
    <Proposals {proposals} current={laid.rows} onpick={(proposal) => station.pick(proposal)} />
    {#if laid.rows.length > 0}
      <DryFit rows={laid.rows} {last} {busy} {onrecord} onnext={(untouched) => station.nextAfter(untouched)} />
    {/if}
  {/if}</Piece
>
