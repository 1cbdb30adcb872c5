import { operation } from '../operation';
import { z } from 'zod';

/** The operations at `…/health`, by their names in the OpenAPI document. */
export const healthOperations = {
  health: operation({
    method: 'get',
    path: '/api/health',
    summary: 'Whether application and database answer.',
    response: z.strictObject({ database: z.literal('up') }),
    handle: async ({ db }) => {
      await db.raw('select 1');
      return { database: 'up' as const };
    }
  })
};
