import * as observations from '../../repositories/observations';
import { operation } from '../operation';
import { CRATE, inBuild, refuseAhead, changed, inBuildWithId, versioned } from './common';
import * as builds from '../../repositories/builds';
import { z } from 'zod';
import { observationInputSchema } from '#core/temperature-logs/observation';

/** The operations at `…/observations`, by their names in the OpenAPI document. */
export const observationOperations = {
  listObservations: operation({
    method: 'get',
    path: `${CRATE}/builds/{buildId}/observations`,
    summary: 'What was seen on a build by hand: imprint checks and temperature logs, newest first.',
    params: inBuild,
    response: z.array(observations.storedObservationSchema),
    handle: async ({ db, params }) => {
      await builds.getBuild(db, { crate_id: params.crateId, id: params.buildId });
      return observations.listObservations(db, params);
    }
  }),

  createObservation: operation({
    method: 'post',
    path: `${CRATE}/builds/{buildId}/observations`,
    summary: 'Record an imprint check after a dry fit, or temperatures that were read.',
    params: inBuild,
    body: observationInputSchema,
    response: changed,
    status: 201,
    handle: async ({ db, params, body, by, at }) => {
      const build = await builds.getBuild(db, { crate_id: params.crateId, id: params.buildId });
      refuseAhead(body.date, at);
      return observations.createObservation(db, { ...params, tag: build.tag, observation: body, by, at });
    }
  }),

  deleteObservation: operation({
    method: 'delete',
    path: `${CRATE}/builds/{buildId}/observations/{id}`,
    summary: 'Delete an observation.',
    params: inBuildWithId,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) => observations.deleteObservation(db, { ...params, ...body, by, at })
  })
};
