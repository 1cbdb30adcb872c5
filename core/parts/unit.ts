import { z } from 'zod';
import { id, text } from './field.ts';

/** One physical thing of a model. */
export const unitSchema = z.strictObject({
  id: id().optional(),
  modelId: id(),
  tag: text('Tag', 20),
  serial: text('Serial number', 80).optional(),
  capacityBytes: z.number().int().min(1).max(2e14).meta({ title: 'Capacity in bytes' }).optional(),
  firmware: text('Firmware', 80).optional(),
  state: z.enum(['wanted', 'ordered', 'owned', 'retired']).meta({ title: 'State' }),
  location: text('Where', 120).optional(),
  custodian: text('Who has it', 120).optional(),
  notes: z.string().max(2000).meta({ title: 'Notes' }).optional()
});

export type Unit = z.infer<typeof unitSchema>;
