<script lang="ts">
  import { Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import {
    CONDITION_FIELDS,
    missingConditions,
    wayOfCopy,
    type ConditionField,
    type ConditionId,
    type Conditions
  } from '#core/results/conditions';
  import { readQuantity } from '#core/quantities/read';

  type Props = {
    conditions: Conditions;
    needed: readonly ConditionId[];
    /** Whether somebody has tried to keep it: then what is missing is said beside its field. */
    tried: boolean;
    errors?: Record<string, string>;
    onchange: (conditions: Conditions) => void;
  };
  /** Conditions of a run: those that the protocol needs first, each with its “I do not know”. */
  let { conditions, needed, tried, errors = {}, onchange }: Props = $props();
  const first = $derived(CONDITION_FIELDS.filter(({ id }) => needed.includes(id)));
  const others = $derived(CONDITION_FIELDS.filter(({ id }) => !needed.includes(id)));
  const way = $derived(
    conditions.source && conditions.target ? wayOfCopy(conditions.source, conditions.target) : undefined
  );
  const missing = $derived(missingConditions(conditions, needed));
  let unread = $state<Partial<Record<ConditionId, string>>>({});

  const UNKNOWN = '?';
  const isUnknown = (id: ConditionId) => conditions.notKnown?.includes(id) === true;
  function put(id: ConditionId, value: unknown): void {
    const { [id]: _had, notKnown, ...rest } = conditions;
    const unknown = (notKnown ?? []).filter((one) => one !== id);
    if (value === UNKNOWN) unknown.push(id);
    onchange({
      ...rest,
      ...(value === undefined || value === UNKNOWN ? {} : { [id]: value }),
      ...(unknown.length > 0 ? { notKnown: unknown } : {})
    } as Conditions);
  }
  function typed({ id, as }: ConditionField, event: Event): void {
    const text = (event.target as HTMLInputElement).value.trim();
    unread = { ...unread, [id]: undefined };
    if (text === '') return put(id, isUnknown(id) ? UNKNOWN : undefined);
    if (text === UNKNOWN) return put(id, UNKNOWN);
    if (as.kind === 'text')
      return text.length > as.max
        ? void (unread = { ...unread, [id]: `At most ${as.max} characters.` })
        : put(id, text);
    if (as.kind !== 'number') return;
    const read = readQuantity(text, { unit: as.unit, min: as.min, max: as.max });
    if (!read.ok) unread = { ...unread, [id]: read.message };
    else if (id === 'files' && !Number.isInteger(read.value))
      unread = { ...unread, [id]: 'This must be a whole number.' };
    else put(id, read.value);
  }
  const chosen = (id: ConditionId): string =>
    isUnknown(id) ? UNKNOWN : conditions[id] === undefined ? '' : String(conditions[id]);
  const wrong = (id: ConditionId): string | undefined =>
    unread[id] ??
    errors[`conditions.${id}`] ??
    (tried && missing.includes(id) ? 'Answer it, or say that you do not know.' : undefined);
</script>

{#snippet field(one: ConditionField)}
  {@const { id, label, as, why } = one}
  {#if as.kind === 'choice' || as.kind === 'yes'}
    <Select
      size="sm"
      labelText={label}
      helperText={why}
      selected={chosen(id)}
      invalid={wrong(id) !== undefined}
      invalidText={wrong(id) ?? ''}
      on:change={(e) => {
        const value = (e.currentTarget as HTMLSelectElement).value;
        put(id, value === '' ? undefined : value === UNKNOWN ? UNKNOWN : as.kind === 'yes' ? value === 'true' : value);
      }}
    >
      <SelectItem value="" text="not answered" />
      {#if as.kind === 'yes'}
        <SelectItem value="true" text={as.yes} />
        <SelectItem value="false" text={as.no} />
      {:else}{#each as.options as option (option.value)}<SelectItem
            value={option.value}
            text={option.text}
          />{/each}{/if}
      <SelectItem value={UNKNOWN} text="I do not know" />
    </Select>
  {:else}
    <div>
      <TextInput
        size="sm"
        labelText="{label}{as.kind === 'number' && as.unit ? `, ${as.unit}` : ''}"
        helperText={why}
        placeholder={isUnknown(id) ? 'not known' : ''}
        value={conditions[id] === undefined ? '' : String(conditions[id])}
        invalid={wrong(id) !== undefined}
        invalidText={wrong(id) ?? ''}
        on:blur={(e) => typed(one, e)}
      />
      {#if conditions[id] === undefined}
        <label class="small unknown"
          ><input
            type="checkbox"
            checked={isUnknown(id)}
            onchange={(e) => put(id, e.currentTarget.checked ? UNKNOWN : undefined)}
          /> I do not know</label
        >
      {/if}
    </div>
  {/if}
{/snippet}

<div class="fields">
  {#each first as one (one.id)}{@render field(one)}{/each}
</div>
{#if way}<p class="small" class:bad={way.measured === 'neither'}>{way.says}</p>{/if}
<details>
  <summary
    >More conditions <span class="small quiet">what another result must share to be compared with this one</span
    ></summary
  >
  <div class="fields">
    {#each others as one (one.id)}{@render field(one)}{/each}
  </div>
</details>

<style>
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 12rem), 1fr));
    gap: 10px 16px;
    align-items: start;
    margin: 6px 0 10px;
  }
  .bad {
    color: var(--ash-fail);
  }
  .unknown {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    min-height: 24px;
    color: var(--ash-soft);
  }
  summary {
    padding: 6px 0;
    cursor: pointer;
  }
</style>
