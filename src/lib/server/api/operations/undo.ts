import { undo, type InTheWay } from '../../db/undo';
import { operation } from '../operation';
import { CRATE, inCrate } from './common';
import { z } from 'zod';
import { id } from '#core/parts/form/field';
import { Problem } from '../../problems/problem';
import type { Knex } from 'knex';
import { pathOf } from '../../repositories/search';

/** A refusal of an undo whose things in the way have the address of the page that shows them. */
async function withPaths(db: Knex, crateId: string, problem: Problem): Promise<Problem> {
  const things = (problem.details.inTheWay ?? []) as InTheWay[];
  if (things.length === 0) return problem;
  const inTheWay = await Promise.all(
    things.map(async (thing) => ({ ...thing, path: await pathOf(db, crateId, thing) }))
  );
  return new Problem(problem.code, problem.message, problem.fields, { ...problem.details, inTheWay });
}

/** The operations at `…/undo`, by their names in the OpenAPI document. */
export const undoOperations = {
  undoChange: operation({
    method: 'post',
    path: `${CRATE}/undo`,
    summary: 'Take a change back. Fails with 409 when its rows were changed again since.',
    params: inCrate,
    hidden: true,
    body: z.strictObject({ group: id() }),
    response: z.strictObject({
      group: z.string(),
      rows: z.array(z.strictObject({ table: z.string(), id: z.string() }))
    }),
    handle: async ({ db, params, body, by, at }) => {
      try {
        return await undo(db, { ...params, ...body, by, at });
      } catch (error) {
        throw error instanceof Problem ? await withPaths(db, params.crateId, error) : error;
      }
    }
  })
};
