import { z } from 'zod';
import { id, measure, name } from './form/field.ts';

export const padSchema = z.strictObject({
  id: id().optional(),
  kind: z.literal('pad'),
  name: name(),
  thicknessMm: measure('Thickness', 'mm', 0.1, 20, { first: true }),
  widthMm: measure('Width', 'mm', 1, 1000, { first: true }),
  lengthMm: measure('Length', 'mm', 1, 1000, { first: true }),
  conductivityWmK: measure('Conductivity, as printed', 'W/mK', 0.1, 100).optional(),
  shore00: z.number().min(1).max(100).meta({ title: 'Hardness, Shore 00' }).optional(),
  quantity: z.number().int().min(0).max(10_000).meta({ title: 'Pieces' }).optional()
});

export type Pad = z.infer<typeof padSchema>;
