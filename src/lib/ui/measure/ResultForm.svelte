<script lang="ts">
  import DayField from '$lib/ui/common/DayField.svelte';
  import { dayHere } from '../common/day-here';
  import { Button, Checkbox, Select, SelectItem, TextArea, TextInput } from 'carbon-components-svelte';
  import type { RunAlarm } from '#core/protocols/gates';
  import { RESULT_FIELDS, type ResultField } from '#core/results/run-fields';
  import { RESULT_LABEL } from '#core/results/compare';
  import type { RunInput } from '#core/results/run';
  import { FILESYSTEM_IDS, FILESYSTEMS, type FilesystemId } from '#core/facts/filesystems';
  import { dropDraft, keepDraft, keptDraft } from '../common/drafts';
  import { readQuantity, type Expectation, type Suggestion } from '#core/quantities/read';

  type Props = {
    today: string;
    filesystem: FilesystemId;
    isWindows: boolean;
    refused: { fields: Record<string, string>; alarms: readonly RunAlarm[] };
    busy: boolean;
    draftKey: string;
    onsave: (input: RunInput) => Promise<boolean>;
  };
  let { today, filesystem, isWindows, refused, busy, draftKey, onsave }: Props = $props();

  // svelte-ignore state_referenced_locally
  const blank = {
    date: today,
    filesystem: filesystem as string,
    writeCache: '',
    power: '',
    fillPercent: '',
    ambientC: '',
    testGB: '',
    repeats: '',
    notes: ''
  };
  let typed = $state<Record<string, string>>({ ...blank });
  let encrypted = $state(false);
  let accepted = $state<string[]>([]);
  let tried = $state(false);
  /** Refused fields that were typed in since, by key; all of them are looked at anew with the next save. */
  let calmed = $state<Record<string, boolean>>({});

  $effect(() => {
    const kept = keptDraft<Record<string, string>>(draftKey);
    // The day is the reader's own, which the server does not know.
    if (kept) typed = { ...blank, ...kept };
    else typed.date = dayHere();
  });

  const RATE: Expectation = { unit: 'MB/s', min: 0.001, max: 1e6 };
  const CONDITIONS = [
    { key: 'testGB', label: 'Test size, GB', expect: { unit: 'GB', min: 0.001, max: 100_000 } },
    { key: 'repeats', label: 'Repeats', expect: { unit: '', min: 1, max: 1000 } },
    { key: 'fillPercent', label: 'Drive filled, %', expect: { unit: '%', min: 0, max: 100 } },
    { key: 'ambientC', label: 'Room, °C', expect: { unit: '°C', min: -30, max: 60 } }
  ] as const;

  type Problem = { message: string; suggestions: Suggestion[] };
  const read = $derived.by(() => {
    const values: Record<string, number> = {};
    const problems: Record<string, Problem> = {};
    const one = (key: string, expect: Expectation) => {
      const text = typed[key] ?? '';
      if (text.trim() === '') return;
      const reading = readQuantity(text, expect);
      if (reading.ok) values[key] = reading.value;
      else problems[key] = reading;
    };
    for (const field of RESULT_FIELDS) one(field, RATE);
    for (const { key, expect } of CONDITIONS) one(key, expect);
    if (values.repeats !== undefined && !Number.isInteger(values.repeats))
      problems.repeats = { message: 'This must be a whole number.', suggestions: [] };
    if (!/^\d{4}-\d{2}-\d{2}$/.test(typed.date ?? ''))
      problems.date = { message: 'A date is needed.', suggestions: [] };
    if (tried && RESULT_FIELDS.every((f) => values[f] === undefined && !problems[f]))
      problems.readMBps = { message: 'At least one result is needed.', suggestions: [] };
    return { values, problems };
  });
  const alarmOf = (field: ResultField) => refused.alarms.find((a) => a.field === field && !accepted.includes(a.id));
  const errorOf = (key: string) =>
    read.problems[key]?.message ??
    (calmed[key]
      ? undefined
      : (refused.fields[`results.${key}`] ?? refused.fields[key] ?? refused.fields[`conditions.${key}`]));

  function edit(key: string, value: string): void {
    typed[key] = value;
    calmed[key] = true;
    keepDraft(draftKey, typed);
  }
  async function submit(event?: SubmitEvent): Promise<void> {
    event?.preventDefault();
    tried = true;
    if (Object.keys(read.problems).length > 0 || RESULT_FIELDS.every((f) => read.values[f] === undefined)) return;
    const { values } = read;
    calmed = {};
    const kept = await onsave({
      protocol: 'pair-check',
      date: typed.date ?? today,
      results: Object.fromEntries(RESULT_FIELDS.filter((f) => values[f] !== undefined).map((f) => [f, values[f]])),
      conditions: {
        ...Object.fromEntries(
          CONDITIONS.filter(({ key }) => values[key] !== undefined).map(({ key }) => [key, values[key]])
        ),
        ...(typed.filesystem ? { filesystem: typed.filesystem as FilesystemId } : {}),
        ...(typed.writeCache ? { writeCache: typed.writeCache as 'performance' } : {}),
        ...(typed.power ? { power: typed.power as 'mains' } : {}),
        ...(typed.notes?.trim() ? { notes: typed.notes.trim() } : {}),
        ...(encrypted ? { encrypted } : {})
      },
      accepted
    });
    if (!kept) return;
    typed = { ...blank, date: dayHere() };
    encrypted = false;
    accepted = [];
    tried = false;
    dropDraft(draftKey);
  }
  function accept(alarm: RunAlarm): void {
    accepted = [...accepted, alarm.id];
    void submit();
  }
