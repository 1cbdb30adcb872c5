<script lang="ts">
  import { KEY_GROUPS } from '$lib/ui/frame/key-list';
  import { keys } from '$lib/ui/frame/keys.svelte';
  import { Toggle } from 'carbon-components-svelte';

  let { data } = $props();
</script>

<svelte:head><title>Keys · {data.crate.name} · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Keys</h1>
      <p class="quiet">
        Everything works with the keyboard. Single keys rest while one types, picks from a menu or answers a dialog. In
        other fields
        <kbd>Tab</kbd>, <kbd>Enter</kbd>, <kbd>Space</kbd> and the arrows do what they do everywhere.
      </p>
    </div>
    <Toggle
      labelText="Single keys"
      labelA="off"
      labelB="on"
      toggled={keys.setting.on}
      on:toggle={(e) => keys.turn(e.detail.toggled)}
    />
  </div>
  <div class="groups">
    {#each KEY_GROUPS as group (group.title)}
      <section>
        <h2>{group.title}</h2>
        <table class="plain-table">
          <thead class="hidden-visually"><tr><th>Key</th><th>What it does</th></tr></thead>
          <tbody>
            {#each group.keys as [key, what] (key)}
              <tr><td class="key"><kbd>{key}</kbd></td><td>{what}</td></tr>
            {/each}
          </tbody>
        </table>
      </section>
    {/each}
  </div>
</div>

<style>
  .groups {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
    gap: 20px 32px;
    align-items: start;
  }
  .key {
    width: 110px;
    white-space: nowrap;
  }
  kbd {
    padding: 1px 7px;
    border: 1px solid var(--ash-edge);
    font: 12px var(--ash-mono);
  }
</style>
