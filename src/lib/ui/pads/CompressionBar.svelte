<script lang="ts">
  /** Compression from -20 to 60 %, with the good range marked and named. */
  let { percent, verdict }: { percent: number; verdict: string } = $props();
  const x = (value: number) => ((Math.min(60, Math.max(-20, value)) + 20) / 80) * 120;
</script>

<svg viewBox="0 0 120 14" width="120" height="14" aria-hidden="true">
  <line class="floor" x1="0" x2="120" y1="11" y2="11" />
  <rect class="good" x={x(10)} y="6" width={x(30) - x(10)} height="5" />
  <line class="zero" x1={x(0)} x2={x(0)} y1="3" y2="13" />
  <path class="mark {verdict}" d="M{x(percent)} 10l-4 -8h8z" />
</svg>

<style>
  .floor,
  .zero {
    stroke: var(--ash-edge);
  }
  .good {
    fill: var(--ash-channel);
    stroke: var(--ash-pass);
  }
  .mark {
    fill: var(--ash-caution);
  }
  .mark.good {
    fill: var(--ash-pass);
    stroke: none;
  }
  .mark.no-contact,
  .mark.over-compressed {
    fill: var(--ash-fail);
  }
</style>
