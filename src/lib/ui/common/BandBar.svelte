<script lang="ts">
  import type { Band } from '#core/quantities/band';
  import { barShare } from '../geometry/lane';

  /** A band of MB/s on the lane's scale, lying down: hatching from low to high, a tick at the typical value. */
  let { band }: { band: Band } = $props();
  const uid = $props.id();
  const x = (value: number) => 2 + barShare(value) * 156;
</script>

<svg viewBox="0 0 160 14" width="160" height="14" aria-hidden="true" focusable="false">
  <defs>
    <pattern id="bar-{uid}" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"
      ><line x1="0" y1="0" x2="0" y2="5" /></pattern
    >
  </defs>
  <line class="axis" x1="0" x2="160" y1="7" y2="7" />
  <rect x={x(band.low)} y="2.5" width={Math.max(2, x(band.high) - x(band.low))} height="9" fill="url(#bar-{uid})" />
  <line class="typical" x1={x(band.typical)} x2={x(band.typical)} y1="0" y2="14" />
</svg>

<style>
  svg {
    display: block;
    width: 100%;
    max-width: 160px;
  }
  .axis {
    stroke: var(--ash-line);
  }
  pattern line {
    stroke: var(--ash-band);
    stroke-width: 2.4;
  }
  .typical {
    stroke: var(--ash-ink);
    stroke-width: 2.2;
  }
</style>
