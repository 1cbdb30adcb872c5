<script lang="ts">
  import { ComboBox, Select, SelectItem } from 'carbon-components-svelte';
  import type { Snippet } from 'svelte';
  import { assemble, type Library } from '#core/build/assemble';
  import type { Choice } from '#core/build/choice';
  import { chosenOption } from '#core/house-rules/house-rules';
  import { plan } from '#core/plan/plan';
  import type { PlanInput, PlanReport } from '#core/plan/report';
  import Lane from '../common/Lane.svelte';
  import { keys } from '../frame/keys.svelte';
  import Findings from './Findings.svelte';
  import Reasons from './Reasons.svelte';
  import { CHAIN_PLACES, pickedAt, stepAt, withPicked, type ChainPlace } from '#core/build/options';
  import { differences } from '#core/compare/swaps/difference';
  import { priceOf, pricePerGain } from '#core/compare/swaps/swaps';
  import type { WhatIf } from '#core/compare/swaps/what-if';
  import Decided from './Decided.svelte';
  import SinceStart from './SinceStart.svelte';
  import { tilesOf, type Tile } from './slots';
  import Ticket from './Ticket.svelte';
  import WhatIfPanel, { type Measured } from './WhatIfPanel.svelte';
  import { PLACE_WORD } from './what-if-rows';

  type Props = {
    library: Library;
    choice: Partial<Choice>;
    onchange: (choice: Partial<Choice>) => void;
    heading: string;
    tag?: string;
    stage?: string;
    /** The newest measured write, drawn on the lane. */
    measured?: { value: number; label: string };
    /** What to do next once the plan stands; the plan's own gaps come first. */
    next?: string;
    /** Everything around the choice, as soon as it is computed. */
    around?: WhatIf | null;
    /** What differences are told against: the stored choice of a build. Without one, the first whole choice. */
    start?: Partial<Choice>;
    /** What was measured of this drive in this enclosure, by host and port. */
    measuredOn?: ReadonlyMap<string, Measured>;
    /** Where the house rules are. */
    rulesHref?: string;
    head?: Snippet<[{ input: PlanInput | null; report: PlanReport | null }]>;
    notice?: Snippet;
  };
  let {
    library,
    choice,
    onchange,
    heading,
    tag,
    stage,
    measured,
    next,
    around = null,
    start,
    measuredOn = new Map(),
    rulesHref,
    head,
    notice
  }: Props = $props();

  const tiles = $derived(tilesOf(library, choice));
  const assembled = $derived(assemble(library, choice));
  const input = $derived(assembled.ok ? assembled.input : null);
  const report = $derived(input ? plan(input) : null);
  const missing = $derived(assembled.ok ? [] : assembled.missing);
  const chainTiles = $derived(tiles.filter((tile) => tile.key !== 'job'));
  const jobTile = $derived(tiles.find((tile) => tile.key === 'job')!);
  const lost = (tile: Tile) => missing.find((m) => m.chosen && tile.slots.includes(m.slot));

  let selected = $state('throughput.write');
  let folded = $state(false);
  $effect(() => {
    folded =
      localStorage.getItem('ticket') === 'folded' || (localStorage.getItem('ticket') === null && innerWidth <= 900);
  });
  function fold(): void {
    folded = !folded;
    localStorage.setItem('ticket', folded ? 'folded' : 'open');
  }
  /** The place that j and k step through. */
  let place = $state<ChainPlace>('cable');
  const tileAt = (where: ChainPlace) => tiles.find((tile) => tile.key === where)!;
  const swap = (where: ChainPlace, id: string | undefined) => onchange(withPicked(choice, where, id));
  function step(by: 1 | -1, where: ChainPlace = place): void {
    place = where;
    const id = stepAt(tileAt(where).options, pickedAt(choice, where), by);
    if (id !== undefined) swap(where, id);
  }
  function move(by: 1 | -1): void {
    place = CHAIN_PLACES[(CHAIN_PLACES.indexOf(place) + by + CHAIN_PLACES.length) % CHAIN_PLACES.length]!;
  }
  $effect(() =>
    keys.add([
      { keys: 't', label: 'Fold or unfold the ticket', run: fold },
      { keys: 'j', label: 'In Pair: the next part at the marked place', run: () => step(1) },
      { keys: 'k', label: 'In Pair: the part before it', run: () => step(-1) },
      { keys: 'l', label: 'In Pair: mark the next place of the chain', run: () => move(1) },
      { keys: 'h', label: 'In Pair: mark the place before it', run: () => move(-1) },
      { keys: 'b', label: 'In Pair: back to the starting point', run: () => began && onchange(began) }
    ])
  );

  let pinned = $state.raw<Partial<Choice>>();
  const began = $derived(pinned ?? start);
  $effect(() => {
    // Where nothing is stored, the first whole choice is what one started from.
    if (!pinned && !start && report) pinned = choice;
  });
  const beganReport = $derived.by(() => {
    if (!began || began === choice) return null;
    const whole = assemble(library, { ...began, ...(choice.jobId ? { jobId: choice.jobId } : {}) });
    return whole.ok ? plan(whole.input) : null;
  });
  const swapped = $derived(
    CHAIN_PLACES.flatMap((where) => {
      const [from, to] = [began && pickedAt(began, where), pickedAt(choice, where)];
      const name = (id: string | undefined) => tileAt(where).options.find((o) => o.id === id)?.text ?? 'none';
      return began && from !== to
        ? [{ place: where, id: to, label: PLACE_WORD[where], from: name(from), to: name(to) }]
        : [];
    })
  );
  const changes = $derived(beganReport && report && swapped.length > 0 ? differences(beganReport, report) : null);
  /** What was put in and has to be paid for; a host is not bought for a swap. */
  const toPay = $derived.by(() => {
    const prices = swapped.flatMap(({ place: where, id }) => (where === 'port' || !id ? [] : [priceOf(library, id)]));
    if (prices.length === 0 || prices.some((price) => price === null)) return null;
    return { amount: prices.reduce((sum, price) => sum + price!.amount, 0), currency: library.exchange.currency };
  });
  const perGain = $derived(
    beganReport && report && toPay ? pricePerGain(beganReport, report, { ...toPay, from: 'quote' }) : null
  );

  /** What holds where nobody noted it: the crate's own rule, else what Windows does by itself. */
  const usualPolicy = $derived(
    chosenOption('write-cache', library.houseRules) === 'performance' ? 'better performance' : 'quick removal'
  );
  function setPolicy(value: string): void {
    const { writeCache: _old, ...rest } = choice;
    onchange(value === 'performance' || value === 'quick-removal' ? { ...rest, writeCache: value } : rest);
  }
  const job = $derived(input?.job);
  const jobLine = $derived(
    job
      ? `For the job ${job.name}: ${job.transferGB} GB ${job.direction === 'out' ? 'from the drive' : job.direction === 'in' ? 'onto the drive' : 'both ways'}${job.largestFileGB ? `, largest file ${job.largestFileGB} GB` : ''}`
      : 'No job chosen: judged for continuous writing'
  );
  // eslint-disable-next-line complexity -- one line for each kind of change that a notice names
  const nextLine = $derived.by(() => {
    if (!report) return missing.find((m) => !m.chosen)?.message ?? missing[0]?.message ?? 'Choose the parts.';
    const worst = report.findings[0];
    if (worst && worst.severity !== 'note')
      return (
        // Only what lies at hand is a next step by itself; what costs money is a choice.
        around?.offers.find((offer) => offer.code === worst.code && offer.from === 'free')?.sentence ??
        worst.remedy ??
        worst.message
      );
    return next ?? 'Save it as a build.';
  });
