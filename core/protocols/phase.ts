import { z } from 'zod';

/** What a stretch of a protocol does. */
export const PROTOCOL_WORKS = [
  'write',
  'read',
  'rewrite',
  'random-read',
  'random-write',
  'copy-in',
  'copy-out',
  'internal-write',
  'internal-read',
  'task',
  'rest'
] as const;

/** One stretch of a protocol: so much, or so long. */
export const phaseSchema = z.strictObject({
  work: z.enum(PROTOCOL_WORKS),
  label: z.string().max(120),
  GB: z.number().positive().optional(),
  seconds: z.number().min(0).optional(),
  files: z.number().int().min(1).optional(),
  round: z.number().int().min(1).optional()
});
export type ProtocolPhase = z.infer<typeof phaseSchema>;
