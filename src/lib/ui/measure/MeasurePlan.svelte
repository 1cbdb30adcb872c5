<script lang="ts">
  import { untrack } from 'svelte';
  import { Button, Select, SelectItem, TextArea, TextInput } from 'carbon-components-svelte';
  import { briefOf } from '#core/protocols/brief';
  import type { RunAlarm } from '#core/protocols/gates';
  import type { ProtocolPhase } from '#core/protocols/phase';
  import type { Protocol } from '#core/protocols/protocols';
  import { summarise } from '#core/protocols/summary';
  import type { TestedSubject } from '#core/protocols/tested';
  import { missingConditions, type Conditions } from '#core/results/conditions';
  import type { RunInput } from '#core/results/run';
  import type { Settings } from '#core/results/settings';
  import { readQuantity } from '#core/quantities/read';
  import { SIMULATED_FAULTS, type SimulatedFault } from '#core/simulate/faults';
  import { dropDraft, keepDraft, keptDraft } from '../common/drafts';
  import FilePicker from '../common/FilePicker.svelte';
  import BriefPanel from './BriefPanel.svelte';
  import ConditionsForm from './ConditionsForm.svelte';
  import { FAULT_WORDS } from './fault-words';
  import HandTimes from './HandTimes.svelte';
  import { handRepeats, timedByHand, type HandTime } from './hand-times';
  import SettingsForm from './SettingsForm.svelte';

  type Props = {
    protocol: Protocol;
    subject: TestedSubject;
    others: readonly { id: string; name: string }[];
    known: Conditions;
    day: string;
    /** Why the rig cannot play it; undefined where it can. */
    noRig: string | undefined;
    refused: { fields: Record<string, string>; alarms: readonly RunAlarm[] };
    busy: boolean;
    draftKey: string;
    onkeep: (run: RunInput, picture: File | undefined) => Promise<boolean>;
    onrig: (asked: {
      settings: Settings;
      conditions: Conditions;
      fault?: SimulatedFault;
      speed: number;
      seed?: number;
    }) => void;
  };
  let { protocol, subject, others, known, day, noRig, refused, busy, draftKey, onkeep, onrig }: Props = $props();

  type Draft = {
    settings: Settings;
    conditions: Conditions;
    times: HandTime[];
    running: { at: number; since: number } | null;
    random: { read: string; write: string };
  };
  /** A folder goes from the internal disk to the drive first. */
  const begun = (): Conditions => (protocol.id === 'copy' ? { source: 'internal', target: 'drive', ...known } : known);
  let draft = $state<Draft>({
    settings: {},
    conditions: begun(),
    times: [],
    running: null,
    random: { read: '', write: '' }
  });
  let accepted = $state<string[]>([]);
  let tried = $state(false);
  let fault = $state<SimulatedFault | ''>('');
  let speed = $state(60);
  let seed = $state('');
  /** The window of another tool, shown while its figures are typed; it is kept with the result. */
  let picture = $state.raw<File>();
  let shownAt = $state('');
  function show(file: File): void {
    if (shownAt) URL.revokeObjectURL(shownAt);
    picture = file;
    shownAt = URL.createObjectURL(file);
  }
  $effect(() => {
    const kept = keptDraft<Partial<Draft>>(draftKey);
    if (kept) draft = { ...untrack(() => draft), ...kept };
  });
  const keep = () => keepDraft(draftKey, draft);

  const brief = $derived(briefOf(protocol.id, draft.settings, subject));
  const byHand = $derived(
    brief.phases.map((phase, i) => ({ phase, i })).filter(({ phase }) => !phase.work.startsWith('random'))
  );
  const missing = $derived(missingConditions(draft.conditions, protocol.needs));
  const seedRead = $derived(seed.trim() === '' ? null : readQuantity(seed, { unit: '', min: 0, max: 4_294_967_295 }));
  const timedPhases = $derived(timedByHand(brief.phases, draft.times));
  const hasRandom = $derived(brief.phases.some(({ work }) => work === 'random-read'));
  const random = $derived({
    read:
      draft.random.read.trim() === '' ? null : readQuantity(draft.random.read, { unit: 'MB/s', min: 0.001, max: 1e6 }),
    write:
      draft.random.write.trim() === '' ? null : readQuantity(draft.random.write, { unit: 'MB/s', min: 0.001, max: 1e6 })
  });
  const alarms = $derived(refused.alarms.filter(({ id }) => !accepted.includes(id)));

  function setSettings(change: Partial<Record<keyof Settings, number | string | undefined>>): void {
    const next = { ...draft.settings, ...change } as Record<string, unknown>;
    for (const key of Object.keys(next)) if (next[key] === undefined) delete next[key];
    draft.settings = next as Settings;
    keep();
  }
  function watch(i: number): void {
    if (draft.running?.at === i) {
      const seconds = Math.round((Date.now() - draft.running.since) / 10) / 100;
      setTime(i, { text: `${seconds} s`, seconds });
      draft.running = null;
    } else draft.running = { at: i, since: Date.now() };
    keep();
  }
  function setTime(i: number, time: HandTime): void {
    const times = [...draft.times];
    while (times.length <= i) times.push({ text: '' });
    times[i] = time;
    draft.times = times;
    keep();
  }
  function rig(): void {
    onrig({
      settings: brief.settings,
      conditions: draft.conditions,
      ...(fault ? { fault } : {}),
      speed,
      ...(seedRead?.ok ? { seed: Math.round(seedRead.value) } : {})
    });
  }
  /** Which step an alarm is about; -1 where it is about none. */
  const stepOf = ({ path }: RunAlarm): number => {
    const nth = /^results\.repeats\.(\d+)\./.exec(path)?.[1];
    if (nth === undefined) return -1;
    const timed = byHand.filter(
      ({ i }) => timedByHand([brief.phases[i] as ProtocolPhase], [draft.times[i] ?? { text: '' }]).length > 0
    );
    return timed[Number(nth)]?.i ?? -1;
  };
  /** Whether what was probably meant is one click away: the time of a step, or the size of all. */
  const mendable = (alarm: RunAlarm): boolean =>
    typeof alarm.meant === 'object' &&
    'field' in alarm.meant &&
    ((alarm.meant.field === 'seconds' && stepOf(alarm) >= 0) || alarm.meant.field === 'GB');
  function mend(alarm: RunAlarm): void {
    if (!alarm.meant || !('field' in alarm.meant)) return;
    const value = Number(alarm.meant.value);
    if (alarm.meant.field === 'GB') setSettings({ GB: value });
    else setTime(stepOf(alarm), { text: `${value} s`, seconds: value });
    void kept();
  }
  async function kept(): Promise<void> {
    tried = true;
    if (missing.length > 0 || timedPhases.length === 0) return;
    const results = summarise(protocol.id, timedPhases, undefined, brief.settings.taskS);
    const repeats = handRepeats(results.repeats ?? [], timedPhases);
    const done = await onkeep(
      {
        protocol: protocol.id,
        date: day,
        results: {
          ...results,
          ...(repeats.length > 0 ? { repeats } : {}),
          ...(random.read?.ok ? { random4kReadMBps: random.read.value } : {}),
          ...(random.write?.ok ? { random4kWriteMBps: random.write.value } : {})
        },
        settings: brief.settings,
        conditions: draft.conditions,
        accepted
      },
      picture
    );
    if (!done) return;
    dropDraft(draftKey);
    draft = { settings: {}, conditions: known, times: [], running: null, random: { read: '', write: '' } };
    tried = false;
    accepted = [];
  }
  const SPEEDS = [
    { value: 1, text: 'as in life' },
    { value: 60, text: '60 times faster: a minute in a second' },
    { value: 600, text: '600 times faster' },
    { value: 100_000, text: 'at once' }
  ];
