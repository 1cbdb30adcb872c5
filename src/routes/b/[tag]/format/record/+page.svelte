<script lang="ts">
  import { Button } from 'carbon-components-svelte';
  import { FILESYSTEMS } from '#core/facts/filesystems';
  import { capacityLadder } from '#core/format/ladder';
  import { recordWords, type FormatRecord } from '#core/format/record';
  import { looksLikeKey } from '#core/sheets/format-choices';
  import { day, figure } from '#core/quantities/format';
  import { changesOf } from '$lib/client/change';
  import { FormatStation } from '$lib/client/format-station.svelte';
  import FormatTabs from '$lib/ui/format/FormatTabs.svelte';
  import OnItForm from '$lib/ui/format/OnItForm.svelte';
  import RecordFormat from '$lib/ui/format/RecordFormat.svelte';
  import StateMark from '$lib/ui/common/StateMark.svelte';

  let { data } = $props();
  const tag = $derived(data.build.tag);
  const api = $derived(`/api/crates/${data.crate.id}/builds/${data.build.id}`);
  const change = $derived(changesOf(data.crate.id));
  const station = new FormatStation(() => ({ crateId: data.crate.id, build: data.build, whole: data.whole }));
  let busy = $state(false);
  let errors = $state<Record<string, string>>({});
  const tagOf = (id: string | undefined) => data.driveItems.find((item) => item.id === id)?.tag;
  const laterStage = $derived(['planned', 'bought', 'assembled'].includes(data.build.stage));

  async function keep(kind: 'formatted' | 'on-it', seen: unknown, date: string, words: string): Promise<void> {
    busy = true;
    const refused = await change('POST', `${api}/observations`, { kind, date, seen }, words);
    errors = Object.fromEntries(
      (refused?.fields ?? []).map(({ path, message }) => [path.replace('seen.', ''), `This ${message}.`])
    );
    busy = false;
  }
  const keepRecord = (record: FormatRecord, date: string) => {
    if (record.keyPlace && looksLikeKey(record.keyPlace)) {
      errors = { keyPlace: 'This looks like the key itself: write only where it lies, never the key.' };
      return;
    }
    void keep('formatted', record, date, `Kept what was made of ${tag}.`);
  };
  const against = ({ filesystem, scheme, system, freeBytes }: FormatRecord) =>
    freeBytes === undefined
      ? undefined
      : capacityLadder({
          capacityTB: data.build.snapshot.drive.capacityTB,
          filesystem,
          scheme,
          os: system.family,
          media: data.build.snapshot.drive.media,
          observedFreeBytes: freeBytes
        }).difference;
  const markFormatted = () =>
    void change(
      'PUT',
      `/api/crates/${data.crate.id}/builds/${data.build.id}/stage`,
      { version: data.build.version, stage: 'formatted' },
      `${tag} is formatted.`
    );
</script>

<svelte:head><title>{tag} Before and after formatting · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Before and after</h1>
      <p class="quiet">What would be lost, and what was made. Both stay with the build.</p>
    </div>
  </div>
  <FormatTabs {tag} here="record" sheet={data.sheets.length > 1 ? data.whole?.stored.id : undefined} />
  {#key data.onIt[0]?.id}
    <OnItForm
      last={data.onIt[0]}
      today={data.today}
      {busy}
      onkeep={(onIt) => void keep('on-it', onIt, data.today, 'Kept what is on it.')}
    />
  {/key}
  <hr />
  {#if data.formatted.length > 0}
    <h2>Made so far</h2>
    <ul>
      {#each data.formatted as { id, version, date, seen } (id)}
        {@const difference = against(seen)}
        <li>
          <strong>{day(date)}</strong>
          {recordWords(seen)}{seen.unitId && tagOf(seen.unitId) ? `, ${tagOf(seen.unitId)}` : ''}{seen.freeBytes ===
          undefined
            ? ''
            : `, ${figure(seen.freeBytes / 1e12)} TB free`}{seen.keyPlace ? `, key: ${seen.keyPlace}` : ''}{seen.note
            ? `. ${seen.note}`
            : ''}
          {#if difference}<p class="small">
              <StateMark mark={difference.inside ? 'pass' : 'check'} size={14} />
              {difference.inside ? 'The free room is as expected.' : difference.cause}
            </p>{/if}
          <button
            type="button"
            class="link no-print"
            onclick={() => void change('DELETE', `${api}/observations/${id}`, { version }, 'Deleted the record.')}
            >Delete</button
          >
        </li>
      {/each}
    </ul>
    {#if laterStage}
      <p class="finished no-print">
        {FILESYSTEMS[data.formatted[0]?.seen.filesystem ?? 'exfat'].label} is on it.
        <Button size="small" on:click={markFormatted}>Mark {tag} as formatted</Button>
      </p>
    {:else}
      <p class="no-print">
        <a href="/b/{tag}/measure">Next: measure it. The conditions are taken from this record.</a>
      </p>
    {/if}
  {/if}
  {#key data.formatted.length}
    <RecordFormat
      settled={station.settled}
      items={data.driveItems.length > 1 ? data.driveItems : []}
      today={data.today}
      {busy}
      {errors}
      onkeep={keepRecord}
    />
  {/key}
</div>

<style>
  hr {
    margin: 18px 0;
    border: 0;
    border-top: 1px solid var(--ash-line);
  }
  li {
    overflow-wrap: anywhere;
    padding: 6px 0;
    border-top: 1px solid var(--ash-line);
  }
  .finished {
    display: flex;
    flex-wrap: wrap;
    gap: 12px;
    align-items: center;
    padding: 10px 14px;
    margin: 8px 0;
    border: 1px solid var(--ash-pass);
  }
</style>
