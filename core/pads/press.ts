/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices inside the table of hardness */
import { BOARD_STIFFNESS, COMPRESSION, PAD_STRESS_MPA } from '../facts/m2.ts';
import type { Band } from '../quantities/band.ts';
import type { Mm } from '../quantities/measures.ts';

const HARDNESS = (Object.entries(PAD_STRESS_MPA) as [string, number][])
  .map(([shore, stress]) => [Number(shore), Math.log(stress)] as const)
  .sort((a, b) => a[0] - b[0]);

/**
 * Gives pressure of a pad on what it is pressed against: stress at 30 % for its hardness, scaled by (c / 0.3)^1.5.
 * Between the tabled hardnesses the logarithm is interpolated, and carried on beyond them.
 * @param share compression, 0 to 1; without contact there is no pressure
 * @returns MPa, when freshly pressed; pads relax to about half within minutes. Estimate.
 */
export function padStress(shore00: number, share: number): number {
  if (share <= 0) return 0;
  const relative = share / COMPRESSION.high;
  return stressAt30(shore00) * relative * Math.sqrt(relative);
}

const known = new Map<number, number>();

function stressAt30(shore00: number): number {
  let stress = known.get(shore00);
  if (stress === undefined) {
    const last = HARDNESS.length - 1;
    let i = 0;
    while (i < last - 1 && shore00 > HARDNESS[i + 1]![0]) i += 1;
    const [[x0, y0], [x1, y1]] = [HARDNESS[i]!, HARDNESS[i + 1]!];
    stress = Math.exp(y0 + ((shore00 - x0) * (y1 - y0)) / (x1 - x0));
    // Few hardnesses are sold; a crate full of odd ones need not be kept.
    if (known.size < 1000) known.set(shore00, stress);
  }
  return stress;
}

/** Stiffness of an unsupported board held at both ends, N/mm: that of 80 mm, with the cube of the length. */
export function boardStiffness(lengthMm: Mm): Band {
  const scale = (80 / lengthMm) ** 3;
  return {
    low: BOARD_STIFFNESS.low * scale,
    typical: BOARD_STIFFNESS.typical * scale,
    high: BOARD_STIFFNESS.high * scale
  };
}

/** One pressed pad: what it would be squeezed by if the board stood still, and how it presses back. */
export type Pressed = { side: 'top' | 'bottom'; squeezeMm: Mm; forceN: number };

/**
 * Tells how far the board gives way: every pad is a spring of its own force over its own squeeze, against the board as another one:
 * bow = (sum of top kp d - sum of bottom kp d) / (sum of kp + kb). For one pad that is (t - gap) kp / (kp + kb).
 * @param stiffness of the board, N/mm   @returns mm, downwards positive
 */
export function bowOf(pads: readonly Pressed[], stiffness: number): Mm {
  let push = 0;
  let springs = stiffness;
  for (const { side, squeezeMm, forceN } of pads) {
    if (squeezeMm <= 0) continue;
    push += side === 'top' ? forceN : -forceN;
    springs += forceN / squeezeMm;
  }
  return push / springs;
}
