<script lang="ts">
  import { Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import type { Protocol } from '#core/protocols/protocols';
  import { readQuantity, type Expectation } from '#core/quantities/read';
  import { readTime } from '#core/quantities/read-time';
  import { figure } from '#core/quantities/format';
  import type { Settings } from '#core/results/settings';

  type Props = {
    protocol: Protocol;
    settings: Settings;
    others: readonly { id: string; name: string }[];
    /** Told of every setting that can be read; one that is cleared goes back to what is usual. */
    onset: (change: Partial<Record<keyof Settings, number | string | undefined>>) => void;
  };
  /** What can be set of a protocol, each with what it is now. */
  let { protocol, settings, others, onset }: Props = $props();
  const EXPECT: Partial<Record<keyof Settings, Expectation & { unit: string }>> = {
    GB: { unit: 'GB', min: 0.01, max: 200_000 },
    files: { unit: '', min: 1, max: 1e9 },
    rounds: { unit: '', min: 1, max: 200 },
    seconds: { unit: 's', min: 10, max: 259_200 },
    restS: { unit: 's', min: 0, max: 86_400 },
    fillPercent: { unit: '%', min: 0, max: 99 },
    taskS: { unit: 's', min: 1, max: 1e6 }
  };
  const WHOLE: ReadonlySet<string> = new Set(['files', 'rounds']);
  const fields = $derived(Object.entries(protocol.asks) as [keyof Settings, string][]);
  let wrong = $state<Partial<Record<keyof Settings, string>>>({});
  function left(key: keyof Settings, event: Event): void {
    const text = (event.target as HTMLInputElement).value.trim();
    const expect = EXPECT[key];
    if (!expect) return;
    wrong = { ...wrong, [key]: undefined };
    if (text === '') return onset({ [key]: undefined });
    const read = expect.unit === 's' ? readTime(text, expect.max) : readQuantity(text, expect);
    if (!read.ok) wrong = { ...wrong, [key]: read.message };
    else if (read.value < (expect.min ?? 0)) wrong = { ...wrong, [key]: `At least ${expect.min} ${expect.unit}.` };
    else if (WHOLE.has(key) && !Number.isInteger(read.value))
      wrong = { ...wrong, [key]: 'This must be a whole number.' };
    else onset({ [key]: read.value });
  }
</script>

<div class="fields">
  {#each fields as [key, label] (key)}
    {#if key === 'otherBuildId'}
      <Select
        size="sm"
        labelText={label}
        selected={settings.otherBuildId ?? ''}
        on:change={(e) => onset({ otherBuildId: (e.currentTarget as HTMLSelectElement).value || undefined })}
      >
        <SelectItem value="" text="choose one" />
        {#each others as other (other.id)}<SelectItem value={other.id} text={other.name} />{/each}
      </Select>
    {:else}
      <TextInput
        size="sm"
        labelText="{label}{EXPECT[key]?.unit ? `, ${EXPECT[key].unit}` : ''}"
        value={settings[key] === undefined ? '' : figure(Number(settings[key]))}
        invalid={wrong[key] !== undefined}
        invalidText={wrong[key] ?? ''}
        on:blur={(e) => left(key, e)}
      />
    {/if}
  {/each}
</div>

<style>
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 10.5rem), 1fr));
    gap: 8px 14px;
    align-items: start;
  }
</style>
