import { M2_BOARD_MM, M2_CONNECTOR_MM } from '#core/facts/m2';
import type { Component } from '#core/pads/board';
import type { StackRow } from '#core/pads/plan-pads';

/** A tenth of a millimetre is as fine as anyone measures a board. */
export const tenth = (mm: number): number => Math.round(mm * 10) / 10;

/** A chip moved by so much, kept on the board and off its gold edge. */
export function moved(
  chip: Component,
  dx: number,
  dy: number,
  board: { lengthMm: number; widthMm: number }
): Component {
  const within = (value: number, low: number, high: number) => Math.min(Math.max(value, low), Math.max(low, high));
  return {
    ...chip,
    xMm: tenth(within(chip.xMm + dx, M2_CONNECTOR_MM, board.lengthMm - chip.lengthMm)),
    yMm: tenth(within(chip.yMm + dy, 0, board.widthMm - chip.widthMm))
  };
}

export type Slab = {
  kind: 'lid' | 'base' | 'board' | 'chip' | 'pad' | 'air';
  x: number;
  y: number;
  width: number;
  height: number;
  /** Which chip it belongs to. */
  component?: number;
  verdict?: StackRow['verdict'];
};

/** Walls are drawn as thick as this, mm; nobody states how thick they are. */
const WALL_MM = 1;

/**
 * The section through case and board, in mm: x along the board, y downwards from its upper face. Pads are as high as the gap that
 * they are pressed into; where one does not touch it lies on its chip as it is sold, with air over it.
 */
export function sectionOf(
  board: { lengthMm: number; chips: readonly Component[] },
  rows: readonly StackRow[],
  room: { top: number | undefined; bottom: number | undefined }
): { slabs: Slab[]; top: number; bottom: number } {
  const tallest = (side: 'top' | 'bottom') =>
    Math.max(0, ...board.chips.filter((chip) => chip.side === side).map((chip) => chip.heightMm));
  const above = Math.max(room.top ?? tallest('top') + 1, tallest('top'));
  const below = Math.max(room.bottom ?? tallest('bottom') + 0.6, tallest('bottom'));
  const slabs: Slab[] = [{ kind: 'board', x: 0, y: 0, width: board.lengthMm, height: M2_BOARD_MM }];
  const lidY = -(room.top ?? above);
  const floorY = M2_BOARD_MM + (room.bottom ?? below);
  if (room.top !== undefined)
    slabs.push({ kind: 'lid', x: -2, y: lidY - WALL_MM, width: board.lengthMm + 4, height: WALL_MM });
  if (room.bottom !== undefined)
    slabs.push({ kind: 'base', x: -2, y: floorY, width: board.lengthMm + 4, height: WALL_MM });
  board.chips.forEach((chip, component) => {
    const up = chip.side === 'top';
    const base = { x: chip.xMm, width: chip.lengthMm, component };
    slabs.push({ kind: 'chip', ...base, y: up ? -chip.heightMm : M2_BOARD_MM, height: chip.heightMm });
    const row = rows.find((r) => r.component === component);
    if (!row) return;
    const thickness = row.pads.reduce((a, b) => a + b, 0);
    const touches = row.verdict !== 'no-contact';
    const height = touches ? row.gapMm : Math.min(thickness, row.gapMm);
    const face = up ? -chip.heightMm : M2_BOARD_MM + chip.heightMm;
    if (height > 0) slabs.push({ kind: 'pad', ...base, y: up ? face - height : face, height, verdict: row.verdict });
    if (!touches && row.gapMm > height)
      slabs.push({
        kind: 'air',
        ...base,
        y: up ? face - row.gapMm : face + height,
        height: row.gapMm - height,
        verdict: row.verdict
      });
  });
  return { slabs, top: Math.min(lidY, -above) - WALL_MM, bottom: Math.max(floorY, M2_BOARD_MM + below) + WALL_MM };
}

export const ROLE_WORD = { controller: 'controller', nand: 'NAND', dram: 'DRAM', power: 'power' } as const;
export const VERDICT_MARKS = {
  good: 'pass',
  marginal: 'check',
  high: 'check',
  'no-contact': 'fail',
  'over-compressed': 'fail'
} as const satisfies Record<StackRow['verdict'], string>;

/** A chip in words, for who cannot see the drawing. */
export const chipWords = (chip: Component, row: StackRow | undefined): string =>
  `${ROLE_WORD[chip.role]}, ${chip.side === 'top' ? 'upper side' : 'underside'}, ${chip.xMm} mm from the gold edge, ${chip.yMm} mm from the left edge, ${chip.lengthMm} × ${chip.widthMm} × ${chip.heightMm} mm${
    row
      ? `; gap ${row.gapMm} mm, ${row.pads.length > 0 ? `pad ${row.pads.join(' + ')} mm, ${row.verdict}` : 'no pad'}`
      : ''
  }`;
