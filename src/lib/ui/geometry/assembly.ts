import { M2_NOTCHES } from '#core/facts/mounting';
import { figure, listed, quantity } from '#core/quantities/format';
import type { Drawing, DrawingOf } from '#core/sheets/drawing';

/** What a shape stands for; how that looks is the drawing's affair. */
export type ShapeRole =
  'case' | 'board' | 'gold' | 'chip' | 'pad' | 'metal' | 'ghost' | 'move' | 'right' | 'wrong' | 'mark';
export type Shape =
  | { as: 'path'; role: ShapeRole; d: string }
  | { as: 'text'; x: number; y: number; text: string; anchor: 'start' | 'middle' | 'end' };

/** A drawing of a step: its shapes in mm, how high its letters are, and the same in words. */
export type StepDrawing = {
  view: { x: number; y: number; width: number; height: number };
  letterMm: number;
  shapes: Shape[];
  /** What somebody has to know who cannot see it. */
  words: string;
};

const n = (value: number): string => String(Math.round(value * 100) / 100);
const path = (role: ShapeRole, d: string): Shape => ({ as: 'path', role, d });
// eslint-disable-next-line max-params -- a row of a drawing: what it stands for, where, how large
const rect = (role: ShapeRole, x: number, y: number, w: number, h: number): Shape =>
  path(role, `M${n(x)} ${n(y)}h${n(w)}v${n(h)}h${n(-w)}Z`);
type Point = readonly [x: number, y: number];
const line = (role: ShapeRole, [x1, y1]: Point, [x2, y2]: Point): Shape =>
  path(role, `M${n(x1)} ${n(y1)}L${n(x2)} ${n(y2)}`);
const circle = (role: ShapeRole, x: number, y: number, r: number): Shape =>
  path(role, `M${n(x - r)} ${n(y)}a${n(r)} ${n(r)} 0 1 0 ${n(2 * r)} 0a${n(r)} ${n(r)} 0 1 0 ${n(-2 * r)} 0Z`);
const text = (x: number, y: number, words: string, anchor: 'start' | 'middle' | 'end' = 'start'): Shape => ({
  as: 'text',
  x,
  y,
  text: words,
  anchor
});

/** A line with a head, from one point to another. */
function arrow([x1, y1]: Point, [x2, y2]: Point, head: number): Shape {
  const angle = Math.atan2(y2 - y1, x2 - x1);
  const wing = (turn: number) => `${n(x2 - head * Math.cos(angle + turn))} ${n(y2 - head * Math.sin(angle + turn))}`;
  return path('move', `M${n(x1)} ${n(y1)}L${n(x2)} ${n(y2)}M${wing(0.5)}L${n(x2)} ${n(y2)}L${wing(-0.5)}`);
}

/** Letters are this share of the width of a drawing: about 12 px where it is 350 px wide. */
const LETTER_SHARE = 1 / 28;
const drawing = (view: StepDrawing['view'], shapes: Shape[], words: string): StepDrawing => ({
  view,
  letterMm: view.width * LETTER_SHARE,
  shapes,
  words
});

const BOARD_MM = 0.8;

