/* eslint-disable @typescript-eslint/no-non-null-assertion -- a group holds one place at least, with its choice */
import { isRejected } from '../gap.ts';
import { M2_CONNECTOR_MM, PAD_EDGE_MM } from '../../facts/m2.ts';
import type { Mm } from '../../quantities/measures.ts';
import type { Board, Component } from '../board.ts';
import type { PadKind } from '../gap.ts';
import { packPieces, type Packing, type Size } from './pack.ts';
import type { FilledGap } from '../plan-pads.ts';

/** One piece to cut from one pad, and where it is laid on the board. */
export type CutPiece = {
  label: string;
  side: 'top' | 'bottom';
  /** The chips that it covers. */
  components: number[];
  /** 0 lies on the chip, 1 on top of that. */
  layer: number;
  pad: PadKind;
  xMm: Mm;
  yMm: Mm;
  lengthMm: Mm;
  widthMm: Mm;
};

/** Chips of one kind whose gaps differ by no more than this share a piece, mm. */
const SAME_GAP_MM = 0.1;
const ROLE = { controller: 'controller', nand: 'NAND', dram: 'DRAM', power: 'power' } as const;

type Box = { x0: Mm; x1: Mm; y0: Mm; y1: Mm };
/** Gives the box around some chips, mm. */
export const boxOf = (chips: readonly Component[]): Box => ({
  x0: Math.min(...chips.map((c) => c.xMm)),
  x1: Math.max(...chips.map((c) => c.xMm + c.lengthMm)),
  y0: Math.min(...chips.map((c) => c.yMm)),
  y1: Math.max(...chips.map((c) => c.yMm + c.widthMm))
});

/** Tells whether a piece over a box would run up onto some other chip that stands higher than the ones it is for. */
export function blocked(board: Board, group: readonly Omit<FilledGap, 'choice'>[], box: Box): boolean {
  const lowest = Math.min(...group.map(({ chip }) => chip.heightMm));
  const own = new Set(group.map(({ at }) => at));
  return board.chips.some(
    (chip, at) =>
      !own.has(at) &&
      chip.side === group[0]!.chip.side &&
      chip.heightMm > lowest + SAME_GAP_MM &&
      chip.xMm < box.x1 &&
      chip.xMm + chip.lengthMm > box.x0 &&
      chip.yMm < box.y1 &&
      chip.yMm + chip.widthMm > box.y0
  );
}

/** Tells whether a chip may share a piece with the first chip of it, under the same pad: one side, and one kind with nearly one gap, or a sheet. */
export const joins = (first: Omit<FilledGap, 'choice'>, place: Omit<FilledGap, 'choice'>, sheets: boolean): boolean =>
  first.chip.side === place.chip.side &&
  (sheets || (first.chip.role === place.chip.role && Math.abs(first.gapMm - place.gapMm) <= SAME_GAP_MM + 1e-9));

/**
 * Gives the pieces of a stack. Chips of one kind with the same pad and the same gap share one; with sheets, every chip of a side under
 * the same pad does. A piece keeps clear of the gold edge, and 1 mm of the edge of the board.
 * @example cutPieces({ lengthMm: 80, widthMm: 22, from: 'stated', heightCode: 'S3', chips: [] }, [], false) // []
 */
export function cutPieces(board: Board, filled: readonly FilledGap[], sheets: boolean): CutPiece[] {
  const groups: FilledGap[][] = [];
  for (const place of filled) {
    if (!place.choice) continue;
    const keys = place.choice.layers.map((pad) => pad.key).join();
    const fits = groups.find(
      (group) =>
        group[0]!.choice!.layers.map((pad) => pad.key).join() === keys &&
        joins(group[0]!, place, sheets) &&
        !blocked(board, [...group, place], boxOf([...group, place].map(({ chip }) => chip)))
    );
    if (fits) fits.push(place);
    else groups.push([place]);
  }
  return groups.flatMap((group) => {
    const box = boxOf(group.map(({ chip }) => chip));
    const x0 = Math.max(box.x0, M2_CONNECTOR_MM + PAD_EDGE_MM);
    const x1 = Math.min(box.x1, board.lengthMm - PAD_EDGE_MM);
    const y0 = Math.max(box.y0, PAD_EDGE_MM);
    const y1 = Math.min(box.y1, board.widthMm - PAD_EDGE_MM);
    const roles = [...new Set(group.map(({ chip }) => ROLE[chip.role]))].join(' and ');
    return group[0]!.choice!.layers.map((pad, layer) => ({
      label: `${roles}${group[0]!.chip.side === 'bottom' ? ', underside' : ''}${layer > 0 ? ', second layer' : ''}`,
      side: group[0]!.chip.side,
      components: group.map(({ at }) => at),
      layer,
      pad,
      xMm: x0,
      yMm: y0,
      lengthMm: Math.round((x1 - x0) * 100) / 100,
      widthMm: Math.round((y1 - y0) * 100) / 100
    }));
  });
}

/**
 * Parts what may be cut from what may not: a pad that does not touch, or presses too hard, is not worth the cut.
 * @example partRejected([]).rejected // []
 */
export function partRejected(filled: readonly FilledGap[]): { cut: FilledGap[]; rejected: FilledGap[] } {
  const isOut = ({ choice, gapMm }: FilledGap) => choice !== null && isRejected(choice.verdict, gapMm);
  return { cut: filled.filter((place) => !isOut(place)), rejected: filled.filter(isOut) };
}

/** The pieces of one kind of pad, laid out on the pads of that kind. */
export type CutSheet = { pad: PadKind; sheet: Size; pieces: CutPiece[]; packing: Packing };

/** A pad to buy states no size: a common one, mm. */
export const SHOP_PAD = { widthMm: 20, lengthMm: 70 } as const;

/**
 * Lays the pieces out on the pads, kind by kind, with the least waste.
 * @example cutPlan([], []) // []
 */
export function cutPlan(pieces: readonly CutPiece[]): CutSheet[] {
  const kinds = [...new Map(pieces.map((piece) => [piece.pad.key, piece.pad])).values()];
  return kinds.map((pad) => {
    const own = pieces.filter((piece) => piece.pad.key === pad.key);
    const sheet = { widthMm: pad.widthMm ?? SHOP_PAD.widthMm, lengthMm: pad.lengthMm ?? SHOP_PAD.lengthMm };
    const packing = packPieces(
      own.map(({ widthMm, lengthMm }) => ({ widthMm, lengthMm })),
      sheet,
      pad.from === 'shop' ? own.length : pad.quantity
    );
    return { pad, sheet, pieces: own, packing };
  });
}
