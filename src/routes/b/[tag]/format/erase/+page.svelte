<script lang="ts">
  import { tick } from 'svelte';
  import { Button, Select, SelectItem, TextArea, TextInput } from 'carbon-components-svelte';
  import { OLD_USE_LABEL, oldDrive } from '#core/erase/old-drive';
  import {
    LOOKED_LABEL,
    MEANS,
    MEANS_LABEL,
    RECIPIENT_LABEL,
    RECIPIENTS,
    sanitise,
    timeWords,
    type Erased,
    type Means,
    type Recipient
  } from '#core/erase/sanitise';
  import { readQuantity } from '#core/quantities/read';
  import { changesOf } from '$lib/client/change';
  import StateMark from '$lib/ui/common/StateMark.svelte';
  import Certificate from '$lib/ui/format/Certificate.svelte';
  import FormatTabs from '$lib/ui/format/FormatTabs.svelte';

  let { data } = $props();
  const tag = $derived(data.build.tag);
  const api = $derived(`/api/crates/${data.crate.id}/builds/${data.build.id}`);
  const change = $derived(changesOf(data.crate.id));
  const drive = $derived(data.build.snapshot.drive);
  let recipient = $state<Recipient>('stranger');
  let works = $state('yes');
  const advice = $derived(
    sanitise({
      media: drive.media,
      recipient,
      capacityTB: drive.capacityTB,
      writeMBps: data.build.report.throughput.sustainedWrite,
      works: works === 'yes'
    })
  );
  const FITS = {
    first: 'do this',
    enough: 'enough too',
    more: 'more than needed',
    'too-little': 'too little',
    cannot: 'not possible'
  } as const;
  const MARK = { first: 'pass', enough: 'note', more: 'note', 'too-little': 'check', cannot: 'fail' } as const;

  let means = $state<Means | undefined>(undefined);
  let serial = $state<string | undefined>(undefined);
  let unitId = $state('');
  let who = $state('');
  let tool = $state('');
  let looked = $state<Erased['looked']>('not');
  let note = $state('');
  let busy = $state(false);
  let errors = $state<Record<string, string>>({});
  const item = $derived(
    data.driveItems.find(({ id }) => id === unitId) ?? (data.driveItems.length === 1 ? data.driveItems[0] : undefined)
  );
  const shownSerial = $derived(serial ?? item?.serial ?? item?.caseSerial ?? '');

  async function keep(): Promise<void> {
    busy = true;
    const seen: Erased = {
      means: means ?? advice[0]?.means ?? 'quick',
      recipient,
      serial: shownSerial.trim(),
      who: who.trim(),
      looked,
      ...(item ? { unitId: item.id } : {}),
      ...(tool.trim() ? { tool: tool.trim() } : {}),
      ...(note.trim() ? { note: note.trim() } : {})
    };
    const refused = await change(
      'POST',
      `${api}/observations`,
      { kind: 'erased', date: data.today, seen },
      'Kept the record of erasing.'
    );
    errors = Object.fromEntries(
      (refused?.fields ?? []).map(({ path, message }) => [path.replace('seen.', ''), `This ${message}.`])
    );
    busy = false;
  }

  let printing = $state<string | undefined>(undefined);
  async function print(id: string): Promise<void> {
    printing = id;
    await tick();
    window.print();
    printing = undefined;
  }

  let typed = $state({ reallocated: '', pending: '', wornPercent: '', hours: '' });
  const HEALTH = [
    { key: 'reallocated', label: 'Sectors replaced', unit: '' },
    { key: 'pending', label: 'Sectors that wait', unit: '' },
    { key: 'wornPercent', label: 'Life used, %', unit: '%' },
    { key: 'hours', label: 'Hours powered', unit: '' }
  ] as const;
  const readings = $derived(
    Object.fromEntries(
      HEALTH.map(({ key, unit }) => [
        key,
        typed[key].trim() === '' ? undefined : readQuantity(typed[key], { unit, min: 0, max: 10_000_000 })
      ])
    )
  );
  const health = $derived(
    Object.fromEntries(Object.entries(readings).map(([key, read]) => [key, read?.ok ? read.value : undefined]))
  );
  const old = $derived(oldDrive(drive, health, data.jobs, data.build.report.throughput.sustainedWrite?.typical));
</script>