/** The board goes into its socket aslant, seen from the side: the lengths and the angle are those of the build. */
function insertion({ lengthMm, seatMm, angleDeg }: DrawingOf<'insertion'>): StepDrawing {
  const turn = (degrees: number) => {
    const a = (degrees * Math.PI) / 180;
    return (along: number, over = 0) => ({
      x: along * Math.cos(a) + over * Math.sin(a),
      y: -along * Math.sin(a) + over * Math.cos(a)
    });
  };
  const slab = (role: ShapeRole, degrees: number, from: number, to: number): Shape => {
    const at = turn(degrees);
    const corners = [at(from), at(to), at(to, BOARD_MM), at(from, BOARD_MM)];
    return path(role, `M${corners.map(({ x, y }) => `${n(x)} ${n(y)}`).join('L')}Z`);
  };
  const free = lengthMm - seatMm;
  const end = turn(angleDeg.typical)(free);
  const radius = free * 0.55;
  const [low, high] = [turn(0)(radius), turn(angleDeg.typical)(radius)];
  const height = Math.round(-end.y);
  const view = { x: -14, y: end.y - 9, width: lengthMm + 24, height: -end.y + 24 };
  const letter = view.width * LETTER_SHARE;
  const push = turn(angleDeg.typical);
  const [from, to] = [push(free * 0.42, -4), push(free * 0.12, -4)];
  const shapes = [
    rect('case', -12, 6, lengthMm + 18, 1.2),
    rect('case', -9, -2.4, 9, 8.4),
    rect('metal', free - 2.4, BOARD_MM, 4.8, 6 - BOARD_MM),
    slab('ghost', 0, -seatMm, free),
    slab('board', angleDeg.typical, -seatMm, free),
    slab('gold', angleDeg.typical, -seatMm, 0),
    path('mark', `M${n(low.x)} ${n(low.y)}A${n(radius)} ${n(radius)} 0 0 0 ${n(high.x)} ${n(high.y)}`),
    arrow([from.x, from.y], [to.x, to.y], letter * 0.7),
    arrow([end.x + 4, end.y + 4], [free + 4, -3], letter * 0.7),
    text(radius + 2, -radius * 0.12, `${angleDeg.low} to ${angleDeg.high}°`),
    text(-9, 6 + letter * 1.6, 'socket'),
    text(free, 6 + letter * 1.6, 'post', 'middle'),
    text(end.x * 0.5, end.y * 0.5 - letter * 1.1, `${lengthMm} mm`, 'end')
  ];
  return drawing(
    view,
    shapes,
    `Seen from the side, to scale. The socket is on the left, and the board of ${quantity(lengthMm, 'mm')} comes from the right with its far end raised: at ${angleDeg.typical}° that end is ${height} mm above its place, which is right between ${angleDeg.low} and ${angleDeg.high}°. Push along the board until ${quantity(seatMm, 'mm')} of it, all the gold, are in the socket. Then press the far end down onto the post, ${quantity(free, 'mm')} from the mouth of the socket.`
  );
}

/** The gold edge over its socket, seen from above. */
function key({ notches, keys, assumed }: DrawingOf<'key'>): StepDrawing {
  const { edgeMm, widthMm, depthMm, offsetMm } = M2_NOTCHES;
  const half = edgeMm / 2;
  const cut = [...notches].map((k) => offsetMm[k]).sort((a, b) => a - b);
  const edge = cut.map((x) => `H${n(x - widthMm / 2)}V${n(-depthMm)}H${n(x + widthMm / 2)}V0`).join('');
  const teeth = keys.map((k) => rect('case', offsetMm[k] - widthMm / 2, 4.2, widthMm, 3.2));
  const view = { x: -16, y: -11.5, width: 32, height: 24 };
  const fits = keys.every((k) => notches.includes(k));
  const gold: Shape[] = [];
  for (let x = -half + 0.5; x < half - 0.3; x += 1)
    if (!cut.some((c) => Math.abs(c - x) < widthMm)) gold.push(rect('gold', x - 0.2, -2.2, 0.4, 1.9));
  const words = keys.map((k) => `key ${k}, ${quantity(Math.abs(offsetMm[k]), 'mm')} from the middle`);
  return drawing(
    view,
    [
      path('board', `M-11 -10V-2.6H${n(-half)}V0${edge}H${n(half)}V-2.6H11V-10Z`),
      ...gold,
      rect('case', -11.5, 7.4, 23, 3.4),
      ...teeth,
      ...keys.map((k) => line(fits ? 'right' : 'wrong', [offsetMm[k], 0.3], [offsetMm[k], 4])),
      text(0, -6.2, 'drive, label up', 'middle'),
      text(0, 9.7, 'socket', 'middle')
    ],
    `Seen from above, to scale. The gold edge of the drive is ${quantity(edgeMm, 'mm')} wide and has ${notches.length === 1 ? 'a notch' : 'two notches'} of ${quantity(widthMm, 'mm')}: ${notches.map((k) => `key ${k}, ${quantity(Math.abs(offsetMm[k]), 'mm')} from the middle`).join('; ')}. The socket has its tooth at ${listed(words)}. ${fits ? 'They meet: notch over tooth.' : 'They do not meet: this drive does not go in.'} If yours lie on opposite sides, the drive is upside down.${assumed ? ' Which key yours has is not stated: the usual one is drawn.' : ''}`
  );
}

