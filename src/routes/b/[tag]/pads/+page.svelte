<script lang="ts">
  import { Button, Checkbox, Select, SelectItem } from 'carbon-components-svelte';
  import { goto } from '$app/navigation';
  import { assemble } from '#core/build/assemble';
  import { untouchedBy, type Imprint } from '#core/temperature-logs/observation';
  import { BOARD_LIMITS, M2_HEIGHT_CODES, type M2HeightCode } from '#core/facts/m2';
  import { isDoubleSided } from '#core/parts/fill/drive';
  import { plan } from '#core/plan/plan';
  import { figure, quantity } from '#core/quantities/format';
  import { boardOf, boardProblems, usualChips, type Component, type Side } from '#core/pads/board';
  import type { StackChoice } from '#core/pads/choice';
  import { padKinds } from '#core/pads/gap';
  import { planPads } from '#core/pads/plan-pads';
  import { gapsAfterImprint, proposePads, type Proposal } from '#core/pads/propose';
  import { changesOf } from '$lib/client/change';
  import Figure from '$lib/ui/common/Figure.svelte';
  import StateMark from '$lib/ui/common/StateMark.svelte';
  import Wide from '$lib/ui/common/Wide.svelte';
  import { ROLE_WORD, VERDICT_MARKS } from '$lib/ui/geometry/pads';
  import BoardPlan from '$lib/ui/pads/BoardPlan.svelte';
  import ChipFields from '$lib/ui/pads/ChipFields.svelte';
  import CompressionBar from '$lib/ui/pads/CompressionBar.svelte';
  import DryFit from '$lib/ui/pads/DryFit.svelte';
  import GapFields from '$lib/ui/pads/GapFields.svelte';
  import Proposals from '$lib/ui/pads/Proposals.svelte';
  import Section from '$lib/ui/pads/Section.svelte';

  let { data } = $props();
  const change = $derived(changesOf(data.crate.id));
  const assembled = $derived(assemble(data.library, data.build.choice));
  const input = $derived(assembled.ok ? assembled.input : data.build.snapshot);
  const isM2 = $derived(input.drive.formFactor === 'm2' && input.enclosure.formFactor === 'm2');
  const doubleSided = $derived(isDoubleSided(input.drive));
  const stored = $derived(boardOf(input.drive, doubleSided));

  // What is on the screen and not stored yet: chips that were moved, pads that were tried.
  let edited = $state.raw<readonly Component[] | null>(null);
  let tried = $state.raw<StackChoice | null>(null);
  let side = $state<Side>('top');
  let selected = $state<number | null>(null);
  let tall = $state(true);
  let busy = $state(false);
  $effect(() => {
    void data.build.version;
    void data.versions.drive;
    edited = null;
    tried = null;
  });

  const chips = $derived(edited ?? stored?.chips ?? []);
  const board = $derived(stored ? { ...stored, chips } : null);
  const drive = $derived(edited ? { ...input.drive, components: [...edited] } : input.drive);
  const room = $derived({ top: input.enclosure.clearanceTopMm, bottom: input.enclosure.clearanceBottomMm });
  const problems = $derived(board ? boardProblems(chips, board.lengthMm, board.widthMm, room) : []);
  const stackInput = $derived({
    drive,
    doubleSided,
    enclosure: input.enclosure,
    pads: input.pads,
    chosen: tried ?? data.build.choice.stack,
    rules: data.crate.houseRules
  });
  const laid = $derived(planPads(stackInput));
  const proposals = $derived(problems.length === 0 ? proposePads(stackInput) : null);
  const kinds = $derived(padKinds(input.enclosure.includedPads, input.pads));
  const report = $derived(plan({ ...input, drive, ...(tried ? { stack: tried } : {}) }, { workings: false }));
  const findings = $derived(
    report.findings.filter((f) =>
      ['pad', 'board', 'chip', 'throttles', 'case', 'double', 'disk'].some((word) => f.code.startsWith(word))
    )
  );
  const chosenGaps = $derived((tried ?? data.build.choice.stack)?.gaps ?? []);
  const lastImprint = $derived(data.observations.find((o) => o.kind === 'imprint'));

  function setChip(index: number, chip: Component): void {
    edited = chips.map((c, i) => (i === index ? chip : c));
  }
  function remove(index: number): void {
    edited = chips.filter((_, i) => i !== index);
    selected = null;
  }
  function add(): void {
    edited = [...chips, { role: 'nand', side, xMm: 30, yMm: 4, lengthMm: 14, widthMm: 14, heightMm: 1.2 }];
    selected = chips.length - 1;
  }
  function useLayout(code: string): void {
    if (!board || code === '') return;
    edited = usualChips(board.lengthMm as 80, code as M2HeightCode, input.drive.flash?.dram !== false).map((chip) => ({
      ...chip
    }));
    selected = null;
  }
  const layersAt = (component: number): string =>
    laid.filled
      .find(({ at }) => at === component)
      ?.choice?.layers.map((pad) => pad.key)
      .join(' + ') ?? '';
  function choose(component: number, keys: string): void {
    const pieces = laid.filled.map(({ at, choice }) => ({
      component: at,
      layers: at === component ? keys.split(' + ').filter(Boolean) : (choice?.layers.map((pad) => pad.key) ?? [])
    }));
    tried = { pieces, ...(chosenGaps.length > 0 ? { gaps: chosenGaps } : {}) };
  }
  async function saveBoard(): Promise<void> {
    const { id: _, ...spec } = drive as typeof drive & { id?: string };
    busy = true;
    const failure = await change(
      'PUT',
      `/api/crates/${data.crate.id}/models/${data.build.choice.driveId}`,
      { version: data.versions.drive, spec },
      `${drive.name}: chips on the board kept.`
    );
    busy = false;
    if (!failure) edited = null;
  }
  async function keepPads(stack: StackChoice | null, words: string): Promise<void> {
    const { name, stage, version, choice } = data.build;
    const { stack: _, ...parts } = choice;
    busy = true;
    const failure = await change(
      'PUT',
      `/api/crates/${data.crate.id}/builds/${data.build.id}`,
      { version, name, stage, choice: { ...parts, stack } },
      words
    );
    busy = false;
    if (!failure) tried = null;
  }
  const pick = (proposal: Proposal) => (tried = proposal.choice);

  async function record(seen: Record<number, { onChip: Imprint; onCase: Imprint }>, note: string): Promise<void> {
    const check = {
      chips: laid.rows.map((row) => ({
        component: row.component,
        role: row.role,
        side: row.side,
        padsMm: row.pads,
        ...(seen[row.component] ?? { onChip: 'even' as const, onCase: 'even' as const })
      })),
      ...(note.trim() ? { note: note.trim() } : {})
    };
    busy = true;
    const failure = await change(
      'POST',
      `/api/crates/${data.crate.id}/builds/${data.build.id}/observations`,
      { kind: 'imprint', date: data.today, seen: check },
      'The imprint check is kept.'
    );
    busy = false;
    if (failure) return;
    const untouched = untouchedBy(check);
    if (untouched.length > 0) nextAfter(untouched);
  }
  /** What no pad touched has a gap at least as wide as that pad: the next proposal follows from it. */
  function nextAfter(untouched: readonly number[]): void {
    const now = tried ?? data.build.choice.stack ?? { pieces: [] };
    const widened = gapsAfterImprint(now, laid.rows, untouched);
    const next = proposePads({ ...stackInput, chosen: widened });
    tried = next?.sets[0]?.choice ?? widened;
  }
  /** A gap that was measured: the best pads for it are tried at once. */
  function measureGap(component: number, mm: number | null): void {
    const now = tried ?? data.build.choice.stack ?? { pieces: [] };
    const others = (now.gaps ?? []).filter((gap) => gap.component !== component);
    const gaps = mm === null ? others : [...others, { component, atLeastMm: mm, measured: true }];
    const next = { ...now, gaps };
    tried = proposePads({ ...stackInput, chosen: next })?.sets[0]?.choice ?? next;
  }
  const stackedKeys = $derived(
    kinds.flatMap((a, i) => kinds.slice(i).map((b) => ({ key: `${a.key} + ${b.key}`, label: `${a.name} + ${b.name}` })))
  );
  const stacking = $derived(data.crate.houseRules['gap-not-closed'] === 'stack');
