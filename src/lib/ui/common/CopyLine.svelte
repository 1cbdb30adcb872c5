<script lang="ts">
  /** A line for a terminal, with a button that copies it. */
  let { text, label = 'Copy the line' }: { text: string; label?: string } = $props();
  let copied = $state(false);
  let failed = $state(false);

  async function copy(): Promise<void> {
    try {
      await navigator.clipboard.writeText(text);
      copied = true;
      setTimeout(() => (copied = false), 2000);
    } catch {
      failed = true;
    }
  }
</script>

<div class="line">
  <pre role="group" aria-label="A line for a terminal">{text}</pre>
  <button type="button" class="no-print" onclick={() => void copy()} aria-label={label}
    >{copied ? 'Copied' : 'Copy'}</button
  >
</div>
{#if failed}<p class="small quiet">The browser does not let it be copied: select the line.</p>{/if}

<style>
  .line {
    display: flex;
    align-items: stretch;
    min-width: 0;
    margin: 4px 0;
    border: 1px solid var(--ash-line);
    background: var(--ash-well);
  }
  pre {
    flex: 1;
    min-width: 0;
    margin: 0;
    padding: 6px 10px;
    font: 400 12px/1.5 var(--ash-mono);
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
  button {
    flex: none;
    min-width: 64px;
    padding: 0 10px;
    border: 0;
    border-left: 1px solid var(--ash-line);
    background: none;
    color: var(--ash-ember);
    font: 600 var(--ash-text-small) var(--ash-font);
    cursor: pointer;
  }
  button:hover {
    background: var(--ash-ember-wash);
  }
  @media (max-width: 672px) {
    button {
      min-height: 44px;
    }
  }
</style>
