import { z } from 'zod';
import { blocking, checkPairResults } from '#core/results/gates';
import { runInputSchema } from '#core/results/run';
import { buildInputSchema, choiceSchema } from '#core/build/choice';
import { observationInputSchema } from '#core/temperature-logs/observation';
import { STAGES } from '#core/build/stages';
import { OS_LABEL } from '#core/facts/filesystems';
import { isAhead } from '#core/parts/form/field';
import { jobSchema } from '#core/parts/job';
import { stackChoiceSchema } from '#core/pads/choice';
import { portOf } from '#core/plan/resolve-build';
import { buildNow, loadLibrary, planChoice } from '../../planning/planning';
import { Problem, refuse } from '../../problems/problem';
import * as builds from '../../repositories/builds';
import * as jobs from '../../repositories/jobs';
import * as observations from '../../repositories/observations';
import * as runs from '../../repositories/runs';
import { operation } from '../operation';
import { inCrate, inCrateWithId, inBuild, inBuildWithId, version, versioned, changed, CRATE } from './common';

const storedJob = z.strictObject({ id: z.string(), version: z.number(), spec: jobSchema });

export const listJobs = operation({
  method: 'get',
  path: `${CRATE}/jobs`,
  summary: 'Jobs, by name.',
  params: inCrate,
  response: z.array(storedJob),
  handle: ({ db, params }) => jobs.listJobs(db, params.crateId)
});

export const createJob = operation({
  method: 'post',
  path: `${CRATE}/jobs`,
  summary: 'Add a job.',
  params: inCrate,
  body: z.strictObject({ spec: jobSchema }),
  response: changed,
  status: 201,
  handle: ({ db, params, body, by, at }) => jobs.createJob(db, { ...params, ...body, by, at })
});

export const updateJob = operation({
  method: 'put',
  path: `${CRATE}/jobs/{id}`,
  summary: 'Replace a job.',
  params: inCrateWithId,
  body: z.strictObject({ version, spec: jobSchema }),
  response: changed,
  handle: ({ db, params, body, by, at }) => jobs.updateJob(db, { ...params, ...body, by, at })
});

export const deleteJob = operation({
  method: 'delete',
  path: `${CRATE}/jobs/{id}`,
  summary: 'Delete a job.',
  params: inCrateWithId,
  body: versioned,
  response: changed,
  handle: ({ db, params, body, by, at }) => jobs.deleteJob(db, { ...params, ...body, by, at })
});

export const listBuilds = operation({
  method: 'get',
  path: `${CRATE}/builds`,
  summary: 'Builds, by tag.',
  params: inCrate,
  response: z.array(builds.storedBuildSchema),
  handle: ({ db, params }) => builds.listBuilds(db, params.crateId)
});

export const createBuild = operation({
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
});

export const getBuild = operation({
  method: 'get',
  path: `${CRATE}/builds/{buildId}`,
  summary: 'One build with its snapshot and plan.',
  params: inBuild,
  response: builds.storedBuildSchema,
  handle: ({ db, params }) => builds.getBuild(db, { crate_id: params.crateId, id: params.buildId })
});

export const updateBuild = operation({
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
        .describe('left out: the pads stay as long as drive and enclosure do; null: the best of what is at hand again'),
      writeCache: choiceSchema.shape.writeCache
        .nullable()
        .describe('left out: stays as long as the host does; null: the house rule, or what Windows does by itself')
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
      throw new Problem('conflict', 'This build was changed elsewhere in the meantime; nothing was overwritten.', [], {
        current: { name, stage, choice, version, updatedAt }
      });
    }
    const planned = await planChoice(db, crateId, build.choice, current);
    return builds.updateBuild(db, { crateId, id: buildId, version: expected, build: { ...build, ...planned }, by, at });
  }
});

export const setStage = operation({
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
});

export const deleteBuild = operation({
  method: 'delete',
  path: `${CRATE}/builds/{buildId}`,
  summary: 'Delete a build and its results.',
  params: inBuild,
  body: versioned,
  response: changed,
  handle: ({ db, params, body, by, at }) =>
    builds.deleteBuild(db, { crateId: params.crateId, id: params.buildId, ...body, by, at })
});

