import { plan } from '#core/plan/plan';
import { operation } from '../operation';
import { planRequestSchema, resolvePlanRequest } from '../plan-request';
import { planReportSchema } from '#core/plan/report';

/** The operations at `…/plan`, by their names in the OpenAPI document. */
export const planOperations = {
  planOne: operation({
    method: 'post',
    path: '/api/plan',
    summary: 'Judge one build. Parts in full, or { id } of a stored part together with crateId.',
    body: planRequestSchema,
    response: planReportSchema,
    handle: async ({ db, body }) => plan(await resolvePlanRequest(db, body))
  })
};