<svelte:head><title>{tag} Erase for good · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head no-print">
    <div class="grow">
      <h1>Erase for good</h1>
      <p class="quiet">Before a used drive is given away, or begins anew: how, how surely, and a record to print.</p>
    </div>
  </div>
  <FormatTabs {tag} here="erase" sheet={data.sheets.length > 1 ? data.whole?.stored.id : undefined} />
  <div class="no-print">
    <div class="asks">
      <Select size="sm" labelText="What becomes of it?" bind:selected={recipient}>
        {#each RECIPIENTS as one (one)}<SelectItem value={one} text={RECIPIENT_LABEL[one]} />{/each}
      </Select>
      <Select size="sm" labelText="Can it still be written to?" bind:selected={works}>
        <SelectItem value="yes" text="yes" />
        <SelectItem value="no" text="no" />
      </Select>
    </div>
    <p class="small">
      Back up first, and open the copy. Rules about data of others differ by country and house: where there are any,
      they come before this advice.
    </p>
    <ul class="means">
      {#each advice as one (one.means)}
        <li class={one.fits}>
          <span class="fits"><StateMark mark={MARK[one.fits]} size={16} /> {FITS[one.fits]}</span>
          <div>
            <strong>{MEANS_LABEL[one.means]}</strong>
            <span class="quiet small">{one.seconds ? timeWords(one.seconds) : ''}</span>
            <p>{one.because} {one.fits === 'cannot' ? '' : one.how}</p>
            <p class="small quiet">What it leaves: {one.leaves}</p>
          </div>
        </li>
      {/each}
    </ul>
    <h2>Keep a record</h2>
    <div class="fields">
      <Select
        size="sm"
        labelText="What was done"
        selected={means ?? advice[0]?.means}
        on:change={(e) => (means = (e.currentTarget as HTMLSelectElement).value as Means)}
      >
        {#each MEANS as one (one)}<SelectItem value={one} text={MEANS_LABEL[one]} />{/each}
      </Select>
      {#if data.driveItems.length > 1}
        <Select size="sm" labelText="Which item" bind:selected={unitId}>
          <SelectItem value="" text="not known" />
          {#each data.driveItems as one (one.id)}<SelectItem value={one.id} text={one.tag} />{/each}
        </Select>
      {/if}
      <TextInput
        size="sm"
        labelText="Serial number"
        value={shownSerial}
        maxlength={80}
        invalid={errors.serial !== undefined}
        invalidText={errors.serial}
        on:input={(e) => (serial = String(e.detail ?? ''))}
      />
      <TextInput
        size="sm"
        labelText="By whom"
        placeholder="such as: scanning desk"
        maxlength={80}
        bind:value={who}
        invalid={errors.who !== undefined}
        invalidText={errors.who}
      />
      <TextInput
        size="sm"
        labelText="With what"
        placeholder="such as: the system’s own tool"
        maxlength={120}
        bind:value={tool}
      />
      <Select size="sm" labelText="Read back afterwards" bind:selected={looked}>
        {#each Object.entries(LOOKED_LABEL) as [value, text] (value)}<SelectItem {value} {text} />{/each}
      </Select>
    </div>
    <TextArea labelText="Note" rows={2} maxlength={500} bind:value={note} />
    <p class="keep">
      <Button
        size="small"
        disabled={busy || shownSerial.trim() === '' || who.trim() === ''}
        on:click={() => void keep()}>Keep the record</Button
      >
      {#if shownSerial.trim() === '' || who.trim() === ''}<span class="small quiet"
          >It needs the serial number, and who did it.</span
        >{/if}
    </p>
  </div>
  {#each data.erased as { id, version, date, seen } (id)}
    <div class="kept" class:no-print={printing !== undefined && printing !== id}>
      <Certificate {seen} {date} {drive} {tag} item={data.driveItems.find((one) => one.id === seen.unitId)?.tag} />
      <p class="no-print">
        <button type="button" class="link" onclick={() => void print(id)}>Print it</button>
        <button
          type="button"
          class="link"
          onclick={() =>
            void change('DELETE', `${api}/observations/${id}`, { version }, 'Deleted the record of erasing.')}
          >Delete it</button
        >
      </p>
    </div>
  {/each}
  <div class="no-print">
    <h2>What {drive.name} can still be</h2>
    <p class="small quiet">
      From its health readings (SMART values), its kind and size, and the jobs of this crate. Empty fields count as not
      read.
    </p>
    <div class="fields">
      {#each HEALTH as { key, label } (key)}
        {@const read = readings[key]}
        <TextInput
          size="sm"
          labelText={label}
          bind:value={typed[key]}
          invalid={read !== undefined && !read.ok}
          invalidText={read && !read.ok ? read.message : undefined}
        />
      {/each}
    </div>
    <p>
      <StateMark mark={old.state === 'sound' ? 'pass' : old.state === 'failing' ? 'fail' : 'check'} size={16} />
      {old.says}
    </p>
    <ul class="uses">
      {#each old.uses as { use, fits, because } (use)}
        <li>
          <span class="fits">{fits === 'well' ? 'well' : fits === 'perhaps' ? 'perhaps' : 'no'}</span>
          <span>{OLD_USE_LABEL[use].charAt(0).toUpperCase()}{OLD_USE_LABEL[use].slice(1)}: {because}.</span>
        </li>
      {/each}
    </ul>
    {#if old.jobs.length > 0}
      <h3>Jobs of this crate</h3>
      <ul class="uses">
        {#each old.jobs as job, i (i)}<li>
            <span class="fits">{job.fits ? 'fits' : 'no'}</span> <span>{job.name}: {job.because}.</span>
          </li>{/each}
      </ul>
    {/if}
  </div>
</div>

<style>
  .asks,
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(min(100%, 14rem), 1fr));
    gap: 12px 16px;
    margin: 8px 0 12px;
    align-items: start;
  }
  .means li {
    display: grid;
    grid-template-columns: 8rem minmax(0, 1fr);
    gap: 4px 14px;
    padding: 8px 0;
    border-top: 1px solid var(--ash-line);
  }
  .fits {
    font-weight: 600;
  }
  li.first {
    padding: 8px 10px;
    border-left: 3px solid var(--ash-pass);
    background: var(--ash-well);
  }
  li.too-little,
  li.cannot {
    color: var(--ash-soft);
  }
  .uses li {
    display: grid;
    grid-template-columns: 5rem minmax(0, 1fr);
    padding: 3px 0;
  }
  .keep {
    display: flex;
    gap: 12px;
    align-items: center;
    margin: 10px 0;
  }
  .kept {
    margin: 14px 0;
  }
  h2 {
    margin-top: 16px;
  }
  h3 {
    margin: 10px 0 2px;
    font-size: var(--ash-text);
    font-weight: 650;
  }
  @media (max-width: 672px) {
    .means li {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
