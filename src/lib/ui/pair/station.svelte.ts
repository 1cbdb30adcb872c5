import { answersOfBuild } from '#core/answers/of-build';
import { assemble, type Library } from '#core/build/assemble';
import type { Choice } from '#core/build/choice';
import { CHAIN_PLACES, pickedAt, stepAt, withPicked, type ChainPlace } from '#core/build/options';
import { differences } from '#core/compare/swaps/difference';
import { priceOf, pricePerGain } from '#core/compare/swaps/swaps';
import type { WhatIf } from '#core/compare/swaps/what-if';
import { plan } from '#core/plan/plan';
import type { PickedKind } from '#core/build/options';
import { tilesOf, type Tile } from './slots';
import { PLACE_WORD } from './what-if-rows';

/** What the page gives; read anew whenever something in it changes. */
export type StationSource = {
  library: Library;
  growing: { more: (kind: PickedKind) => number; find: (kind: PickedKind, words: string) => void } | undefined;
  choice: Partial<Choice>;
  around: WhatIf | null;
  /** What differences are told against: the stored choice of a build. Without one, the first whole choice. */
  start: Partial<Choice> | undefined;
  tag: string | undefined;
  /** What to do once the plan stands. */
  next: string | undefined;
  onchange: (choice: Partial<Choice>) => void;
};

/** The state of the station where parts are paired: what is chosen, its plan, its answers, and what differs from the start. */
export class PairingState {
  readonly #of: () => StationSource;
  /** The figure whose working is shown. */
  selected = $state('throughput.write');
  /** The place that j and k step through. */
  place = $state<ChainPlace>('cable');
  /** The choice that differences are told against, where nothing is stored. */
  pinned = $state.raw<Partial<Choice>>();

  constructor(of: () => StationSource) {
    this.#of = of;
  }

  readonly tiles = $derived.by(() => tilesOf(this.#of().library, this.#of().choice));
  readonly #assembled = $derived.by(() => assemble(this.#of().library, this.#of().choice));
  readonly input = $derived(this.#assembled.ok ? this.#assembled.input : null);
  readonly report = $derived(this.input ? plan(this.input) : null);
  readonly missing = $derived(this.#assembled.ok ? [] : this.#assembled.missing);
  readonly began = $derived.by(() => this.pinned ?? this.#of().start);

  readonly #beganReport = $derived.by(() => {
    const { began } = this;
    const { choice, library } = this.#of();
    if (!began || began === choice) return null;
    const whole = assemble(library, { ...began, ...(choice.jobId ? { jobId: choice.jobId } : {}) });
    return whole.ok ? plan(whole.input) : null;
  });
  /** What was put in the place of what. */
  readonly swapped = $derived.by(() => {
    const { began } = this;
    const { choice } = this.#of();
    return CHAIN_PLACES.flatMap((where) => {
      const [from, to] = [began && pickedAt(began, where), pickedAt(choice, where)];
      const name = (id: string | undefined) => this.tileAt(where).options.find((o) => o.id === id)?.text ?? 'none';
      return began && from !== to
        ? [{ place: where, id: to, label: PLACE_WORD[where], from: name(from), to: name(to) }]
        : [];
    });
  });
  readonly changes = $derived(
    this.#beganReport && this.report && this.swapped.length > 0 ? differences(this.#beganReport, this.report) : null
  );
  /** What was put in and has to be paid for; a computer is not bought for a swap. */
  readonly toPay = $derived.by(() => {
    const { library } = this.#of();
    const prices = this.swapped.flatMap(({ place, id }) =>
      place === 'port' || !id ? [] : [priceOf(library, id)?.amount]
    );
    if (prices.length === 0 || prices.includes(undefined)) return null;
    return {
      amount: prices.reduce<number>((sum, price) => sum + (price ?? 0), 0),
      currency: library.exchange.currency
    };
  });
  readonly perGain = $derived(
    this.#beganReport && this.report && this.toPay
      ? pricePerGain(this.#beganReport, this.report, { ...this.toPay, from: 'quote' })
      : null
  );

  /** What mends the worst finding; only what lies at hand is a next step by itself, for what costs money is a choice. */
  readonly #mending = $derived.by(() => {
    const worst = this.report?.findings[0];
    if (!worst || worst.severity === 'note') return undefined;
    const offers = this.#of().around?.offers ?? [];
    return (
      offers.find(({ code, from }) => code === worst.code && from === 'free')?.sentence ?? worst.remedy ?? worst.message
    );
  });
  /** The one thing to do: what is missing, then what mends the worst finding, then what the page knows. */
  readonly next = $derived.by(() => {
    if (!this.report) return (this.missing.find((m) => !m.chosen) ?? this.missing[0])?.message ?? 'Choose the parts.';
    return this.#mending ?? this.#of().next ?? 'Save it as a build.';
  });
  /** What a person asks of the plan, in sentences. */
  readonly answers = $derived.by(() => {
    const { input, report, next } = this;
    const { library, tag } = this.#of();
    return input && report ? answersOfBuild(library, { input, report, tag, next }) : [];
  });
  tileAt(where: ChainPlace | 'job'): Tile {
    return this.tiles.find((tile) => tile.key === where)!;
  }
  /** How many parts the crate has for a place beside those that are offered. */
  more(where: ChainPlace | 'job'): number {
    return this.#of().growing?.more(where === 'port' ? 'host' : where) ?? 0;
  }
  /** Looks for more at a place, by words. */
  find(where: ChainPlace | 'job', words: string): void {
    this.#of().growing?.find(where === 'port' ? 'host' : where, words);
  }
  /** What is wrong with what was chosen at a place. */
  lost(tile: Tile): string | undefined {
    return this.missing.find((m) => m.chosen && tile.slots.includes(m.slot))?.message;
  }
  swap(where: ChainPlace | 'job', id: string | undefined): void {
    const { choice, onchange } = this.#of();
    onchange(withPicked(choice, where, id));
  }
  step(by: 1 | -1, where: ChainPlace = this.place): void {
    this.place = where;
    const id = stepAt(this.tileAt(where).options, pickedAt(this.#of().choice, where), by);
    if (id !== undefined) this.swap(where, id);
  }
  move(by: 1 | -1): void {
    this.place = CHAIN_PLACES[(CHAIN_PLACES.indexOf(this.place) + by + CHAIN_PLACES.length) % CHAIN_PLACES.length]!;
  }
  /** Goes back to where it began. */
  back(): void {
    if (this.began) this.#of().onchange(this.began);
  }
  /** Tells differences against what is chosen now. */
  startHere(): void {
    this.pinned = this.#of().choice;
  }
}
