import { z } from 'zod';
import { blocking, checkPairResults } from '#core/bench/gates';
import { runInputSchema } from '#core/bench/run';
import { buildInputSchema } from '#core/build/build';
import { STAGES } from '#core/build/stages';
import { OS_LABEL } from '#core/facts/filesystems';
import { id, text } from '#core/parts/field';
import { jobSchema } from '#core/parts/job';
import { KINDS } from '#core/parts/kinds';
import { modelSchema } from '#core/parts/model';
import { quoteSchema } from '#core/parts/quote';
import { unitSchema } from '#core/parts/unit';
import { plan, portOf } from '#core/plan/plan';
import { planReportSchema } from '#core/plan/report';
import { undo } from '../db/change';
import { resetDemo } from '../demo/seed';
import { planChoice } from '../planning';
import { Problem } from '../problem';
import * as builds from '../repositories/builds';
import * as crates from '../repositories/crates';
import { listEvents } from '../repositories/events';
import * as jobs from '../repositories/jobs';
import * as models from '../repositories/models';
import * as quotes from '../repositories/quotes';
import * as runs from '../repositories/runs';
import * as units from '../repositories/units';
import { operation } from './operation';
import { planRequestSchema, resolvePlanRequest } from './plan-request';

const inCrate = z.object({ crateId: id() });
const inCrateWithId = z.object({ crateId: id(), id: id() });
const inBuild = z.object({ crateId: id(), buildId: id() });
const inBuildWithId = z.object({ crateId: id(), buildId: id(), id: id() });
const version = z.number().int().min(1);
const versioned = z.strictObject({ version });
const changed = z.strictObject({ id: z.string(), version: z.number(), group: z.string().describe('what undo takes') });

const storedModel = z.strictObject({ id: z.string(), version: z.number(), spec: modelSchema, units: z.number() });
const storedUnit = z.strictObject({ id: z.string(), version: z.number(), unit: unitSchema });
const storedQuote = z.strictObject({ id: z.string(), version: z.number(), quote: quoteSchema });
const storedJob = z.strictObject({ id: z.string(), version: z.number(), spec: jobSchema });
const event = z.strictObject({
  seq: z.number(),
  at: z.string(),
  by: z.string(),
  kind: z.string(),
  subjectTable: z.string(),
  subjectId: z.string(),
  message: z.string()
});
const CRATE = '/api/crates/{crateId}';

/** A crate that is not there is a 404 before anything else is looked at. */
const here = (db: Parameters<typeof crates.getCrate>[0], crateId: string) => crates.getCrate(db, { id: crateId });

export const planOne = operation({
  method: 'post',
  path: '/api/plan',
  summary: 'Judge one build. Parts in full, or { id } of a stored part together with crateId.',
  body: planRequestSchema,
  response: planReportSchema,
  handle: async ({ db, body }) => {
    const input = await resolvePlanRequest(db, body);
    if (!portOf(input.host, input.portId))
      throw new Problem('bad-input', `${input.host.name} has no port “${input.portId}”.`, [
        { path: 'portId', message: 'is no port of this host' }
      ]);
    return plan(input);
  }
});

export const health = operation({
  method: 'get',
  path: '/api/health',
  summary: 'Whether application and database answer.',
  response: z.strictObject({ database: z.literal('up') }),
  handle: async ({ db }) => {
    await db.raw('select 1');
    return { database: 'up' as const };
  }
});

export const listCrates = operation({
  method: 'get',
  path: '/api/crates',
  summary: 'All crates.',
  response: z.array(crates.crateSchema),
  handle: ({ db }) => crates.listCrates(db)
});

export const createCrate = operation({
  method: 'post',
  path: '/api/crates',
  summary: 'Make an empty crate.',
  body: z.strictObject({ name: text('Name', 60) }),
  response: crates.crateSchema,
  status: 201,
  handle: ({ db, body, at }) => crates.createCrate(db, { name: body.name.trim(), at })
});

export const getCrate = operation({
  method: 'get',
  path: CRATE,
  summary: 'One crate.',
  params: inCrate,
  response: crates.crateSchema,
  handle: ({ db, params }) => here(db, params.crateId)
});

