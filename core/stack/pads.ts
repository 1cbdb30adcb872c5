import { COMPRESSION, STOCK_PADS_MM } from '../facts/m2.ts';
import type { Mm } from '../quantities/unit.ts';

export type Contact = 'good' | 'marginal' | 'high' | 'no-contact' | 'over-compressed';

/** Compression of a pad in a gap: (t - gap) / t, rounded to a thousandth, since (1 - 0.7) / 1 is just above 0.30 in floating point. */
export function compression(thickness: Mm, gap: Mm): number {
  return Math.round(((thickness - gap) / thickness) * 1000) / 1000;
}

/** The class of a compression: 10 to 30 % is good, its edges included. */
export function contactOf(share: number): Contact {
  if (share < COMPRESSION.marginal) return 'no-contact';
  if (share < COMPRESSION.good) return 'marginal';
  if (share <= COMPRESSION.high) return 'good';
  return share <= COMPRESSION.over ? 'high' : 'over-compressed';
}

const ORDER: Record<Contact, number> = { good: 0, marginal: 1, high: 2, 'over-compressed': 3, 'no-contact': 4 };
const MIDDLE = (COMPRESSION.good + COMPRESSION.high) / 2;

export type PadChoice = { layers: Mm[]; compression: number; verdict: Contact };

/** The best of the pads for one gap: best class, then one layer before two, then nearest to the middle of the good range. */
export function choosePad(gap: Mm, thicknesses: readonly Mm[], stack: boolean): PadChoice | null {
  let best: PadChoice | null = null;
  const consider = (layers: Mm[]) => {
    const share = compression(
      layers.reduce((sum, t) => sum + t, 0),
      gap
    );
    const option = { layers, compression: share, verdict: contactOf(share) };
    if (best === null || isBetter(option, best)) best = option;
  };
  for (const t of thicknesses) consider([t]);
  if (stack) for (const [i, a] of thicknesses.entries()) for (const b of thicknesses.slice(i)) consider([a, b]);
  return best;
}

function isBetter(a: PadChoice, b: PadChoice): boolean {
  if (ORDER[a.verdict] !== ORDER[b.verdict]) return ORDER[a.verdict] < ORDER[b.verdict];
  if (a.layers.length !== b.layers.length) return a.layers.length < b.layers.length;
  return Math.abs(a.compression - MIDDLE) < Math.abs(b.compression - MIDDLE);
}

/**
 * One thickness for several gaps: the best class at the chip that fares worst, then nearest to the middle of the good range there.
 * @throws RangeError where there is no gap or no pad to choose from
 */
export function chooseSheet(gaps: readonly Mm[], thicknesses: readonly Mm[]): Mm {
  const worstOf = (t: Mm) =>
    gaps
      .map((gap) => choosePad(gap, [t], false)!)
      .reduce((worst, option) => (isBetter(worst, option) ? option : worst));
  if (gaps.length === 0 || thicknesses.length === 0) throw new RangeError('a sheet needs a gap and a thickness');
  return thicknesses.reduce((best, t) => (isBetter(worstOf(t), worstOf(best)) ? t : best));
}

/** The stock thickness that closes a gap well, for the shopping list; undefined where none does. */
export function stockPadFor(gap: Mm): Mm | undefined {
  const choice = choosePad(gap, STOCK_PADS_MM, false);
  return choice?.verdict === 'good' ? choice.layers[0] : undefined;
}
