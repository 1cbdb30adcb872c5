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
import { countText } from '#core/quantities/format';
import { combinationsOf, partsOfReport, rankInputFor, scopeOf } from '../../planning/ranking';
import { startTask } from '../../tasks/tasks';

/** Hundreds of parts in full, with their quotes. */
const PARTS_LIMIT = 20_000_000;

/** Ports times cables times enclosures times drives: about a minute's work. */
const MOST_COMBINATIONS = 500_000_000;

/** A ranking that no page waits for any more ends after so long. */
const PATIENCE_MS = 20_000;

/** More than this is asked before it is begun. */
const ASKED_FROM = 30_000_000;

/** What stands against so many combinations. */
function tooMany(combinations: number, sure: boolean): { path: string; message: string }[] {
  const many = countText(combinations);
  if (combinations > MOST_COMBINATIONS)
    return [
      {
        path: 'everything',
        message: `makes ${many} combinations; ${countText(MOST_COMBINATIONS)} are the most`
      }
    ];
  return combinations > ASKED_FROM && !sure
    ? [
        {
          path: 'sure',
          message: `is asked for ${many} combinations, which may take a minute: narrow the parts, or say so`
        }
      ]
    : [];
}

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
      takeApart: z.boolean().optional().describe('whether items that are in a build count as at hand'),
      everything: z
        .boolean()
        .optional()
        .describe(
          'all parts that are not narrowed to ids; else of a large crate what is owned first, then what has a price'
        ),
      sure: z.boolean().optional().describe('also where it makes more than 30 million combinations')
    }),
    response: task,
    status: 202,
    handle: async ({ db, params, body }) => {
      const { sure = false, ...asked } = body;
      const { choice, scope } = await scopeOf(db, params.crateId, asked);
      const input = await rankInputFor(db, params.crateId, choice);
      refuse(tooMany(combinationsOf(input), sure));
      return startTask(
        db,
        'Ranking',
        async (work) => {
          let computedMs = 0;
          const report = await inWorker('rank', input, {
            signal: work.signal,
            onComputed: (ms) => (computedMs = Math.round(ms)),
            onProgress: (share) => void work.report('Combining', Math.round(share * 100), 100).catch(() => {})
          });
          return { ...report, scope, parts: partsOfReport(input, report), computedMs };
        },
        { patienceMs: PATIENCE_MS }
      );
    }
  })
};