export const resetCrate = operation({
  method: 'post',
  path: `${CRATE}/reset`,
  summary: 'Put the demo crate back to how it ships. Other crates are refused.',
  params: inCrate,
  body: z.strictObject({}),
  response: crates.crateSchema,
  handle: async ({ db, params, at }) => {
    const crate = await here(db, params.crateId);
    if (!crate.demo) throw new Problem('conflict', 'Only the demo crate can be reset.');
    return resetDemo(db, at);
  }
});

export const listModels = operation({
  method: 'get',
  path: `${CRATE}/models`,
  summary: 'Parts, by name; ?kind= for one kind.',
  params: inCrate,
  query: z.object({ kind: z.enum(KINDS).optional() }),
  response: z.array(storedModel),
  handle: async ({ db, params, query }) => {
    await here(db, params.crateId);
    return models.listModels(db, { ...params, kind: query.kind });
  }
});

export const createModel = operation({
  method: 'post',
  path: `${CRATE}/models`,
  summary: 'Add a part.',
  params: inCrate,
  body: z.strictObject({ spec: modelSchema }),
  response: changed,
  status: 201,
  handle: async ({ db, params, body, by, at }) => {
    await here(db, params.crateId);
    return models.createModel(db, { ...params, spec: body.spec, by, at });
  }
});

export const getModel = operation({
  method: 'get',
  path: `${CRATE}/models/{id}`,
  summary: 'One part.',
  params: inCrateWithId,
  response: storedModel,
  handle: ({ db, params }) => models.getModel(db, params)
});

export const updateModel = operation({
  method: 'put',
  path: `${CRATE}/models/{id}`,
  summary: 'Replace a part’s specification.',
  params: inCrateWithId,
  body: z.strictObject({ version, spec: modelSchema }),
  response: changed,
  handle: ({ db, params, body, by, at }) => models.updateModel(db, { ...params, ...body, by, at })
});

export const deleteModel = operation({
  method: 'delete',
  path: `${CRATE}/models/{id}`,
  summary: 'Delete a part and its quotes.',
  params: inCrateWithId,
  body: versioned,
  response: changed,
  handle: ({ db, params, body, by, at }) => models.deleteModel(db, { ...params, ...body, by, at })
});

export const listUnits = operation({
  method: 'get',
  path: `${CRATE}/units`,
  summary: 'Physical things, by tag.',
  params: inCrate,
  query: z.object({ modelId: id().optional() }),
  response: z.array(storedUnit),
  handle: async ({ db, params, query }) => {
    await here(db, params.crateId);
    return units.listUnits(db, { ...params, ...query });
  }
});

export const createUnit = operation({
  method: 'post',
  path: `${CRATE}/units`,
  summary: 'Add a unit of a model.',
  params: inCrate,
  body: unitSchema,
  response: changed,
  status: 201,
  handle: ({ db, params, body, by, at }) => units.createUnit(db, { ...params, unit: body, by, at })
});

export const updateUnit = operation({
  method: 'put',
  path: `${CRATE}/units/{id}`,
  summary: 'Replace a unit.',
  params: inCrateWithId,
  body: z.strictObject({ version, unit: unitSchema }),
  response: changed,
  handle: ({ db, params, body, by, at }) => units.updateUnit(db, { ...params, ...body, by, at })
});

export const deleteUnit = operation({
  method: 'delete',
  path: `${CRATE}/units/{id}`,
  summary: 'Delete a unit.',
  params: inCrateWithId,
  body: versioned,
  response: changed,
  handle: ({ db, params, body, by, at }) => units.deleteUnit(db, { ...params, ...body, by, at })
});

export const listQuotes = operation({
  method: 'get',
  path: `${CRATE}/quotes`,
  summary: 'Quotes, newest first.',
  params: inCrate,
  query: z.object({ partId: id().optional() }),
  response: z.array(storedQuote),
  handle: async ({ db, params, query }) => {
    await here(db, params.crateId);
    return quotes.listQuotes(db, { ...params, ...(query.partId ? { partIds: [query.partId] } : {}) });
  }
});

