<script lang="ts">
  import { untrack } from 'svelte';
  import { Button, Checkbox, Select, SelectItem, TextInput } from 'carbon-components-svelte';
  import type { PlanInput, PlanReport } from '#core/plan/report';
  import { COPY_END_LABEL, COPY_ENDS, wayOfCopy, type CopyEnd } from '#core/results/conditions';
  import { checkCopy } from '#core/results/copy-gates';
  import type { Repeat } from '#core/results/run';
  import { timedRate } from '#core/results/stopwatch';
  import { lapWatch, readWatch, startWatch, stopWatch, type Watch } from '#core/results/watch';
  import { duration, figure, quantity, rate } from '#core/quantities/format';
  import { readQuantity } from '#core/quantities/read';
  import { dropDraft, keepDraft, keptDraft } from '../common/drafts';
  import { keys } from '../frame/keys.svelte';
  import CopyRepeats from './CopyRepeats.svelte';
  import FallOff from './FallOff.svelte';
  import type { TimedCopies } from './timed-copy';

  type Props = {
    /** When to stop, as the house rule has it. */
    until: string;
    rule: string;
    /** Where the running watch is kept, so that a reload or another page does not stop it. */
    keptUnder: string;
    /** What it is measured on, for the gates; null where nothing is forecast. */
    build?: { input: PlanInput; report: PlanReport } | null;
    memoryGB?: number | undefined;
    /** Keeps the copies as one result. @returns whether it was kept */
    onkeep: (copies: TimedCopies) => Promise<boolean> | void;
  };
  let { until, rule, keptUnder, build = null, memoryGB, onkeep }: Props = $props();

  type Kept = {
    size: string;
    files: string;
    source: CopyEnd;
    target: CopyEnd;
    flushed: boolean;
    watch?: Watch | undefined;
    repeats: Repeat[];
  };
  let copy = $state<Kept>({ size: '', files: '', source: 'internal', target: 'drive', flushed: false, repeats: [] });
  let accepted = $state<string[]>([]);
  let now = $state(0);
  let steady = $state(0);
  /** Names this very page: its steady count means nothing to another one. */
  let pageName = $state('');

  const clocks = $derived({ now, steady, page: pageName });
  const reading = $derived(copy.watch ? readWatch(copy.watch, clocks) : undefined);
  const seconds = $derived(reading?.seconds ?? 0);
  const running = $derived(copy.watch !== undefined && copy.watch.stoppedAt === undefined);
  const stopped = $derived(copy.watch?.stoppedAt !== undefined);
  const way = $derived(wayOfCopy(copy.source, copy.target));
  const size = $derived(
    copy.size.trim() === '' ? null : readQuantity(copy.size, { unit: 'GB', min: 0.001, max: 200_000 })
  );
  const files = $derived(copy.files.trim() === '' ? null : readQuantity(copy.files, { unit: '', min: 1, max: 1e9 }));
  const timed = $derived(
    size?.ok && stopped && reading?.usable && seconds > 0 ? timedRate(size.value, seconds, false) : null
  );
  const what = $derived(way.measured === 'read' ? ('copy-out' as const) : ('copy-in' as const));
  const alarms = $derived(
    timed && size?.ok
      ? checkCopy(
          { GB: size.value, seconds, source: copy.source, target: copy.target, memoryGB, flushed: copy.flushed },
          build
        ).filter(({ id }) => !accepted.includes(id))
      : []
  );
  const face = $derived.by(() => {
    const whole = Math.floor(seconds);
    const rest = `${String(whole % 60).padStart(2, '0')}.${Math.floor((seconds * 10) % 10)}`;
    const minutes = Math.floor(whole / 60);
    return minutes < 60
      ? `${minutes}:${rest}`
      : `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}:${rest}`;
  });

  const tick = () => {
    now = Date.now();
    steady = performance.now();
  };
  $effect(() => {
    pageName = String(performance.timeOrigin);
    tick();
    const kept = keptDraft<Partial<Kept>>(keptUnder);
    if (kept) copy = { ...untrack(() => copy), ...kept, repeats: kept.repeats ?? [] };
  });
  const keep = () => keepDraft(keptUnder, copy);
  const set = <K extends keyof Kept>(key: K, value: Kept[K]) => {
    copy[key] = value;
    accepted = [];
    keep();
  };
  function press(): void {
    tick();
    const at = { now: Date.now(), steady: performance.now(), page: pageName };
    set('watch', running && copy.watch ? stopWatch(copy.watch, at) : startWatch(at));
  }
  function lap(): void {
    tick();
    if (copy.watch) set('watch', lapWatch(copy.watch, { now: Date.now(), steady: performance.now(), page: pageName }));
  }
  const repeat = (): Repeat | undefined =>
    timed && size?.ok && way.measured !== 'neither'
      ? { what, GB: size.value, seconds: Math.round(seconds * 100) / 100, byHand: true }
      : undefined;
  /** Puts the copy aside as one of several, for the next one. */
  function again(): void {
    const made = repeat();
    if (!made) return;
    set('repeats', [...copy.repeats, made]);
    set('watch', undefined);
  }
  function clear(): void {
    copy.watch = undefined;
    copy.repeats = [];
    accepted = [];
    dropDraft(keptUnder);
  }
  async function take(): Promise<void> {
    const last = repeat();
    const repeats = [...copy.repeats, ...(last ? [last] : [])];
    if (repeats.length === 0) return;
    const done = await onkeep({
      repeats,
      accepted,
      conditions: {
        source: copy.source,
        target: copy.target,
        ...(files?.ok ? { files: Math.round(files.value) } : {}),
        ...(copy.flushed ? { flushed: true } : {}),
        ...(memoryGB === undefined ? {} : { memoryGB })
      }
    });
    if (done) clear();
  }
  function mend(meant: { field: string; value: number | boolean }): void {
    if (meant.field === 'GB') set('size', String(meant.value));
    else if (meant.field === 'flushed') set('flushed', true);
    else if (meant.field === 'seconds' && copy.watch?.stoppedAt !== undefined) {
      const extra = (Number(meant.value) - seconds) * 1000;
      const { watch } = copy;
      set('watch', { ...watch, startedAt: watch.startedAt - extra, steadyAt: watch.steadyAt - extra });
    }
  }
  $effect(() => {
    if (!running) return;
    const ticking = setInterval(tick, 100);
    return () => clearInterval(ticking);
  });
  $effect(() =>
    keys.add([
      { keys: ' ', label: 'On Measure: start and stop the stopwatch (Space)', run: press },
      { keys: 'l', label: 'On Measure: take a lap', run: () => running && lap() }
    ])
  );
