import { z } from 'zod';
import { id, measure } from '../parts/form/field.ts';

/** What a person may set of a protocol before it starts; each protocol uses some of them. */
export const settingsSchema = z.strictObject({
  GB: measure('Size', 'GB', 0.01, 200_000).optional(),
  files: z.number().int().min(1).max(1e9).optional(),
  rounds: z.number().int().min(1).max(200).optional(),
  seconds: z.number().min(10).max(259_200).optional(),
  restS: z.number().min(0).max(86_400).optional(),
  fillPercent: z.number().min(0).max(99).optional(),
  /** How long one's own program takes on the internal disk, s. */
  taskS: z.number().min(1).max(1e6).optional(),
  otherBuildId: id().optional()
});
export type Settings = z.infer<typeof settingsSchema>;
