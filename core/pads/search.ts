/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices made by counting these very lists, in the inner loop of the search */
import { BOARD_LIMITS } from '../facts/m2.ts';
import type { Mm } from '../quantities/measures.ts';
import type { Board } from './board.ts';
import { boxOf, blocked, joins } from './cutting/cut.ts';
import { layIn, stressOf, thicknessOf, type PadChoice, type PadKind } from './gap.ts';
import type { gapsOf } from './plan-pads.ts';
import { boardStiffness } from './press.ts';

type Place = ReturnType<typeof gapsOf>[number];

/** Which way of each group is taken: an index into its list. */
export type Pick = readonly number[];

/**
 * What a set of pads is judged by, first difference first, all smaller is better: chips without contact, over-compressed, not well
 * seated, pressed hard; a board that bows too far; second layers; bow in tenths of a millimetre (less is within what the estimate
 * knows); pieces; kinds of pad; pieces to buy; pieces from the drawer; distance from 20 %.
 */
export type StackKey = readonly number[];

/** Orders two ways to fill a board by their keys, the better first. */
export function compareKeys(a: StackKey, b: StackKey): number {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return 0;
}

/** What one way of one group adds to a key, whatever the others are. */
type Part = {
  noContact: number;
  over: number;
  notGood: number;
  high: number;
  /** Of the bow: push downwards, N, and springs, N/mm. */
  push: number;
  springs: number;
  backs: boolean;
  off: number;
};

function partOf(group: readonly Place[], layers: readonly PadKind[]): Part {
  const part: Part = { noContact: 0, over: 0, notGood: 0, high: 0, push: 0, springs: 0, backs: false, off: 0 };
  for (const { chip, gapMm } of group) {
    const choice: PadChoice = layIn(layers, gapMm);
    if (choice.verdict === 'no-contact') part.noContact += 1;
    if (choice.verdict === 'over-compressed') part.over += 1;
    if (choice.verdict !== 'good') part.notGood += 1;
    if (choice.verdict === 'high') part.high += 1;
    part.off += Math.abs(Math.round(choice.compression * 1000) / 10 - 20);
    const forceN = stressOf(choice) * chip.widthMm * chip.lengthMm;
    if (forceN <= 0) continue;
    const squeezeMm = thicknessOf(layers) - gapMm;
    if (chip.side === 'bottom') part.backs = true;
    if (squeezeMm <= 0) continue;
    part.push += chip.side === 'top' ? forceN : -forceN;
    part.springs += forceN / squeezeMm;
  }
  return part;
}

/** Judges sets of pads for one board; what does not change from set to set is worked out once. */
export class Judge {
  readonly #places: { place: Place; group: number }[];
  readonly #ways: readonly (readonly (readonly PadKind[])[])[];
  readonly #parts: Part[][];
  readonly #keys: string[][];
  readonly #stiffness: number;
  readonly #sheets: boolean;
  readonly #board: Board;
  /** Whether chips can share a piece, by the numbers of those chips. */
  readonly #blocked = new Map<string, boolean>();

  /**
   * @param groups chips that are decided together
   * @param ways the ways to fill the gaps of each group, best first
   */
  // eslint-disable-next-line max-params -- what the search is over, given once
  constructor(
    board: Board,
    places: readonly Place[],
    groups: readonly (readonly Place[])[],
    ways: readonly (readonly (readonly PadKind[])[])[],
    sheets: boolean
  ) {
    this.#board = board;
    this.#sheets = sheets;
    this.#ways = ways;
    this.#stiffness = boardStiffness(board.lengthMm).typical;
    this.#places = places.map((place) => ({ place, group: groups.findIndex((group) => group.includes(place)) }));
    this.#parts = groups.map((group, g) => ways[g]!.map((layers) => partOf(group, layers)));
    this.#keys = ways.map((list) => list.map((layers) => layers.map((pad) => pad.key).join()));
  }

