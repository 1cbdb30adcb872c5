<script lang="ts">
  import { Checkbox, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import { FILESYSTEM_IDS, FILESYSTEMS, OS_LABEL } from '#core/facts/filesystems';
  import { NAME_LIMIT } from '#core/erase/volume-name';
  import type { Settled } from '#core/format/settled';
  import SizesList from './SizesList.svelte';
  import { FORMATTERS, type FormatChoices } from '#core/sheets/format-choices';

  type Props = {
    settled: Settled;
    media: 'nvme' | 'sata-ssd' | 'hdd';
    problems: readonly { path: string; message: string }[];
    onchange: (choices: FormatChoices) => void;
  };
  /** How it is going to be made: what is advised stands in every field, and each can be changed. */
  let { settled, media, problems, onchange }: Props = $props();
  const wrong = (path: string): string | undefined => problems.find((problem) => problem.path === path)?.message;
  const UNITS = ['', '4 KiB', '16 KiB', '32 KiB', '64 KiB', '128 KiB', '256 KiB', '1 MiB'];
  const set = (field: keyof FormatChoices, event: Event) =>
    onchange({ [field]: (event.currentTarget as HTMLSelectElement).value } as FormatChoices);
  /** What is being typed: an answer to something else that arrives meanwhile does not take it away. */
  let typing = $state<{ name?: string | undefined; keyPlace?: string | undefined }>({});
  /** A text counts when it is left, and not letter by letter; a volume without a name keeps the one it had. */
  const left = (field: 'name' | 'keyPlace', event: Event) => {
    const input = event.target as HTMLInputElement;
    const text = input.value.trim();
    typing = { ...typing, [field]: undefined };
    if (text === '' && field === 'name') input.value = settled.name;
    else if (text !== (settled[field] ?? '')) onchange({ [field]: text });
  };
  const encrypted = $derived(settled.encryption !== 'none');
</script>

<section aria-label="How it is made">
  <h2>How it is made</h2>
  <div class="fields">
    <Select
      size="sm"
      labelText="Formatted on"
      helperText={settled.elsewhere
        ? 'The computer of this build formats no drive: another system is assumed.'
        : undefined}
      selected={settled.system.family}
      on:change={(e) =>
        onchange({ system: { family: (e.currentTarget as HTMLSelectElement).value as (typeof FORMATTERS)[number] } })}
    >
      {#each FORMATTERS as family (family)}<SelectItem value={family} text={OS_LABEL[family]} />{/each}
    </Select>
    <Select
      size="sm"
      labelText="Filesystem"
      selected={settled.filesystem}
      invalid={wrong('filesystem') !== undefined}
      invalidText={wrong('filesystem') && `${FILESYSTEMS[settled.filesystem].label} ${wrong('filesystem')}.`}
      on:change={(e) => set('filesystem', e)}
    >
      {#each FILESYSTEM_IDS as id (id)}<SelectItem value={id} text={FILESYSTEMS[id].label} />{/each}
    </Select>
    <Select
      size="sm"
      labelText="Partition scheme"
      selected={settled.scheme}
      invalid={wrong('scheme') !== undefined}
      invalidText={wrong('scheme') && `MBR ${wrong('scheme')}.`}
      on:change={(e) => set('scheme', e)}
    >
      <SelectItem value="gpt" text="GPT" />
      <SelectItem value="mbr" text="MBR" />
    </Select>
    <TextInput
      size="sm"
      labelText="Name of the volume"
      helperText="At most {NAME_LIMIT[settled.filesystem]} of A to Z, 0 to 9, _ and -"
      value={typing.name ?? settled.name}
      on:input={(e) => (typing = { ...typing, name: String(e.detail ?? '') })}
      invalid={wrong('name') !== undefined}
      invalidText={wrong('name') && `It ${wrong('name')}.`}
      on:blur={(e) => left('name', e)}
    />
    <Select
      size="sm"
      labelText="Allocation unit"
      selected={settled.allocationUnit ?? ''}
      on:change={(e) => set('allocationUnit', e)}
    >
      {#each UNITS as unit (unit)}<SelectItem
          value={unit}
          text={unit === '' ? 'as the system makes it' : unit}
        />{/each}
    </Select>
    <Select size="sm" labelText="Encryption" selected={settled.encryption} on:change={(e) => set('encryption', e)}>
      <SelectItem value="none" text="none" />
      <SelectItem value="system" text="the system’s own" />
      <SelectItem value="container" text="an encrypted container" />
    </Select>
    {#if encrypted}
      <TextInput
        size="sm"
        labelText="Where the recovery key lies"
        helperText="The place, never the key"
        placeholder="such as: safe of the house, envelope 4"
        value={typing.keyPlace ?? settled.keyPlace ?? ''}
        on:input={(e) => (typing = { ...typing, keyPlace: String(e.detail ?? '') })}
        invalid={wrong('keyPlace') !== undefined}
        invalidText={wrong('keyPlace') && `This ${wrong('keyPlace')}.`}
        on:blur={(e) => left('keyPlace', e)}
      />
    {/if}
    {#if settled.system.family === 'windows'}
      <Select
        size="sm"
        labelText="Write cache on Windows"
        helperText={settled.policy === 'performance'
          ? 'Fast, and must be ejected each time'
          : 'Safe to pull; writes at a half to a sixth'}
        selected={settled.policy}
        on:change={(e) => set('policy', e)}
      >
        <SelectItem value="performance" text="better performance" />
        <SelectItem value="quick-removal" text="quick removal" />
      </Select>
    {/if}
  </div>
  <Checkbox
    labelText="Full format: write all of it once{media === 'hdd'
      ? ', which finds weak places'
      : ' (a test; on flash no safe erasure)'}"
    checked={settled.full}
    on:check={({ detail }) => onchange({ full: detail })}
  />
  <SizesList onchoose={(allocationUnit) => onchange({ allocationUnit })} />
</section>

<style>
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 12.5rem), 1fr));
    gap: 12px 16px;
    margin: 8px 0;
    align-items: start;
  }
</style>
