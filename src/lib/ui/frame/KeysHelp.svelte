<script lang="ts">
  import { Modal, Toggle } from 'carbon-components-svelte';
  import { keys } from './keys.svelte';

  /** Where all of them stand, where there is such a page. */
  let { href }: { href?: string | undefined } = $props();
</script>

<Modal passiveModal bind:open={keys.setting.help} modalHeading="Keys" size="xs">
  <!-- Read from its top: else the focus, and the view with it, goes to the switch at its foot. -->
  <table class="plain-table" tabindex="-1" data-modal-primary-focus>
    <thead><tr><th>Key</th><th>What it does</th></tr></thead>
    <tbody>
      {#each keys.list as key (key.keys)}
        <tr><td><kbd>{key.keys === ' ' ? 'Space' : key.keys}</kbd></td><td>{key.label}</td></tr>
      {/each}
      <tr><td><kbd>?</kbd></td><td>This list</td></tr>
      <tr><td><kbd>↑ ↓</kbd></td><td>In the figures of a plan: the next figure and its working</td></tr>
    </tbody>
  </table>
  {#if href}<p class="all"><a {href} onclick={() => (keys.setting.help = false)}>All keys, page by page</a></p>{/if}
  <Toggle
    labelText="Single keys"
    labelA="off"
    labelB="on"
    toggled={keys.setting.on}
    on:toggle={(e) => keys.turn(e.detail.toggled)}
  />
</Modal>

<style>
  kbd {
    padding: 1px 7px;
    border: 1px solid var(--ash-edge);
    font: 12px var(--ash-mono);
    white-space: nowrap;
  }
  table:focus {
    outline: none;
  }
  table,
  .all {
    margin-bottom: 20px;
  }
</style>
