import { operation } from '../operation';
import { CRATE, inCrate, partAnswer, partQuery } from './common';
import { z } from 'zod';
import { eventsAfter } from '../../repositories/events';

const event = z.strictObject({
  seq: z.number(),
  at: z.string(),
  by: z.string(),
  kind: z.string(),
  subjectTable: z.string(),
  subjectId: z.string(),
  message: z.string()
});

/** The operations at `…/events`, by their names in the OpenAPI document. */
export const eventOperations = {
  listEventsOf: operation({
    method: 'get',
    path: `${CRATE}/events`,
    summary: 'The log of a crate, the last entry first.',
    params: inCrate,
    query: z.object({ ...partQuery, limit: partQuery.limit.default(200) }),
    response: z.array(event),
    inParts: true,
    handle: async ({ db, params, query, request }) =>
      partAnswer(request, await eventsAfter(db, { ...params, ...query }))
  })
};
