import { z } from 'zod';
import { id, text } from '../parts/field.ts';

/** How far a build is, in the order of the work. */
export const STAGES = ['planned', 'bought', 'assembled', 'formatted', 'benched', 'in service', 'retired'] as const;
export type BuildStage = (typeof STAGES)[number];

/** What was chosen: models of the crate, and a port of the host. */
export const choiceSchema = z.strictObject({
  hostId: id(),
  portId: z.string().min(1).max(40),
  cableId: id().optional(),
  enclosureId: id(),
  driveId: id(),
  jobId: id().optional()
});
export type Choice = z.infer<typeof choiceSchema>;

export const buildInputSchema = z.strictObject({
  name: text('Name', 120),
  stage: z.enum(STAGES).default('planned'),
  choice: choiceSchema
});
export type BuildInput = z.input<typeof buildInputSchema>;
