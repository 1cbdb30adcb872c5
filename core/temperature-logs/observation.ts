import { z } from 'zod';
import { erasedSchema } from '../erase/sanitise.ts';
import { formatRecordSchema, onItSchema } from '../format/record.ts';
import { temperatureLogSchema } from './log.ts';

/** What a pad showed after a dry fit: the case was closed on it with its liners on, and opened again. */
export const IMPRINTS = ['even', 'uneven', 'none'] as const;
export type Imprint = (typeof IMPRINTS)[number];

export const imprintCheckSchema = z.strictObject({
  chips: z
    .array(
      z.strictObject({
        component: z.number().int().min(0).max(60),
        role: z.string().max(20),
        side: z.enum(['top', 'bottom']),
        padsMm: z.array(z.number().min(0.1).max(20)).max(2),
        onChip: z.enum(IMPRINTS).describe('the face towards the chip'),
        onCase: z.enum(IMPRINTS).describe('the face towards lid or floor')
      })
    )
    .min(1)
    .max(60),
  note: z.string().max(500).optional()
});
export type ImprintCheck = z.infer<typeof imprintCheckSchema>;

/** What was seen on a build by hand, on a day. */
export const observationInputSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('imprint'), date: z.iso.date(), seen: imprintCheckSchema }),
  z.strictObject({ kind: z.literal('temperature'), date: z.iso.date(), seen: temperatureLogSchema }),
  z.strictObject({ kind: z.literal('formatted'), date: z.iso.date(), seen: formatRecordSchema }),
  z.strictObject({ kind: z.literal('on-it'), date: z.iso.date(), seen: onItSchema }),
  z.strictObject({ kind: z.literal('erased'), date: z.iso.date(), seen: erasedSchema })
]);
export type ObservationInput = z.infer<typeof observationInputSchema>;

/**
 * Chips whose pad did not touch on one of its faces.
 * @example untouchedBy({ chips: [{ component: 2, onChip: 'none', onCase: 'even' }] }) // [2]
 */
export const untouchedBy = (check: ImprintCheck): number[] =>
  check.chips.filter(({ onChip, onCase }) => onChip === 'none' || onCase === 'none').map(({ component }) => component);