const HOW_WORDS: Record<DrawingOf<'retainer'>['how'], { right: string; wrong: string; words: string }> = {
  screw: {
    right: 'end under the head',
    wrong: 'forced: bent',
    words:
      'Right: the half-round end of the board lies on the shoulder of the post, the head of the screw covers its ring, and the board is straight. Wrong: a screw turned with force bends the board down.'
  },
  'screw-from-below': {
    right: 'screw from below',
    wrong: 'forced: bent',
    words:
      'Right: the screw comes through the floor from below into the nut that lies in the half-round end; the board is straight. Wrong: turned with force it bends the board down.'
  },
  turning: {
    right: 'IN the notch',
    wrong: 'under it',
    words:
      'Right: the end of the board stands in the notch of the retainer, which is as high as the board, and the retainer is turned over it. Wrong: the board lies under the whole retainer, pressed to the floor, and its gold edge stands aslant in the socket.'
  },
  rubber: {
    right: 'IN the notch',
    wrong: 'under it',
    words:
      'Right: the neck of the rubber stands in the half-round end of the board, its head lies on top of the board, its foot underneath. Wrong: the board lies under the foot or on top of the head.'
  },
  'tool-less': {
    right: 'IN the notch',
    wrong: 'under it',
    words:
      'Right: the end of the board stands in the notch of what holds it, as high as the board. Wrong: the board lies under it, and its gold edge stands aslant in the socket.'
  }
};

/** The end of the board in what holds it, right and wrong beside each other; larger than life. */
function retainer({ how }: DrawingOf<'retainer'>): StepDrawing {
  const words = HOW_WORDS[how];
  const isScrew = how === 'screw' || how === 'screw-from-below';
  const floor = (x: number) => rect('case', x, 9, 18, 1.2);
  const holder = (x: number): Shape[] =>
    isScrew
      ? [
          rect('metal', x + 11, 5.8, 5, 3.2),
          rect('metal', x + 12.6, 1.6, 1.8, 9),
          how === 'screw' ? rect('metal', x + 10.4, 0.4, 6.2, 2.2) : rect('metal', x + 10.4, 10.2, 6.2, 1.8)
        ]
      : [
          // A post with a notch as high as the board: foot, neck, head.
          path('metal', `M${n(x + 11)} 9V6h1.6V3.4H${n(x + 10.4)}V0.6h6.4V9Z`)
        ];
  const straight = (x: number): Shape => rect('board', x, 4.2, isScrew ? 14.2 : 12.4, 1.6);
  const bent = (x: number): Shape =>
    isScrew
      ? path(
          'board',
          `M${n(x)} 3.6C${n(x + 6)} 3.6 ${n(x + 9)} 5.4 ${n(x + 14.2)} 6.4V8C${n(x + 9)} 7 ${n(x + 6)} 5.2 ${n(x)} 5.2Z`
        )
      : path('board', `M${n(x)} 3.6L${n(x + 10.8)} 7.4L${n(x + 10.4)} 9L${n(x)} 5.2Z`);
  const [left, right] = [1, 23];
  return drawing(
    { x: 0, y: -3, width: 42, height: 17 },
    [
      floor(left),
      ...holder(left),
      straight(left),
      path('right', `M${left} -1.4l1 1.2l2 -2.4`),
      text(left + 4, -0.6, words.right),
      floor(right),
      ...holder(right),
      bent(right),
      path('wrong', `M${right} -2.4l2 2.4M${right + 2} -2.4l-2 2.4`),
      text(right + 4, -0.6, words.wrong)
    ],
    `Seen from the side, larger than life. ${words.words}`
  );
}