export const createQuote = operation({
  method: 'post',
  path: `${CRATE}/quotes`,
  summary: 'Note a quote for a part.',
  params: inCrate,
  body: quoteSchema,
  response: changed,
  status: 201,
  handle: ({ db, params, body, by, at }) => quotes.createQuote(db, { ...params, quote: body, by, at })
});

export const deleteQuote = operation({
  method: 'delete',
  path: `${CRATE}/quotes/{id}`,
  summary: 'Delete a quote.',
  params: inCrateWithId,
  body: versioned,
  response: changed,
  handle: ({ db, params, body, by, at }) => quotes.deleteQuote(db, { ...params, ...body, by, at })
});

export const listJobs = operation({
  method: 'get',
  path: `${CRATE}/jobs`,
  summary: 'Jobs, by name.',
  params: inCrate,
  response: z.array(storedJob),
  handle: async ({ db, params }) => {
    await here(db, params.crateId);
    return jobs.listJobs(db, params.crateId);
  }
});

export const createJob = operation({
  method: 'post',
  path: `${CRATE}/jobs`,
  summary: 'Add a job.',
  params: inCrate,
  body: z.strictObject({ spec: jobSchema }),
  response: changed,
  status: 201,
  handle: async ({ db, params, body, by, at }) => {
    await here(db, params.crateId);
    return jobs.createJob(db, { ...params, ...body, by, at });
  }
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
  handle: async ({ db, params }) => {
    await here(db, params.crateId);
    return builds.listBuilds(db, params.crateId);
  }
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
    await here(db, params.crateId);
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
  body: buildInputSchema.extend({ version, stage: z.enum(STAGES) }),
  response: changed,
  handle: async ({ db, params, body, by, at }) => {
    const { crateId, buildId } = params;
    const { version: expected, ...build } = body;
    const current = await builds.getBuild(db, { crate_id: crateId, id: buildId });
    if (current.version !== expected) {
      const { name, stage, choice, version, updatedAt } = current;
      throw new Problem('conflict', 'This build was changed elsewhere in the meantime; nothing was overwritten.', [], {
        current: { name, stage, choice, version, updatedAt }
      });
    }
    const planned = await planChoice(db, crateId, build.choice);
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
    if (body.date > at.slice(0, 10))
      throw new Problem('bad-input', 'date: lies in the future.', [{ path: 'date', message: 'lies in the future' }]);
    const alarms = checkPairResults(body.results, build.snapshot, build.report);
    const stopping = blocking(alarms, body.accepted);
    if (stopping.length > 0) {
      throw new Problem(
        'implausible',
        stopping[0]!.message,
        stopping.map(({ field, message }) => ({ path: `results.${field}`, message })),
        { alarms: stopping }
      );
    }
    const { host, portId, cable, enclosure, drive } = build.snapshot;
    const { hostId, cableId, enclosureId, driveId } = build.choice;
    const chain = {
      host: host.name,
      port: portOf(host, portId)?.label ?? portId,
      ...(cable ? { cable: cable.name } : {}),
      enclosure: enclosure.name,
      drive: drive.name,
      os: [OS_LABEL[host.os.family], host.os.version].filter(Boolean).join(' '),
      mode: build.report.link.mode,
      ids: { hostId, portId, enclosureId, driveId, ...(cableId ? { cableId } : {}) }
    };
    const { date, results, conditions, simulated, accepted } = body;
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

export const listEventsOf = operation({
  method: 'get',
  path: `${CRATE}/events`,
  summary: 'The log of a crate, newest first.',
  params: inCrate,
  query: z.object({ limit: z.coerce.number().int().min(1).max(1000).default(200) }),
  response: z.array(event),
  handle: async ({ db, params, query }) => {
    await here(db, params.crateId);
    return listEvents(db, { ...params, ...query });
  }
});

export const undoChange = operation({
  method: 'post',
  path: `${CRATE}/undo`,
  summary: 'Take a change back. Fails with 409 when its rows were changed again since.',
  params: inCrate,
  body: z.strictObject({ group: id() }),
  response: z.strictObject({ group: z.string(), rows: z.array(z.strictObject({ table: z.string(), id: z.string() })) }),
  handle: ({ db, params, body, by, at }) => undo(db, { ...params, ...body, by, at })
});
