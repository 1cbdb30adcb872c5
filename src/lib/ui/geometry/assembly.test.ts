import { describe, expect, it } from 'vitest';
import { drawingSchema, type Drawing } from '#core/sheets/drawing';
import { stepDrawing, type Shape } from './assembly';

const paths = (shapes: readonly Shape[], role: string) =>
  shapes.flatMap((shape) => (shape.as === 'path' && shape.role === role ? [shape.d] : []));
const texts = (shapes: readonly Shape[]) => shapes.flatMap((shape) => (shape.as === 'text' ? [shape.text] : []));
const insertion = (lengthMm: number): Drawing => ({
  kind: 'insertion',
  lengthMm,
  seatMm: 4,
  angleDeg: { low: 15, typical: 20, high: 30 }
});
const key = (notches: ('M' | 'B')[], keys: ('M' | 'B')[]): Drawing => ({ kind: 'key', notches, keys, assumed: false });
const ALL: Drawing[] = [
  ...[30, 42, 60, 80, 110].map(insertion),
  key(['M'], ['M']),
  key(['B', 'M'], ['M']),
  key(['B'], ['M']),
  ...(['screw', 'screw-from-below', 'turning', 'rubber', 'tool-less'] as const).map((how): Drawing => ({
    kind: 'retainer',
    how
  })),
  ...(['screws', 'slide', 'clips', 'lid', 'none', 'tray', 'unknown'] as const).flatMap((how): Drawing[] => [
    { kind: 'lid', how, marked: true },
    { kind: 'lid', how, marked: false }
  ]),
  {
    kind: 'crosswise',
    lengthMm: 100,
    widthMm: 70,
    of: 'the lid',
    screws: [
      { xMm: 4, yMm: 4 },
      { xMm: 96, yMm: 66 }
    ]
  },
  { kind: 'disk', lengthMm: 147, widthMm: 101.6, formFactor: '3.5in' },
  {
    kind: 'pads',
    lengthMm: 80,
    widthMm: 22,
    side: 'top',
    assumed: true,
    chips: [{ role: 'controller', xMm: 10, yMm: 5, lengthMm: 12, widthMm: 12 }],
    pieces: [{ letter: 'A', label: 'controller', xMm: 10, yMm: 5, lengthMm: 12, widthMm: 12, layersMm: [1, 0.5] }]
  }
];

describe('every drawing of a step', () => {
  it.each(ALL.map((drawing) => [JSON.stringify(drawing).slice(0, 60), drawing] as const))('%s', (_name, drawing) => {
    expect(drawingSchema.safeParse(drawing).success).toBe(true);
    const { view, shapes, words, letterMm } = stepDrawing(drawing);
    // No number went astray, and everything lies on the paper.
    expect(JSON.stringify(shapes)).not.toMatch(/NaN|null|undefined|Infinity/);
    for (const shape of shapes) {
      if (shape.as !== 'text') continue;
      expect(shape.x).toBeGreaterThanOrEqual(view.x);
      expect(shape.x).toBeLessThanOrEqual(view.x + view.width);
      expect(shape.y).toBeGreaterThanOrEqual(view.y);
      expect(shape.y).toBeLessThanOrEqual(view.y + view.height);
    }
    // On a phone it is some 350 px wide: letters of at least 12 px there.
    expect((letterMm / view.width) * 350).toBeGreaterThanOrEqual(12);
    // Words that somebody can work from who sees nothing of it.
    expect(words.length).toBeGreaterThan(80);
    expect(words).not.toMatch(/undefined|NaN/);
  });
});

describe('the board that goes into its socket', () => {
  it('is drawn to scale: of 80 mm, 76 stand free, and their end is 76 sin 20° = 26 mm up', () => {
    const { shapes, words } = stepDrawing(insertion(80));
    const [board] = paths(shapes, 'board');
    // 76 cos 20° = 71.42, 76 sin 20° = 25.99
    expect(board).toContain('71.42 -25.99');
    expect(words).toContain('26 mm above its place');
    expect(texts(shapes)).toContain('80 mm');
  });
});

describe('notch and key', () => {
  it('meet where the drive has the key of the socket, and are said not to where it has another', () => {
    const fits = stepDrawing(key(['B', 'M'], ['M']));
    expect(paths(fits.shapes, 'right')).toHaveLength(1);
    expect(fits.words).toContain('They meet');
    const not = stepDrawing(key(['B'], ['M']));
    expect(paths(not.shapes, 'wrong')).toHaveLength(1);
    expect(not.words).toContain('They do not meet');
  });
  it('lie where the standard has them: key M at (38 - 62.5) x 0.25 = -6.125 mm, 1.2 mm wide', () => {
    const { shapes } = stepDrawing(key(['M'], ['M']));
    // -6.125 - 0.6 = -6.725, drawn as -6.72 or -6.73; its other side -5.525
    expect(paths(shapes, 'board')[0]).toMatch(/H-6\.7[23]V-3\.5H-5\.5[23]V0/);
  });
});

describe('the retainer', () => {
  it('says in its notch and not under it, where it has one', () => {
    for (const how of ['turning', 'rubber', 'tool-less'] as const)
      expect(texts(stepDrawing({ kind: 'retainer', how }).shapes)).toEqual(['IN the notch', 'under it']);
    expect(texts(stepDrawing({ kind: 'retainer', how: 'screw' }).shapes)).not.toContain('IN the notch');
  });
});

describe('screws', () => {
  it('are numbered in the order in which they are tightened, with a line from each to the next', () => {
    const screws = [
      { xMm: 14, yMm: 4.07 },
      { xMm: 90.6, yMm: 65.79 },
      { xMm: 90.6, yMm: 4.07 },
      { xMm: 14, yMm: 65.79 }
    ];
    const { shapes } = stepDrawing({ kind: 'crosswise', lengthMm: 100.2, widthMm: 69.85, screws, of: 'a drive' });
    expect(texts(shapes)).toEqual(['1', '2', '3', '4']);
    expect(paths(shapes, 'move')).toEqual(['M14 4.07L90.6 65.79L90.6 4.07L14 65.79']);
  });
});

describe('pads', () => {
  it('lie at the places of the cut plan, with their thickness on them', () => {
    const pads = ALL.at(-1)!;
    const { shapes, words } = stepDrawing(pads);
    expect(paths(shapes, 'pad')).toEqual(['M10 5h12v12h-12Z']);
    expect(texts(shapes)).toContain('A 1+0.5 mm');
    expect(words).toMatch(/12 × 12\u202fmm, from 10\u202fmm behind the gold edge and 5\u202fmm from the left edge/);
    expect(words).toContain('look where yours are');
  });
});
