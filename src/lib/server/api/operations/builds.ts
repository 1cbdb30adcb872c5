import * as builds from '../../repositories/builds';
import { operation } from '../operation';
import { CRATE, inCrate, changed, inBuild, version, versioned, partAnswer, partQuery } from './common';
import { z } from 'zod';
import { buildInputSchema, choiceSchema } from '#core/build/choice';
import { planChoice } from '../../planning/planning';
import { STAGES } from '#core/build/stages';
import { stackChoiceSchema } from '#core/pads/choice';
import { Problem } from '../../problems/problem';

/** The operations at `…/builds`, by their names in the OpenAPI document. */
export const buildOperations = {
  listBuilds: operation({
    method: 'get',
    path: `${CRATE}/builds`,
    summary: 'Builds, by tag.',
    params: inCrate,
    query: z.object(partQuery),
    response: z.array(builds.storedBuildSchema),
    inParts: true,
    handle: async ({ db, params, query, request }) =>
      partAnswer(request, await builds.buildsAfter(db, { ...params, ...query }))
  }),

  createBuild: operation({
    method: 'post',
    path: `${CRATE}/builds`,
    summary: 'Plan a choice of parts and save it as a build.',
    params: inCrate,
    body: buildInputSchema,
    response: changed.extend({ tag: z.string() }),
    status: 201,
    handle: async ({ db, params, body, by, at }) => {
      const planned = await planChoice(db, params.crateId, body.choice);
      return builds.createBuild(db, { ...params, build: { ...body, ...planned }, by, at });
    }
  }),

  getBuild: operation({
    method: 'get',
    path: `${CRATE}/builds/{buildId}`,
    summary: 'One build with its snapshot and plan.',
    params: inBuild,
    response: builds.storedBuildSchema,
    handle: ({ db, params }) => builds.getBuild(db, { crate_id: params.crateId, id: params.buildId })
  }),

  updateBuild: operation({
    method: 'put',
    path: `${CRATE}/builds/{buildId}`,
    summary: 'Change a build; it is planned again from the parts as they are now.',
    params: inBuild,
    body: buildInputSchema.extend({
      version,
      stage: z.enum(STAGES),
      choice: buildInputSchema.shape.choice.extend({
        stack: stackChoiceSchema
          .nullable()
          .optional()
          .describe(
            'left out: the pads stay as long as drive and enclosure do; null: the best of what is at hand again'
          ),
        writeCache: choiceSchema.shape.writeCache
          .nullable()
          .describe(
            'left out: stays as long as the computer does; null: the house rule, or what Windows does by itself'
          )
      })
    }),
    response: changed,
    handle: async ({ db, params, body, by, at }) => {
      const { crateId, buildId } = params;
      const { version: expected, ...given } = body;
      const current = await builds.getBuild(db, { crate_id: crateId, id: buildId });
      const { stack, writeCache, ...parts } = given.choice;
      const same = parts.driveId === current.choice.driveId && parts.enclosureId === current.choice.enclosureId;
      const kept = stack === undefined && same ? current.choice.stack : (stack ?? undefined);
      const sameHost = parts.hostId === current.choice.hostId;
      const policy = writeCache === undefined && sameHost ? current.choice.writeCache : (writeCache ?? undefined);
      const choice = { ...parts, ...(kept ? { stack: kept } : {}), ...(policy ? { writeCache: policy } : {}) };
      const build = { ...given, choice };
      if (current.version !== expected) {
        const { name, stage, choice, version, updatedAt } = current;
        throw new Problem(
          'conflict',
          'This build was changed elsewhere in the meantime; nothing was overwritten.',
          [],
          {
            current: { name, stage, choice, version, updatedAt }
          }
        );
      }
      const planned = await planChoice(db, crateId, build.choice, current);
      return builds.updateBuild(db, {
        crateId,
        id: buildId,
        version: expected,
        build: { ...build, ...planned },
        by,
        at
      });
    }
  }),

  setStage: operation({
    method: 'put',
    path: `${CRATE}/builds/{buildId}/stage`,
    summary: 'Mark how far a build is; its snapshot and plan stay as they are.',
    params: inBuild,
    body: z.strictObject({ version, stage: z.enum(STAGES) }),
    response: changed,
    handle: async ({ db, params, body, by, at }) => {
      const build = await builds.getBuild(db, { crate_id: params.crateId, id: params.buildId });
      return builds.updateBuild(db, {
        crateId: params.crateId,
        id: build.id,
        version: body.version,
        build: { ...build, stage: body.stage },
        by,
        at
      });
    }
  }),

  deleteBuild: operation({
    method: 'delete',
    path: `${CRATE}/builds/{buildId}`,
    summary: 'Delete a build and its results.',
    params: inBuild,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) =>
      builds.deleteBuild(db, { crateId: params.crateId, id: params.buildId, ...body, by, at })
  })
};
