import { z } from 'zod';
import { id, isAhead } from '#core/parts/form/field';
import { refuse } from '../../problems/problem';
import * as crates from '../../repositories/crates';
import type { PartOf } from '../../repositories/keyset';

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

/** What a list is asked for in parts with: all of it comes where neither is given. */
export const partQuery = {
  limit: z.coerce.number().int().min(1).max(1000).optional().describe('so many at most'),
  after: z.string().max(500).optional().describe('a place in the list: that of the next part, from the header `link`')
};

/**
 * Part of a list as an answer: the rows, with `x-total-count` and, where there is a rest, its address in `link` (RFC 8288).
 * @param request what was asked: the rest is asked for in the same way
 */
export function partAnswer<T>(request: Request, { rows, total, next }: PartOf<T>): Response {
  const headers: Record<string, string> = { 'x-total-count': String(total) };
  if (next !== undefined) {
    const { pathname, searchParams } = new URL(request.url);
    searchParams.set('after', next);
    headers.link = `<${pathname}?${searchParams}>; rel="next"`;
  }
  return Response.json(rows, { headers });
}

/** Several rows of one table, each with the version that its reader saw. */
export const severalRows = z
  .array(z.strictObject({ id: id(), version }))
  .min(1)
  .max(500)
  .refine((list) => new Set(list.map((item) => item.id)).size === list.length, 'must not name anything twice');

/** Whether a change of many rows changes anything. */
export const setsSomething = (set: object): boolean => Object.keys(set).length > 0;

/** Refuses a date that lies in the future. A day is judged where the reader sits: east of here it may be tomorrow already. */
export const refuseAhead = (date: string, at: string): void =>
  refuse(isAhead(date, at.slice(0, 10)) ? [{ path: 'date', message: 'lies in the future' }] : []);

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

/** What a run that was begun, or goes on, answers with. */
export const rigBegun = z.strictObject({ runId: z.string(), taskId: z.string() });
export const rigSpeed = z.number().min(1).max(100_000).describe('times faster than life');
