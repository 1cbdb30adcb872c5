<script lang="ts">
  import { Select, SelectItem } from 'carbon-components-svelte';
  import type { Snippet } from 'svelte';
  import type { Library } from '#core/build/assemble';
  import type { Choice } from '#core/build/choice';
  import type { WhatIf } from '#core/compare/swaps/what-if';
  import { chosenOption } from '#core/house-rules/house-rules';
  import type { PlanInput, PlanReport } from '#core/plan/report';
  import type { PickedKind } from '#core/build/options';
  import { keys } from '../frame/keys.svelte';
  import ChainLane from './ChainLane.svelte';
  import ChainTiles from './ChainTiles.svelte';
  import Decided from './Decided.svelte';
  import Findings from './Findings.svelte';
  import Piece from '../common/Piece.svelte';
  import Reasons from './Reasons.svelte';
  import Share from './Share.svelte';
  import SinceStart from './SinceStart.svelte';
  import { PairingState } from './station.svelte';
  import Ticket from './Ticket.svelte';
  import TilePicker from './TilePicker.svelte';
  import WhatIfPanel, { type Measured } from './WhatIfPanel.svelte';

  type Props = {
    library: Library;
    /** Where the crate has more than the library holds: how much, and how it is looked for. */
    growing?: { more: (kind: PickedKind) => number; find: (kind: PickedKind, words: string) => void };
    choice: Partial<Choice>;
    onchange: (choice: Partial<Choice>) => void;
    heading: string;
    /** What stands under the heading; else the job. */
    about?: string;
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
    /** Address of the crate: where house rules and parts are; nothing where no crate is behind it. */
    home?: string;
    head?: Snippet<[{ input: PlanInput | null; report: PlanReport | null }]>;
    notice?: Snippet;
  };
  let {
    library,
    growing,
    choice,
    onchange,
    heading,
    about,
    tag,
    stage,
    measured,
    next,
    around = null,
    start,
    measuredOn = new Map(),
    home,
    head,
    notice
  }: Props = $props();

  const pairing = new PairingState(() => ({ library, growing, choice, around, start, tag, next, onchange }));
  const { input, report } = $derived(pairing);
  $effect(() => {
    // Where nothing is stored, the first whole choice is what one started from.
    if (!pairing.pinned && !start && pairing.report) pairing.startHere();
  });

  let folded = $state(false);
  $effect(() => {
    folded =
      localStorage.getItem('ticket') === 'folded' || (localStorage.getItem('ticket') === null && innerWidth <= 900);
  });
  function fold(): void {
    folded = !folded;
    localStorage.setItem('ticket', folded ? 'folded' : 'open');
  }
  $effect(() =>
    keys.add([
      { keys: 't', label: 'Fold or unfold the ticket', run: fold },
      { keys: 'j', label: 'In Pair: the next part at the marked place', run: () => pairing.step(1) },
      { keys: 'k', label: 'In Pair: the part before it', run: () => pairing.step(-1) },
      { keys: 'l', label: 'In Pair: mark the next place of the chain', run: () => pairing.move(1) },
      { keys: 'h', label: 'In Pair: mark the place before it', run: () => pairing.move(-1) },
      { keys: 'b', label: 'In Pair: back to the starting point', run: () => pairing.back() }
    ])
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
  const WAY = { in: 'onto the drive', out: 'from the drive', both: 'both ways' };
  const jobLine = $derived(
    job ? `${job.name}: ${job.transferGB} GB ${WAY[job.direction]}` : 'No job chosen: judged for continuous writing'
  );
  /** Where a part of the plan is changed. */
  const hrefOf = (part: string): string | undefined => {
    if (home === undefined) return undefined;
    const id = {
      host: choice.hostId,
      port: choice.hostId,
      cable: choice.cableId,
      enclosure: choice.enclosureId,
      drive: choice.driveId
    }[part];
    const kind = part === 'port' ? 'host' : part;
    if (part === 'job') return choice.jobId ? `${home}/jobs/${choice.jobId}` : undefined;
    return id ? `${home}/crate/${kind}/${id}` : undefined;
  };
</script>

<div class="station" class:folded>
  <header class="title">
    <h1>{heading}</h1>
    <p class="quiet">{about ?? jobLine}</p>
  </header>
  <!-- What it comes to is read before how it is chosen; it stands beside it. -->
  <div class="ticket">
    <Piece
      ><Ticket
        {tag}
        {stage}
        {input}
        {report}
        answers={pairing.answers}
        next={pairing.next}
        {folded}
        onfold={fold}
        {hrefOf}
      /></Piece
    >
  </div>
  <div class="controls no-print">
    <Piece>
      {#if pairing.tileAt('job').options.length > 0}
        <div class="job"><TilePicker {pairing} tile={pairing.tileAt('job')} /></div>
      {/if}
      {#if input?.host.os.family === 'windows'}
        <div class="policy">
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
      {@render head?.({ input, report })}</Piece
    >
  </div>
  <div class="work">
    {@render notice?.()}
    <div class="chain">
      <ChainTiles {pairing} />
      <Piece><ChainLane {pairing} {measured} /></Piece>
    </div>
    <Piece>
      {#if report && pairing.changes && pairing.began}
        <SinceStart
          swapped={pairing.swapped}
          changes={pairing.changes}
          currency={library.exchange.currency}
          perGain={pairing.perGain}
          toPay={pairing.toPay}
          onback={() => pairing.back()}
          onstart={() => pairing.startHere()}
        />
      {/if}
      {#if report}
        <Findings
          findings={report.findings}
          offers={around?.offers ?? []}
          onswap={(place, id) => pairing.swap(place, id)}
        />
      {/if}
    </Piece>
    <Piece>
      {#if report}
        <Reasons {report} changes={pairing.changes} bind:selected={pairing.selected} {hrefOf} />
        <Decided rules={report.houseRules} href={home && `${home}/house-rules`} />
        {#if input}<Share {heading} {tag} {input} {report} answers={pairing.answers} />{/if}
      {/if}
    </Piece>
    {#if report && around}
      <WhatIfPanel
        {around}
        place={pairing.place}
        hasJob={job !== undefined}
        measured={measuredOn}
        onplace={(where) => (pairing.place = where)}
        onswap={(place, id) => pairing.swap(place, id)}
        onchoose={onchange}
      />
    {/if}
  </div>
</div>

<style>
  .station {
    display: grid;
    grid-template:
      'title controls ticket' auto
      'work work ticket' 1fr
      / minmax(10rem, 1fr) auto auto;
    gap: 8px 24px;
    max-width: 1440px;
    margin: 0 auto;
    padding: 8px 24px 32px;
  }
  .title {
    grid-area: title;
  }
  .ticket {
    grid-area: ticket;
    margin-top: -8px;
  }
  .controls {
    grid-area: controls;
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
    align-items: flex-end;
    justify-content: flex-end;
  }
  .work {
    grid-area: work;
    min-width: 0;
  }
  .chain {
    background: var(--ash-sheet);
    border: 1px solid var(--ash-line);
    margin-bottom: 6px;
  }
  .job {
    width: 150px;
  }
  .policy {
    width: 226px;
  }
  /* The names of all stand on one line, whatever kind of field is under them. */
  .controls :global(.bx--label) {
    margin-bottom: 2px;
    font-size: var(--ash-text-small);
    color: var(--ash-soft);
  }
  .job :global(.bx--text-input) {
    padding-left: 8px;
    padding-right: 48px;
    text-overflow: ellipsis;
  }
  .job :global(.bx--list-box__menu-icon) {
    right: 6px;
  }
  .job :global(.bx--list-box__selection) {
    right: 24px;
  }
  @media (max-width: 900px) {
    .station {
      grid-template: 'title' auto 'controls' auto 'work' auto 'ticket' auto / minmax(0, 1fr);
      padding: 12px 14px 90px;
    }
    .controls {
      justify-content: flex-start;
    }
  }
  @media print {
    .station {
      grid-template: 'title' auto 'ticket' auto 'work' auto / minmax(0, 1fr);
      padding: 0;
    }
  }
</style>
