<script lang="ts">
  import { FileUploaderButton } from 'carbon-components-svelte';

  type Props = {
    label: string;
    accept?: readonly string[];
    disabled?: boolean;
    /** Where a picture is wanted: a telephone opens its camera, the one at the back. */
    camera?: boolean;
    onpick: (file: File) => unknown;
  };
  /** Picks one file. It is empty again at once, so that the same file, mended meanwhile, can be picked once more. */
  let { label, accept = [], disabled = false, camera = false, onpick }: Props = $props();
  let files = $state.raw<readonly File[]>([]);

  function picked(chosen: readonly File[]): void {
    const file = chosen[0];
    files = [];
    if (file) onpick(file);
  }
</script>

<FileUploaderButton
  kind="tertiary"
  size="field"
  labelText={label}
  disableLabelChanges
  {accept}
  {disabled}
  capture={camera ? 'environment' : undefined}
  bind:files
  on:change={(e) => picked(e.detail)}
/>
