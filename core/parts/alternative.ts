import { z } from 'zod';
import { choice, id, measure, name } from './form/field.ts';

export const alternativeSchema = z.strictObject({
  id: id().optional(),
  kind: z.literal('alternative'),
  name: name(),
  sort: choice('Sort', ['internal-upgrade', 'portable', 'flash-stick', 'memory-card', 'other'], {
    first: true,
    labels: {
      'internal-upgrade': 'larger internal disk',
      portable: 'ready-made portable drive',
      'flash-stick': 'flash stick',
      'memory-card': 'memory card',
      other: 'other'
    }
  }),
  capacityTB: measure('Capacity', 'TB', 0.001, 200, { first: true }),
  baseCapacityTB: measure('Capacity without the upgrade', 'TB', 0.001, 200).optional(),
  readMBps: measure('Sequential read', 'MB/s', 1, 30_000).optional(),
  writeMBps: measure('Sequential write', 'MB/s', 1, 30_000).optional()
});

export type Alternative = z.infer<typeof alternativeSchema>;
