import { z } from 'zod';
import { findBuilds, namedBuildSchema } from '../../repositories/builds';
import { operation } from '../operation';
import { CRATE, inCrate } from './common';

/** The operations at `…/build-names`, by their names in the OpenAPI document. */
export const buildNamesOperations = {
  findBuilds: operation({
    method: 'get',
    path: `${CRATE}/build-names`,
    summary: 'Find builds by words in their tags and names, by their tags.',
    params: inCrate,
    query: z.object({
      find: z.string().max(200).optional(),
      limit: z.coerce.number().int().min(1).max(200).optional()
    }),
    response: z.strictObject({ total: z.number().describe('of all that match'), builds: z.array(namedBuildSchema) }),
    handle: ({ db, params, query }) => findBuilds(db, { ...params, find: query.find, limit: query.limit ?? 50 })
  })
};