</script>

<p class="lead">{protocol.does}</p>
<SettingsForm {protocol} settings={brief.settings} {others} onset={setSettings} />
<BriefPanel {protocol} {brief} {subject} onset={setSettings} />

<section class="conditions" aria-label="Conditions">
  <h2>Conditions</h2>
  <ConditionsForm
    conditions={draft.conditions}
    needed={protocol.needs}
    {tried}
    errors={refused.fields}
    onchange={(conditions) => {
      draft.conditions = conditions;
      keep();
    }}
  />
  <details>
    <summary>Notes</summary>
    <TextArea
      hideLabel
      labelText="Notes"
      rows={2}
      maxlength={2000}
      value={draft.conditions.notes ?? ''}
      on:input={(e) => {
        const { notes: _had, ...rest } = draft.conditions;
        const text = (e.target as HTMLTextAreaElement).value;
        draft.conditions = text.trim() === '' ? rest : { ...rest, notes: text };
        keep();
      }}
    />
  </details>
</section>

<div class="ways">
  <section aria-label="On the simulated rig">
    <h2>On the simulated rig</h2>
    {#if noRig}
      <p class="quiet">{noRig}</p>
    {:else}
      <p class="small quiet">
        No device is involved: the forecast’s own models are played over time. Everything it gives is marked as
        simulated.
      </p>
      <div class="rig">
        <Select
          size="sm"
          labelText="How fast"
          selected={String(speed)}
          on:change={(e) => (speed = Number((e.currentTarget as HTMLSelectElement).value))}
        >
          {#each SPEEDS as one (one.value)}<SelectItem value={String(one.value)} text={one.text} />{/each}
        </Select>
        <Select
          size="sm"
          labelText="With a fault, to learn what it looks like"
          selected={fault}
          on:change={(e) => (fault = (e.currentTarget as HTMLSelectElement).value as SimulatedFault | '')}
        >
          <SelectItem value="" text="none" />
          {#each SIMULATED_FAULTS.filter((one) => one !== 'healthy') as one (one)}<SelectItem
              value={one}
              text={FAULT_WORDS[one]}
            />{/each}
        </Select>
        <TextInput
          size="sm"
          labelText="Seed, for the same run again"
          placeholder="by chance"
          bind:value={seed}
          invalid={seedRead?.ok === false}
          invalidText={seedRead?.ok === false ? seedRead.message : ''}
        />
      </div>
      <Button size="field" disabled={busy || seedRead?.ok === false} on:click={rig}>Begin the simulated run</Button>
    {/if}
  </section>
  <section aria-label="By hand">
    <h2>By hand</h2>
    <p class="small quiet">
      Do each step with your own tool. Type the rate that it shows, or how long it took; or press Time, and press again
      at its end.
    </p>
    {#if shownAt}<img class="picture" src={shownAt} alt="What is kept with the result" />{/if}
    <FilePicker label="Show a picture of the tool’s window while typing" onpick={show} />
    <HandTimes
      phases={brief.phases.filter(({ work }) => !work.startsWith('random'))}
      times={byHand.map(({ i }) => draft.times[i] ?? { text: '' })}
      running={draft.running}
      ontype={(k, time) => setTime(byHand[k]?.i ?? k, time)}
      onwatch={(k) => watch(byHand[k]?.i ?? k)}
    />
    {#if hasRandom}
      <div class="rig">
        <TextInput
          size="sm"
          labelText="Random 4 KiB read, MB/s"
          bind:value={draft.random.read}
          on:blur={keep}
          invalid={random.read?.ok === false}
          invalidText={random.read?.ok === false ? random.read.message : ''}
        />
        <TextInput
          size="sm"
          labelText="Random 4 KiB write, MB/s"
          bind:value={draft.random.write}
          on:blur={keep}
          invalid={random.write?.ok === false}
          invalidText={random.write?.ok === false ? random.write.message : ''}
        />
      </div>
    {/if}
    {#each alarms as alarm (alarm.id)}
      <div class="alarm" role="alert">
        <p>{alarm.message}</p>
        {#if alarm.level === 'suspicious'}<button
            type="button"
            onclick={() => ((accepted = [...accepted, alarm.id]), void kept())}>Keep it as it is</button
          >{/if}
        {#if mendable(alarm)}{@const { meant } = alarm as { meant: { text: string } }}<button
            type="button"
            onclick={() => mend(alarm)}>Make it {meant.text}</button
          >{/if}
        {#if alarm.id === 'copy-in-memory'}<button
            type="button"
            onclick={() => {
              draft.conditions = { ...draft.conditions, flushed: true };
              keep();
              void kept();
            }}>It was stopped when it could be ejected</button
          >{/if}
      </div>
    {/each}
    {#if tried && missing.length > 0}<p class="bad" role="alert">
        Some conditions are not answered yet: they are marked above.
      </p>{/if}
    {#if tried && timedPhases.length === 0}<p class="bad" role="alert">No step has a rate or a time yet.</p>{/if}
    <Button size="field" kind="secondary" disabled={busy} on:click={kept}>Keep the result</Button>
  </section>
</div>

<style>
  .lead {
    max-width: 70ch;
    margin-bottom: 10px;
  }
  h2 {
    margin: 14px 0 6px;
  }
  .ways {
    display: grid;
    grid-template-columns: minmax(0, 5fr) minmax(0, 7fr);
    gap: 12px 32px;
  }
  .rig {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 12rem), 1fr));
    gap: 8px 14px;
    margin: 8px 0 12px;
    align-items: start;
  }
  summary {
    padding: 6px 0;
    cursor: pointer;
  }
  .picture {
    max-width: 100%;
    max-height: 300px;
    margin-bottom: 8px;
    border: 1px solid var(--ash-line);
  }
  .alarm {
    margin: 8px 0;
    padding: 8px 12px;
    border-left: 4px solid var(--ash-caution);
    background: var(--ash-well);
  }
  .alarm button {
    margin-top: 6px;
    padding: 3px 10px;
    border: 1px solid var(--ash-ember);
    background: none;
    color: var(--ash-ember);
    cursor: pointer;
  }
  .bad {
    color: var(--ash-fail);
  }
  @media (max-width: 1000px) {
    .ways {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
