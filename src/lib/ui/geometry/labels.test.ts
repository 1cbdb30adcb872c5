import { describe, expect, it } from 'vitest';
import { seeded } from '#core/quantities/random';
import { labelBox, overlap, placeLabels, type NamedPoint } from './labels';

const SIZE = { width: 560, height: 190 };
const over = (points: readonly NamedPoint[], drawn: readonly { x: number; y: number }[] = []) => {
  const boxes = placeLabels(points, drawn, SIZE).map((place, i) => labelBox(points[i]!, place));
  return boxes.flatMap((a, i) => boxes.slice(i + 1).map((b) => overlap(a, b))).reduce((sum, area) => sum + area, 0);
};

describe('names beside their points', () => {
  it('stand at the right where there is room, at the left near the edge', () => {
    const [a, b] = placeLabels(
      [
        { x: 100, y: 50, text: 'Pebble' },
        { x: 550, y: 150, text: 'Moss' }
      ],
      [],
      SIZE
    );
    expect([a, b]).toEqual(['middle right', 'middle left']);
  });
  it('two that lie close do not lie over each other', () => {
    // as in the demo: a desk disk and a stick, 100 px apart and on almost one height, with names of 120 px
    const close = [
      { x: 37, y: 152, text: 'Basalt desk disk 8TB' },
      { x: 143, y: 158, text: 'Flint stick 1TB' },
      { x: 217, y: 173, text: 'Mica card 512GB' }
    ];
    expect(over(close)).toBe(0);
  });
  it('a line is left clear where another place does', () => {
    const line = Array.from({ length: 40 }, (_, i) => ({ x: 60 + i * 4, y: 100 }));
    const [place] = placeLabels([{ x: 50, y: 100, text: 'A name' }], line, SIZE);
    expect(place).not.toBe('middle right');
  });
  it('of five anywhere in the plot none lies over another', () => {
    for (let seed = 1; seed <= 200; seed++) {
      const random = seeded(seed);
      const points = Array.from({ length: 5 }, (_, i) => ({
        x: 20 + random() * 520,
        y: 10 + random() * 170,
        text: `Ready-made ${i}`
      }));
      expect(over(points), `seed ${seed}`).toBe(0);
    }
  });
  it('nothing to name is no fault', () => expect(placeLabels([], [], SIZE)).toEqual([]));
});
