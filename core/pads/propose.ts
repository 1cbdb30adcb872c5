/* eslint-disable @typescript-eslint/no-non-null-assertion -- a group holds one gap at least, and each has its ways; indices made by counting these very lists */
import { BOARD_LIMITS } from '../facts/m2.ts';
import { chosenOption } from '../house-rules/house-rules.ts';
import type { Band } from '../quantities/band.ts';
import { figure, quantity } from '../quantities/format.ts';
import type { Mm } from '../quantities/measures.ts';
import { boardOf, type Board } from './board.ts';
import type { StackChoice } from './choice.ts';
import { cutPieces, type CutPiece } from './cutting/cut.ts';
import { Judge, searchSets, waysEach } from './search.ts';
import { CONTACT_ORDER, layIn, padKinds, padOptions, stockPadFor, type PadChoice, type PadKind } from './gap.ts';
import {
  boardBow,
  gapsOf,
  labelThickness,
  componentRow,
  type FilledGap,
  type StackInput,
  type StackRow
} from './plan-pads.ts';

/** A whole set of pads for a board, with what speaks for it. */
export type Proposal = {
  choice: StackChoice;
  rows: StackRow[];
  pieces: CutPiece[];
  bowMm: Band | null;
  /** Whether every chip has good contact and the board stays flat. */
  allGood: boolean;
  because: string[];
};

/** A pad that closes a gap which nothing at hand closes well. */
export type PadToBuy = { role: string; side: 'top' | 'bottom'; gapMm: Mm; thicknessMm: Mm; widthMm: Mm; lengthMm: Mm };

export type Proposals = { board: Board; sets: Proposal[]; toBuy: PadToBuy[] };

/** Choices a group of chips is tried with, and sets that are shown. */
const EACH = 4;
const SHOWN = 6;

type Place = ReturnType<typeof gapsOf>[number];

/** Chips that are decided together: of one kind with one gap, or by house rule all of one side. */
function groupsOf(places: readonly Place[], sheets: boolean): Place[][] {
  const groups = new Map<string, Place[]>();
  for (const place of places) {
    const key = sheets ? place.chip.side : `${place.chip.side} ${place.chip.role} ${place.gapMm}`;
    groups.set(key, [...(groups.get(key) ?? []), place]);
  }
  return [...groups.values()];
}

const worstOf = (choices: readonly PadChoice[]): number => Math.max(...choices.map((c) => CONTACT_ORDER[c.verdict]));

/** The ways to fill the gaps of one group, best first. */
function optionsFor(group: readonly Place[], kinds: readonly PadKind[], stack: boolean): (readonly PadKind[])[] {
  const gaps = [...new Set(group.map(({ gapMm }) => gapMm))];
  const ways = padOptions(gaps[0]!, kinds, stack);
  if (gaps.length > 1)
    ways.sort((a, b) => {
      const fit = ({ layers }: PadChoice) => gaps.map((gap) => layIn(layers, gap));
      const off = (choices: PadChoice[]) => choices.reduce((sum, c) => sum + Math.abs(c.compression - 0.2), 0);
      return worstOf(fit(a)) - worstOf(fit(b)) || a.layers.length - b.layers.length || off(fit(a)) - off(fit(b));
    });
  // A second kind of the same thickness is another way only where nothing thinner or thicker is.
  return ways.slice(0, EACH).map(({ layers }) => layers);
}

function reasonsFor(
  rows: readonly StackRow[],
  bowMm: Band | null,
  pieces: readonly CutPiece[],
  sheets: boolean
): string[] {
  const good = rows.filter((row) => row.verdict === 'good').length;
  const range = rows.map((row) => row.compressionPercent);
  const from = (where: PadKind['from']) => [
    ...new Set(pieces.filter((p) => p.pad.from === where).map((p) => p.pad.name))
  ];
  const stacked = pieces.some((piece) => piece.layer > 0);
  return [
    `${good === rows.length ? 'every chip' : `${good} of ${rows.length} chips`} with 10 to 30 % compression (${figure(Math.min(...range))} to ${figure(Math.max(...range))} %)`,
    bowMm
      ? `the board gives way by about ${quantity(bowMm.typical, 'mm')}, ${quantity(BOARD_LIMITS.bowMm, 'mm')} is the limit without support`
      : 'nothing presses on the board',
    `${pieces.length} ${pieces.length === 1 ? 'piece' : 'pieces'} to cut${sheets ? ', one sheet a side by house rule' : ''}${stacked ? ', two layers in one gap by house rule' : ''}`,
    ...(from('box').length > 0 ? [`${from('box').join(', ')}: came with the enclosure`] : []),
    ...(from('hand').length > 0 ? [`${from('hand').join(', ')}: at hand`] : []),
    ...(from('shop').length > 0 ? [`${from('shop').join(', ')}: to buy, there is no pad at hand`] : [])
  ];
}

