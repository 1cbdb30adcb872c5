import { z } from 'zod';
import { analysisSchema } from '#core/analysis/report';
import { diagnosisSchema } from '#core/diagnosis/diagnose';
import { foundSchema } from '#core/diagnosis/found';
import { id } from '#core/parts/form/field';
import { conditionsSchema } from '#core/results/conditions';
import { PROTOCOL_IDS } from '#core/results/protocol-ids';
import { crateRunInputSchema, runInputSchema } from '#core/results/run';
import { seriesSchema } from '#core/series/series';
import { reduceSeries } from '#core/series/reduce';
import { seriesCsv } from '#core/series/table';
import { judgementOfRun, refuseUnknownTests } from '../../planning/judging';
import { keepRun } from '../../planning/keep-run';
import { notFound, Problem } from '../../problems/problem';
import { resumeRun } from '../../rig/rig';
import { watchRun } from '../../rig/watch';
import { cancelTask } from '../../tasks/tasks';
import { getCrate } from '../../repositories/crates';
import * as builds from '../../repositories/builds';
import * as runs from '../../repositories/runs';
import { refreshed, seriesOfRun } from '../../repositories/run-rig';
import { download } from '../download';
import { operation } from '../operation';
import {
  CRATE,
  inBuild,
  inBuildWithId,
  inCrate,
  inCrateWithId,
  changed,
  rigBegun,
  rigSpeed,
  versioned,
  partAnswer,
  partQuery
} from './common';

/** A series of a million samples and several columns, as JSON. */
const SERIES_BODY = 80_000_000;