</script>

<section class="watch no-print" aria-label="Stopwatch">
  <div class="row">
    <Button kind={running ? 'danger' : 'primary'} on:click={press}>{running ? 'Stop' : 'Start the stopwatch'}</Button>
    {#if running}<Button kind="tertiary" on:click={lap}>Lap</Button>{/if}
    <p class="face figure" role="timer">{face}<span class="unit">min</span></p>
    <p class="out" aria-live="polite">
      {#if timed}
        <span class="figure"><strong>{rate(timed.MBps)}</strong><span class="unit">MB/s</span></span>
        <span class="small quiet"
          >{rate(timed.low)} – {rate(timed.high)}, for your finger may be off by ±{figure(timed.errorS)}&#8239;s ({figure(
            timed.percent
          )}&#8239;%)</span
        >
      {:else if reading?.warning}<span class="small"></span>
      {:else if stopped}<span class="small quiet">Type how much was copied, and the rate stands here.</span>
      {:else}<span class="small quiet">Stop {until} ({rule}).</span>{/if}
    </p>
  </div>
  {#if reading?.warning}<p class="warning" role="status">{reading.warning}</p>{/if}
  <div class="fields">
    <TextInput
      size="sm"
      labelText="What is copied, GB"
      placeholder="420 GB"
      value={copy.size}
      on:input={(e) => set('size', String(e.detail ?? ''))}
      invalid={size !== null && !size.ok}
      invalidText={size && !size.ok ? size.message : ''}
    />
    <TextInput
      size="sm"
      labelText="Files in it"
      placeholder="such as 4600"
      value={copy.files}
      on:input={(e) => set('files', String(e.detail ?? ''))}
      invalid={files !== null && !files.ok}
      invalidText={files && !files.ok ? files.message : ''}
    />
    <Select
      size="sm"
      labelText="From"
      selected={copy.source}
      on:update={(e) => set('source', String(e.detail) as CopyEnd)}
    >
      {#each COPY_ENDS as end (end)}<SelectItem value={end} text={COPY_END_LABEL[end]} />{/each}
    </Select>
    <Select
      size="sm"
      labelText="To"
      selected={copy.target}
      on:update={(e) => set('target', String(e.detail) as CopyEnd)}
    >
      {#each COPY_ENDS as end (end)}<SelectItem value={end} text={COPY_END_LABEL[end]} />{/each}
    </Select>
  </div>
  <p class="small" class:bad={way.measured === 'neither'}>{way.says}</p>
  <Checkbox
    labelText="I stopped it when the drive could be ejected, not when the copy said “done”"
    checked={copy.flushed}
    on:check={({ detail }) => set('flushed', detail)}
  />
  {#if reading && reading.laps.length > 0}
    <ol class="laps" aria-label="Laps">
      {#each reading.laps as lapS, i (i)}<li>
          Lap {i + 1}: {duration(lapS)}{size?.ok && reading.laps.length > 1
            ? `, ${rate((size.value * 1000) / reading.laps.length / Math.max(0.01, lapS))} MB/s if the laps are equal parts`
            : ''}
        </li>{/each}
    </ol>
  {/if}
  {#each alarms as alarm (alarm.id)}
    <div class="alarm" role="alert">
      <p>{alarm.message}</p>
      <p class="acts">
        {#if alarm.meant}{@const meant = alarm.meant}<button type="button" onclick={() => mend(meant)}
            >Make it {meant.text}</button
          >{/if}
        {#if alarm.level === 'suspicious'}<button type="button" onclick={() => (accepted = [...accepted, alarm.id])}
            >Keep it as it is</button
          >{/if}
      </p>
    </div>
  {/each}
  <CopyRepeats
    repeats={copy.repeats}
    onremove={(i) =>
      set(
        'repeats',
        copy.repeats.filter((_, j) => j !== i)
      )}
  />
  {#if stopped || copy.repeats.length > 0}
    <p class="acts">
      {#if timed && way.measured !== 'neither' && alarms.length === 0}
        <button type="button" onclick={take}
          >{copy.repeats.length > 0
            ? `Keep all ${copy.repeats.length + 1} as one result`
            : `Keep as a ${way.measured} result`}</button
        >
        <button type="button" onclick={again}>Once more</button>
      {:else if !stopped && copy.repeats.length > 0 && !running}
        <button type="button" onclick={take}
          >Keep {copy.repeats.length === 1 ? 'it' : `all ${copy.repeats.length}`} as one result</button
        >
      {/if}
      <button type="button" onclick={clear}>Set back to zero</button>
    </p>
  {/if}
  {#if timed && size?.ok}
    <FallOff GB={size.value} {seconds} sizeText={quantity(size.value, 'GB')} />
  {/if}
</section>

<style>
  .watch {
    margin: 14px 0;
    padding: 10px 14px;
    background: var(--ash-sheet);
    --cds-field: var(--ash-paper);
    --cds-field-01: var(--ash-paper);
    border: 1px solid var(--ash-line);
  }
  .row,
  .acts {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 10px 20px;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 11rem), 1fr));
    gap: 8px 14px;
    margin: 10px 0 6px;
    align-items: start;
  }
  .acts {
    gap: 8px;
    margin-top: 8px;
  }
  .acts button {
    padding: 4px 10px;
    border: 1px solid var(--ash-ember);
    background: none;
    color: var(--ash-ember);
    cursor: pointer;
  }
  .face {
    min-width: 130px;
    font-size: var(--ash-text-large);
  }
  .out {
    flex: 1 1 240px;
  }
  .warning,
  .alarm {
    margin: 8px 0;
    padding: 8px 12px;
    border-left: 4px solid var(--ash-caution);
    background: var(--ash-well);
  }
  .bad {
    color: var(--ash-fail);
  }
  .laps {
    margin: 6px 0;
    padding-left: 20px;
  }
  @media (max-width: 560px) {
    /* One hand, at the bench. */
    .row :global(.bx--btn) {
      width: 100%;
      max-width: none;
      min-height: 72px;
      font-size: 18px;
    }
    .acts button {
      min-height: 44px;
    }
  }
</style>
