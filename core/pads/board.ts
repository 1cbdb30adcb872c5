import {
  M2_CONNECTOR_MM,
  M2_HEIGHT_CODES,
  M2_LAYOUTS,
  M2_NOTCH_RADIUS_MM,
  M2_WIDTH_MM,
  USUAL_LENGTH_MM,
  USUAL_HEIGHT_CODE,
  type M2HeightCode
} from '../facts/m2.ts';
import type { Drive } from '../parts/drive.ts';
import type { Mm } from '../quantities/measures.ts';

export type Component = NonNullable<Drive['components']>[number];
export type Side = Component['side'];

/** The board of an M.2 drive: x runs from the gold edge to the screw notch, y from the left edge; seen from the top. */
export type Board = {
  lengthMm: Mm;
  widthMm: Mm;
  chips: readonly Component[];
  /** Whether the chips are the drive's own, or the usual ones of this length at the height of a height code. */
  from: 'stated' | 'template';
  heightCode?: M2HeightCode;
};

/** What of a drive decides its board. */
export type BoardOf = Pick<
  Drive,
  'components' | 'm2LengthMm' | 'm2HeightCode' | 'sides' | 'capacityTB' | 'formFactor' | 'flash'
>;

const templates = new Map<string, readonly Component[]>();

/**
 * Gives the usual chips of a module of this length, as high as its height code allows; without DRAM where the drive has none.
 * @example usualChips(80, 'S3').length > 0 // true
 */
export function usualChips(lengthMm: keyof typeof M2_LAYOUTS, code: M2HeightCode, dram = true): readonly Component[] {
  const key = `${lengthMm} ${code} ${dram}`;
  let chips = templates.get(key);
  if (!chips) {
    const height = M2_HEIGHT_CODES[code];
    const layout = M2_LAYOUTS[lengthMm];
    const place = (side: Side) =>
      layout[side]
        .filter(({ role }) => dram || role !== 'dram')
        .map((chip) => ({ ...chip, side, heightMm: height[side] }));
    chips = [...place('top'), ...(height.bottom > 0 ? place('bottom') : [])];
    templates.set(key, chips);
  }
  return chips;
}

/**
 * Gives the board of a drive, mm: its own chips, or the usual ones of its height code.
 * @returns the board, or null for a drive that is no M.2 module
 * @example boardOf(aDrive({ formFactor: '2.5in' }), false) // null
 */
export function boardOf(drive: BoardOf, doubleSided = drive.sides === 'double'): Board | null {
  if (drive.formFactor !== 'm2') return null;
  const lengthMm = drive.m2LengthMm ?? USUAL_LENGTH_MM;
  if (drive.components?.length) return { lengthMm, widthMm: M2_WIDTH_MM, chips: drive.components, from: 'stated' };
  const heightCode = drive.m2HeightCode ?? USUAL_HEIGHT_CODE[doubleSided ? 'double' : 'single'];
  return {
    lengthMm,
    widthMm: M2_WIDTH_MM,
    chips: usualChips(lengthMm, heightCode, drive.flash?.dram !== false),
    from: 'template',
    heightCode
  };
}

/**
 * Checks the geometry of a drive's chips for Zod: every problem at the path of its field.
 * @example boardRule(aDrive({ components: [] }), { addIssue() {} }) // undefined
 */
export function boardRule(
  drive: Partial<Pick<Drive, 'components' | 'm2LengthMm' | 'formFactor'>>,
  context: { addIssue(issue: { code: 'custom'; path: PropertyKey[]; message: string }): void }
): void {
  if (drive.formFactor !== 'm2' || !drive.components) return;
  for (const { chip, field, message } of boardProblems(drive.components, drive.m2LengthMm ?? USUAL_LENGTH_MM))
    context.addIssue({ code: 'custom', path: ['components', chip, field], message });
}

/** What is wrong with a board: at which chip, and in which of its fields. */
export type BoardProblem = { chip: number; field: keyof Component; message: string };

const round = (mm: number) => Math.round(mm * 100) / 100;
const words = (chip: Component) => `${chip.role === 'nand' ? 'NAND' : chip.role === 'dram' ? 'DRAM' : chip.role}`;

