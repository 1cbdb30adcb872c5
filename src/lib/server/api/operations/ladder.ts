import { capacityLadder, ladderReportSchema, ladderRequestSchema } from '#core/format/ladder';
import { operation } from '../operation';

/** The operations at `…/ladder`, by their names in the OpenAPI document. */
export const ladderOperations = {
  capacityLadder: operation({
    method: 'post',
    path: '/api/ladder',
    summary:
      'What is left of a drive from its label to what is free for files, and what a difference to what a system reports points to.',
    body: ladderRequestSchema,
    response: ladderReportSchema,
    handle: ({ body }) => Promise.resolve(capacityLadder(body))
  })
};
