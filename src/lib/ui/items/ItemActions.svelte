<script lang="ts">
  import type { ComponentProps } from 'svelte';
  import BuildPicker from '$lib/ui/common/BuildPicker.svelte';
  import DayField from '$lib/ui/common/DayField.svelte';
  import { Button, Modal, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { UNIT_STATES } from '#core/parts/item';
  import OnceOpen from '../common/OnceOpen.svelte';

  export type UnitAct =
    | { do: 'check-out'; to: string; dueBack?: string }
    | { do: 'check-in'; location?: string }
    | { do: 'set'; set: Record<string, string | null> }
    | { do: 'delete' };
  type Props = {
    count: number;
    /** How many of them somebody has; what cannot be done with any of them is not offered. */
    lent?: number;
    /** Looks for builds by words. */
    find: ComponentProps<typeof BuildPicker>['find'];
    /** Builds that it can be put into: all of them, or the first of many. */
    builds: { builds: readonly { id: string; tag: string; name: string }[]; total: number };
    busy: boolean;
    onact: (act: UnitAct) => void;
  };
  let { count, lent, find, builds, busy, onact }: Props = $props();
  let dialog = $state<'none' | 'out' | 'in' | 'set'>('none');
  let who = $state('');
  let due = $state('');
  let where = $state('');
  let field = $state<'state' | 'location' | 'custodian' | 'buildId'>('location');
  let value = $state('');
  const units = $derived(count === 1 ? 'this item' : `${count} items`);

  function act(what: UnitAct): void {
    dialog = 'none';
    onact(what);
  }
</script>

<div class="acts no-print">
  <Button size="small" kind="tertiary" disabled={busy || lent === count} on:click={() => (dialog = 'out')}>Lend</Button>
  <Button size="small" kind="tertiary" disabled={busy || lent === 0} on:click={() => (dialog = 'in')}>Returned</Button>
  <Button size="small" kind="tertiary" disabled={busy} on:click={() => (dialog = 'set')}>Change a field</Button>
  <Button size="small" kind="tertiary" disabled={busy} on:click={() => act({ do: 'set', set: { state: 'retired' } })}
    >Retire</Button
  >
  <Button size="small" kind="danger-tertiary" disabled={busy} on:click={() => act({ do: 'delete' })}>Delete</Button>
</div>

<OnceOpen open={dialog === 'out'}>
  <Modal
    open={dialog === 'out'}
    size="xs"
    modalHeading="Lend {units}"
    primaryButtonText="Lend"
    secondaryButtonText="Cancel"
    primaryButtonDisabled={who.trim() === ''}
    on:click:button--secondary={() => (dialog = 'none')}
    on:close={() => (dialog = 'none')}
    on:submit={() => act({ do: 'check-out', to: who.trim(), ...(due ? { dueBack: due } : {}) })}
  >
    <TextInput labelText="Who takes it" bind:value={who} maxlength={120} />
    <DayField label="Due back (optional)" value={due} onpick={(date) => (due = date)} />
  </Modal>
</OnceOpen>
<OnceOpen open={dialog === 'in'}>
  <Modal
    open={dialog === 'in'}
    size="xs"
    modalHeading="Return {units}"
    primaryButtonText="Returned"
    secondaryButtonText="Cancel"
    on:click:button--secondary={() => (dialog = 'none')}
    on:close={() => (dialog = 'none')}
    on:submit={() => act({ do: 'check-in', ...(where.trim() ? { location: where.trim() } : {}) })}
  >
    <TextInput labelText="Where it goes (optional)" bind:value={where} maxlength={120} />
  </Modal>
</OnceOpen>
<OnceOpen open={dialog === 'set'}>
  <Modal
    open={dialog === 'set'}
    size="xs"
    modalHeading="Change a field of {units}"
    primaryButtonText="Set it"
    secondaryButtonText="Cancel"
    primaryButtonDisabled={field === 'state' && value === ''}
    on:click:button--secondary={() => (dialog = 'none')}
    on:close={() => (dialog = 'none')}
    on:submit={() => act({ do: 'set', set: { [field]: value.trim() === '' ? null : value.trim() } })}
  >
    <Select
      labelText="Field"
      selected={field}
      on:update={(e) => {
        field = e.detail as typeof field;
        value = '';
      }}
    >
      <SelectItem value="location" text="Where" />
      <SelectItem value="custodian" text="Who has it" />
      <SelectItem value="state" text="State" />
      <SelectItem value="buildId" text="In build" />
    </Select>
    {#if field === 'state'}
      <Select labelText="New value" selected={value} on:update={(e) => (value = String(e.detail ?? ''))}>
        <SelectItem value="" text="choose" />
        {#each UNIT_STATES as state (state)}<SelectItem value={state} text={state} />{/each}
      </Select>
    {:else if field === 'buildId'}
      <BuildPicker
        label="New value"
        {find}
        builds={builds.builds}
        total={builds.total}
        none="in no build"
        picked={value}
        onpick={(build) => (value = build?.id ?? '')}
      />
    {:else}
      <TextInput labelText="New value" bind:value maxlength={120} helperText="Left empty, it is taken away." />
    {/if}
  </Modal>
</OnceOpen>

<style>
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
</style>
