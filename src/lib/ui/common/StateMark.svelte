<script lang="ts">
  import type { Mark } from './verdicts';

  /** The shape of a state: tick, circle, wedge, diamond, barred square. The word stands beside it. */
  let { mark, size = 18 }: { mark: Mark; size?: number } = $props();
</script>

<svg class={mark} width={size} height={size} viewBox="0 0 20 20" aria-hidden="true" focusable="false">
  {#if mark === 'pass'}
    <path d="M3.5 10.5l4.2 4.2L16.5 5" />
  {:else if mark === 'note'}
    <circle cx="10" cy="10" r="7.2" /><path d="M10 9v5M10 6v.4" />
  {:else if mark === 'limit'}
    <path d="M2.5 6.5h15L10 16.5z" />
  {:else if mark === 'check'}
    <path d="M10 2.2l7.8 7.8-7.8 7.8L2.2 10z" /><path d="M10 6.6v4.2M10 13.2v.3" />
  {:else}
    <rect x="2.8" y="2.8" width="14.4" height="14.4" rx="1.5" /><path d="M6.6 6.6l6.8 6.8M13.4 6.6l-6.8 6.8" />
  {/if}
</svg>

<style>
  svg {
    flex: none;
    fill: none;
    stroke: currentColor;
    stroke-width: 1.9;
    stroke-linecap: round;
    stroke-linejoin: round;
    vertical-align: -0.22em;
  }
  .pass {
    color: var(--ash-pass);
  }
  .note {
    color: var(--ash-note);
  }
  .limit,
  .check {
    color: var(--ash-caution);
  }
  .fail {
    color: var(--ash-fail);
  }
</style>