/** The pieces of pad on their chips, seen from above; the underside seen through the board. */
function pads({ lengthMm, widthMm, side, pieces, chips, assumed }: DrawingOf<'pads'>): StepDrawing {
  const letter = (lengthMm + 6) * LETTER_SHARE;
  const middle = widthMm / 2;
  const shapes: Shape[] = [
    path('board', `M0 0H${n(lengthMm)}V${n(middle - 2)}a2 2 0 0 0 0 4V${n(widthMm)}H0Z`),
    rect('gold', 0, 1, 3.4, widthMm - 2),
    ...chips.map(({ xMm, yMm, lengthMm: l, widthMm: w }) => rect('chip', xMm, yMm, l, w)),
    ...pieces.map(({ xMm, yMm, lengthMm: l, widthMm: w }) => rect('pad', xMm, yMm, l, w)),
    ...pieces.map((piece) =>
      text(
        piece.xMm + piece.lengthMm / 2,
        piece.yMm + piece.widthMm / 2 + letter * 0.35,
        `${piece.letter} ${piece.layersMm.map(figure).join('+')} mm`,
        'middle'
      )
    ),
    text(0, widthMm + letter * 1.3, 'gold edge'),
    text(lengthMm, widthMm + letter * 1.3, 'screw end', 'end')
  ];
  const where = pieces.map(
    ({ letter: name, label, xMm, yMm, lengthMm: l, widthMm: w, layersMm }) =>
      `${name}, for the ${label}: ${layersMm.map((mm) => quantity(mm, 'mm')).join(' on ')} thick, ${figure(l)} × ${quantity(w, 'mm')}, from ${quantity(xMm, 'mm')} behind the gold edge and ${quantity(yMm, 'mm')} from the left edge`
  );
  return drawing(
    { x: -3, y: -2, width: lengthMm + 6, height: widthMm + letter * 1.3 + 4 },
    shapes,
    `${side === 'top' ? 'The upper side, seen from above' : 'The underside, seen through the board from above'}, to scale, gold edge on the left. ${
      pieces.length > 0
        ? `Pieces: ${where.join('; ')}.`
        : `No piece is planned; the chips are ${chips.map(({ role, xMm, lengthMm: l }) => `${role} from ${quantity(xMm, 'mm')} to ${quantity(xMm + l, 'mm')}`).join(', ')}.`
    } Gold edge and notch in the end stay free.${assumed ? ' The chips are the usual ones of such a drive: look where yours are.' : ''}`
  );
}

const LID_WORDS: Record<DrawingOf<'lid'>['how'], string> = {
  screws: 'The lid lifts straight off once its screws are out.',
  slide: 'The cover slides off lengthwise, away from the socket.',
  clips: 'Clips hold the lid along both long sides: they are eased one after the other from one end.',
  lid: 'The lid lifts or folds up.',
  none: 'Nothing is opened: the drive goes in from outside.',
  tray: 'The tray slides out lengthwise, away from the socket.',
  unknown: 'How it opens is not stated.'
};

/** What is seen of how a lid is held, on the lid itself: clips along its sides, screws in its corners. */
function fastenings(how: DrawingOf<'lid'>['how'], [x, y]: Point): Shape[] {
  if (how === 'clips')
    return [20, 45, 70].flatMap((at) => [
      line('mark', [x + at, y], [x + at + 6, y]),
      line('mark', [x + at, y + 28], [x + at + 6, y + 28])
    ]);
  if (how !== 'screws') return [];
  return [7, 83].flatMap((dx) => [5, 23].map((dy) => circle('metal', x + dx, y + dy, 1.8)));
}

/** The case with its lid or tray drawn apart, seen from above, and what shows its direction. */
function lid({ how, marked }: DrawingOf<'lid'>): StepDrawing {
  const slides = how === 'slide' || how === 'tray';
  // Lengthwise it is drawn beside the case, else above it.
  const apart: Point = slides ? [34, 0] : [0, -36];
  const sign = (x: number, y: number) => path('mark', `M${n(x)} ${n(y)}l7 -4v8Z`);
  const half = (x: number, y: number) => line('mark', [x, y], [x + 8, y]);
  const signs = marked
    ? [sign(6, 14), sign(6 + apart[0], 14 + apart[1])]
    : slides
      ? [half(apart[0] - 8, 14), half(apart[0], 14)]
      : [line('mark', [30, 0], [30, 7]), line('mark', [30, -15], [30, -8])];
  const [word, away] = [
    how === 'tray' ? 'tray' : 'lid',
    slides ? arrow([96, 36], [124, 36], 4) : arrow([96, 4], [96, -24], 4)
  ];
  return drawing(
    slides ? { x: -16, y: -8, width: 146, height: 50 } : { x: -16, y: -42, width: 122, height: 78 },
    [
      rect('case', 0, 0, 90, 28),
      rect('metal', -5, 9, 5, 10),
      rect('ghost', apart[0], apart[1], 90, 28),
      ...fastenings(how, apart),
      ...signs,
      away,
      text(-12, slides ? 38 : 34, 'USB end'),
      text(apart[0] + 60, apart[1] + 16, word, 'middle')
    ],
    `Seen from above, not to scale: the case with its USB end on the left, the ${word} drawn apart from it. ${LID_WORDS[how]} ${
      marked
        ? 'A mark on both parts shows which way round they belong: mark beside mark when it is closed.'
        : 'A pencil line is drawn over the joint of both parts before they are taken apart: when it is closed, its halves meet again.'
    }`
  );
}

