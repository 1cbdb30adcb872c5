import { z } from 'zod';
import { isoDate } from '#core/parts/form/field';
import { conditionsSchema } from '#core/results/conditions';
import { PROTOCOL_IDS } from '#core/results/protocol-ids';
import { settingsSchema } from '#core/results/settings';
import { SIMULATED_FAULTS } from '#core/simulate/faults';
import { Problem } from '../../problems/problem';
import { getRun, rigStateSchema, storedRunSchema } from '../../repositories/runs';
import { refreshed } from '../../repositories/run-rig';
import { resumeRun, startRig } from '../../rig/rig';
import { watchRun } from '../../rig/watch';
import { cancelTask } from '../../tasks/tasks';
import { operation } from '../operation';
import { CRATE, inBuild, inCrateWithId, refuseAhead } from './common';

const begun = z.strictObject({ runId: z.string(), taskId: z.string() });
const speed = z.number().min(1).max(100_000).describe('times faster than life');

/** The operations of the stand-in rig, by their names in the OpenAPI document. Everything it gives is simulated. */
export const rigOperations = {
  createRigRun: operation({
    method: 'post',
    path: `${CRATE}/builds/{buildId}/rig-runs`,
    summary:
      'Measure a build on the stand-in rig: no device, but the plan’s models over time, with a seed and a fault.',
    params: inBuild,
    body: z.strictObject({
      protocol: z.enum(PROTOCOL_IDS),
      settings: settingsSchema.default({}),
      conditions: conditionsSchema.default({}),
      fault: z.enum(SIMULATED_FAULTS).optional(),
      seed: z.number().int().min(0).max(4_294_967_295).optional(),
      speed: speed.default(60),
      date: isoDate().optional()
    }),
    response: begun,
    status: 202,
    handle: async ({ db, params, body: { date, ...request }, by, at }) => {
      if (date !== undefined) refuseAhead(date, at);
      return startRig(db, { ...params, request: { ...request, date: date ?? at.slice(0, 10) }, by, at });
    }
  }),

  cancelRigRun: operation({
    method: 'post',
    path: `${CRATE}/runs/{id}/cancel`,
    summary: 'Hold a simulated run where it is; what was sampled is kept.',
    params: inCrateWithId,
    body: z.strictObject({}),
    response: storedRunSchema,
    handle: async ({ db, params: { crateId, id: runId } }) => {
      const { run, rig } = await refreshed(db, { crateId, runId });
      if (rig.state !== 'running' || !rig.taskId) return run;
      await cancelTask(db, rig.taskId);
      return getRun(db, { crateId, id: runId });
    }
  }),

  resumeRigRun: operation({
    method: 'post',
    path: `${CRATE}/runs/{id}/resume`,
    summary: 'Go on with a simulated run from its last sample.',
    params: inCrateWithId,
    body: z.strictObject({ speed: speed.optional() }),
    response: begun,
    status: 202,
    handle: ({ db, params: { crateId, id: runId }, body, by }) => resumeRun(db, { crateId, runId, ...body, by })
  }),

  runEvents: operation({
    method: 'get',
    path: `${CRATE}/runs/{id}/events`,
    summary:
      'Server-sent events of a simulated run: `samples`, whose id is the index after its last sample, and `state`. Last-Event-ID, or `after=`, resumes.',
    params: inCrateWithId,
    query: z.strictObject({
      after: z
        .string()
        .regex(/^\d{1,9}$/, 'must be a whole number')
        .optional()
    }),
    produces: 'text/event-stream',
    response: rigStateSchema,
    handle: async ({ db, params: { crateId, id: runId }, query, request }) => {
      const last = request.headers.get('last-event-id') ?? query.after ?? '0';
      if (!/^\d{1,9}$/.test(last))
        throw new Problem('bad-input', 'Last-Event-ID must be the number of a sample.', [
          { path: 'after', message: 'must be a whole number' }
        ]);
      await getRun(db, { crateId, id: runId });
      const encoder = new TextEncoder();
      const gone = new AbortController();
      request.signal.addEventListener('abort', () => gone.abort());
      const stream = new ReadableStream<Uint8Array>({
        start(controller) {
          const send = (event: string, data: unknown, sent: number) => {
            try {
              controller.enqueue(encoder.encode(`id: ${sent}\nevent: ${event}\ndata: ${JSON.stringify(data)}\n\n`));
            } catch {
              gone.abort(); // the reader has gone
            }
          };
          void watchRun(db, { crateId, runId, from: Number(last) }, send, gone.signal)
            .catch(() => {})
            .finally(() => {
              try {
                controller.close();
              } catch {
                // closed already
              }
            });
        },
        cancel: () => gone.abort()
      });
      return new Response(stream, {
        headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache, no-transform' }
      });
    }
  })
};