</script>

<form onsubmit={submit} novalidate>
  <div class="fields">
    {#each RESULT_FIELDS as field (field)}
      {@const alarm = calmed[field] ? undefined : alarmOf(field)}
      {@const error = errorOf(field)}
      <div class:wide={alarm || (error?.length ?? 0) > 60}>
        <TextInput
          labelText="{RESULT_LABEL[field]}, MB/s"
          value={typed[field] ?? ''}
          invalid={error !== undefined}
          invalidText={error ?? ''}
          autocomplete="off"
          inputmode="decimal"
          on:input={(e) => edit(field, String(e.detail ?? ''))}
        />
        <p class="meant">
          {#each read.problems[field]?.suggestions ?? [] as suggestion (suggestion.text)}
            <button type="button" onclick={() => edit(field, suggestion.text)}>{suggestion.text}</button>
          {/each}
          {#if alarm?.meant}{@const meant = alarm.meant}<button type="button" onclick={() => edit(field, meant.text)}
              >Make it {meant.text}</button
            >{/if}
          {#if alarm && alarm.level === 'suspicious'}<button type="button" onclick={() => accept(alarm)}
              >Keep it as it is</button
            >{/if}
        </p>
      </div>
    {/each}
    <div>
      <DayField
        label="Day"
        value={typed.date ?? ''}
        invalid={errorOf('date') !== undefined}
        invalidText={errorOf('date') ?? ''}
        onpick={(date) => edit('date', date)}
      />
    </div>
  </div>
  <details>
    <summary
      >Conditions <span class="small quiet">what another result must share to be compared with this one</span></summary
    >
    <div class="fields">
      <Select
        labelText="Filesystem"
        selected={typed.filesystem ?? ''}
        on:update={(e) => edit('filesystem', String(e.detail))}
      >
        <SelectItem value="" text="not known" />
        {#each FILESYSTEM_IDS as id (id)}<SelectItem value={id} text={FILESYSTEMS[id].label} />{/each}
      </Select>
      {#if isWindows}
        <Select
          labelText="Write cache"
          selected={typed.writeCache ?? ''}
          on:update={(e) => edit('writeCache', String(e.detail))}
        >
          <SelectItem value="" text="not known" />
          <SelectItem value="performance" text="better performance" />
          <SelectItem value="quick-removal" text="quick removal" />
        </Select>
      {/if}
      <Select labelText="Power" selected={typed.power ?? ''} on:update={(e) => edit('power', String(e.detail))}>
        <SelectItem value="" text="not known" />
        <SelectItem value="mains" text="mains" />
        <SelectItem value="battery" text="battery" />
      </Select>
      {#each CONDITIONS as { key, label } (key)}
        <TextInput
          labelText={label}
          value={typed[key] ?? ''}
          invalid={errorOf(key) !== undefined}
          invalidText={errorOf(key) ?? ''}
          autocomplete="off"
          on:input={(e) => edit(key, String(e.detail ?? ''))}
        />
      {/each}
      <Checkbox labelText="Encrypted" bind:checked={encrypted} />
    </div>
    <TextArea
      labelText="Notes"
      rows={2}
      value={typed.notes ?? ''}
      maxlength={2000}
      on:input={(e) => edit('notes', (e.target as HTMLTextAreaElement).value)}
    />
  </details>
  <Button type="submit" size="field" disabled={busy}>Keep the result</Button>
</form>

<style>
  .fields {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 10px 16px;
    align-items: start;
  }
  .wide {
    grid-column: 1 / -1;
  }
  .meant {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin-top: 4px;
  }
  .meant:empty {
    display: none;
  }
  .meant button {
    padding: 3px 10px;
    border: 1px solid var(--ash-ember);
    background: none;
    color: var(--ash-ember);
    cursor: pointer;
  }
  details {
    margin: 10px 0 14px;
  }
  summary {
    padding: 6px 0;
    font-weight: 600;
    cursor: pointer;
  }
</style>
