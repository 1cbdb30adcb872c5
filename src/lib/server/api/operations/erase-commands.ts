import { z } from 'zod';
import { eraseReportSchema, eraseRequestSchema } from '#core/erase/unlock';
import { LONGEST_LISTING } from '#core/listing/read';
import { id } from '#core/parts/form/field';
import { eraseChecked } from '../../planning/formatting';
import { operation } from '../operation';

/** The operations at `…/erase-commands`, by their names in the OpenAPI document. */
export const eraseCommandOperations = {
  eraseCommands: operation({
    method: 'post',
    path: '/api/erase-commands',
    summary:
      'Commands that erase one device of a listing and make it anew, once its identity is typed; until then they name no device. Nothing of it is kept.',
    bodyLimit: 4 * LONGEST_LISTING,
    body: eraseRequestSchema.safeExtend({
      buildId: id().optional(),
      buildVersion: z.number().int().min(1).optional().describe('that the listing was matched with')
    }),
    response: eraseReportSchema,
    handle: ({ db, body, at }) => eraseChecked(db, body, at)
  })
};