/** Screws in the order in which they are tightened. */
function crosswise({ lengthMm, widthMm, screws, of }: DrawingOf<'crosswise'>): StepDrawing {
  const margin = lengthMm * 0.06;
  const width = lengthMm + 2 * margin;
  const r = Math.min(width * LETTER_SHARE * 0.95, widthMm / 6);
  const points = screws.map(({ xMm, yMm }) => `${n(xMm)} ${n(yMm)}`);
  const order = screws.map(
    ({ xMm, yMm }, i) => `${i + 1}, ${quantity(xMm, 'mm')} along and ${quantity(yMm, 'mm')} across`
  );
  return drawing(
    { x: -margin, y: -margin, width, height: widthMm + 2 * margin },
    [
      rect('case', 0, 0, lengthMm, widthMm),
      path('move', `M${points.join('L')}`),
      ...screws.map(({ xMm, yMm }) => circle('metal', xMm, yMm, r)),
      ...screws.map(({ xMm, yMm }, i) => text(xMm, yMm + width * LETTER_SHARE * 0.36, String(i + 1), 'middle'))
    ],
    `Seen from the side of the screws: ${of}, ${figure(lengthMm)} × ${quantity(widthMm, 'mm')}. All screws are started first; then they are tightened in this order, each opposite the one before: ${order.join('; ')}, measured from the same corner.`
  );
}

/** A disk on its way onto the connector, seen from above. */
function disk({ lengthMm, widthMm, formFactor }: DrawingOf<'disk'>): StepDrawing {
  const gap = lengthMm * 0.22;
  const middle = widthMm / 2;
  const width = gap + lengthMm + 30;
  const head = width * LETTER_SHARE * 0.8;
  return drawing(
    { x: -22, y: -8, width, height: widthMm + 16 },
    [
      path('case', `M${n(gap + lengthMm + 5)} -5H-16V${n(widthMm + 5)}H${n(gap + lengthMm + 5)}`),
      path(
        'metal',
        `M-14 ${n(middle - 17)}h8v34h-8M-6 ${n(middle - 16)}h4v10h-1.6v-8.4h-2.4M-6 ${n(middle - 3)}h4v19h-1.6v-17.4h-2.4`
      ),
      rect('board', gap, 0, lengthMm, widthMm),
      rect('gold', gap, middle - 17, 3, 34),
      arrow([gap - 1, middle + 24], [1, middle + 24], head),
      text(gap + lengthMm / 2, middle, `${formFactor === '2.5in' ? '2.5' : '3.5'}-inch drive`, 'middle'),
      text(gap + lengthMm / 2, middle + head * 2, `${lengthMm} × ${widthMm} mm`, 'middle')
    ],
    `Seen from above, to scale: a drive of ${figure(lengthMm)} × ${quantity(widthMm, 'mm')}. The connector of the bay is on the left, with two parts that are each shaped like a flat L, a short one for data and a long one for power. The drive slides level from the right until its connector is all the way on.`
  );
}

const DRAW: { [K in Drawing['kind']]: (drawing: DrawingOf<K>) => StepDrawing } = {
  insertion,
  key,
  retainer,
  pads,
  lid,
  crosswise,
  disk
};

/** Works out the shapes of a drawing, in mm, and says the same in words. */
export function stepDrawing(drawing: Drawing): StepDrawing {
  return (DRAW[drawing.kind] as (drawing: Drawing) => StepDrawing)(drawing);
}
