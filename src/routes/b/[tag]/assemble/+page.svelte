<script lang="ts">
  import { beforeNavigate, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { Button } from 'carbon-components-svelte';
  import { runSheet } from '#core/assembly/run-sheet';
  import { placeOf } from '#core/sheets/progress';
  import { keepAddress, withQuery } from '$lib/client/address';
  import { Awake } from '$lib/client/awake.svelte';
  import { changesOf } from '$lib/client/change';
  import { OpenSheet } from '$lib/client/open-sheet.svelte';
  import { takeBack } from '$lib/client/undo';
  import type { SheetActs } from '$lib/ui/assemble/acts';
  import BeginSheet from '$lib/ui/assemble/BeginSheet.svelte';
  import LayOut from '$lib/ui/assemble/LayOut.svelte';
  import NewSteps from '$lib/ui/assemble/NewSteps.svelte';
  import OneStep from '$lib/ui/assemble/OneStep.svelte';
  import SheetList from '$lib/ui/assemble/SheetList.svelte';
  import SheetPaper from '$lib/ui/assemble/SheetPaper.svelte';
  import SheetState from '$lib/ui/assemble/SheetState.svelte';
  import { notices } from '$lib/ui/frame/notices.svelte';
  import Piece from '$lib/ui/common/Piece.svelte';

  let { data } = $props();
  const tag = $derived(data.build.tag);
  const api = $derived(`/api/crates/${data.crate.id}`);
  const change = $derived(changesOf(data.crate.id));
  const parts = $derived(data.build.snapshot);
  const names = $derived(`${parts.drive.name} in ${parts.enclosure.name}, for ${parts.host.name}`);
  const preview = $derived(runSheet(parts));
  let busy = $state(false);
  let again = $state(false);
  const open = new OpenSheet(() => ({
    crateId: data.crate.id,
    tag,
    title: data.build.name,
    parts,
    whole: data.whole ?? {
      stored: { id: '', version: 0, kind: 'assemble', unitIds: [], seen: {} },
      entries: [],
      photos: []
    }
  }));
  const awake = new Awake();
  const begun = $derived(data.whole !== null && !again);
  const oneByOne = $derived(page.url.searchParams.get('view') === 'step');
  /** The step that is asked for, by itself or by its code, as a search for a cause sends one back. */
  const at = $derived.by(() => {
    const query = page.url.searchParams;
    const code = query.get('back');
    const back = code && open.sheet.stages.flatMap(({ steps }) => steps).find((step) => step.code === code)?.id;
    return query.get('step') ?? back ?? undefined;
  });
  const items = $derived(open.stored.unitIds.map((id) => ({ id, tag: data.items.tags[id] ?? 'an item' })));
  const added = $derived(new Set(open.changes.added.map(({ id }) => id)));
  /** Where the hands go on: the first step of the stage at hand that is not done for every item. */
  const firstOpen = $derived(
    open.sheet.stages[open.progress.current ?? -1]?.steps.find((step) =>
      (step.once || items.length === 0 ? [undefined] : items).some((item) => !open.isDone(step.id, item?.id))
    )
  );
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
      void change('DELETE', `${api}/attachments/${id}`, { version }, `Deleted ${name}.`).then(() => open.look())
  });

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
  async function begin(unitIds: string[], readyMade: boolean): Promise<void> {
    busy = true;
    const body = { kind: 'assemble', unitIds, ...(readyMade ? { from: 'ready-made' } : {}) };
    await change('POST', `${api}/builds/${data.build.id}/sheets`, body, { words: `Began the run sheet of ${tag}.` });
    again = false;
    busy = false;
  }
  async function addItems(count: number): Promise<void> {
    busy = true;
    const unit = { modelId: data.build.choice.driveId, state: 'owned' };
    await change('POST', `${api}/units/many`, { count, unit }, `Added ${count} of ${parts.drive.name}.`);
    busy = false;
  }
  const sheetPath = $derived(`${api}/sheets/${open.stored.id}`);
  const lookedThrough = () =>
    void change('PUT', `${sheetPath}/seen`, { version: open.stored.version }, 'Looked through what is new.').then(() =>
      open.look()
    );
  const deleteSheet = () =>
    void change('DELETE', sheetPath, { version: open.stored.version }, `Deleted the run sheet of ${tag}.`);
  const markAssembled = () =>
    void change(
      'PUT',
      `${api}/builds/${data.build.id}/stage`,
      { version: data.build.version, stage: 'assembled' },
      `${tag} is assembled.`
    );
  async function undoLast(): Promise<void> {
    if (!open.last) return;
    await takeBack(data.crate.id, open.last, () => void open.look());
    open.last = undefined;
    await invalidateAll();
  }
  const view = (change: Record<string, string | undefined>) => void keepAddress(withQuery(page.url, change));
  const showsMark = $derived(
    open.progress.current === null && (data.build.stage === 'planned' || data.build.stage === 'bought')
  );
