import { operation } from '../operation';
import {
  rankInputSchema,
  rankReportSchema,
  weightsSchema,
  filtersSchema,
  MOST_ROWS
} from '#core/compare/ranking/request';
import { refuse } from '../../problems/problem';
import { inWorker } from '../../workers/run';
import { CRATE, inCrate, task } from './common';
import { z } from 'zod';
import { id } from '#core/parts/form/field';
import { rankInputFor } from '../../planning/ranking';
import { startTask } from '../../tasks/tasks';

/** Hundreds of parts in full, with their quotes. */
const PARTS_LIMIT = 20_000_000;

/** Ports times cables times enclosures times drives: about a minute's work. */
const MOST_COMBINATIONS = 500_000_000;

/** A ranking that no page waits for any more ends after so long. */
const PATIENCE_MS = 20_000;

const ids = z.array(id()).max(500).optional();

/** The operations at `…/rank`, by their names in the OpenAPI document. */
export const rankOperations = {
  rankParts: operation({
    method: 'post',
    path: '/api/rank',
    summary:
      'Rank every combination of parts given in full. Computed in a thread of its own; ends when the caller leaves.',
    bodyLimit: PARTS_LIMIT,
    body: rankInputSchema,
    response: rankReportSchema,
    handle: ({ body, request }) => {
      const { hosts, cables, enclosures, drives } = body;
      const ports = hosts.reduce((sum, host) => sum + host.ports.length, 0);
      const combinations = ports * Math.max(1, cables.length) * enclosures.length * drives.length;
      refuse(
        combinations > MOST_COMBINATIONS
          ? [
              {
                path: 'hosts',
                message: `make ${combinations} combinations with the rest; ${MOST_COMBINATIONS} are the most`
              }
            ]
          : []
      );
      return inWorker('rank', body, { signal: request.signal });
    }
  }),

  rankCrate: operation({
    method: 'post',
    path: `${CRATE}/rank`,
    summary:
      'Rank the combinations of a crate’s own parts for one of its jobs; gives the task, whose result is the ranking.',
    params: inCrate,
    body: z.strictObject({
      jobId: id(),
      hostIds: ids,
      cableIds: ids,
      enclosureIds: ids,
      driveIds: ids,
      weights: weightsSchema.optional(),
      filters: filtersSchema.optional(),
      limit: z.number().int().min(0).max(MOST_ROWS).optional(),
      takeApart: z.boolean().optional().describe('whether items that are in a build count as at hand')
    }),
    response: task,
    status: 202,
    handle: async ({ db, params, body }) => {
      const input = await rankInputFor(db, params.crateId, body);
      return startTask(
        db,
        'Ranking',
        (work) =>
          inWorker('rank', input, {
            signal: work.signal,
            onProgress: (share) => void work.report('Combining', Math.round(share * 100), 100).catch(() => {})
          }),
        { patienceMs: PATIENCE_MS }
      );
    }
  })
};