</script>

<svelte:head><title>{data.build.tag} Pads and heat · Ash Crate</title></svelte:head>
<div class="page">
  <div class="page-head">
    <div class="grow">
      <h1>Pads and heat</h1>
      <p class="quiet">
        {input.drive.name} in {input.enclosure.name}: board and pads to scale, in millimetres.
      </p>
    </div>
    {#if edited && board}
      <Button size="small" disabled={busy || problems.length > 0 || data.versions.drive === null} on:click={saveBoard}
        >Keep these chips</Button
      >
      <Button kind="ghost" size="small" on:click={() => (edited = null)}>Discard</Button>
    {/if}
    {#if tried}
      <Button
        size="small"
        disabled={busy || edited !== null}
        on:click={() => keepPads(tried, `${data.build.tag}: pads kept.`)}>Use these pads</Button
      >
      <Button kind="ghost" size="small" on:click={() => (tried = null)}>Back to what is kept</Button>
    {:else if data.build.choice.stack}
      <Button
        kind="ghost"
        size="small"
        disabled={busy}
        on:click={() => keepPads(null, `${data.build.tag}: pads are chosen by the program again.`)}
        >Let the program choose</Button
      >
    {/if}
  </div>

  {#if !isM2 || !board}
    <div class="empty">
      <h2>No pads here</h2>
      <p>
        {input.drive.formFactor === 'm2'
          ? 'The enclosure takes no M.2 module, so there is no stack to plan.'
          : 'A 2.5- or 3.5-inch drive lies in a shell of its own and gives its heat to the case through it; pads belong on M.2 modules.'}
      </p>
      <p>
        <Button kind="tertiary" size="small" on:click={() => goto(`/b/${data.build.tag}/pads/heat`)}
          >Heat over time</Button
        >
      </p>
    </div>
  {:else}
    <div class="columns">
      <section class="drawings">
        <div class="bar">
          <div role="radiogroup" aria-label="Side" class="sides">
            {#each [['top', 'Upper side'], ['bottom', 'Underside']] as const as [id, label] (id)}
              <button
                type="button"
                role="radio"
                aria-checked={side === id}
                onclick={() => ((side = id), (selected = null))}>{label}</button
              >
            {/each}
          </div>
          <span class="grow"></span>
          <Select
            size="sm"
            hideLabel
            labelText="Usual layout"
            selected=""
            on:update={(e) => useLayout(String(e.detail))}
          >
            <SelectItem value="" text="Usual layout…" />
            {#each Object.entries(M2_HEIGHT_CODES) as [code, height] (code)}<SelectItem
                value={code}
                text="{board.lengthMm} mm, {code}: {height.top}{height.bottom ? ` / ${height.bottom}` : ''} mm"
              />{/each}
          </Select>
          <Button kind="ghost" size="small" on:click={add}>Add a chip</Button>
        </div>
        <div class="sheet">
          <BoardPlan
            {board}
            {chips}
            rows={laid.rows}
            {problems}
            {side}
            {selected}
            onselect={(i) => (selected = i)}
            onchange={setChip}
            onremove={remove}
          />
          <p class="small quiet hint">
            {stored?.from === 'template' && !edited
              ? `Usual layout at height code ${stored.heightCode}: the drive states no chips. Measure yours.`
              : 'Drag a chip, or move it with the arrow keys (Shift: a tenth of a millimetre); Delete takes it away.'}
          </p>
          {#if selected !== null && chips[selected]}
            <ChipFields
              chip={chips[selected]!}
              index={selected}
              {problems}
              onchange={(chip) => setChip(selected!, chip)}
              onremove={() => remove(selected!)}
            />
          {:else if problems.length > 0}
            <ul class="problems" role="alert">
              {#each problems as p (`${p.chip}${p.field}`)}<li>
                  {ROLE_WORD[chips[p.chip]!.role]}
                  {p.chip + 1}: {p.message}.
                </li>{/each}
            </ul>
          {/if}
        </div>
        <div class="bar">
          <h2 class="grow">Section</h2>
          <Checkbox labelText="Heights three times as large" bind:checked={tall} />
        </div>
        <div class="sheet">
          <Section {board} rows={laid.rows} {room} stretch={tall ? 3 : 1} {selected} />
          <p class="small quiet">
            {room.top === undefined
              ? 'The enclosure states no room over the board: no gap is known until you measure one, under “Measured a gap yourself?”.'
              : `Lid ${figure(room.top)} mm over the board, ${room.bottom === undefined ? 'floor not stated' : `floor ${figure(room.bottom)} mm under it`}; board 0.8 mm.`}
            {#if laid.bowMm}
              The pads press the board down by {quantity(laid.bowMm.typical, 'mm')} ({figure(laid.bowMm.low)} to {figure(
                laid.bowMm.high
              )}); {BOARD_LIMITS.bowMm} mm is the limit without support. Estimate.
            {/if}
          </p>
        </div>
      </section>

      <section class="decision">
        {#if board}<GapFields {chips} rows={laid.rows} gaps={chosenGaps} onset={measureGap} />{/if}
        {#if laid.rows.length > 0}
          <h2>
            Pads{tried ? ', tried and not kept yet' : data.build.choice.stack ? ', as kept' : ', chosen by the program'}
          </h2>
          <Wide label="Pads">
            <table class="plain-table">
              <thead
                ><tr
                  ><th scope="col">Chip</th><th scope="col" class="number">Gap</th><th scope="col">Pad</th><th
                    scope="col">Compression</th
                  ></tr
                ></thead
              >
              <tbody>
                {#each laid.rows as row (row.component)}
                  <tr class:selected={selected === row.component}>
                    <td>
                      {ROLE_WORD[row.role as 'nand']}
                      {row.component + 1}<span class="small quiet block"
                        >{row.side === 'top' ? 'upper side' : 'underside'}</span
                      >
                    </td>
                    <td class="number"
                      ><Figure
                        value={figure(row.gapMm)}
                        unit="mm"
                      />{#if chosenGaps.some((g) => g.component === row.component)}<span class="small quiet block"
                          >{chosenGaps.some((g) => g.component === row.component && g.measured)
                            ? 'measured'
                            : 'at least'}</span
                        >{/if}</td
                    >
                    <td>
                      <Select
                        size="sm"
                        hideLabel
                        labelText="Pad over {ROLE_WORD[row.role as 'nand']} {row.component + 1}"
                        selected={layersAt(row.component)}
                        on:change={(e) => choose(row.component, (e.target as HTMLSelectElement).value)}
                      >
                        <SelectItem value="" text="no pad" />
                        {#each kinds as pad (pad.key)}<SelectItem
                            value={pad.key}
                            text="{pad.name}, {pad.thicknessMm} mm{pad.from === 'box' ? ' (box)' : ''}"
                          />{/each}
                        {#if stacking || layersAt(row.component).includes(' + ')}
                          {#each stackedKeys as two (two.key)}<SelectItem value={two.key} text={two.label} />{/each}
                        {/if}
                      </Select>
                    </td>
                    <td>
                      <span class="verdict {VERDICT_MARKS[row.verdict]}">
                        <StateMark mark={VERDICT_MARKS[row.verdict]} size={14} />
                        {row.pads.length === 0 ? 'bare' : row.verdict.replace('-', ' ')}
                        {#if row.pads.length > 0}<Figure value={figure(row.compressionPercent)} unit="%" />{/if}
                      </span>
                      <CompressionBar
                        percent={row.pads.length === 0 ? -20 : row.compressionPercent}
                        verdict={row.verdict}
                      />
                    </td>
                  </tr>
                {/each}
              </tbody>
            </table>
          </Wide>
          <p class="small quiet force">
            Pressed freshly: {laid.rows
              .filter((row) => row.forceN > 0)
              .map(
                (row) =>
                  `${ROLE_WORD[row.role as 'nand']} ${row.component + 1} ${quantity(row.pressureMPa, 'MPa')}, ${quantity(row.forceN, 'N')}`
              )
              .join('; ') || 'nothing'}. Limit where the board is backed {BOARD_LIMITS.stressMPa} MPa; it relaxes to about
            half within minutes.
          </p>
        {/if}
        {#if findings.length > 0}
          <ul class="findings">
            {#each findings as finding (finding.code + finding.message)}
              <li class={finding.severity}>
                <StateMark mark={finding.severity === 'fail' ? 'fail' : 'check'} size={14} />
                <span>{finding.message} {finding.remedy ?? ''}</span>
              </li>
            {/each}
          </ul>
        {/if}
        {#if laid.rows.length > 0 && laid.findings.length === 0}
          <p class="all-good"><StateMark mark="pass" size={14} /> Every chip has contact, and the board stays flat.</p>
        {/if}
        {#if report.thermal}
          <p class="temperatures">
            Settled under {report.thermal.load.work === 'idle'
              ? 'no load'
              : input.job
                ? `“${input.job.name}”`
                : 'writing without end'}: case <Figure value={figure(report.thermal.steadyCaseC.typical)} unit="°C" />,
            controller
            <Figure value={figure(report.thermal.steadyControllerC.typical)} unit="°C" />.
            <a href="/b/{data.build.tag}/pads/heat">Over time</a>
          </p>
        {/if}
        {#if proposals}
          <Proposals {proposals} current={laid.rows} onpick={pick} />
        {/if}
        {#if laid.rows.length > 0 && proposals}
          <DryFit
            rows={laid.rows}
            last={lastImprint?.kind === 'imprint' ? lastImprint : undefined}
            {busy}
            onrecord={record}
            onnext={nextAfter}
          />
        {/if}
      </section>
    </div>
  {/if}
</div>

<style>
  .columns {
    display: grid;
    grid-template-columns: minmax(0, 7fr) minmax(360px, 5fr);
    gap: 20px 28px;
  }
  .bar {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 12px;
    margin-bottom: 6px;
  }
  .bar .grow {
    flex: 1 1 10rem;
  }
  .bar :global(.bx--select) {
    width: 190px;
  }
  .bar :global(.bx--form-item) {
    flex: 0 0 auto;
  }
  .sides {
    display: flex;
    border: 1px solid var(--ash-edge);
  }
  .sides button {
    padding: 4px 10px;
    border: 0;
    background: none;
    color: var(--ash-soft);
    cursor: pointer;
  }
  .sides button[aria-checked='true'] {
    background: var(--ash-ink);
    color: var(--ash-paper);
  }
  @media (max-width: 672px) {
    .sides button {
      min-height: 44px;
    }
  }
  .sheet {
    margin-bottom: 14px;
    padding: 10px 12px;
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
  }
  .problems {
    color: var(--ash-fail);
  }
  .hint {
    margin-bottom: 6px;
  }
  td :global(.bx--select) {
    width: 170px;
  }
  .block {
    display: block;
  }
  tr.selected td {
    background: var(--ash-well);
  }
  .verdict {
    display: flex;
    align-items: center;
    gap: 5px;
    font-weight: 600;
    white-space: nowrap;
  }
  .pass {
    color: var(--ash-pass);
  }
  .check,
  .limit {
    color: var(--ash-caution);
  }
  .fail {
    color: var(--ash-fail);
  }
  .force {
    margin: 6px 0 10px;
  }
  .findings {
    margin: 0 0 10px;
    padding: 0;
    list-style: none;
  }
  .findings li {
    display: flex;
    gap: 8px;
    padding: 4px 0;
  }
  .findings span {
    color: var(--ash-ink);
  }
  .all-good {
    display: flex;
    align-items: center;
    gap: 8px;
    margin-bottom: 10px;
    color: var(--ash-pass);
    font-weight: 600;
  }
  .temperatures {
    margin-bottom: 12px;
    padding: 6px 10px;
    background: var(--ash-well);
  }
  @media (max-width: 1000px) {
    .columns {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
