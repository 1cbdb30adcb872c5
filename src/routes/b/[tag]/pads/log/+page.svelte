<script lang="ts">
  import DayField from '$lib/ui/common/DayField.svelte';
  import { Button, NumberInput, Select, SelectItem, TextArea, TextInput } from 'carbon-components-svelte';
  import { day, duration, figure, quantity } from '#core/quantities/format';
  import { compareLog } from '#core/temperature-logs/compare';
  import {
    PROBES,
    readPastedLog,
    temperatureLogSchema,
    type Probe,
    type TemperatureLog
  } from '#core/temperature-logs/log';
  import { changesOf } from '$lib/client/change';
  import { dayHere } from '$lib/ui/common/day-here';
  import { dropDraft, keepDraft, keptDraft } from '$lib/ui/common/drafts';
  import Figure from '$lib/ui/common/Figure.svelte';
  import StateMark from '$lib/ui/common/StateMark.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';

  let { data } = $props();
  const change = $derived(changesOf(data.crate.id));
  const path = $derived(`/api/crates/${data.crate.id}/builds/${data.build.id}/observations`);
  const enclosure = $derived(data.library.enclosure.get(data.build.choice.enclosureId));
  // With the enclosure as it is now: a fit that was taken over counts from then on.
  const build = $derived(enclosure ? { ...data.build.snapshot, enclosure } : data.build.snapshot);
  const logs = $derived(
    data.observations.flatMap((o) => (o.kind === 'temperature' ? [{ ...o, compared: compareLog(build, o.seen) }] : []))
  );
  const { report } = $derived(data.build);
  const isDisk = $derived(data.build.snapshot.drive.media === 'hdd');

  const PLACE_WORDS: Record<Probe, string> = {
    controller: 'the drive reports it',
    nand: 'NAND, as the drive reports it',
    case: 'outer face of the case'
  };
  const WORK_WORDS = { idle: 'at rest', read: 'reading', write: 'writing', post: 'writing past the cache' } as const;
  const STATE_WORDS = { steady: 'steady', 'not-yet': 'still moving', unknown: 'one point: unknown' } as const;

  const EXAMPLE = '5 33.5\n10 37\n20 39.5';
  let date = $state('');
  let place = $state<Probe>('case');
  let work = $state<TemperatureLog['work']>('write');
  let mbps = $state<number | null>(null);
  let ambient = $state<number | null>(22);
  let idle = $state<number | null>(null);
  let text = $state('');
  let note = $state('');
  let busy = $state(false);
  let refused = $state<Record<string, string>>({});
  const draftKey = $derived(`draft:log:${data.build.id}`);
  type Typed = {
    place: Probe;
    work: TemperatureLog['work'];
    mbps: number | null;
    ambient: number | null;
    idle: number | null;
    text: string;
    note: string;
  };
  let ready = $state(false);
  $effect(() => {
    const kept = keptDraft<Typed>(draftKey);
    if (kept) ({ place, work, mbps, ambient, idle, text, note } = kept);
    date = dayHere();
    ready = true;
  });
  $effect(() => {
    const typed: Typed = { place, work, mbps, ambient, idle, text, note };
    if (ready && (text.trim() !== '' || note.trim() !== '')) keepDraft(draftKey, typed);
  });
  const pasted = $derived(readPastedLog(text));
  const usualRate = $derived(
    Math.round(
      (work === 'read'
        ? report.throughput.read?.typical
        : work === 'post'
          ? report.throughput.sustainedWrite?.typical
          : work === 'idle'
            ? 0
            : report.throughput.write?.typical) ?? 0
    )
  );
  const draft = $derived({
    ambientC: ambient,
    place,
    work,
    MBps: mbps ?? usualRate,
    points: pasted.points,
    ...(idle === null ? {} : { idleC: idle }),
    ...(note.trim() ? { note: note.trim() } : {})
  });
  const parsed = $derived(temperatureLogSchema.safeParse(draft));
  const preview = $derived(parsed.success ? compareLog(build, parsed.data) : null);

  async function keep(): Promise<void> {
    if (!parsed.success) return;
    busy = true;
    const failure = await change(
      'POST',
      path,
      { kind: 'temperature', date: date || data.today, seen: parsed.data },
      'The temperatures are kept.'
    );
    busy = false;
    refused = failure ? Object.fromEntries(failure.fields.map((f) => [f.path.replace('seen.', ''), f.message])) : {};
    if (failure) return;
    text = '';
    note = '';
    dropDraft(draftKey);
  }
  async function remove(id: string, version: number): Promise<void> {
    await change('DELETE', `${path}/${id}`, { version }, 'The temperature log is deleted.');
  }
  async function useFit(use: boolean): Promise<void> {
    if (!enclosure || data.versions.enclosure === null) return;
    const { id: _, ...spec } = enclosure;
    const { measured: __, ...cooling } = spec.cooling ?? { kind: 'passive' as const };
    const { fit } = data.fit;
    const measured =
      use && fit
        ? {
            measured: {
              caseFactor: Math.round(fit.caseFactor * 1000) / 1000,
              ...(fit.chipFactor === undefined ? {} : { chipFactor: Math.round(fit.chipFactor * 1000) / 1000 }),
              readings: fit.readings
            }
          }
        : {};
    busy = true;
    await change(
      'PUT',
      `/api/crates/${data.crate.id}/models/${enclosure.id}`,
      { version: data.versions.enclosure, spec: { ...spec, cooling: { ...cooling, ...measured } } },
      use
        ? `${enclosure.name}: forecasts use what the readings say.`
        : `${enclosure.name}: forecasts use the model alone again.`
    );
    busy = false;
  }
  const inUse = $derived(enclosure?.cooling?.measured);
  const plus = (value: number) => `${value >= 0 ? '+' : '−'}${Math.abs(value).toFixed(1)}`;