</script>

<svelte:head><title>{tag} Assemble · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head no-print" class:brief={begun && oneByOne}>
    <div class="grow">
      <h1>Assemble</h1>
      <p class="quiet">
        {#if begun}
          {open.progress.current === null
            ? 'Every stage is checked.'
            : `Stage ${open.progress.current + 1} of ${open.progress.stages.length}: ${open.progress.stages[open.progress.current]?.title}.`}
          {open.progress.done} of {open.progress.all} steps{items.length > 1
            ? ` for ${items.map((item) => item.tag).join(', ')}`
            : ''}; about {open.sheet.minutes.typical} minutes in all.
        {:else}{names}.{/if}
      </p>
    </div>
    {#if begun}
      <Button
        size="field"
        kind="tertiary"
        on:click={() => view({ view: oneByOne ? undefined : 'step', step: undefined, back: undefined })}
        >{oneByOne ? 'As a list' : 'One step at a time'}</Button
      >
    {:else}
      <Button size="field" kind="tertiary" href="/b/{tag}/assemble/leads">Plug and unplug</Button>
    {/if}
    <Button size="field" kind="tertiary" href="/b/{tag}/assemble/trouble">It does not work</Button>
  </div>

  {#if !begun}
    {#if data.build.stage === 'retired'}
      <p>This build is retired: there is nothing to assemble.</p>
    {:else}
      {#if again}<p>
          <button type="button" class="link" onclick={() => (again = false)}>Back to the sheet</button>
        </p>{/if}
      <div class="before">
        <Piece
          ><BeginSheet
            sheet={preview}
            items={data.items.free}
            drive={parts.drive.name}
            {busy}
            {again}
            onbegin={(unitIds, readyMade) => void begin(unitIds, readyMade)}
            onadd={(count) => void addItems(count)}
          /></Piece
        >
        <Piece><LayOut sheet={preview} standing={data.standing} buyHref="/b/{tag}/buy" /></Piece>
      </div>
    {/if}
  {:else}
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
    {#if firstOpen && !oneByOne}
      <p class="no-print to-open"><a href="#{firstOpen.id}">To the first open step</a></p>
    {/if}
    <NewSteps changes={open.changes} onseen={lookedThrough} />
    {#if showsMark}
      <p class="finished no-print">
        Every stage is checked. <Button size="small" on:click={markAssembled}>Mark {tag} as assembled</Button>
      </p>
    {/if}
    {#if oneByOne}
      <OneStep
        sheet={open.sheet}
        progress={open.progress}
        {acts}
        {added}
        imprintHref="/b/{tag}/pads"
        {at}
        onmove={(step) => view({ step, back: undefined })}
      />
    {:else}
      <SheetList
        sheet={open.sheet}
        progress={open.progress}
        {acts}
        {added}
        standing={data.standing}
        buildHref="/b/{tag}"
        leadsHref="/b/{tag}/assemble/leads"
        onagain={() => (again = true)}
        ondelete={deleteSheet}
      />
    {/if}
    <SheetPaper
      sheet={open.sheet}
      title="{tag} {data.build.name}"
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
  /* One step at a time on a phone: the step is the page. */
  @media (max-width: 672px) {
    .brief p {
      display: none;
    }
    .brief .grow {
      flex: 1 0 100%;
    }
  }
  .before {
    display: grid;
    grid-template-columns: minmax(0, 7fr) minmax(0, 5fr);
    gap: 18px 32px;
    align-items: start;
  }
  @media (max-width: 1000px) {
    .before {
      grid-template-columns: minmax(0, 1fr);
    }
  }
  /* As high as a thumb wants it, also between other things to press. */
  .to-open a {
    display: inline-block;
    padding: 6px 0;
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
