<script lang="ts">
  import { Modal, TextInput } from 'carbon-components-svelte';
  import OnceOpen from '../common/OnceOpen.svelte';

  /** Asks what a pairing is called when it is kept as a build. */
  let {
    open = $bindable(),
    suggested,
    busy,
    wrong,
    onsave
  }: {
    open: boolean;
    /** The name that stands there at first. */
    suggested: string;
    busy: boolean;
    /** What the server says against it. */
    wrong: string;
    onsave: (name: string) => void;
  } = $props();
  let name = $state('');
  $effect(() => {
    if (open) name = suggested;
  });
</script>

<OnceOpen {open}>
  <Modal
    bind:open
    size="xs"
    modalHeading="Save as build"
    primaryButtonText={busy ? 'Saving …' : 'Save'}
    primaryButtonDisabled={busy || name.trim() === ''}
    secondaryButtonText="Cancel"
    selectorPrimaryFocus="#build-name"
    shouldSubmitOnEnter
    on:click:button--secondary={() => (open = false)}
    on:submit={() => onsave(name.trim())}
  >
    <p class="why">The build keeps these parts as they are now, with the plan made from them.</p>
    <TextInput
      id="build-name"
      labelText="Name of the build"
      bind:value={name}
      maxlength={120}
      invalid={wrong !== ''}
      invalidText={wrong}
    />
  </Modal>
</OnceOpen>

<style>
  .why {
    margin-bottom: 16px;
  }
</style>
