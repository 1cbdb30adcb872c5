<script lang="ts">
  import { counted } from '#core/quantities/format';

  type Props = {
    away: boolean;
    waiting: number;
    refused: number;
    why: string | undefined;
    kept: boolean;
    awake: 'on' | 'off' | 'insecure' | 'unable';
    canUndo: boolean;
    onundo: () => void;
    onsettle: (keep: boolean) => void;
  };
  /** Whether everything is sent, what waits, what was refused, and whether the screen stays on. */
  let { away, waiting, refused, why, kept, awake, canUndo, onundo, onsettle }: Props = $props();
  const AWAKE = {
    on: 'The screen stays on.',
    off: '',
    insecure:
      'The screen may go dark: over plain http this browser lets no page keep it on. Set a longer time in its settings.',
    unable: 'The screen may go dark: this browser does not keep it on now. Set a longer time in its settings.'
  };
</script>

<div class="state no-print" aria-live="polite">
  {#if away}
    <p class="away">
      <strong>No connection.</strong>
      {waiting === 0 ? 'You can go on' : `${counted(waiting, 'entry waits', 'entries wait')} here`}: what you tick, note
      and answer {kept ? 'is kept in this browser and' : 'is kept on this page only and'} sent when the connection is back.
      Do not reload this page until then: it would not come up{kept
        ? ', though nothing that waits is lost'
        : ', and what waits would be lost'}.
    </p>
  {:else if waiting > 0}
    <p class="small quiet">Sending {counted(waiting, 'entry', 'entries')}.</p>
  {/if}
  {#if refused > 0}
    <p class="refused">
      {counted(refused, 'entry', 'entries')} could not be sent: {why}. They are kept in this browser.
      <button type="button" class="link" onclick={() => onsettle(true)}>Save as a file</button>
      <button type="button" class="link" onclick={() => onsettle(false)}>Forget</button>
    </p>
  {/if}
  <p class="small quiet">
    {AWAKE[awake]}
    {#if canUndo}<button type="button" class="link" onclick={onundo}>Undo the last entry</button>{/if}
  </p>
</div>

<style>
  .away,
  .refused {
    padding: 8px 12px;
    border-left: 3px solid var(--ash-caution);
    background: var(--ash-well);
  }
</style>
