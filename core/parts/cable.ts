import { z } from 'zod';
import { id, measure, name, yesNo } from './form/field.ts';
import { linkModes, plug } from './link-mode.ts';

export const cableSchema = z.strictObject({
  id: id().optional(),
  kind: z.literal('cable'),
  name: name(),
  ends: z.tuple([plug('One end'), plug('Other end')]).meta({ title: 'Ends', first: true }),
  modes: linkModes('Carries', {
    first: true,
    description: 'what is printed on it is enough; slower modes follow by themselves'
  }),
  lengthM: measure('Length', 'm', 0.03, 50, { first: true }).optional(),
  active: yesNo('Active (chips in the plugs)').optional(),
  certified: yesNo('Certified for its length').optional(),
  yLead: yesNo('Second plug for power (Y lead)').optional()
});

export type Cable = z.infer<typeof cableSchema>;
