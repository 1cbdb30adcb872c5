<script lang="ts">
  import { Modal, Select, SelectItem } from 'carbon-components-svelte';
  import { readDraft, type Draft, type Field } from '#core/parts/form/form';
  import { editablePaths } from './choices';
  import FieldInput from './FieldInput.svelte';
  import OnceOpen from '../common/OnceOpen.svelte';

  /** Sets one field of several parts at once. */
  let {
    open,
    what,
    fields,
    busy,
    onclose,
    onset
  }: {
    open: boolean;
    /** How many of which, as in “3 drives”. */
    what: string;
    fields: readonly Field[];
    busy: boolean;
    onclose: () => void;
    onset: (path: string, value: unknown, title: string) => void;
  } = $props();
  let path = $state('');
  let draft = $state<Draft>({});
  const editable = $derived(editablePaths(fields));
  const editing = $derived(editable.find((e) => e.path === path));
  const read = $derived(
    editing ? readDraft([{ ...editing.field, key: 'value', required: false }], draft) : { spec: {}, errors: {} }
  );
</script>

<OnceOpen {open}>
  <Modal
    {open}
    modalHeading="Change a field of {what}"
    primaryButtonText="Set it"
    secondaryButtonText="Cancel"
    primaryButtonDisabled={busy || !editing || Object.keys(read.errors).length > 0}
    on:click:button--secondary={onclose}
    on:close={onclose}
    on:submit={() => onset(path, read.spec.value ?? null, editing?.title ?? path)}
  >
    <Select
      labelText="Field"
      selected={path}
      on:update={(e) => {
        path = String(e.detail ?? '');
        draft = {};
      }}
    >
      <SelectItem value="" text="choose" />
      {#each editable as entry (entry.path)}<SelectItem value={entry.path} text={entry.title} />{/each}
    </Select>
    {#if editing}
      <div class="value">
        <FieldInput
          field={{ ...editing.field, key: 'value', required: false, title: 'New value' }}
          path="value"
          {draft}
          errors={draft.value === undefined || draft.value === '' ? {} : read.errors}
          assumed={{}}
          onedit={(key, value) => (draft[key] = value)}
          onremove={() => {}}
        />
      </div>
      <p class="small quiet">
        Left empty, the field is taken away. Every part is checked; if one cannot take it, none is changed.
      </p>
    {/if}
  </Modal>
</OnceOpen>

<style>
  .value {
    margin: 16px 0 8px;
  }
</style>
