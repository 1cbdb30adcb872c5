import { z } from 'zod';
import { id } from '#core/parts/form/field';
import * as crates from '../../repositories/crates';

export const inCrate = z.object({ crateId: id() });

export const inCrateWithId = z.object({ crateId: id(), id: id() });

export const inBuild = z.object({ crateId: id(), buildId: id() });

export const inBuildWithId = z.object({ crateId: id(), buildId: id(), id: id() });

export const version = z.number().int().min(1);

export const versioned = z.strictObject({ version });

export const changed = z.strictObject({
  id: z.string(),
  version: z.number(),
  group: z.string().describe('what undo takes')
});

/** A crate that is not there is a 404 before anything else is looked at. */
export const here = (db: Parameters<typeof crates.getCrate>[0], crateId: string) =>
  crates.getCrate(db, { id: crateId });

export const CRATE = '/api/crates/{crateId}';

/** A long piece of work as it stands. */
export const task = z.strictObject({
  id: z.string(),
  title: z.string(),
  state: z.enum(['running', 'done', 'failed', 'cancelled']),
  done: z.number(),
  total: z.number(),
  step: z.string(),
  result: z.unknown().optional(),
  error: z
    .strictObject({
      code: z.string(),
      message: z.string(),
      fields: z.array(z.strictObject({ path: z.string(), message: z.string() })).readonly()
    })
    .optional()
});
