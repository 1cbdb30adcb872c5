import { z } from 'zod';
import { id, text } from '../parts/form/field.ts';
import { stackChoiceSchema } from '../pads/choice.ts';
import { STAGES } from './stages.ts';

/** What was chosen: models of the crate, and a port of the host. */
export const choiceSchema = z.strictObject({
  hostId: id(),
  portId: z.string().min(1).max(40),
  cableId: id().optional(),
  enclosureId: id(),
  driveId: id(),
  jobId: id().optional(),
  /** The pads that were settled on in this build; left out where the best of what is at hand is taken. */
  stack: stackChoiceSchema.optional(),
  /** How Windows treats the drive, where somebody looked; left out, the house rule or its default holds. */
  writeCache: z.enum(['performance', 'quick-removal']).optional()
});
export type Choice = z.infer<typeof choiceSchema>;

export const buildInputSchema = z.strictObject({
  name: text('Name', 120),
  stage: z.enum(STAGES).default('planned'),
  choice: choiceSchema
});
export type BuildInput = z.input<typeof buildInputSchema>;
