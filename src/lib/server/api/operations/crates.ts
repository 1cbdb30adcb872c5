import type { Knex } from 'knex';
import { z } from 'zod';
import { SCHOOL_IDS, SCHOOLS, type SchoolId } from '#core/house-rules/house-rules';
import { id, text } from '#core/parts/form/field';
import { plan } from '#core/plan/plan';
import { portOf } from '#core/plan/resolve-build';
import { planReportSchema } from '#core/plan/report';
import { simulateOptions, simulateReportSchema } from '#core/simulate/simulate';
import { patiently } from '../../db';
import { inWorker } from '../../workers/run';
import { undo, type InTheWay } from '../../db/undo';
import { resetDemo } from '../../demo/seed';
import { Problem } from '../../problems/problem';
import * as crates from '../../repositories/crates';
import { listEvents } from '../../repositories/events';
import { pathOf } from '../../repositories/search';
import { defined } from '../../problems/defined';
import { operation } from '../operation';
import { planRequestSchema, resolvePlanRequest } from '../plan-request';
import { changed, CRATE, here, inCrate, version } from './common';

const event = z.strictObject({
  seq: z.number(),
  at: z.string(),
  by: z.string(),
  kind: z.string(),
  subjectTable: z.string(),
  subjectId: z.string(),
  message: z.string()
});

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

/** Hours at a sample a second, six columns. */
const simulateRequest = planRequestSchema.extend(simulateOptions);

export const simulateOne = operation({
  method: 'post',
  path: '/api/simulate',
  summary:
    'Play a build over time on the simulated rig: rates, volume and temperatures of its job, of a write, or of writing without end. Computed in a thread of its own.',
  body: simulateRequest,
  response: simulateReportSchema,
  handle: async ({ db, body, request }) => {
    const {
      seconds,
      writeGB,
      fillFraction,
      ambientC,
      fan,
      bare,
      material,
      stands,
      start,
      rewrite,
      fault,
      seed,
      everyS,
      ...build
    } = body;
    const input = await resolvePlanRequest(db, build);
    if (!portOf(input.host, input.portId))
      throw new Problem('bad-input', `${input.host.name} has no port “${input.portId}”.`, [
        { path: 'portId', message: 'is no port of this host' }
      ]);
    const options = {
      writeGB,
      fillFraction,
      ambientC,
      fan,
      bare,
      material,
      stands,
      start,
      rewrite,
      fault,
      seed,
      everyS
    };
    const played = await inWorker('simulate', { ...input, ...defined(options), seconds }, { signal: request.signal });
    if (played) return played;
    throw new Problem('bad-input', 'This build does not connect or does not fit: there is nothing to play.', [
      { path: '', message: 'does not connect or does not fit; ask /api/plan for the reasons' }
    ]);
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

export const deleteCrate = operation({
  method: 'delete',
  path: CRATE,
  summary: `Delete a crate with everything in it. It is hidden at once, can be brought back for ${crates.KEPT_DAYS} days, and is purged then.`,
  params: inCrate,
  body: z.strictObject({ version }),
  response: changed,
  handle: ({ db, params, body, by, at }) => crates.deleteCrate(db, { id: params.crateId, ...body, by, at })
});

export const listDeletedCrates = operation({
  method: 'get',
  path: '/api/crates/deleted',
  summary: 'Crates that were deleted and can still be brought back.',
  response: z.array(crates.deletedCrateSchema),
  handle: ({ db }) => crates.listDeletedCrates(db)
});

export const bringBackCrate = operation({
  method: 'post',
  path: `${CRATE}/bring-back`,
  summary: 'Bring a deleted crate back as it was.',
  params: inCrate,
  hidden: true,
  body: z.strictObject({ version }),
  response: changed,
  handle: ({ db, params, body, by, at }) => crates.bringBackCrate(db, { id: params.crateId, ...body, by, at })
});

export const purgeCrate = operation({
  method: 'delete',
  path: `${CRATE}/for-good`,
  summary: 'Remove a deleted crate for good, at once. Nothing brings it back but a bundle or a backup.',
  params: inCrate,
  hidden: true,
  body: z.strictObject({ confirm: z.literal('for good') }),
  response: z.strictObject({ id: z.string() }),
  handle: async ({ params }) => {
    await patiently((db) => crates.purgeCrate(db, params.crateId));
    return { id: params.crateId };
  }
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

const sides = z.strictObject(
  Object.fromEntries(
    SCHOOL_IDS.map((school) => [
      school,
      z
        .enum(Object.keys(SCHOOLS[school].choices) as [string, ...string[]])
        .nullable()
        .optional()
        .describe(`${SCHOOLS[school].question}; by default ${SCHOOLS[school].standard}`)
    ])
  ) as Record<SchoolId, z.ZodOptional<z.ZodNullable<z.ZodEnum>>>
);

export const chooseHouseRules = operation({
  method: 'put',
  path: `${CRATE}/house-rules`,
  summary:
    'Choose sides where practice differs; null goes back to the default. Schools that are not named stay as they are.',
  params: inCrate,
  body: z.strictObject({
    version,
    rules: sides.refine((rules) => Object.keys(rules).length > 0, 'must name at least one school')
  }),
  response: changed,
  handle: ({ db, params, body, by, at }) =>
    crates.chooseRules(db, {
      id: params.crateId,
      version: body.version,
      rules: body.rules as Parameters<typeof crates.chooseRules>[1]['rules'],
      by,
      at
    })
});

export const listEventsOf = operation({
  method: 'get',
  path: `${CRATE}/events`,
  summary: 'The log of a crate, newest first.',
  params: inCrate,
  query: z.object({ limit: z.coerce.number().int().min(1).max(1000).default(200) }),
  response: z.array(event),
  handle: ({ db, params, query }) => listEvents(db, { ...params, ...query })
});

/** A refusal of an undo whose things in the way have the address of the page that shows them. */
async function withPaths(db: Knex, crateId: string, problem: Problem): Promise<Problem> {
  const things = (problem.details.inTheWay ?? []) as InTheWay[];
  if (things.length === 0) return problem;
  const inTheWay = await Promise.all(
    things.map(async (thing) => ({ ...thing, path: await pathOf(db, crateId, thing) }))
  );
  return new Problem(problem.code, problem.message, problem.fields, { ...problem.details, inTheWay });
}

export const undoChange = operation({
  method: 'post',
  path: `${CRATE}/undo`,
  summary: 'Take a change back. Fails with 409 when its rows were changed again since.',
  params: inCrate,
  hidden: true,
  body: z.strictObject({ group: id() }),
  response: z.strictObject({ group: z.string(), rows: z.array(z.strictObject({ table: z.string(), id: z.string() })) }),
  handle: async ({ db, params, body, by, at }) => {
    try {
      return await undo(db, { ...params, ...body, by, at });
    } catch (error) {
      throw error instanceof Problem ? await withPaths(db, params.crateId, error) : error;
    }
  }
});
