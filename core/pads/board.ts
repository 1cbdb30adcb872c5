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
export type BoardOf = Pick<Drive, 'components' | 'm2LengthMm' | 'm2HeightCode' | 'sides' | 'capacityTB' | 'formFactor'>;

const templates = new Map<string, readonly Component[]>();

/** The usual chips of a module of this length, as high as its height code allows. */
export function usualChips(lengthMm: keyof typeof M2_LAYOUTS, code: M2HeightCode): readonly Component[] {
  const key = `${lengthMm} ${code}`;
  let chips = templates.get(key);
  if (!chips) {
    const height = M2_HEIGHT_CODES[code];
    const layout = M2_LAYOUTS[lengthMm];
    const place = (side: Side) => layout[side].map((chip) => ({ ...chip, side, heightMm: height[side] }));
    chips = [...place('top'), ...(height.bottom > 0 ? place('bottom') : [])];
    templates.set(key, chips);
  }
  return chips;
}

/** @returns the board, or null for a drive that is no M.2 module */
export function boardOf(drive: BoardOf, doubleSided = drive.sides === 'double'): Board | null {
  if (drive.formFactor !== 'm2') return null;
  const lengthMm = drive.m2LengthMm ?? USUAL_LENGTH_MM;
  if (drive.components?.length) return { lengthMm, widthMm: M2_WIDTH_MM, chips: drive.components, from: 'stated' };
  const heightCode = drive.m2HeightCode ?? USUAL_HEIGHT_CODE[doubleSided ? 'double' : 'single'];
  return {
    lengthMm,
    widthMm: M2_WIDTH_MM,
    chips: usualChips(lengthMm, heightCode),
    from: 'template',
    heightCode
  };
}

/** The geometry of a drive's chips as a Zod check: every problem at the path of its field. */
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
 * Chips that cannot be: outside the board, over its gold edge or screw notch, over each other, negative, or higher than the lid
 * or floor leaves room.
 * @param room what lid and floor leave over the faces of the board, mm, where known
 */
export function boardProblems(
  chips: readonly Component[],
  lengthMm: Mm,
  widthMm: Mm = M2_WIDTH_MM,
  room: { top?: Mm | undefined; bottom?: Mm | undefined } = {}
): BoardProblem[] {
  const problems: BoardProblem[] = [];
  chips.forEach((chip, i) => {
    const add = (field: keyof Component, message: string) => void problems.push({ chip: i, field, message });
    for (const field of ['xMm', 'yMm'] as const) if (!(chip[field] >= 0)) add(field, 'must not be negative');
    for (const field of ['widthMm', 'lengthMm', 'heightMm'] as const)
      if (!(chip[field] > 0)) add(field, 'must be more than 0 mm');
    if (chip.xMm + chip.lengthMm > lengthMm + 1e-9)
      add('xMm', `reaches to ${round(chip.xMm + chip.lengthMm)} mm; the board is ${lengthMm} mm long`);
    else if (chip.xMm < M2_CONNECTOR_MM - 1e-9 && chip.xMm >= 0)
      add('xMm', `stands on the gold edge, which takes the first ${M2_CONNECTOR_MM} mm`);
    else if (meetsNotch(chip, lengthMm, widthMm)) add('xMm', 'stands in the screw notch at the far end');
    if (chip.yMm + chip.widthMm > widthMm + 1e-9)
      add('yMm', `reaches to ${round(chip.yMm + chip.widthMm)} mm; the board is ${widthMm} mm wide`);
    const height = room[chip.side];
    if (height !== undefined && chip.heightMm > height + 1e-9)
      add(
        'heightMm',
        `is higher than the ${height} mm that the ${chip.side === 'top' ? 'lid' : 'floor'} leaves over the board`
      );
    for (let j = 0; j < i; j++) {
      const other = chips[j]!;
      const apart =
        other.side !== chip.side ||
        chip.xMm >= other.xMm + other.lengthMm - 1e-9 ||
        other.xMm >= chip.xMm + chip.lengthMm - 1e-9 ||
        chip.yMm >= other.yMm + other.widthMm - 1e-9 ||
        other.yMm >= chip.yMm + chip.widthMm - 1e-9;
      if (!apart) add('xMm', `lies over chip ${j + 1} (${words(other)}) on the same side`);
    }
  });
  return problems;
}
