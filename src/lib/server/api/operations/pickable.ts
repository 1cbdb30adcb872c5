import { z } from 'zod';
import { PICKED_KINDS } from '#core/build/options';
import { id } from '#core/parts/form/field';
import { jobSchema } from '#core/parts/job';
import { knownPairSchema } from '#core/parts/known-pair';
import { modelSchema } from '#core/parts/model';
import { quoteSchema } from '#core/parts/quote';
import { pairResultsSchema } from '#core/results/run';
import { foundLibrary } from '../../planning/window';
import { operation } from '../operation';
import { CRATE, inCrate } from './common';

const stock = z.strictObject({
  owned: z.number(),
  free: z.number(),
  builds: z.array(z.string()).describe('tags of the builds that hold some of it'),
  ordered: z.number().optional(),
  resale: z.number().optional()
});

/** The operations at `…/pickable`, by their names in the OpenAPI document. */
export const pickableOperations = {
  findPickable: operation({
    method: 'get',
    path: `${CRATE}/pickable`,
    summary:
      'Find what can be picked at one place of a build, with everything that a plan of it needs: what is owned first, then what has a price.',
    params: inCrate,
    query: z.object({
      kind: z.enum(PICKED_KINDS),
      find: z.string().max(200).optional(),
      id: id().optional().describe('this very part, instead of words'),
      limit: z.coerce.number().int().min(1).max(100).optional()
    }),
    response: z.strictObject({
      total: z.number().describe('of all that match'),
      parts: z.array(modelSchema).describe('of this kind, and every pad'),
      jobs: z.array(jobSchema),
      quotes: z.array(quoteSchema),
      knownPairs: z.array(knownPairSchema),
      stock: z.record(z.string(), stock).describe('by part'),
      measured: z
        .record(z.string(), z.array(z.object({ date: z.string(), simulated: z.boolean(), results: pairResultsSchema })))
        .describe('results by chain, newest first')
    }),
    handle: async ({ db, params, query }) => {
      const { kind, find, id: one, limit = 60 } = query;
      const { library, total } = await foundLibrary(db, params.crateId, {
        kind,
        find,
        limit,
        ...(one === undefined ? {} : { ids: [one] })
      });
      const { host, cable, enclosure, drive, pads, job, quotes, knownPairs, stock: owned, measured } = library;
      return {
        total,
        parts: [...host.values(), ...cable.values(), ...enclosure.values(), ...drive.values(), ...pads],
        jobs: [...job.values()],
        quotes: [...quotes],
        knownPairs: [...knownPairs],
        stock: Object.fromEntries(
          [...owned].map(([part, { builds, ...rest }]) => [part, { ...rest, builds: [...builds] }])
        ),
        measured: Object.fromEntries([...measured].map(([chain, runs]) => [chain, [...runs]]))
      };
    }
  })
};
