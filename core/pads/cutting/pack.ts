/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices below the number of pieces, in the inner loop of the search */
import { shuffled, seeded } from '../../quantities/random.ts';
import type { Mm } from '../../quantities/measures.ts';

export type Size = { widthMm: Mm; lengthMm: Mm };
export type Placed = { piece: number; xMm: Mm; yMm: Mm; widthMm: Mm; lengthMm: Mm; turned: boolean };
/** One pad with its pieces. The band that is cut off holds all of them; the rest stays one whole rectangle. */
export type PackedSheet = { placed: Placed[]; band: Size };
export type Packing = {
  sheets: PackedSheet[];
  /** Pieces that found no room: too large for a pad, or the pads ran out. */
  left: number[];
  /** Area of the bands less that of the pieces in them, mm². */
  wasteMm2: number;
  /** No way to cut them wastes less, mm². Equal to the waste where the packing is exact. */
  wasteAtLeastMm2: number;
  exact: boolean;
};

/** Up to this many pieces every way of cutting is looked at. */
export const EXACT_PIECES = 8;

type Cut = { w: Mm; h: Mm; piece: number; turned: boolean; a?: Cut; b?: Cut; along?: 'x' | 'y' };
const EPS = 1e-9;

/** Keeps those boxes that no other one is inside of. */
function smallest(boxes: Cut[]): Cut[] {
  boxes.sort((a, b) => a.w - b.w || a.h - b.h);
  const kept: Cut[] = [];
  let lowest = Infinity;
  for (const box of boxes) {
    if (box.h >= lowest - EPS) continue;
    kept.push(box);
    lowest = box.h;
  }
  return kept;
}

/**
 * The smallest boxes of two sets side by side and one above the other. Side by side only those pairs matter in which one of the two
 * sets the height and the other is the narrowest that is no higher; one above the other it is the same turned round.
 * Both lists are sorted by rising width, and so by falling height.
 */
function join(as: readonly Cut[], bs: readonly Cut[], fits: (w: Mm, h: Mm) => boolean, into: Cut[]): void {
  const beside = (a: Cut, b: Cut, h: Mm) => {
    if (fits(a.w + b.w, h)) into.push({ w: a.w + b.w, h, piece: -1, turned: false, a, b, along: 'x' });
  };
  const above = (a: Cut, b: Cut, w: Mm) => {
    if (fits(w, a.h + b.h)) into.push({ w, h: a.h + b.h, piece: -1, turned: false, a, b, along: 'y' });
  };
  const noHigher = (list: readonly Cut[], h: Mm) => list.find((box) => box.h <= h + EPS);
  const noWider = (list: readonly Cut[], w: Mm) => {
    let last: Cut | undefined;
    for (const box of list) if (box.w <= w + EPS) last = box;
    return last;
  };
  for (const a of as) {
    const b = noHigher(bs, a.h);
    if (b) beside(a, b, a.h);
    const c = noWider(bs, a.w);
    if (c) above(a, c, a.w);
  }
  for (const b of bs) {
    const a = noHigher(as, b.h);
    if (a) beside(a, b, b.h);
    const c = noWider(as, b.w);
    if (c) above(c, b, b.w);
  }
}

/**
 * Every smallest box into which each set of pieces can be cut by straight cuts from edge to edge, the way a knife goes along a
 * ruler: a set is a piece, lying or standing, or two smaller sets side by side or one above the other.
 * @returns by set, as a bit mask
 */
function boxesOf(pieces: readonly Size[], sheet: Size): Cut[][] {
  const all = 1 << pieces.length;
  const boxes: Cut[][] = new Array<Cut[]>(all).fill([]);
  const fits = (w: Mm, h: Mm) => w <= sheet.lengthMm + EPS && h <= sheet.widthMm + EPS;
  for (let set = 1; set < all; set++) {
    const found: Cut[] = [];
    if ((set & (set - 1)) === 0) {
      const piece = 31 - Math.clz32(set);
      const { widthMm, lengthMm } = pieces[piece]!;
      if (fits(lengthMm, widthMm)) found.push({ w: lengthMm, h: widthMm, piece, turned: false });
      if (widthMm !== lengthMm && fits(widthMm, lengthMm)) found.push({ w: widthMm, h: lengthMm, piece, turned: true });
    }
    const first = set & -set;
    for (let part = (set - 1) & set; part > 0; part = (part - 1) & set) {
      // Each split once: the half that holds the first piece.
      if ((part & first) === 0) continue;
      join(boxes[part]!, boxes[set ^ part]!, fits, found);
    }
    boxes[set] = smallest(found);
  }
  return boxes;
}

