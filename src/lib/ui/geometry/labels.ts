/** A point with its name, px from the left and from the top of the plot. */
export type NamedPoint = { x: number; y: number; text: string };
export type Place =
  | 'middle right'
  | 'middle left'
  | 'top center'
  | 'bottom center'
  | 'top right'
  | 'bottom right'
  | 'top left'
  | 'bottom left';
type Box = { x0: number; x1: number; y0: number; y1: number };

const PLACES: readonly Place[] = [
  'middle right',
  'middle left',
  'top right',
  'bottom right',
  'top left',
  'bottom left',
  'top center',
  'bottom center'
];
/** Twelve pixel type: so wide is a sign, so high a line, and so far from its mark it begins. */
const SIGN = 6.6;
const LINE = 14;
const GAP = 8;

/** Where a name would lie. */
export function labelBox({ x, y, text }: NamedPoint, place: Place): Box {
  const width = text.length * SIGN;
  const [vertical, horizontal] = place.split(' ');
  const x0 = horizontal === 'right' ? x + GAP : horizontal === 'left' ? x - GAP - width : x - width / 2;
  const y0 = vertical === 'middle' ? y - LINE / 2 : vertical === 'top' ? y - GAP - LINE : y + GAP;
  return { x0, x1: x0 + width, y0, y1: y0 + LINE };
}

/** The area that two boxes share, px²; none where they only touch. */
export const overlap = (a: Box, b: Box): number =>
  Math.max(0, Math.min(a.x1, b.x1) - Math.max(a.x0, b.x0)) * Math.max(0, Math.min(a.y1, b.y1) - Math.max(a.y0, b.y0));

type Placed = { places: Place[]; cost: number };

/** Places the names in an order, each where it costs least after those before it. */
function inOrder(
  order: readonly number[],
  points: readonly NamedPoint[],
  marks: { drawn: readonly Box[]; own: readonly Box[] },
  size: { width: number; height: number }
): Placed {
  const taken: Box[] = [];
  const places: Place[] = points.map(() => 'middle right');
  let total = 0;
  for (const i of order) {
    let best: { place: Place; box: Box; cost: number } | undefined;
    for (const place of PLACES) {
      const box = labelBox(points[i]!, place);
      const outside =
        Math.max(0, -box.x0) +
        Math.max(0, box.x1 - size.width) +
        Math.max(0, -box.y0) +
        Math.max(0, box.y1 - size.height);
      const under = (boxes: readonly Box[]) => boxes.reduce((sum, other) => sum + overlap(box, other), 0);
      // A name over a name cannot be read; over the mark of another name it misleads; over a line it can be read, with pain.
      const cost = 1000 * under(taken) + 1000 * under(marks.own) + under(marks.drawn) + 100 * outside;
      if (!best || cost < best.cost) best = { place, box, cost };
      if (cost === 0) break;
    }
    if (!best) continue;
    taken.push(best.box);
    places[i] = best.place;
    total += best.cost;
  }
  return { places, cost: total };
}

/** Of more names than this not every order is tried: that would take seconds, and so many find no good places anyway. */
const MOST_TRIED = 40;

/**
 * Finds a place for the name of each point, so that none lies over another or over what is drawn, and none leaves the plot; the first
 * of the usual places where several will do. Each name may be the first to be placed: the order that costs least is taken.
 * @param drawn marks and lines, as points
 */
export function placeLabels(
  points: readonly NamedPoint[],
  drawn: readonly { x: number; y: number }[],
  size: { width: number; height: number }
): Place[] {
  const around = ({ x, y }: { x: number; y: number }): Box => ({ x0: x - 5, x1: x + 5, y0: y - 5, y1: y + 5 });
  const marks = { drawn: drawn.map(around), own: points.map(around) };
  const given = points.map((_, i) => i);
  const others = given.length > MOST_TRIED ? [] : given.map((first) => [first, ...given.filter((i) => i !== first)]);
  const orders = [given, [...given].reverse(), ...others];
  let best: Placed | undefined;
  for (const order of orders) {
    const placed = inOrder(order, points, marks, size);
    if (!best || placed.cost < best.cost) best = placed;
    if (best.cost === 0) break;
  }
  return best?.places ?? [];
}