</script>

<svelte:head><title>{data.build.tag} Temperature log · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Temperature log</h1>
      <p class="quiet">
        Read by hand or pasted, held against the forecast. A case takes {report.thermal
          ? duration(report.thermal.timeConstantS)
          : 'a quarter of an hour'} for two thirds of its way: short logs are carried on to where they would have settled.
      </p>
    </div>
  </div>
  <div class="columns">
    <section>
      <h2>Enter temperatures</h2>
      <form
        onsubmit={(e) => {
          e.preventDefault();
          void keep();
        }}
      >
        <div class="fields">
          <DayField
            label="Day"
            last={data.today}
            value={date || data.today}
            onpick={(picked) => (date = picked)}
            invalid={refused.date !== undefined}
            invalidText={refused.date}
          />
          <Select size="sm" labelText="Where" bind:selected={place}>
            {#each PROBES.filter((p) => !(isDisk && p === 'nand')) as p (p)}<SelectItem
                value={p}
                text={PLACE_WORDS[p]}
              />{/each}
          </Select>
          <Select size="sm" labelText="Doing" bind:selected={work}>
            {#each Object.entries(WORK_WORDS) as [value, words] (value)}<SelectItem {value} text={words} />{/each}
          </Select>
          <NumberInput
            size="sm"
            hideSteppers
            allowEmpty
            allowDecimal
            labelText="Rate, MB/s"
            placeholder={String(usualRate)}
            bind:value={mbps}
            invalid={mbps !== null && !(mbps >= 0 && mbps <= 20_000)}
            invalidText="0 to 20 000"
          />
          <NumberInput
            size="sm"
            hideSteppers
            allowDecimal
            allowEmpty
            labelText="Room, °C"
            bind:value={ambient}
            invalid={ambient === null || ambient < -30 || ambient > 60}
            invalidText="-30 to 60"
          />
          <NumberInput
            size="sm"
            hideSteppers
            allowDecimal
            allowEmpty
            labelText="At rest before, °C"
            bind:value={idle}
          />
        </div>
        <TextArea
          labelText="Minutes since it began, and °C: one pair a line"
          rows={5}
          bind:value={text}
          placeholder={EXAMPLE}
          maxCount={40_000}
          invalid={pasted.skipped.length > 0 || refused.points !== undefined}
          invalidText={refused.points ??
            `No time and temperature in: ${pasted.skipped
              .slice(0, 2)
              .map((l) => `“${l.slice(0, 40)}”`)
              .join(
                ', '
              )}${pasted.skipped.length > 2 ? ` and ${pasted.skipped.length - 2} more lines` : ''}. They are left out.`}
        />
        <TextInput size="sm" labelText="Note (optional)" bind:value={note} maxlength={500} />
        {#if preview}
          <p class="preview">
            {figure(preview.reading.riseK)} K over the room after {duration(preview.reading.afterS)}, {STATE_WORDS[
              preview.reading.state
            ]}{preview.reading.slope === null ? '' : ` (${preview.reading.slope.toFixed(2)} K/min)`}.
            {preview.settledC === null
              ? 'Too short to say where it settles.'
              : `Settles at about ${figure(preview.settledC)} °C; forecast ${figure(preview.predicted.settledC.typical)} °C (${figure(preview.predicted.settledC.low)} to ${figure(preview.predicted.settledC.high)}).`}
          </p>
        {:else if text.trim() && parsed.error}
          <p class="wrong">
            {parsed.error.issues[0]?.message === 'times must rise'
              ? 'Times must rise from line to line.'
              : `${String(parsed.error.issues[0]?.path.join(' '))}: ${parsed.error.issues[0]?.message}`}
          </p>
        {/if}
        <Button type="submit" size="small" disabled={busy || !parsed.success}>Keep these temperatures</Button>
      </form>
    </section>
    <section>
      <h2>Against the forecast</h2>
      {#if logs.length === 0}
        <p class="quiet">
          Nothing read yet. A thermometer on the case, or what the drive reports, while a long write runs: after ten
          minutes it says something, after forty it is settled.
        </p>
      {:else}
        <Wide label="Temperature logs">
          <table class="plain-table">
            <thead
              ><tr
                ><th scope="col">Day</th><th scope="col">What</th><th scope="col" class="number">Last</th><th
                  scope="col"
                  class="number">Over the room</th
                ><th scope="col" class="number">Settles</th><th scope="col" class="number">Forecast</th><th scope="col"
                  >Verdict</th
                ><th></th></tr
              ></thead
            >
            <tbody>
              {#each logs as log (log.id)}
                {@const { compared: c } = log}
                <tr>
                  <td class="nowrap">{day(log.date)}</td>
                  <td
                    >{log.seen.place === 'case'
                      ? 'case'
                      : log.seen.place === 'nand'
                        ? 'NAND'
                        : isDisk
                          ? 'disk'
                          : 'controller'}, {WORK_WORDS[log.seen.work]}<span class="small quiet block"
                      >{figure(log.seen.MBps)}&#8239;MB/s, {figure(log.seen.ambientC)}&#8239;°C room{log.seen.note
                        ? `, ${log.seen.note}`
                        : ''}</span
                    ></td
                  >
                  <td class="number"
                    ><Figure value={c.reading.lastC.toFixed(1)} unit="°C" /><span class="small quiet block"
                      >{duration(c.reading.afterS)}, {STATE_WORDS[c.reading.state]}</span
                    ></td
                  >
                  <td class="number"><Figure value={c.reading.riseK.toFixed(1)} unit="K" /></td>
                  <td class="number"
                    >{#if c.settledC === null}<span class="small quiet">too short</span>{:else}<Figure
                        value={c.settledC.toFixed(1)}
                        unit="°C"
                      />{#if c.share! < 1}<span class="small quiet block"
                          >from {Math.round(c.share! * 100)}&#8239;% of the way</span
                        >{/if}{/if}</td
                  >
                  <td class="number"
                    ><Figure value={c.predicted.settledC.typical.toFixed(1)} unit="°C" /><span
                      class="small quiet block nowrap"
                      >{figure(c.predicted.settledC.low)} – {figure(c.predicted.settledC.high)}</span
                    ></td
                  >
                  <td class="verdict"
                    >{#if c.differenceK !== null}<span class={c.within ? 'pass' : 'check'}
                        ><StateMark mark={c.within ? 'pass' : 'check'} size={14} />{plus(c.differenceK)}&#8239;K, {c.within
                          ? 'inside the band'
                          : c.differenceK > 0
                            ? 'warmer'
                            : 'cooler'}</span
                      >{:else}–{/if}</td
                  >
                  <td><Button kind="ghost" size="small" on:click={() => remove(log.id, log.version)}>Delete</Button></td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
        </Wide>
      {/if}

      <h2 class="fit-head">What the readings say about {data.build.snapshot.enclosure.name}</h2>
      {#if data.fit.fit}
        {@const fit = data.fit.fit}
        <p>
          {fit.readings} settled readings{data.logs.tags.length > 1 ? ` of ${data.logs.tags.join(', ')}` : ''}: the case
          warms
          <strong>{fit.caseFactor.toFixed(2)}</strong> times as much as computed{fit.chipFactor === undefined
            ? ''
            : `, its chips ${fit.chipFactor.toFixed(2)} times as much over it`}. The model was off by
          <strong>{quantity(fit.beforeK, 'K')}</strong> (root mean square) before and is by
          <strong>{quantity(fit.afterK, 'K')}</strong> with it.
        </p>
        <p class="small quiet">
          Only products are seen in a temperature: more heat and a worse way out look the same, so factors on the rises
          are fitted, by least squares, and no single conductance. {data.fit.leftOut > 0
            ? `${data.fit.leftOut} ${data.fit.leftOut === 1 ? 'log is' : 'logs are'} too short and left out.`
            : ''}
        </p>
        {#if inUse}
          <p class="in-use">
            In use since it was taken over: case × {inUse.caseFactor}{inUse.chipFactor === undefined
              ? ''
              : `, chips × ${inUse.chipFactor}`}, from {inUse.readings} readings.
          </p>
          <div class="buttons">
            <Button size="small" kind="tertiary" disabled={busy} on:click={() => useFit(true)}
              >Take over the newest fit</Button
            >
            <Button size="small" kind="ghost" disabled={busy} on:click={() => useFit(false)}>Use the model alone</Button
            >
          </div>
        {:else}
          <Button size="small" disabled={busy || data.versions.enclosure === null} on:click={() => useFit(true)}
            >Use it for this enclosure from now on</Button
          >
        {/if}
      {:else}
        <p class="quiet">
          {data.fit.missing}
          {data.fit.used > 0 ? `So far ${data.fit.used}.` : ''}
          {data.fit.leftOut > 0 ? `${data.fit.leftOut} too short to count.` : ''}
        </p>
      {/if}
      <p class="small quiet note">
        What a drive reports sits in its controller; the silicon below can be 5 to 30 K hotter. A thermometer needs good
        contact, and shade from the sun.
      </p>
    </section>
  </div>
</div>

<style>
  .columns {
    display: grid;
    grid-template-columns: minmax(300px, 4fr) minmax(0, 8fr);
    gap: 28px;
  }
  h2 {
    margin-bottom: 8px;
  }
  .fit-head {
    margin-top: 22px;
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 10px 14px;
    margin-bottom: 10px;
  }
  form > :global(*) {
    margin-bottom: 10px;
  }
  .preview,
  .in-use {
    padding: 6px 10px;
    background: var(--ash-well);
  }
  .wrong {
    color: var(--ash-fail);
  }
  .block {
    display: block;
  }
  .nowrap {
    white-space: nowrap;
  }
  .verdict span {
    display: flex;
    align-items: center;
    gap: 5px;
    font-weight: 600;
    white-space: nowrap;
  }
  .pass {
    color: var(--ash-pass);
  }
  .check {
    color: var(--ash-caution);
  }
  section > p {
    margin: 0 0 8px;
  }
  .note {
    margin-top: 12px;
  }
  .buttons {
    display: flex;
    gap: 10px;
    margin: 8px 0;
  }
  @media (max-width: 1100px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