</script>

{#snippet picker(tile: Tile)}
  {@const problem = lost(tile)}
  <ComboBox
    size="sm"
    labelText={tile.label}
    placeholder={tile.options.length === 0 ? 'none in the crate yet' : tile.optional ? 'none chosen' : 'choose'}
    items={tile.options}
    selectedId={tile.selectedId}
    invalid={problem !== undefined}
    invalidText={problem?.message ?? ''}
    shouldFilterItem={(item, typed) => {
      // The text of what is chosen is no search: opening a box shows everything there is.
      const text = tile.options.find((o) => o.id === tile.selectedId)?.text;
      return !typed || typed === text || item.text.toLowerCase().includes(typed.toLowerCase());
    }}
    on:select={(e) => {
      if (e.detail.selectedId !== tile.selectedId) onchange(withPicked(choice, tile.key, e.detail.selectedId));
    }}
    on:clear={() => onchange(withPicked(choice, tile.key, undefined))}
  />
{/snippet}

<div class="station" class:folded>
  <div class="work">
    <div class="page-head">
      <div class="grow">
        <h1>{heading}</h1>
        <p class="quiet">{jobLine}</p>
      </div>
      <div class="job no-print">{@render picker(jobTile)}</div>
      {#if input?.host.os.family === 'windows'}
        <div class="policy no-print">
          <Select
            size="sm"
            labelText="Write cache on Windows"
            selected={choice.writeCache ?? ''}
            on:update={(e) => setPolicy(String(e.detail))}
          >
            <SelectItem value="" text={`not noted (${usualPolicy})`} />
            <SelectItem value="quick-removal" text="quick removal" />
            <SelectItem value="performance" text="better performance" />
          </Select>
        </div>
      {/if}
      {@render head?.({ input, report })}
    </div>
    {@render notice?.()}

    <div class="chain">
      <div class="tiles no-print">
        {#each chainTiles as tile (tile.key)}
          {@const problem = lost(tile)}
          {@const picked = tile.options.find((o) => o.id === tile.selectedId)}
          {@const where = tile.key as ChainPlace}
          {@const at = tile.options.findIndex((o) => o.id === tile.selectedId)}
          <div class="tile" class:marked={where === place} onfocusin={() => (place = where)}>
            {@render picker(tile)}
            <div class="foot">
              <p class="detail small">
                {picked?.detail ??
                  (tile.key === 'cable' && input?.enclosure.captiveCable
                    ? 'fixed to the case'
                    : tile.optional && !problem
                      ? tile.key === 'cable'
                        ? 'from the box, or assumed'
                        : 'optional'
                      : '\u00a0')}
              </p>
              {#if tile.options.length > 1}
                <span class="step small">
                  <button
                    type="button"
                    aria-label="Previous {PLACE_WORD[where]}"
                    title="k"
                    onclick={() => step(-1, where)}>‹</button
                  >
                  <span class="figure" aria-live={where === place ? 'polite' : 'off'}
                    >{at < 0 ? '–' : at + 1}<span class="quiet">&thinsp;of&thinsp;{tile.options.length}</span></span
                  >
                  <button type="button" aria-label="Next {PLACE_WORD[where]}" title="j" onclick={() => step(1, where)}
                    >›</button
                  >
                </span>
              {/if}
            </div>
          </div>
        {/each}
      </div>
      {#if report}
        <div class="lane">
          {#if report.link.stages.length > 0}
            <Lane
              stages={report.link.stages}
              bottleneck={report.link.bottleneck}
              predicted={report.throughput.write}
              measured={measured?.value}
              measuredLabel={measured?.label ?? 'measured'}
              {selected}
              onselect={(figure) => (selected = figure)}
            />
            <p class="legend small quiet">
              <span class="key-hatch" aria-hidden="true"></span> forecast of the write{#if measured}<span
                  class="key-line"
                  aria-hidden="true"
                ></span>
                {measured.label} write{/if} · heights follow the square root of MB/s
            </p>
          {:else if report.ifItFitted}
            <Lane
              stages={report.ifItFitted.link.stages}
              bottleneck={report.ifItFitted.link.bottleneck}
              predicted={report.ifItFitted.throughput.write}
              ifItFitted
              {selected}
              onselect={(figure) => (selected = figure)}
            />
            <p class="legend small quiet">
              <span class="key-hatch" aria-hidden="true"></span> only if the parts fitted: they do not go together, and the
              findings below say why
            </p>
          {:else}
            <p class="blocked">No figures: this chain does not connect as it is. The findings below say why.</p>
          {/if}
        </div>
      {:else}
        <div class="lane blank">
          <p>
            {missing.some((m) => m.chosen)
              ? missing
                  .filter((m) => m.chosen)
                  .map((m) => m.message)
                  .join(' ')
              : 'Choose a computer’s port, an enclosure and a drive; the verdict follows at once.'}
          </p>
        </div>
      {/if}
    </div>

    {#if report}
      {#if changes && began}
        <SinceStart
          {swapped}
          {changes}
          currency={library.exchange.currency}
          {perGain}
          {toPay}
          onback={() => onchange(began)}
          onstart={() => (pinned = choice)}
        />
      {/if}
      <Findings findings={report.findings} offers={around?.offers ?? []} onswap={swap} />
      <Decided rules={report.houseRules} href={rulesHref} />
      <Reasons {report} {changes} bind:selected />
      {#if around}
        <WhatIfPanel
          {around}
          {place}
          hasJob={job !== undefined}
          measured={measuredOn}
          onplace={(where) => (place = where)}
          onswap={swap}
          onchoose={onchange}
        />
      {/if}
    {/if}
  </div>
  <Ticket {tag} {stage} {input} {report} next={nextLine} {folded} onfold={fold} />
</div>

<style>
  .station {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 24px;
    max-width: 1440px;
    margin: 0 auto;
    padding: 10px 24px 32px;
  }
  .work > .page-head {
    margin-bottom: 10px;
  }
  .work > .page-head > .grow {
    flex-basis: 10rem;
  }
  .chain {
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
    margin-bottom: 8px;
  }
  .tiles {
    display: grid;
    grid-template-columns: 1.3fr 1fr 1fr 1fr;
    border-bottom: 1px solid var(--ash-line);
  }
  .tile {
    min-width: 0;
    padding: 8px 10px 6px;
  }
  .tile + .tile {
    border-left: 1px solid var(--ash-line);
  }
  .job {
    width: 150px;
  }
  .policy {
    width: 236px;
  }
  .job :global(.bx--label),
  .tile :global(.bx--label) {
    margin-bottom: 2px;
    font-size: var(--ash-text-small);
    color: var(--ash-soft);
  }
  .job :global(.bx--text-input),
  .tile :global(.bx--text-input) {
    padding-left: 8px;
    padding-right: 48px;
    text-overflow: ellipsis;
  }
  .tile :global(.bx--text-input) {
    font-weight: 600;
  }
  .job :global(.bx--list-box__menu-icon),
  .tile :global(.bx--list-box__menu-icon) {
    right: 6px;
  }
  .job :global(.bx--list-box__selection),
  .tile :global(.bx--list-box__selection) {
    right: 24px;
  }
  .tile.marked {
    box-shadow: inset 0 3px 0 var(--ash-ink);
  }
  .foot {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 6px;
    margin-top: 3px;
  }
  .step {
    display: inline-flex;
    align-items: center;
    gap: 2px;
    white-space: nowrap;
  }
  .step .figure {
    font-size: var(--ash-text-small);
  }
  .step button {
    min-width: 24px;
    min-height: 24px;
    padding: 0;
    border: 0;
    background: none;
    color: var(--ash-ember);
    font-size: 16px;
    line-height: 1;
    cursor: pointer;
  }
  .detail {
    min-width: 0;
    color: var(--ash-soft);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .lane {
    padding: 14px 12px 4px;
  }
  .lane {
    position: relative;
  }
  .legend {
    position: absolute;
    top: 2px;
    left: 12px;
    padding-right: 8px;
    background: var(--ash-sheet);
  }
  .key-hatch {
    display: inline-block;
    width: 22px;
    height: 8px;
    border: 1px solid var(--ash-band);
    background: repeating-linear-gradient(135deg, var(--ash-band) 0 2px, transparent 2px 5px);
  }
  .key-line {
    display: inline-block;
    width: 22px;
    margin: 0 2px 3px 10px;
    border-top: 2.5px solid var(--ash-measured);
  }
  .blank,
  .blocked {
    padding: 40px 16px;
    text-align: center;
    color: var(--ash-soft);
  }
  @media (max-width: 1100px) {
    .tiles {
      grid-template-columns: 1fr 1fr;
    }
    .tile:nth-child(odd) {
      border-left: 0;
    }
  }
  @media (max-width: 900px) {
    .station {
      grid-template-columns: minmax(0, 1fr);
      padding: 12px 14px 90px;
    }
  }
  @media (max-width: 560px) {
    .tiles {
      grid-template-columns: 1fr;
    }
    .tile + .tile {
      border-left: 0;
      border-top: 1px solid var(--ash-line);
    }
  }
  @media print {
    .station {
      grid-template-columns: minmax(0, 1fr);
      padding: 0;
    }
  }
</style>