  /** The first entries of a key, which need no pieces, of the first groups of a set: sums that only grow with more groups. */
  seats(pick: Pick, groups = pick.length): number[] {
    let [noContact, over, notGood, high, push, springs, off] = [0, 0, 0, 0, 0, this.#stiffness, 0];
    let backed = false;
    for (let g = 0; g < groups; g++) {
      const part = this.#parts[g]![pick[g]!]!;
      noContact += part.noContact;
      over += part.over;
      notGood += part.notGood;
      high += part.high;
      push += part.push;
      springs += part.springs;
      off += part.off;
      backed ||= part.backs;
    }
    const bowMm: Mm = Math.abs(push / springs);
    return [noContact, over, notGood, high, !backed && bowMm > BOARD_LIMITS.bowMm ? 1 : 0, Math.round(bowMm * 10), off];
  }

  /** The whole key of a set. */
  keyOf(pick: Pick): number[] {
    const [noContact, over, notGood, high, bows, tenths, off] = this.seats(pick) as [
      number,
      number,
      number,
      number,
      number,
      number,
      number
    ];
    let [second, pieces, shop, hand] = [0, 0, 0, 0];
    const kinds = new Set<string>();
    for (const layers of this.#pieces(pick)) {
      pieces += layers.length;
      second += layers.length - 1;
      for (const pad of layers) {
        kinds.add(pad.key);
        if (pad.from === 'shop') shop += 1;
        if (pad.from === 'hand') hand += 1;
      }
    }
    return [noContact, over, notGood, high, bows, second, tenths, pieces, kinds.size, shop, hand, off];
  }

  /** The layers of every piece: chips that may share one do, by the same rule as the cut plan. */
  #pieces(pick: Pick): (readonly PadKind[])[] {
    const made: { key: string; first: Place; at: number[]; layers: readonly PadKind[] }[] = [];
    this.#places.forEach(({ place, group }, at) => {
      const way = pick[group]!;
      const key = this.#keys[group]![way]!;
      const fits = made.find(
        (piece) => piece.key === key && joins(piece.first, place, this.#sheets) && !this.#isBlocked([...piece.at, at])
      );
      if (fits) fits.at.push(at);
      else made.push({ key, first: place, at: [at], layers: this.#ways[group]![way]! });
    });
    return made.map(({ layers }) => layers);
  }

  #isBlocked(at: readonly number[]): boolean {
    const name = at.join();
    let answer = this.#blocked.get(name);
    if (answer === undefined) {
      const places = at.map((i) => this.#places[i]!.place);
      answer = blocked(this.#board, places, boxOf(places.map(({ chip }) => chip)));
      this.#blocked.set(name, answer);
    }
    return answer;
  }
}

/** As many sets are looked at one by one; what goes beyond is searched along a beam. */
const EXHAUSTIVE_GROUPS = 12;
const MOST_SETS = 4096;
const BEAM = 64;
const PASSES = 4;

/** Tells how many ways of each group are tried, so that all sets together stay within what can be looked at in a blink. */
export function waysEach(groups: number, most: number): number {
  if (groups > EXHAUSTIVE_GROUPS) return most;
  for (let each = most; each > 2; each--) if (each ** groups <= MOST_SETS) return each;
  return 2;
}

/** Lists every set. */
function* allPicks(sizes: readonly number[]): Generator<number[]> {
  const pick = sizes.map(() => 0);
  for (;;) {
    yield [...pick];
    let g = 0;
    while (g < sizes.length && ++pick[g]! >= sizes[g]!) pick[g++] = 0;
    if (g === sizes.length) return;
  }
}

/** Keeps the most promising beginnings, group by group; the first way of every group is always among the sets that come out. */
function beamPicks(judge: Judge, sizes: readonly number[]): number[][] {
  let beam: number[][] = [[]];
  for (let g = 0; g < sizes.length; g++) {
    const next = beam.flatMap((pick) =>
      Array.from({ length: sizes[g]! }, (_, way) => {
        const longer = [...pick, way];
        return { longer, key: judge.seats(longer) };
      })
    );
    next.sort((a, b) => compareKeys(a.key, b.key));
    beam = next.slice(0, BEAM).map(({ longer }) => longer);
  }
  const greedy = sizes.map(() => 0);
  return [greedy, ...beam];
}

/** Changes one group at a time for as long as that makes a set better. */
function polish(judge: Judge, sizes: readonly number[], start: { pick: number[]; key: number[] }) {
  let best = start;
  for (let pass = 0; pass < PASSES; pass++) {
    const before = best;
    for (let g = 0; g < sizes.length; g++)
      for (let way = 0; way < sizes[g]!; way++) {
        if (way === best.pick[g]) continue;
        const pick = best.pick.map((old, i) => (i === g ? way : old));
        const key = judge.keyOf(pick);
        if (compareKeys(key, best.key) < 0) best = { pick, key };
      }
    if (best === before) break;
  }
  return best;
}

/**
 * Searches the sets of pads, best first: all of them up to 12 groups; beyond, a beam over the groups whose best set is then polished
 * one group at a time. Never worse than the best way of every group by itself.
 * @param sizes how many ways each group has
 */
export function searchSets(judge: Judge, sizes: readonly number[]): { pick: Pick; key: StackKey }[] {
  const judged = (pick: number[]) => ({ pick, key: judge.keyOf(pick) });
  if (sizes.length <= EXHAUSTIVE_GROUPS) {
    const sets = [...allPicks(sizes)].map(judged);
    return sets.sort((a, b) => compareKeys(a.key, b.key));
  }
  const sets = beamPicks(judge, sizes).map(judged);
  sets.sort((a, b) => compareKeys(a.key, b.key));
  return [polish(judge, sizes, sets[0]!), ...sets].sort((a, b) => compareKeys(a.key, b.key));
}
