import { z } from 'zod';

const mm = z.number();
const at = z.strictObject({ xMm: mm, yMm: mm });

/** One piece of a pad on the board, x from the gold edge, y from the left edge, mm. */
const piece = z.strictObject({
  letter: z.string(),
  label: z.string(),
  xMm: mm,
  yMm: mm,
  lengthMm: mm,
  widthMm: mm,
  layersMm: z.array(mm)
});

/** What a step draws, as figures: the shapes are worked out where they are drawn. */
export const drawingSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('insertion'),
    lengthMm: mm,
    seatMm: mm,
    angleDeg: z.strictObject({ low: mm, typical: mm, high: mm })
  }),
  z.strictObject({
    kind: z.literal('key'),
    notches: z.array(z.enum(['M', 'B'])),
    keys: z.array(z.enum(['M', 'B'])),
    assumed: z.boolean()
  }),
  z.strictObject({
    kind: z.literal('retainer'),
    how: z.enum(['screw', 'screw-from-below', 'turning', 'rubber', 'tool-less'])
  }),
  z.strictObject({
    kind: z.literal('pads'),
    lengthMm: mm,
    widthMm: mm,
    side: z.enum(['top', 'bottom']),
    pieces: z.array(piece),
    chips: z.array(z.strictObject({ ...at.shape, role: z.string(), lengthMm: mm, widthMm: mm })),
    assumed: z.boolean()
  }),
  z.strictObject({
    kind: z.literal('lid'),
    how: z.enum(['screws', 'slide', 'clips', 'lid', 'none', 'tray', 'unknown']),
    marked: z.boolean()
  }),
  z.strictObject({ kind: z.literal('crosswise'), lengthMm: mm, widthMm: mm, screws: z.array(at), of: z.string() }),
  z.strictObject({ kind: z.literal('disk'), lengthMm: mm, widthMm: mm, formFactor: z.enum(['2.5in', '3.5in']) })
]);
export type Drawing = z.infer<typeof drawingSchema>;
export type DrawingOf<K extends Drawing['kind']> = Extract<Drawing, { kind: K }>;