/**
 * Sets of pads for a board in its enclosure, best first: contact everywhere, 10 to 30 % of compression, a flat board, one layer,
 * least bow, fewest cuts, what came in the box and what is at hand. After an imprint check that showed no contact the gap counts
 * as at least that pad, and what follows is thicker.
 * @returns null where no gap is known: no M.2 drive, or no clearance stated
 * @example proposePads({ drive: aDrive({ formFactor: '2.5in' }), doubleSided: false, enclosure: anEnclosure() }) // null
 */
export function proposePads(input: StackInput): Proposals | null {
  const { drive, enclosure, pads, chosen, rules } = input;
  const board = boardOf(drive, input.doubleSided);
  if (!board || enclosure.formFactor !== 'm2') return null;
  const places = gapsOf(board, enclosure, chosen, labelThickness(drive, rules));
  if (places.length === 0) return null;
  const kinds = padKinds(enclosure.includedPads, pads);
  const stack = chosenOption('gap-not-closed', rules) === 'stack';
  const sheets = chosenOption('pieces', rules) === 'sheet';
  const groups = groupsOf(places, sheets);
  const each = waysEach(groups.length, EACH);
  const ways = groups.map((group) => optionsFor(group, kinds, stack).slice(0, each));
  const judge = new Judge(board, places, groups, ways, sheets);
  const groupOf = places.map((place) => groups.findIndex((group) => group.includes(place)));
  const built = (pick: readonly number[]) => {
    const filled = places.map((place, i): FilledGap => {
      const group = groupOf[i]!;
      return { ...place, choice: layIn(ways[group]![pick[group]!]!, place.gapMm) };
    });
    const rows = filled.map((place) => componentRow(place, place.choice));
    return { filled, rows, bowMm: boardBow(board, rows), pieces: cutPieces(board, filled, sheets) };
  };
  // The same thicknesses from another box are no other proposal.
  const seen = new Set<string>();
  const shown: (ReturnType<typeof built> & { key: readonly number[] })[] = [];
  const sizes = ways.map((list) => list.length);
  for (const { pick, key } of searchSets(judge, sizes)) {
    const thicknesses = groups.map((_, g) => ways[g]![pick[g]!]!.map((pad) => pad.thicknessMm).join('+')).join(' ');
    if (seen.has(thicknesses)) continue;
    seen.add(thicknesses);
    shown.push({ ...built(pick), key });
    if (shown.length === SHOWN) break;
  }
  return {
    board,
    sets: shown.map(({ filled, rows, bowMm, pieces, key }) => ({
      choice: {
        pieces: filled.map(({ at, choice }) => ({ component: at, layers: choice!.layers.map((pad) => pad.key) })),
        ...(chosen?.gaps ? { gaps: chosen.gaps } : {})
      },
      rows,
      pieces,
      bowMm,
      allGood: key[0] === 0 && key[2] === 0 && key[4] === 0,
      because: reasonsFor(rows, bowMm, pieces, sheets)
    })),
    toBuy: groupsOf(places, false).flatMap((group) => {
      const gapMm = group[0]!.gapMm;
      const best = padOptions(gapMm, kinds, stack)[0]!;
      const thicknessMm = stockPadFor(gapMm);
      if ((best.verdict === 'good' && best.layers[0]!.from !== 'shop') || thicknessMm === undefined) return [];
      const { role, side } = group[0]!.chip;
      return [
        {
          role,
          side,
          gapMm,
          thicknessMm,
          widthMm: Math.max(...group.map(({ chip }) => chip.widthMm)),
          lengthMm: group.reduce((sum, { chip }) => sum + chip.lengthMm, 0)
        }
      ];
    })
  };
}

/** A pad that misses its chip by less than this would still have left a trace, mm. */
const TRACE_MM = 0.1;

/**
 * Gives the gap that an imprint check without contact tells of: wider than the pad that did not touch.
 * @example gapsAfterImprint({ gaps: [] }, [], []) // { gaps: [] }
 */
export function gapsAfterImprint(
  chosen: StackChoice,
  rows: readonly StackRow[],
  untouched: readonly number[]
): StackChoice {
  const gaps = new Map((chosen.gaps ?? []).map((gap) => [gap.component, gap.atLeastMm]));
  for (const component of untouched) {
    const row = rows.find((r) => r.component === component);
    if (!row) continue;
    const pad = row.pads.reduce((a, b) => a + b, 0);
    gaps.set(component, Math.round(Math.max(gaps.get(component) ?? 0, pad + TRACE_MM, row.gapMm) * 100) / 100);
  }
  return {
    ...chosen,
    // What left no imprint is wider than what was measured, too.
    gaps: [...gaps].map(([component, atLeastMm]) => ({
      component,
      atLeastMm,
      ...(chosen.gaps?.find((gap) => gap.component === component)?.measured ? { measured: true } : {})
    }))
  };
}