/** The band that has to come off the pad for a box: across its width or along its length, whichever is smaller. */
function bandOf(box: Cut, sheet: Size, onlyAcross = false): Size {
  const across = box.w * sheet.widthMm;
  const along = box.h * sheet.lengthMm;
  return onlyAcross || across <= along
    ? { lengthMm: box.w, widthMm: sheet.widthMm }
    : { lengthMm: sheet.lengthMm, widthMm: box.h };
}
const areaOf = ({ widthMm, lengthMm }: Size) => widthMm * lengthMm;

/** Lists the pieces of a box where they lie, its corner at (x, y), mm. */
function place(box: Cut, x: Mm, y: Mm, names: readonly number[]): Placed[] {
  if (box.a && box.b) {
    const beside = place(box.b, box.along === 'x' ? x + box.a.w : x, box.along === 'y' ? y + box.a.h : y, names);
    return [...place(box.a, x, y, names), ...beside];
  }
  const { w: lengthMm, h: widthMm, turned } = box;
  return [{ piece: names[box.piece]!, xMm: x, yMm: y, lengthMm, widthMm, turned }];
}

/**
 * Splits every set of pieces over pads: fewest pads first, then the least area of bands; each step takes off the pad that holds the
 * first piece of the set.
 * @param areas of the band for each set that fits one pad, by its bits
 * @returns for each set how many pads it takes, and which part of it is taken off last
 */
function cheapestSplits(areas: readonly (number | undefined)[]): { pads: Int32Array; last: Int32Array } {
  const all = areas.length - 1;
  const pads = new Int32Array(all + 1).fill(1 << 20);
  const area = new Float64Array(all + 1).fill(Infinity);
  const last = new Int32Array(all + 1);
  pads[0] = 0;
  area[0] = 0;
  for (let set = 1; set <= all; set++) {
    const first = set & -set;
    for (let part = set; part > 0; part = (part - 1) & set) {
      const own = areas[part];
      if ((part & first) === 0 || own === undefined) continue;
      const count = pads[set ^ part]! + 1;
      const sum = area[set ^ part]! + own;
      if (count < pads[set]! || (count === pads[set]! && sum < area[set]! - EPS)) {
        pads[set] = count;
        area[set] = sum;
        last[set] = part;
      }
    }
  }
  return { pads, last };
}

/** Packs exactly: fewest pads first, then the least area of bands. `names` gives the pieces their numbers outside. */
function packExactly(
  pieces: readonly Size[],
  sheet: Size,
  available: number,
  { names, onlyAcross = false }: { names: readonly number[]; onlyAcross?: boolean }
): { sheets: PackedSheet[]; left: number[] } {
  const boxes = boxesOf(pieces, sheet);
  const bandFor = (box: Cut) => bandOf(box, sheet, onlyAcross);
  const all = boxes.length - 1;
  const best = boxes.map((own) =>
    own.reduce<Cut | undefined>(
      (least, box) => (least && areaOf(bandFor(least)) <= areaOf(bandFor(box)) + EPS ? least : box),
      undefined
    )
  );
  const { pads, last } = cheapestSplits(best.map((box) => box && areaOf(bandFor(box))));
  // Where the pads do not suffice for all, as much of the area as possible.
  const sizeOf = (set: number) => pieces.reduce((sum, piece, i) => ((set >> i) & 1 ? sum + areaOf(piece) : sum), 0);
  let chosen = all;
  if (pads[all]! > available) {
    chosen = 0;
    for (let set = 1; set <= all; set++)
      if (pads[set]! <= available && sizeOf(set) > sizeOf(chosen) + EPS) chosen = set;
  }
  const sheets: PackedSheet[] = [];
  for (let set = chosen; set > 0; set ^= last[set]!) {
    const box = best[last[set]!]!;
    sheets.push({ placed: place(box, 0, 0, names).sort((a, b) => a.piece - b.piece), band: bandFor(box) });
  }
  const left = names.filter((_, i) => ((chosen >> i) & 1) === 0);
  return { sheets, left: [...left] };
}

const wasteOf = (sheets: readonly PackedSheet[]) =>
  sheets.reduce((sum, { placed, band }) => sum + areaOf(band) - placed.reduce((s, piece) => s + areaOf(piece), 0), 0);

/**
 * Bands are cut across the whole pad, so that no way of cutting has less of them than the area of the pieces, or than the
 * smallest band for any single one of them.
 */