export const listRuns = operation({
  method: 'get',
  path: `${CRATE}/builds/{buildId}/runs`,
  summary: 'Results of a build, newest first.',
  params: inBuild,
  response: z.array(runs.storedRunSchema),
  handle: async ({ db, params }) => {
    await builds.getBuild(db, { crate_id: params.crateId, id: params.buildId });
    return runs.listRuns(db, params);
  }
});

/** A day is judged where the reader sits: in the morning east of here it is tomorrow there, and not in the future. */
const refuseAhead = (date: string, at: string) =>
  refuse(isAhead(date, at.slice(0, 10)) ? [{ path: 'date', message: 'lies in the future' }] : []);

export const createRun = operation({
  method: 'post',
  path: `${CRATE}/builds/{buildId}/runs`,
  summary:
    'Enter one pair-check result. Impossible figures are refused; suspicious ones need their alarm in `accepted`.',
  params: inBuild,
  body: runInputSchema,
  response: changed,
  status: 201,
  handle: async ({ db, params, body, by, at }) => {
    const { crateId, buildId } = params;
    const build = await builds.getBuild(db, { crate_id: crateId, id: buildId });
    refuseAhead(body.date, at);
    const now = buildNow(await loadLibrary(db, crateId, [build.choice]), build);
    const alarms = checkPairResults(body.results, now.snapshot, now.report);
    const stopping = blocking(alarms, body.accepted);
    if (stopping.length > 0) {
      throw new Problem(
        'implausible',
        stopping[0]!.message,
        stopping.map(({ field, message }) => ({ path: `results.${field}`, message })),
        { alarms: stopping }
      );
    }
    const { host, portId, cable, enclosure, drive } = now.snapshot;
    const { hostId, cableId, enclosureId, driveId } = build.choice;
    const chain = {
      host: host.name,
      port: portOf(host, portId)?.label ?? portId,
      ...(cable ? { cable: cable.name } : {}),
      enclosure: enclosure.name,
      drive: drive.name,
      os: [OS_LABEL[host.os.family], host.os.version].filter(Boolean).join(' '),
      mode: now.report.link.mode,
      ids: { hostId, portId, enclosureId, driveId, ...(cableId ? { cableId } : {}) }
    };
    const { date, results, conditions, simulated } = body;
    // Only alarms that there were: what was kept against one does not count where jobs are timed.
    const accepted = body.accepted.filter((alarm) => alarms.some(({ id }) => id === alarm));
    return runs.createRun(db, {
      crateId,
      buildId,
      tag: build.tag,
      run: { date, results, conditions, chain, simulated, accepted },
      by,
      at
    });
  }
});

export const deleteRun = operation({
  method: 'delete',
  path: `${CRATE}/builds/{buildId}/runs/{id}`,
  summary: 'Delete a result.',
  params: inBuildWithId,
  body: versioned,
  response: changed,
  handle: ({ db, params, body, by, at }) => runs.deleteRun(db, { ...params, ...body, by, at })
});

export const listObservations = operation({
  method: 'get',
  path: `${CRATE}/builds/{buildId}/observations`,
  summary: 'What was seen on a build by hand: imprint checks and temperature logs, newest first.',
  params: inBuild,
  response: z.array(observations.storedObservationSchema),
  handle: async ({ db, params }) => {
    await builds.getBuild(db, { crate_id: params.crateId, id: params.buildId });
    return observations.listObservations(db, params);
  }
});

export const createObservation = operation({
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
});

export const deleteObservation = operation({
  method: 'delete',
  path: `${CRATE}/builds/{buildId}/observations/{id}`,
  summary: 'Delete an observation.',
  params: inBuildWithId,
  body: versioned,
  response: changed,
  handle: ({ db, params, body, by, at }) => observations.deleteObservation(db, { ...params, ...body, by, at })
});
