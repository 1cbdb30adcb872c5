import { z } from 'zod';
import { id, isoDate, text } from './form/field.ts';

export const UNIT_STATES = ['wanted', 'ordered', 'owned', 'retired'] as const;
export type UnitState = (typeof UNIT_STATES)[number];

/** One physical thing of a model. */
export const unitSchema = z.strictObject({
  id: id().optional(),
  modelId: id(),
  // Its page has it in its address, in which dots alone mean another page.
  tag: text('Tag', 20)
    .refine((tag) => tag !== '.' && tag !== '..', 'cannot be dots alone')
    .meta({ title: 'Tag' }),
  serial: text('Serial number', 80).optional(),
  caseSerial: text('Serial number, as the case shows it', 80).optional(),
  capacityBytes: z.number().int().min(1).max(2e14).meta({ title: 'Exact capacity', unit: 'B' }).optional(),
  firmware: text('Firmware', 80).optional(),
  state: z.enum(UNIT_STATES).meta({ title: 'State' }),
  location: text('Where', 120).optional(),
  custodian: text('Who has it', 120).optional(),
  dueBack: isoDate().meta({ title: 'Due back' }).optional(),
  /** The build that it is in. */
  buildId: id().meta({ title: 'In build' }).optional(),
  resale: z
    .number()
    .min(0)
    .max(1e6)
    .meta({ title: 'Would sell for', description: 'in the crate’s currency' })
    .optional(),
  notes: z.string().max(2000).meta({ title: 'Notes' }).optional()
});

export type Unit = z.infer<typeof unitSchema>;
