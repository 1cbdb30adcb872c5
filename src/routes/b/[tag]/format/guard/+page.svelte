<script lang="ts">
  import { untrack } from 'svelte';
  import { Select, SelectItem, TextArea, TextInput } from 'carbon-components-svelte';
  import { FILESYSTEMS, OS_LABEL } from '#core/facts/filesystems';
  import type { Expected } from '#core/listing/device';
  import { LISTING_COMMANDS } from '#core/listing/read';
  import { lossOf } from '#core/format/record';
  import { Attached } from '$lib/client/attached.svelte';
  import { FormatStation } from '$lib/client/format-station.svelte';
  import { Guard } from '$lib/client/guard.svelte';
  import CopyLine from '$lib/ui/common/CopyLine.svelte';
  import StateMark from '$lib/ui/common/StateMark.svelte';
  import AttachedDisks from '$lib/ui/format/AttachedDisks.svelte';
  import FormatTabs from '$lib/ui/format/FormatTabs.svelte';
  import ListedDevices from '$lib/ui/format/ListedDevices.svelte';

  let { data } = $props();
  const tag = $derived(data.build.tag);
  const parts = $derived(data.build.snapshot);
  const station = new FormatStation(() => ({ crateId: data.crate.id, build: data.build, whole: data.whole }));
  const settled = $derived(station.settled);
  const family = $derived(settled.system.family);
  let itemId = $state('');
  const item = $derived(
    data.driveItems.find(({ id }) => id === itemId) ?? (data.driveItems.length === 1 ? data.driveItems[0] : undefined)
  );
  const expect = $derived.by((): Expected => ({
    capacityTB: parts.drive.capacityTB,
    model: parts.drive.name,
    ...(item?.serial ? { serial: item.serial } : {}),
    ...(item?.caseSerial ? { caseSerial: item.caseSerial } : {}),
    ...(item?.bytes ? { bytes: item.bytes } : {})
  }));
  const attached = new Attached(() => ({ buildId: data.build.id, system: family === 'chromeos' ? 'linux' : family }));
  const guard = new Guard(() => ({
    build: { id: data.build.id, version: data.build.version, crateId: data.crate.id },
    settled,
    expect,
    events: attached.events,
    real: attached.report?.source === 'system'
  }));
  const loss = $derived(lossOf(data.onIt[0]?.seen ?? null));
  /** The build's own among those attached: by its serial number, or the only one of its name. */
  const own = $derived.by(() => {
    const alike = (attached.report?.devices ?? []).filter(
      ({ serial, model, systemDisk }) =>
        !systemDisk && (item?.serial ? serial === item.serial : model === parts.drive.name)
    );
    return alike.length === 1 ? alike[0]?.device : undefined;
  });
  const report = $derived(guard.report);
  const unlocked = $derived(guard.answer?.unlocked === true);
  const byBytes = $derived.by(() => {
    const device = report?.devices.find(({ device }) => device === guard.chosen);
    return device !== undefined && device.serial === undefined;
  });

  $effect(() => {
    const stops = [attached.start(), guard.start()];
    return () => stops.forEach((stop) => stop());
  });
  // A device that came or went makes what was taken from the list old at once.
  $effect(() => {
    if (attached.events > 0) void guard.check();
  });
  /** What is to be made was changed: nothing that was proved holds for it. */
  $effect(() => {
    const order = [
      settled.filesystem,
      settled.scheme,
      settled.name,
      settled.system.family,
      settled.allocationUnit,
      settled.full
    ].join();
    untrack(() => guard.ordered(order));
  });
</script>

