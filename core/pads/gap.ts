/* eslint-disable @typescript-eslint/no-non-null-assertion -- a choice has one layer at least; indices below the length of the list, in the inner loop */
import { COMPRESSION, STOCK_PADS_MM, USUAL_SHORE } from '../facts/m2.ts';
import { USUAL_CONDUCTIVITY } from '../facts/thermal.ts';
import type { Pad } from '../parts/pad.ts';
import type { Mm } from '../quantities/measures.ts';
import { padStress } from './press.ts';

export type Contact = 'good' | 'marginal' | 'high' | 'no-contact' | 'over-compressed';

/** A kind of pad that can be laid in: from the enclosure's box, from the pads at hand, or one that would have to be bought. */
export type PadKind = {
  /** The id of a pad at hand, `box:name` for one in the box, `shop:1` for a thickness to buy. */
  key: string;
  name: string;
  from: 'box' | 'hand' | 'shop';
  thicknessMm: Mm;
  conductivityWmK: number;
  shore00: number;
  /** Size of one piece as it is sold, and how many there are. */
  widthMm?: Mm;
  lengthMm?: Mm;
  quantity: number;
};

const kindOf = (pad: Pad, from: 'box' | 'hand'): PadKind => ({
  key: from === 'box' ? `box:${pad.name}` : (pad.id ?? pad.name),
  name: pad.name,
  from,
  thicknessMm: pad.thicknessMm,
  conductivityWmK: pad.conductivityWmK ?? USUAL_CONDUCTIVITY,
  shore00: pad.shore00 ?? USUAL_SHORE,
  widthMm: pad.widthMm,
  lengthMm: pad.lengthMm,
  quantity: pad.quantity ?? 1
});

const SHOP: readonly PadKind[] = STOCK_PADS_MM.map((thicknessMm) => ({
  key: `shop:${thicknessMm}`,
  name: `${thicknessMm} mm pad`,
  from: 'shop',
  thicknessMm,
  conductivityWmK: USUAL_CONDUCTIVITY,
  shore00: USUAL_SHORE,
  quantity: 1
}));

/**
 * Pads from the box and at hand, box first; where there are none, the thicknesses that are sold.
 * @example padKinds([{ kind: 'pad', name: 'Grey', thicknessMm: 1 }]).some(({ name }) => name === 'Grey') // true
 */
export function padKinds(box: readonly Pad[] | undefined, hand: readonly Pad[] | undefined): readonly PadKind[] {
  const own = [...(box ?? []).map((pad) => kindOf(pad, 'box')), ...(hand ?? []).map((pad) => kindOf(pad, 'hand'))];
  return own.some((pad) => pad.quantity > 0) ? own.filter((pad) => pad.quantity > 0) : SHOP;
}

/** Gives compression of a pad in a gap: (t - gap) / t, rounded to a thousandth, since (1 - 0.7) / 1 is just above 0.30 in floating point. */
export function compression(thickness: Mm, gap: Mm): number {
  return Math.round(((thickness - gap) / thickness) * 1000) / 1000;
}

/** Gives the class of a compression: 10 to 30 % is good, its edges included. */
export function contactOf(share: number): Contact {
  if (share < COMPRESSION.marginal) return 'no-contact';
  if (share < COMPRESSION.good) return 'marginal';
  if (share <= COMPRESSION.high) return 'good';
  return share <= COMPRESSION.over ? 'high' : 'over-compressed';
}

export const CONTACT_ORDER: Record<Contact, number> = {
  good: 0,
  marginal: 1,
  high: 2,
  'over-compressed': 3,
  'no-contact': 4
};
const MIDDLE = (COMPRESSION.good + COMPRESSION.high) / 2;
const FROM_ORDER = { box: 0, hand: 1, shop: 2 } as const;

/** Pads in one gap, one or two of them, and how they sit. */
export type PadChoice = { layers: readonly PadKind[]; compression: number; verdict: Contact };

/** Adds up the thickness of layers, mm. */
export const thicknessOf = (layers: readonly PadKind[]): Mm =>
  layers.length === 1 ? layers[0]!.thicknessMm : layers.reduce((sum, pad) => sum + pad.thicknessMm, 0);

/** Lists those pads in a gap. */
export function layIn(layers: readonly PadKind[], gap: Mm): PadChoice {
  const share = compression(thicknessOf(layers), gap);
  return { layers, compression: share, verdict: contactOf(share) };
}

/**
 * Tells whether one choice is better than another, as a number below 0: best class first, then one layer before two, nearest to the
 * middle of the good range, least pressure on the board, the box before the drawer, and what conducts best.
 */
