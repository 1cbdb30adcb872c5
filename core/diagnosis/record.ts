import { z } from 'zod';
import { causeSchema, symptomSchema } from './asking.ts';
import { troubleAnswersSchema } from './trouble.ts';

/** A search for a cause as it is kept with a build: what was the matter, the path that was taken, and where it ended. */
export const troubleRecordSchema = z.strictObject({
  symptom: symptomSchema,
  answers: troubleAnswersSchema,
  path: z
    .array(z.strictObject({ test: z.string().max(40), text: z.string().max(600), answer: z.string().max(300) }))
    .max(12),
  cause: causeSchema.nullable().describe('null where it could not be told'),
  says: z.string().max(600).describe('what was the matter; empty where it could not be told'),
  because: z.string().max(3000)
});
export type TroubleRecord = z.infer<typeof troubleRecordSchema>;