function meetsNotch(chip: Component, lengthMm: Mm, widthMm: Mm): boolean {
  // Nearest point of the chip to the middle of the notch, which lies on the far edge.
  const x = Math.min(chip.xMm + chip.lengthMm, lengthMm);
  const y = Math.max(chip.yMm, Math.min(widthMm / 2, chip.yMm + chip.widthMm));
  return Math.hypot(lengthMm - x, widthMm / 2 - y) < M2_NOTCH_RADIUS_MM;
}

/**
 * Finds chips that cannot be: outside the board, over its gold edge or screw notch, over each other, negative, or higher than the lid
 * or floor leaves room.
 * @param room what lid and floor leave over the faces of the board, mm, where known
 * @example boardProblems([{ role: 'nand', side: 'top', xMm: -1, yMm: 2, widthMm: 5, lengthMm: 30, heightMm: 1 }], 80)[0].message // 'must not be negative'
 */
export function boardProblems(
  chips: readonly Component[],
  lengthMm: Mm,
  widthMm: Mm = M2_WIDTH_MM,
  room: { top?: Mm | undefined; bottom?: Mm | undefined } = {}
): BoardProblem[] {
  return chips.flatMap((chip, i) => [
    ...sizeProblems(chip, i),
    ...edgeProblems(chip, i, lengthMm, widthMm),
    ...heightProblems(chip, i, room[chip.side]),
    ...chips.slice(0, i).flatMap((other, j) => overlapProblems(chip, i, other, j))
  ]);
}

/** Lengths that differ by less are the same, mm. */
const EPS = 1e-9;

const sizeProblems = (chip: Component, i: number): BoardProblem[] => [
  ...(['xMm', 'yMm'] as const).flatMap((field) =>
    chip[field] >= 0 ? [] : [{ chip: i, field, message: 'must not be negative' }]
  ),
  ...(['widthMm', 'lengthMm', 'heightMm'] as const).flatMap((field) =>
    chip[field] > 0 ? [] : [{ chip: i, field, message: 'must be more than 0 mm' }]
  )
];

function edgeProblems(chip: Component, i: number, lengthMm: Mm, widthMm: Mm): BoardProblem[] {
  const problems: BoardProblem[] = [];
  const add = (field: keyof Component, message: string) => void problems.push({ chip: i, field, message });
  const [endX, endY] = [chip.xMm + chip.lengthMm, chip.yMm + chip.widthMm];
  if (endX > lengthMm + EPS) add('xMm', `reaches to ${round(endX)} mm; the board is ${lengthMm} mm long`);
  else if (chip.xMm < M2_CONNECTOR_MM - EPS && chip.xMm >= 0)
    add('xMm', `stands on the gold edge, which takes the first ${M2_CONNECTOR_MM} mm`);
  else if (meetsNotch(chip, lengthMm, widthMm)) add('xMm', 'stands in the screw notch at the far end');
  if (endY > widthMm + EPS) add('yMm', `reaches to ${round(endY)} mm; the board is ${widthMm} mm wide`);
  return problems;
}

function heightProblems(chip: Component, i: number, roomMm: Mm | undefined): BoardProblem[] {
  if (roomMm === undefined || chip.heightMm <= roomMm + EPS) return [];
  const face = chip.side === 'top' ? 'lid' : 'floor';
  return [
    { chip: i, field: 'heightMm', message: `is higher than the ${roomMm} mm that the ${face} leaves over the board` }
  ];
}

function overlapProblems(chip: Component, i: number, other: Component, j: number): BoardProblem[] {
  const apart =
    other.side !== chip.side ||
    chip.xMm >= other.xMm + other.lengthMm - EPS ||
    other.xMm >= chip.xMm + chip.lengthMm - EPS ||
    chip.yMm >= other.yMm + other.widthMm - EPS ||
    other.yMm >= chip.yMm + chip.widthMm - EPS;
  return apart
    ? []
    : [{ chip: i, field: 'xMm', message: `lies over chip ${j + 1} (${words(other)}) on the same side` }];
}
