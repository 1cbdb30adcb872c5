import { search } from '../../repositories/search';
import { operation } from '../operation';
import { CRATE, inCrate } from './common';
import { z } from 'zod';

/** The operations at `…/search`, by their names in the OpenAPI document. */
export const searchOperations = {
  findEverything: operation({
    method: 'get',
    path: `${CRATE}/search`,
    summary: 'Find words in parts, items, builds, jobs, prices and known combinations.',
    params: inCrate,
    query: z.object({ q: z.string().min(1).max(200) }),
    response: z.array(
      z.strictObject({
        sort: z.enum(['part', 'unit', 'build', 'job', 'quote', 'pair']),
        title: z.string(),
        detail: z.string(),
        path: z.string().describe('below the page of the crate; builds below the root')
      })
    ),
    handle: ({ db, params, query }) => search(db, { ...params, words: query.q })
  })
};
