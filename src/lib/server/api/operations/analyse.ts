import type { z } from 'zod';
import { analyseInputSchema, analysisSchema } from '#core/analysis/report';
import { inWorker } from '../../workers/run';
import { operation } from '../operation';

/** A series of a million samples and several columns, as JSON. */
const SERIES_BODY = 80_000_000;

/** The operations at `…/analyse`, by their names in the OpenAPI document. */
export const analyseOperations = {
  analyseSeries: operation({
    method: 'post',
    path: '/api/analyse',
    summary:
      'Read a series: its levels and where they change, cache or throttle, dips, stops, weak places of a disk. Computed in a thread of its own.',
    body: analyseInputSchema,
    bodyLimit: SERIES_BODY,
    response: analysisSchema,
    handle: ({ body, request }) =>
      inWorker('analyse', body as z.output<typeof analyseInputSchema>, { signal: request.signal })
  })
};
