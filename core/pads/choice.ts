import { z } from 'zod';

const key = () => z.string().min(1).max(160);
const component = () => z.number().int().min(0).max(60).describe('which chip of the board, counted from 0');

/** Pads that a person settled on, and what an imprint check told about the true gaps. */
export const stackChoiceSchema = z.strictObject({
  pieces: z
    .array(
      z.strictObject({
        component: component(),
        layers: z.array(key()).max(2).describe('none, one or two pads: the id of a pad at hand, or box:name')
      })
    )
    .max(60),
  gaps: z
    .array(
      z.strictObject({
        component: component(),
        atLeastMm: z.number().min(0.05).max(60),
        measured: z
          .boolean()
          .optional()
          .describe('measured over the chip: then it is the gap, whatever the parts state')
      })
    )
    .max(60)
    .optional()
    .describe('gaps that somebody measured, or that turned out larger than the drawing says: the pad left no imprint')
});
export type StackChoice = z.infer<typeof stackChoiceSchema>;