/** The operations at `…/runs`, by their names in the OpenAPI document. */
export const runOperations = {
  listRuns: operation({
    method: 'get',
    path: `${CRATE}/builds/{buildId}/runs`,
    summary: 'Results of a build, newest first.',
    params: inBuild,
    response: z.array(runs.storedRunSchema),
    handle: async ({ db, params }) => {
      await builds.getBuild(db, { crate_id: params.crateId, id: params.buildId });
      return runs.listRuns(db, params);
    }
  }),

  createRun: operation({
    method: 'post',
    path: `${CRATE}/builds/{buildId}/runs`,
    summary:
      'Keep one result of a build. Impossible figures are refused; suspicious ones need their alarm in `accepted`.',
    params: inBuild,
    body: runInputSchema,
    bodyLimit: SERIES_BODY,
    response: changed,
    status: 201,
    handle: ({ db, params, body, by, at }) =>
      keepRun(db, { crateId: params.crateId, subject: { buildId: params.buildId }, run: body, by, at })
  }),

  deleteRun: operation({
    method: 'delete',
    path: `${CRATE}/builds/{buildId}/runs/{id}`,
    summary: 'Delete a result.',
    params: inBuildWithId,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) => runs.deleteRun(db, { ...params, ...body, by, at })
  }),

  listCrateRuns: operation({
    method: 'get',
    path: `${CRATE}/runs`,
    summary: 'Results of a crate, newest first: of builds, internal disks and ready-made drives.',
    params: inCrate,
    query: z.strictObject({
      buildId: id().optional(),
      hostId: id().optional(),
      modelId: id().optional(),
      protocol: z.enum(PROTOCOL_IDS).optional(),
      ...partQuery
    }),
    response: z.array(runs.storedRunSchema),
    inParts: true,
    handle: async ({ db, params, query, request }) =>
      partAnswer(request, await runs.runsAfter(db, { ...params, limit: 200, ...query }))
  }),

  createCrateRun: operation({
    method: 'post',
    path: `${CRATE}/runs`,
    summary: 'Keep one result of a build, of a computer’s internal disk, or of something ready-made, with its series.',
    params: inCrate,
    body: crateRunInputSchema,
    bodyLimit: SERIES_BODY,
    response: changed,
    status: 201,
    handle: ({ db, params, body: { subject, ...run }, by, at }) =>
      keepRun(db, { crateId: params.crateId, subject, run, by, at })
  }),

  getRun: operation({
    method: 'get',
    path: `${CRATE}/runs/{id}`,
    summary: 'One result. Of a simulated run: as it truly stands, also where the program that played it has ended.',
    params: inCrateWithId,
    response: runs.storedRunSchema,
    handle: async ({ db, params: { crateId, id: runId } }) => {
      const run = await runs.getRun(db, { crateId, id: runId });
      return run.rig ? (await refreshed(db, { crateId, runId })).run : run;
    }
  }),

  updateRun: operation({
    method: 'put',
    path: `${CRATE}/runs/{id}`,
    summary: 'Change the conditions of a result, or what was found out about it.',
    params: inCrateWithId,
    body: versioned
      .extend({ conditions: conditionsSchema.optional(), found: foundSchema.optional() })
      .refine(({ conditions, found }) => conditions ?? found, 'changes nothing'),
    response: changed,
    handle: async ({ db, params, body: { version, conditions, found }, by, at }) => {
      if (found) await refuseUnknownTests(db, params, found);
      return runs.updateRun(db, {
        ...params,
        version,
        ...(conditions ? { conditions } : {}),
        ...(found ? { found } : {}),
        by,
        at
      });
    }
  }),

  judgeRun: operation({
    method: 'get',
    path: `${CRATE}/runs/{id}/judgement`,
    summary:
      'What came out of a result: its series as it was read, the causes with their confidence, the next test, and parts that are suspect across builds.',
    params: inCrateWithId,
    response: z.strictObject({
      simulated: z.boolean(),
      sentence: z.strictObject({ text: z.string(), tone: z.enum(['sound', 'known', 'fault', 'open']) }),
      stretches: z.array(
        z.strictObject({
          label: z.string(),
          direction: z.enum(['read', 'write']),
          fromS: z.number(),
          toS: z.number(),
          analysis: analysisSchema
        })
      ),
      diagnosis: diagnosisSchema
    }),
    handle: async ({ db, params: { crateId, id: runId } }) => {
      const run = await runs.getRun(db, { crateId, id: runId });
      const { demo } = await getCrate(db, { id: crateId });
      const judged = await judgementOfRun(db, { crateId, run, demo });
      if (!judged) throw notFound('judgement');
      const { stretches, diagnosis, sentence } = judged.judgement;
      return { simulated: run.simulated, sentence, stretches: [...stretches], diagnosis };
    }
  }),

  deleteCrateRun: operation({
    method: 'delete',
    path: `${CRATE}/runs/{id}`,
    summary: 'Delete a result with its series and pictures.',
    params: inCrateWithId,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) => runs.deleteRun(db, { ...params, ...body, by, at })
  }),

  runSeries: operation({
    method: 'get',
    path: `${CRATE}/runs/{id}/series`,
    summary:
      'The series of a run. `points=` thins it out so that every peak and dip stays; without it all samples come. `format=csv` gives a table.',
    params: inCrateWithId,
    query: z.strictObject({
      points: z
        .string()
        .regex(/^\d{1,7}$/, 'must be a whole number')
        .transform(Number)
        .pipe(z.number().min(8).max(1_000_000))
        .optional(),
      format: z.enum(['json', 'csv']).optional()
    }),
    response: z.strictObject({ simulated: z.boolean(), samples: z.number(), series: seriesSchema }),
    handle: async ({ db, params: { crateId, id: runId }, query: { points, format } }) => {
      const run = await runs.getRun(db, { crateId, id: runId });
      const whole = await seriesOfRun(db, run, crateId);
      if (!whole) throw notFound('series');
      const series = points === undefined ? whole : reduceSeries(whole, points);
      if (format === 'csv')
        return download(
          seriesCsv(series, run.simulated),
          'text/csv; charset=utf-8',
          `${run.protocol}-${run.date}${run.simulated ? '-simulated' : ''}.csv`
        );
      return { simulated: run.simulated, samples: whole.t.length, series };
    }
  }),

  cancelRigRun: operation({
    method: 'post',
    path: `${CRATE}/runs/{id}/cancel`,
    summary: 'Hold a simulated run where it is; what was sampled is kept.',
    params: inCrateWithId,
    body: z.strictObject({}),
    response: runs.storedRunSchema,
    handle: async ({ db, params: { crateId, id: runId } }) => {
      const { run, rig } = await refreshed(db, { crateId, runId });
      if (rig.state !== 'running' || !rig.taskId) return run;
      await cancelTask(db, rig.taskId);
      return runs.getRun(db, { crateId, id: runId });
    }
  }),

  resumeRigRun: operation({
    method: 'post',
    path: `${CRATE}/runs/{id}/resume`,
    summary: 'Go on with a simulated run from its last sample.',
    params: inCrateWithId,
    body: z.strictObject({ speed: rigSpeed.optional() }),
    response: rigBegun,
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
    response: runs.rigStateSchema,
    handle: async ({ db, params: { crateId, id: runId }, query, request }) => {
      const last = request.headers.get('last-event-id') ?? query.after ?? '0';
      if (!/^\d{1,9}$/.test(last))
        throw new Problem('bad-input', 'Last-Event-ID must be the number of a sample.', [
          { path: 'after', message: 'must be a whole number' }
        ]);
      await runs.getRun(db, { crateId, id: runId });
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
