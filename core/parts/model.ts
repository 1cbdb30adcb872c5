import { z } from 'zod';
import { alternativeSchema } from './alternative.ts';
import { cableSchema } from './cable.ts';
import { driveSchema } from './drive.ts';
import { enclosureSchema } from './enclosure.ts';
import { hostSchema } from './host.ts';
import { padSchema } from './pad.ts';

/** The kinds of part; a new kind is one schema and one row here. */
export const MODEL_SCHEMAS = {
  drive: driveSchema,
  enclosure: enclosureSchema,
  cable: cableSchema,
  pad: padSchema,
  host: hostSchema,
  alternative: alternativeSchema
} as const;

export const modelSchema = z.discriminatedUnion('kind', [
  driveSchema,
  enclosureSchema,
  cableSchema,
  padSchema,
  hostSchema,
  alternativeSchema
]);

export type Model = z.infer<typeof modelSchema>;