export function comparePads(a: PadChoice, b: PadChoice): number {
  const byClass = CONTACT_ORDER[a.verdict] - CONTACT_ORDER[b.verdict] || a.layers.length - b.layers.length;
  if (byClass !== 0) return byClass;
  const off = Math.abs(a.compression - MIDDLE) - Math.abs(b.compression - MIDDLE);
  if (Math.abs(off) > 1e-9) return off;
  const press = stressOf(a) - stressOf(b);
  if (Math.abs(press) > 1e-9) return press;
  const [x, y] = [a.layers[0]!, b.layers[0]!];
  return FROM_ORDER[x.from] - FROM_ORDER[y.from] || y.conductivityWmK - x.conductivityWmK;
}

/** Gives pressure of a choice on the chip, MPa; the softer of two stacked pads gives way. */
export function stressOf({ layers, compression: share }: PadChoice): number {
  let softest = layers[0]!.shore00;
  for (let i = 1; i < layers.length; i++) softest = Math.min(softest, layers[i]!.shore00);
  return padStress(softest, share);
}

/** Lists every way to fill a gap with the pads at hand, best first. */
export function padOptions(gap: Mm, pads: readonly PadKind[], stack: boolean): PadChoice[] {
  const options = pads.map((pad) => layIn([pad], gap));
  if (stack) for (const [i, a] of pads.entries()) for (const b of pads.slice(i)) options.push(layIn([a, b], gap));
  return options.sort(comparePads);
}

/** Gives the best of the pads for one gap, without listing the others. */
export function choosePad(gap: Mm, pads: readonly PadKind[], stack: boolean): PadChoice | null {
  let best: PadChoice | null = null;
  for (const pad of pads) best = betterOf(best, pad, undefined, gap);
  // One pad goes before two of the same class: where one sits well, no stack is better.
  if (!stack || best?.verdict === 'good') return best;
  for (let i = 0; i < pads.length; i++)
    for (let j = i; j < pads.length; j++) best = betterOf(best, pads[i]!, pads[j]!, gap);
  return best;
}

/** The better of a choice and one more way; most ways are of a worse class, and are not even put together. */
function betterOf(best: PadChoice | null, a: PadKind, b: PadKind | undefined, gap: Mm): PadChoice {
  const share = compression(b ? a.thicknessMm + b.thicknessMm : a.thicknessMm, gap);
  const verdict = contactOf(share);
  if (best !== null && CONTACT_ORDER[verdict] > CONTACT_ORDER[best.verdict]) return best;
  const choice: PadChoice = { layers: b ? [a, b] : [a], compression: share, verdict };
  return best === null || comparePads(choice, best) < 0 ? choice : best;
}

/**
 * Gives one pad for several gaps: the best class at the chip that fares worst, then nearest to the middle of the good range there.
 * @throws RangeError where there is no gap or no pad to choose from
 */
export function chooseSheet(gaps: readonly Mm[], pads: readonly PadKind[]): PadKind {
  const worstOf = (pad: PadKind) =>
    gaps.map((gap) => layIn([pad], gap)).reduce((worst, option) => (comparePads(worst, option) < 0 ? option : worst));
  if (gaps.length === 0 || pads.length === 0) throw new RangeError('a sheet needs a gap and a pad');
  return pads.reduce((best, pad) => (comparePads(worstOf(pad), worstOf(best)) < 0 ? pad : best));
}

/**
 * Gives the thicknesses that are sold and close a gap well: one pad where one does, else two layers, else none.
 * @example stockPadsFor(0.92) // []
 */
export function stockPadsFor(gap: Mm): Mm[] {
  const choice = choosePad(gap, SHOP, true);
  return choice?.verdict === 'good' ? choice.layers.map((pad) => pad.thicknessMm) : [];
}

/**
 * Tells whether pads are not to be cut for a gap: they do not touch, or press too hard. A high compression is taken where no
 * thickness that is sold does better.
 * @example isRejected('high', 1.2) // true
 */
export const isRejected = (verdict: Contact, gap: Mm): boolean =>
  verdict === 'no-contact' || verdict === 'over-compressed' || (verdict === 'high' && stockPadFor(gap) !== undefined);

/**
 * Gives the stock thickness that closes a gap well, for the shopping list; undefined where none does.
 * @example stockPadFor(1.2) // 1.5
 */
export function stockPadFor(gap: Mm): Mm | undefined {
  const choice = choosePad(gap, SHOP, false);
  return choice?.verdict === 'good' ? choice.layers[0]!.thicknessMm : undefined;
}
