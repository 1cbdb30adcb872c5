<script lang="ts">
  import { Modal } from 'carbon-components-svelte';
  import { STAGE_LABEL, type BuildStage } from '#core/build/stages';
  import When from '../common/When.svelte';
  import OnceOpen from '../common/OnceOpen.svelte';

  type Version = { name: string; parts: string; stage: BuildStage };
  /** What somebody else saved in between, beside what was about to be saved. */
  let {
    theirs,
    yours,
    onclose,
    onshow,
    onover
  }: {
    theirs: (Version & { updatedAt: string }) | undefined;
    yours: Version;
    onclose: () => void;
    onshow: () => void;
    /** Saves yours over theirs. */
    onover: () => void;
  } = $props();
</script>

<OnceOpen open={theirs !== undefined}>
  <Modal
    open={theirs !== undefined}
    modalHeading="This build was saved elsewhere in the meantime"
    primaryButtonText="Save mine over it"
    secondaryButtonText="Show theirs"
    on:close={onclose}
    on:click:button--secondary={onshow}
    on:submit={onover}
  >
    {#if theirs}
      <table class="plain-table">
        <thead><tr><th></th><th>Theirs, <When at={theirs.updatedAt} /></th><th>Yours, not saved</th></tr></thead>
        <tbody>
          <tr><td>Name</td><td>{theirs.name}</td><td>{yours.name}</td></tr>
          <tr><td>Parts</td><td>{theirs.parts}</td><td>{yours.parts}</td></tr>
          <tr><td>Stage</td><td>{STAGE_LABEL[theirs.stage]}</td><td>{STAGE_LABEL[yours.stage]}</td></tr>
        </tbody>
      </table>
      <p class="small quiet">Nothing was overwritten. Either version can be undone afterwards.</p>
    {/if}
  </Modal>
</OnceOpen>