<svelte:head><title>{tag} Wrong-disk guard · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Guard against the wrong disk</h1>
      <p class="quiet">
        Paste what {family === 'chromeos' ? 'the system' : OS_LABEL[family]} lists of its disks. It is read here in the browser,
        and nothing of it is kept.
      </p>
    </div>
  </div>
  <FormatTabs {tag} here="guard" sheet={data.sheets.length > 1 ? data.whole?.stored.id : undefined} />
  {#if family === 'chromeos'}
    <p>
      ChromeOS lists no devices and takes no commands for them: leave only this drive plugged in, and follow the sheet.
    </p>
  {:else}
    <p class="loss level-{loss.level}">
      <StateMark mark={loss.level === 0 ? 'pass' : loss.level === 3 ? 'fail' : 'check'} size={16} />
      <span
        >{loss.says}
        {loss.todo} <a class="no-print" href="/b/{tag}/format/record">What is on it, and where the copies are</a></span
      >
    </p>
    <div class="columns">
      <div>
        <h2>1. The list</h2>
        <p class="small">
          This line shows all that is needed; open a terminal{family === 'windows' ? ' (PowerShell)' : ''}, run it, copy
          everything:
        </p>
        <CopyLine text={LISTING_COMMANDS[family]} />
        {#if data.driveItems.length > 1}
          <Select size="sm" labelText="Which item is it?" bind:selected={itemId}>
            <SelectItem value="" text="not known" />
            {#each data.driveItems as one (one.id)}<SelectItem
                value={one.id}
                text="{one.tag}{one.serial ? `, ${one.serial}` : ''}"
              />{/each}
          </Select>
        {/if}
        <TextArea
          labelText="What the system lists"
          rows={9}
          class="listing"
          value={guard.text}
          invalid={guard.tooLong}
          invalidText="This is longer than any list of disks: paste the output of one command."
          on:input={(e) => guard.take((e.target as HTMLTextAreaElement).value)}
        />
      </div>
      <AttachedDisks
        report={attached.report}
        failed={attached.failed}
        mode={data.build.report.link.mode}
        {own}
        onuse={(text) => guard.take(text, true)}
        onnext={() => void attached.next()}
        onlook={() => void attached.look()}
      />
    </div>
    {#if report}
      <h2>2. The device</h2>
      <ListedDevices {report} chosen={guard.chosen} onchoose={(device) => guard.choose(device)} />
      <h2>3. The identity</h2>
      <div class="identity">
        <TextInput
          size="sm"
          labelText={byBytes ? 'Its exact size in bytes' : 'The end of its serial number, from the label or the case'}
          helperText={byBytes
            ? 'This device shows no serial number.'
            : '4 characters or more, typed from the thing itself and not from this page'}
          value={guard.identity}
          on:input={(e) => {
            guard.identity = String(e.detail ?? '');
            void guard.ask();
          }}
        />
        <p role="status" class:open={unlocked}>
          {#if guard.relocked}
            <StateMark mark="check" size={16} /> Locked again. {guard.relocked}
          {:else if guard.problem}
            <StateMark mark="fail" size={16} /> {guard.problem}
          {:else if guard.answer}
            <StateMark mark={unlocked ? 'pass' : 'check'} size={16} />
            {guard.answer.why}
            {#if unlocked}The list holds for {guard.minutesLeft} more minutes.{/if}
          {/if}
        </p>
      </div>
      <h2>4. The commands</h2>
      <p class="small">
        {#if unlocked}
          They erase {guard.chosen} and make {FILESYSTEMS[settled.filesystem].label} on it, named {settled.name}. One
          after the other; stop where one says something else than before.
        {:else}
          Locked: they name no device, and fail as they stand.
        {/if}
        Nobody should trust a guard alone: read the name of the device once more before you press Enter.
      </p>
      <div class="screen">
        {#each guard.answer?.commands ?? guard.plain as command, i (i)}
          <div class:locked={!unlocked}><CopyLine text={command} label="Copy command {i + 1}" /></div>
        {/each}
      </div>
      <!-- Paper outlives the list: on it the commands name no device. -->
      <div class="paper">
        {#each guard.plain as command, i (i)}<pre>{command}</pre>{/each}
      </div>
    {/if}
  {/if}
</div>

<style>
  .columns {
    margin-top: 14px;
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 12px 32px;
    align-items: start;
  }
  .columns :global(textarea) {
    font: 12px/1.5 var(--ash-mono);
    white-space: pre;
    overflow-x: auto;
  }
  .page > h2 {
    margin-top: 14px;
  }
  .loss {
    display: flex;
    gap: 8px;
    align-items: baseline;
    padding: 7px 12px;
    border-left: 3px solid var(--ash-caution);
    background: var(--ash-well);
  }
  .loss :global(svg) {
    position: relative;
    top: 3px;
  }
  .level-0 {
    border-color: var(--ash-pass);
  }
  .level-3 {
    border-color: var(--ash-fail);
  }
  .identity {
    display: grid;
    grid-template-columns: minmax(0, 24rem) minmax(0, 1fr);
    gap: 8px 20px;
    align-items: center;
  }
  .open {
    color: var(--ash-pass);
  }
  .locked {
    opacity: 0.75;
  }
  .paper {
    display: none;
  }
  pre {
    white-space: pre-wrap;
    overflow-wrap: anywhere;
    font: 11px var(--ash-mono);
  }
  @media (max-width: 900px) {
    .columns,
    .identity {
      grid-template-columns: minmax(0, 1fr);
    }
  }
  @media print {
    .screen {
      display: none;
    }
    .paper {
      display: block;
    }
  }
</style>
