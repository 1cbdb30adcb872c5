import { operation } from '../operation';
import { CRATE, inCrate } from './common';
import { z } from 'zod';
import { listEvents } from '../../repositories/events';

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
    summary: 'The log of a crate, newest first.',
    params: inCrate,
    query: z.object({ limit: z.coerce.number().int().min(1).max(1000).default(200) }),
    response: z.array(event),
    handle: ({ db, params, query }) => listEvents(db, { ...params, ...query })
  })
};
