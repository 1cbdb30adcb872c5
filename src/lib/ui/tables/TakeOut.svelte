<script lang="ts">
  import { KIND_LABEL, KINDS } from '#core/parts/kinds';
  import FilePicker from '$lib/ui/common/FilePicker.svelte';
  import TaskProgress from '$lib/ui/common/TaskProgress.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import type { ComponentProps } from 'svelte';

  /** What can be taken out of a crate, and the way back for all of it: a bundle opened as a new crate. */
  let {
    api,
    opening,
    onbundle,
    oncancel
  }: {
    api: string;
    opening: ComponentProps<typeof TaskProgress>['task'] | undefined;
    onbundle: (file: File) => void;
    oncancel: () => void;
  } = $props();
  const tables = [
    ...KINDS.map((kind) => ({ name: KIND_LABEL[kind].many, of: `what=models&kind=${kind}` })),
    { name: 'Items', of: 'what=units' },
    { name: 'Prices', of: 'what=quotes' }
  ];
</script>

<Wide label="What can be taken out"
  ><table class="plain-table">
    <thead><tr><th>Table</th><th colspan="2">With what is in the crate</th><th>To fill in</th></tr></thead>
    <tbody>
      {#each tables as { name, of } (of)}
        <tr>
          <td>{name}</td>
          <td><a href="{api}/export?{of}&format=csv" download aria-label="{name} as CSV">CSV</a></td>
          <td><a href="{api}/export?{of}&format=json" download aria-label="{name} as JSON">JSON</a></td>
          <td
            ><a href="{api}/export?{of}&format=csv&rows=none" download aria-label="Empty table of {name.toLowerCase()}"
              >empty table</a
            ></td
          >
        </tr>
      {/each}
      <tr>
        <td>The whole crate, with files and history</td>
        <td colspan="3"
          ><a href="{api}/bundle?form=lines" download>Bundle</a>, or
          <a href="{api}/bundle" download>one JSON document</a> (<a href="/api/bundle.schema.json">its schema</a>)</td
        >
      </tr>
    </tbody>
  </table></Wide
>

<p>
  <FilePicker
    label="Open a bundle as a new crate"
    accept={['.json', '.gz', 'application/json', 'application/gzip']}
    onpick={onbundle}
  />
</p>
{#if opening?.state === 'running'}<TaskProgress task={opening} {oncancel} />{/if}

<style>
  p {
    padding: 12px 0;
  }
</style>
