<script lang="ts">
  import { Modal } from 'carbon-components-svelte';
  import OnceOpen from '../common/OnceOpen.svelte';

  /** Asks before a build goes, and says what goes with it. */
  let {
    open = $bindable(),
    tag,
    name,
    results,
    ondelete
  }: { open: boolean; tag: string; name: string; results: number; ondelete: () => void } = $props();
</script>

<OnceOpen {open}>
  <Modal
    danger
    bind:open
    modalHeading="Delete {tag}, {name}?"
    primaryButtonText="Delete"
    secondaryButtonText="Keep it"
    on:click:button--secondary={() => (open = false)}
    on:submit={ondelete}
  >
    <p>
      {results === 0
        ? 'It has no results.'
        : `Its ${results === 1 ? 'one result goes' : `${results} results go`} with it.`} The parts stay in the crate. You
      can take this back.
    </p>
  </Modal>
</OnceOpen>
