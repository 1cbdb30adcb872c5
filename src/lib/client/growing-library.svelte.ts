import { joined, libraryOf, type Library } from '#core/build/assemble';
import type { Choice } from '#core/build/choice';
import type { PickedKind } from '#core/build/options';
import type { Job } from '#core/parts/job';
import type { Known } from '#core/build/gather';
import type { Model } from '#core/parts/model';
import { ask } from './api';

type Found = {
  total: number;
  parts: (Model & { id: string })[];
  jobs: (Job & { id: string })[];
  quotes: Known['quotes'];
  knownPairs: Known['knownPairs'];
  stock: Record<string, { owned: number; free: number; builds: string[] }>;
  measured: Record<string, NonNullable<ReturnType<Known['measured']['get']>>>;
};
type Source = { crateId: string; library: Library; totals: Record<PickedKind, number> };

/** Typing goes on for a while before anything is asked. */
const AFTER_MS = 150;

/** The parts of a choice, by their kinds. */
export const partsOf = ({ hostId, cableId, enclosureId, driveId, jobId }: Partial<Choice>) => ({
  host: hostId,
  cable: cableId,
  enclosure: enclosureId,
  drive: driveId,
  job: jobId
});

/**
 * What of a crate a page knows: what it was given, and what was looked for since. In a small crate that is everything there is.
 */
export class GrowingLibrary {
  readonly #of: () => Source;
  #found = $state.raw<Library>();
  #asked = 0;
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor(of: () => Source) {
    this.#of = of;
  }
  readonly library = $derived.by(() =>
    this.#found ? joined(this.#of().library, this.#withRules(this.#found)) : this.#of().library
  );

  /** How many of a kind the crate has that are not here. */
  more(kind: PickedKind): number {
    return Math.max(0, this.#of().totals[kind] - this.library[kind].size);
  }

  /** Looks for words among what is not here. Asked once for the last that was typed. */
  find(kind: PickedKind, words: string): void {
    clearTimeout(this.#timer);
    if (words.trim() === '' || this.more(kind) === 0) return;
    this.#timer = setTimeout(() => void this.#ask({ kind, find: words.trim().slice(0, 200) }), AFTER_MS);
  }

  /** Loads parts that are chosen by their ids, and not here. */
  async load(ids: Partial<Record<PickedKind, string | undefined>>): Promise<void> {
    for (const [kind, id] of Object.entries(ids) as [PickedKind, string | undefined][])
      if (id && !this.library[kind].has(id)) await this.#ask({ kind, id });
  }

  async #ask(query: Record<string, string>): Promise<void> {
    const asked = (this.#asked += 1);
    const path = `/api/crates/${this.#of().crateId}/pickable?${new URLSearchParams(query)}`;
    const answer = await ask<Found>(path);
    // Somebody typed on: that answer will hold what is wanted.
    if (!answer.ok || (asked !== this.#asked && query.find !== undefined)) return;
    const { parts, jobs, quotes, knownPairs, stock, measured } = answer.data;
    const known = { quotes, knownPairs, measured: new Map(Object.entries(measured)) };
    const found = libraryOf(parts, jobs, known, new Map(Object.entries(stock)));
    this.#found = this.#found ? joined(this.#found, found) : found;
  }
  /** What is the crate’s own and not a part’s is as the page has it. */
  #withRules(found: Library): Library {
    const { houseRules, exchange, pads } = this.#of().library;
    return { ...found, houseRules, exchange, pads };
  }
}
