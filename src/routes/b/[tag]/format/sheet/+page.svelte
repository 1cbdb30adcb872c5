<script lang="ts">
  import { beforeNavigate, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { Button, Checkbox } from 'carbon-components-svelte';
  import { day } from '#core/quantities/format';
  import { placeOf } from '#core/sheets/progress';
  import { keepAddress, withQuery } from '$lib/client/address';
  import { Awake } from '$lib/client/awake.svelte';
  import { changesOf } from '$lib/client/change';
  import { FormatStation } from '$lib/client/format-station.svelte';
  import { takeBack } from '$lib/client/undo';
  import type { SheetActs } from '$lib/ui/assemble/acts';
  import NewSteps from '$lib/ui/assemble/NewSteps.svelte';
  import OneStep from '$lib/ui/assemble/OneStep.svelte';
  import SheetList from '$lib/ui/assemble/SheetList.svelte';
  import SheetPaper from '$lib/ui/assemble/SheetPaper.svelte';
  import SheetState from '$lib/ui/assemble/SheetState.svelte';
  import FormatTabs from '$lib/ui/format/FormatTabs.svelte';
  import { notices } from '$lib/ui/frame/notices.svelte';

  let { data } = $props();
  const tag = $derived(data.build.tag);
  const api = $derived(`/api/crates/${data.crate.id}`);
  const change = $derived(changesOf(data.crate.id));
  const parts = $derived(data.build.snapshot);
  const station = new FormatStation(() => ({ crateId: data.crate.id, build: data.build, whole: data.whole }));
  const open = station.open;
  const awake = new Awake();
  let again = $state(false);
  let chosen = $state<string[]>([]);
  const begun = $derived(station.begun && !again);
  const oneByOne = $derived(page.url.searchParams.get('view') === 'step');
  const names = $derived(`${parts.drive.name} in ${parts.enclosure.name}, for ${parts.host.name}`);
  const tagOf = (id: string) => data.driveItems.find((item) => item.id === id)?.tag ?? 'an item';
  const nameOf = ({ unitIds, createdAt }: { unitIds: readonly string[]; createdAt: string }) =>
    unitIds.length > 0 ? unitIds.map(tagOf).join(', ') : `of ${day(createdAt)}`;
  const items = $derived(open.stored.unitIds.map((id) => ({ id, tag: tagOf(id) })));
  const added = $derived(new Set(open.changes.added.map(({ id }) => id)));
  const SEE = { guard: '/guard', ladder: '', plan: '', record: '/record', 'on-it': '/record' } as const;
  const acts: SheetActs = $derived({
    items,
    entries: open.entries,
    photos: open.photos,
    photoBase: `${api}/attachments`,
    busy: open.busy,
    markOf: (stepId, unitId) => open.marks.get(placeOf(stepId, unitId)),
    tick: (stepId, unitId, done) => void open.tick(stepId, unitId, done),
    note: (stepId, note) => void open.note(stepId, note),
    say: (stepId, note) => void open.say(stepId, note),
    answer: (answer) => void open.answer(answer),
    photograph: (stepId, unitId, file) => void open.photograph(stepId, unitId, file),
    removeNote: (key) =>
      void change('DELETE', `${api}/sheets/${open.stored.id}/checks/${key}`, undefined, 'Took the note away.').then(
        () => open.look()
      ),
    removePhoto: ({ id, version, name }) =>
      void change('DELETE', `${api}/attachments/${id}`, { version }, `Deleted ${name}.`).then(() => open.look()),
    seeHref: (see) => `/b/${tag}/format${SEE[see]}${data.sheets.length > 1 ? `?sheet=${open.stored.id}` : ''}`
  });
  const sheetPath = $derived(`${api}/sheets/${open.stored.id}`);
  const versioned = $derived({ version: open.stored.version });

  $effect(() => {
    if (!begun) return;
    const stops = [open.start(), awake.start()];
    return () => stops.forEach((stop) => stop());
  });
  beforeNavigate(({ to, cancel, willUnload }) => {
    if (!begun || !open.away || to?.url.pathname === page.url.pathname) return;
    if (!willUnload) notices.add('error', 'No connection: this page stays open, the others come up when it is back.');
    cancel();
  });
  async function begin(): Promise<void> {
    // Several alike: a sheet for each, so that none is erased under the name of another.
    const each = chosen.length > 1 ? chosen.map((id) => [id]) : [[]];
    for (const unitIds of each) if (!(await station.begin(unitIds))) return;
    again = false;
    chosen = [];
  }
  async function undoLast(): Promise<void> {
    if (!open.last) return;
    await takeBack(data.crate.id, open.last, () => void open.look());
    open.last = undefined;
    await invalidateAll();
  }
  const markFormatted = () =>
    void change(
      'PUT',
      `${api}/builds/${data.build.id}/stage`,
      { version: data.build.version, stage: 'formatted' },
      `${tag} is formatted.`
    );
  const view = (query: Record<string, string | undefined>) => void keepAddress(withQuery(page.url, query));
  const showsMark = $derived(
    open.progress.current === null && ['planned', 'bought', 'assembled'].includes(data.build.stage)
  );
</script>

<svelte:head><title>{tag} Format sheet · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head no-print">
    <div class="grow">
      <h1>Format sheet</h1>
      <p class="quiet">
        {#if begun}
          {open.progress.current === null
            ? 'Every stage is checked.'
            : `Stage ${open.progress.current + 1} of ${open.progress.stages.length}: ${open.progress.stages[open.progress.current]?.title}.`}
          {open.progress.done} of {open.progress.all} steps; about {open.sheet.minutes.typical} minutes.
        {:else}{names}.{/if}
      </p>
    </div>
    {#if begun}
      <Button
        size="field"
        kind="tertiary"
        on:click={() => view({ view: oneByOne ? undefined : 'step', step: undefined })}
        >{oneByOne ? 'As a list' : 'One step at a time'}</Button
      >
    {/if}
  </div>
  <FormatTabs {tag} here="sheet" sheet={data.sheets.length > 1 ? data.whole?.stored.id : undefined} />
  {#if !begun}
    {#if data.build.stage === 'retired'}
      <p>This build is retired: erase it for good on the last page of this station.</p>
    {:else}
      <p>
        {open.sheet.stages.length} stages of a few steps, each with a check at its end; about
        <strong>{open.sheet.minutes.typical} minutes</strong>, by the system’s own tools. You can stop at any step and
        go on from another browser.
      </p>
      {#if data.driveItems.length > 1}
        <fieldset class="items">
          <legend>Several alike? Choose two or more: each gets a sheet of its own.</legend>
          {#each data.driveItems as item (item.id)}
            <Checkbox
              labelText={item.tag}
              checked={chosen.includes(item.id)}
              on:check={({ detail }) =>
                (chosen = detail ? [...chosen, item.id] : chosen.filter((other) => other !== item.id))}
            />
          {/each}
        </fieldset>
      {/if}
      <ol class="outline">
        {#each open.sheet.stages as stage (stage.id)}
          <li>
            <strong>{stage.title}</strong>
            <ul>
              {#each stage.steps as step (step.id)}<li>{step.text}</li>{/each}
            </ul>
          </li>
        {/each}
      </ol>
      {#each open.sheet.warnings as warning (warning)}<p class="warning">{warning}</p>{/each}
      <p>
        <Button size="field" disabled={station.busy} on:click={() => void begin()}
          >{chosen.length > 1
            ? `Begin ${chosen.length} sheets`
            : again
              ? 'Begin a new sheet'
              : 'Begin the format sheet'}</Button
        >
        {#if again}<button type="button" class="link" onclick={() => (again = false)}>Back to the sheet</button>{/if}
      </p>
    {/if}
  {:else}
    {#if data.sheets.length > 1}
      <p class="no-print">
        Sheets of this build:
        {#each data.sheets as one, n (one.id)}{n > 0 ? ' · ' : ''}{#if one.id === open.stored.id}<strong
              >{nameOf(one)}</strong
            >{:else}<a href="/b/{tag}/format/sheet?sheet={one.id}">{nameOf(one)}</a>{/if}{/each}
      </p>
    {/if}
    <SheetState
      away={open.away}
      waiting={open.mine.filter(({ refused }) => refused === undefined).length}
      refused={open.refused.length}
      why={open.refused[0]?.refused}
      kept={open.kept}
      awake={awake.state}
      canUndo={open.last !== undefined && !open.away}
      onundo={() => void undoLast()}
      onsettle={(keep) => void open.settleRefused(keep)}
    />
    <NewSteps
      changes={open.changes}
      onseen={() =>
        void change('PUT', `${sheetPath}/seen`, versioned, 'Looked through what is new.').then(() => open.look())}
    />
    {#if showsMark}
      <p class="finished no-print">
        Every stage is checked. <Button size="small" on:click={markFormatted}>Mark {tag} as formatted</Button>
      </p>
    {/if}
    {#if oneByOne}
      <OneStep
        sheet={open.sheet}
        progress={open.progress}
        {acts}
        {added}
        imprintHref="/b/{tag}/pads"
        at={page.url.searchParams.get('step') ?? undefined}
        onmove={(step) => view({ step })}
      />
    {:else}
      <SheetList
        sheet={open.sheet}
        progress={open.progress}
        {acts}
        {added}
        standing={{}}
        buildHref="/b/{tag}"
        onagain={() => (again = true)}
        ondelete={() => void change('DELETE', sheetPath, versioned, `Deleted the format sheet of ${tag}.`)}
      />
    {/if}
    <SheetPaper
      sheet={open.sheet}
      title="{tag} {data.build.name}: format"
      parts={names}
      {items}
      address={data.address}
      markOf={acts.markOf}
    >
      {#snippet code()}
        <!-- eslint-disable-next-line svelte/no-at-html-tags -- made by this server out of an address, no text of a person in it -->
        {@html data.code}
      {/snippet}
    </SheetPaper>
  {/if}
</div>

<style>
  .outline {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(min(100%, 24rem), 1fr));
    gap: 12px 32px;
    margin: 14px 0;
    padding-left: 1.2em;
  }
  .outline > li {
    list-style: decimal;
  }
  .outline ul li {
    margin-left: 1.1em;
    list-style: disc;
    color: var(--ash-soft);
  }
  .items {
    margin: 12px 0;
    padding: 0;
    border: 0;
  }
  .items legend {
    font-weight: 600;
  }
  .warning {
    padding: 8px 12px;
    border-left: 3px solid var(--ash-caution);
    background: var(--ash-well);
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
