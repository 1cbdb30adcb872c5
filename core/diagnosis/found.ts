import { z } from 'zod';
import { triedAnswerSchema, symptomSchema } from './asking.ts';

/** Most tests that are kept with one run. */
const MOST_TRIED = 20;

/** What was found out about a run after it was measured, as it is kept with it. */
export const foundSchema = z.strictObject({
  tried: z
    .array(triedAnswerSchema)
    .max(MOST_TRIED)
    .refine((tried) => new Set(tried.map(({ test }) => test)).size === tried.length, 'names one test twice')
    .default([]),
  negotiatedGbps: z.number().min(0.001).max(200).optional().describe('the speed that the system shows'),
  symptoms: z.array(symptomSchema).max(10).optional(),
  log: z.string().max(100_000).optional().describe('lines of the system log that say something')
});
export type FoundLater = z.infer<typeof foundSchema>;
