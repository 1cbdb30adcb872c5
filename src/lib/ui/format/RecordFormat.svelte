<script lang="ts">
  import { Button, Select, SelectItem, TextArea, TextInput } from 'carbon-components-svelte';
  import { FILESYSTEMS, OS_LABEL } from '#core/facts/filesystems';
  import { recordFrom, recordWords, type FormatRecord } from '#core/format/record';
  import type { Settled } from '#core/format/settled';
  import { readQuantity } from '#core/quantities/read';
  import DayField from '../common/DayField.svelte';

  type Props = {
    settled: Settled;
    items: readonly { id: string; tag: string }[];
    today: string;
    busy: boolean;
    errors: Record<string, string>;
    onkeep: (record: FormatRecord, date: string) => void;
  };
  /** What was made: as it was settled, with what the system reports and what else is to be known. */
  let { settled, items, today, busy, errors, onkeep }: Props = $props();
  const planned = $derived(recordFrom(settled));
  let label = $state<string | undefined>(undefined);
  let free = $state('');
  let keyPlace = $state<string | undefined>(undefined);
  let note = $state('');
  let unitId = $state('');
  // svelte-ignore state_referenced_locally
  let date = $state(today);
  const reading = $derived(free.trim() === '' ? undefined : readQuantity(free, { unit: 'TB', min: 0, max: 1000 }));
  const record = $derived<FormatRecord>({
    ...planned,
    label: (label ?? planned.label).trim() || planned.label,
    ...(planned.encryption !== 'none' && (keyPlace ?? planned.keyPlace)
      ? { keyPlace: (keyPlace ?? planned.keyPlace ?? '').trim() }
      : {}),
    ...(reading?.ok ? { freeBytes: Math.round(reading.value * 1e12) } : {}),
    ...(note.trim() ? { note: note.trim() } : {}),
    ...(unitId ? { unitId } : {})
  });
</script>

<section aria-label="What was made">
  <h2>What was made</h2>
  <p>
    {recordWords(record)}; on {OS_LABEL[settled.system.family]}, {settled.full ? 'full' : 'quick'}.
    <span class="quiet small"
      >Made otherwise? Change it under “Advice and plan” first. {FILESYSTEMS[settled.filesystem].label} and the rest become
      conditions of every later result.</span
    >
  </p>
  <div class="fields">
    <TextInput
      size="sm"
      labelText="Name of the volume"
      value={label ?? planned.label}
      maxlength={63}
      invalid={errors.label !== undefined}
      invalidText={errors.label}
      on:input={(e) => (label = String(e.detail ?? ''))}
    />
    <TextInput
      size="sm"
      labelText="Free, as the system reports it"
      placeholder="such as 1.99 TB"
      bind:value={free}
      invalid={(reading !== undefined && !reading.ok) || errors.freeBytes !== undefined}
      invalidText={reading && !reading.ok ? reading.message : errors.freeBytes}
    />
    {#if planned.encryption !== 'none'}
      <TextInput
        size="sm"
        labelText="Where the recovery key lies"
        helperText="The place, never the key"
        value={keyPlace ?? planned.keyPlace ?? ''}
        maxlength={200}
        invalid={errors.keyPlace !== undefined}
        invalidText={errors.keyPlace}
        on:input={(e) => (keyPlace = String(e.detail ?? ''))}
      />
    {/if}
    {#if items.length > 0}
      <Select size="sm" labelText="Which item" bind:selected={unitId}>
        <SelectItem value="" text="the one in this build" />
        {#each items as item (item.id)}<SelectItem value={item.id} text={item.tag} />{/each}
      </Select>
    {/if}
    <DayField label="Day" value={date} last={today} onpick={(value) => (date = value)} />
  </div>
  <TextArea labelText="Note" rows={2} maxlength={500} bind:value={note} />
  <p class="keep">
    <Button size="small" disabled={busy || (reading !== undefined && !reading.ok)} on:click={() => onkeep(record, date)}
      >Keep the record</Button
    >
  </p>
</section>

<style>
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 13rem), 1fr));
    gap: 12px 16px;
    margin: 8px 0 12px;
    align-items: start;
  }
  .keep {
    margin-top: 10px;
  }
</style>
