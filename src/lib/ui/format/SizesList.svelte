<script lang="ts">
  import { TextArea } from 'carbon-components-svelte';
  import { clusterText } from '#core/erase/allocation-unit';
  import { slackOf } from '#core/filesystem/clusters';
  import { readSizes } from '#core/filesystem/size-list';
  import { counted, figure, quantity } from '#core/quantities/format';

  /** What the ends of files leave unused with each allocation unit, from a list of their sizes. */
  let { onchoose }: { onchoose: (unit: string) => void } = $props();
  let text = $state('');
  const read = $derived(readSizes(text));
  const UNITS = [4096, 32_768, 131_072, 1_048_576];
  const rows = $derived(UNITS.map((unit) => ({ unit, slack: slackOf(read.sizes, unit) })));
</script>

<details>
  <summary>Room that the ends of files take, from a list of sizes</summary>
  <TextArea
    labelText="Sizes, one file a line; bytes where there is no unit"
    rows={4}
    placeholder="such as 1.5 MB sheet-002.tif"
    bind:value={text}
  />
  {#if read.sizes.length > 0}
    <table class="plain-table">
      <thead
        ><tr
          ><th scope="col">Unit</th><th scope="col" class="num">unused</th><th scope="col" class="num">of the files</th
          ><th scope="col"></th></tr
        ></thead
      >
      <tbody>
        {#each rows as { unit, slack } (unit)}
          <tr>
            <td>{clusterText(unit)}</td>
            <td class="num figure">{quantity(slack.bytes / 1e6, 'MB')}</td>
            <td class="num figure">{quantity(slack.share * 100, '%')}</td>
            <td
              ><button type="button" class="link" onclick={() => onchoose(clusterText(unit))}
                >Use {clusterText(unit)}</button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="small quiet">
      {counted(read.sizes.length, 'file')}, {figure(read.sizes.reduce((sum, size) => sum + size, 0) / 1e9)} GB{read.unread >
      0
        ? `; ${counted(read.unread, 'line')} without a size`
        : ''}.
    </p>
  {/if}
</details>

<style>
  details {
    margin-top: 10px;
  }
  summary {
    padding: 6px 0;
    cursor: pointer;
  }
  .num {
    text-align: right;
  }
</style>