function leastWaste(pieces: readonly Size[], sheet: Size): number {
  const sum = pieces.reduce((total, piece) => total + areaOf(piece), 0);
  const single = Math.max(
    0,
    ...pieces.map(({ widthMm, lengthMm }) => {
      const ways = [
        { w: lengthMm, h: widthMm },
        { w: widthMm, h: lengthMm }
      ].filter(({ w, h }) => w <= sheet.lengthMm + EPS && h <= sheet.widthMm + EPS);
      return Math.min(...ways.map(({ w, h }) => Math.min(w * sheet.widthMm, h * sheet.lengthMm)));
    })
  );
  return Math.max(0, single - sum);
}

/**
 * Cuts pieces out of pads of one size with straight cuts from edge to edge, with the least waste: exactly for up to 8 pieces;
 * for more, the best of many orders, filled pad by pad in exact handfuls, together with a bound that no cutting goes below.
 * Pieces may be turned; the material has no grain.
 * @param available how many pads there are
 * @example packPieces([{ widthMm: 10, lengthMm: 20 }], { widthMm: 50, lengthMm: 100 }, 1).left // []
 */
export function packPieces(pieces: readonly Size[], sheet: Size, available: number): Packing {
  const fitting = pieces.flatMap((piece, i) =>
    Math.min(piece.widthMm, piece.lengthMm) <= Math.min(sheet.widthMm, sheet.lengthMm) + EPS &&
    Math.max(piece.widthMm, piece.lengthMm) <= Math.max(sheet.widthMm, sheet.lengthMm) + EPS
      ? [i]
      : []
  );
  const tooLarge = pieces.map((_, i) => i).filter((i) => !fitting.includes(i));
  const bound = leastWaste(
    fitting.map((i) => pieces[i]!),
    sheet
  );
  const done = (sheets: PackedSheet[], left: number[], exact: boolean): Packing => {
    const wasteMm2 = wasteOf(sheets);
    const all = [...tooLarge, ...left].sort((a, b) => a - b);
    return { sheets, left: all, wasteMm2, wasteAtLeastMm2: exact || left.length > 0 ? wasteMm2 : bound, exact };
  };
  if (fitting.length <= EXACT_PIECES) {
    const { sheets, left } = packExactly(
      fitting.map((i) => pieces[i]!),
      sheet,
      available,
      { names: fitting }
    );
    return done(sheets, left, true);
  }
  const random = seeded(fitting.length);
  let order = [...fitting].sort((a, b) => areaOf(pieces[b]!) - areaOf(pieces[a]!));
  let best: { sheets: PackedSheet[]; left: number[] } | undefined;
  for (let round = 0; round < 6; round++) {
    const tried = packGreedily(pieces, sheet, available, order);
    if (
      !best ||
      tried.left.length < best.left.length ||
      (tried.left.length === best.left.length &&
        (tried.sheets.length < best.sheets.length ||
          (tried.sheets.length === best.sheets.length && wasteOf(tried.sheets) < wasteOf(best.sheets) - EPS)))
    )
      best = tried;
    order = shuffled(order, random);
  }
  return done(best!.sheets, best!.left, false);
}

/**
 * Fills pad after pad with handfuls of the next few pieces in this order, each cut exactly, band after band across the pad, until
 * nothing more fits on it.
 */
function packGreedily(pieces: readonly Size[], sheet: Size, available: number, order: readonly number[]) {
  const sheets: PackedSheet[] = [];
  let waiting = [...order];
  while (waiting.length > 0 && sheets.length < available) {
    const placed: Placed[] = [];
    let used = 0;
    for (;;) {
      const rest = { widthMm: sheet.widthMm, lengthMm: sheet.lengthMm - used };
      const handful = waiting.slice(0, EXACT_PIECES);
      const parts = handful.map((i) => pieces[i]!);
      const found =
        rest.lengthMm > EPS ? packExactly(parts, rest, 1, { names: handful, onlyAcross: true }).sheets[0] : undefined;
      if (!found) break;
      placed.push(...found.placed.map((piece) => ({ ...piece, xMm: piece.xMm + used })));
      used += found.band.lengthMm;
      const taken = new Set(found.placed.map(({ piece }) => piece));
      waiting = waiting.filter((i) => !taken.has(i));
    }
    if (placed.length === 0) break;
    sheets.push({ placed, band: { widthMm: sheet.widthMm, lengthMm: used } });
  }
  return { sheets, left: waiting };
}
