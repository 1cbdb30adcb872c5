import { newestFigures } from '#core/results/newest';
import { z } from 'zod';
import type { PlanInput } from '#core/plan/report';
import type { PairResults } from '#core/results/run';
import { pairResultsSchema } from '#core/results/run';
import { symptomSchema, UnknownAnswer, type TroubleAnswer } from '#core/diagnosis/asking';
import { trouble, troubleAnswersSchema, troubleReportSchema, type TroubleReport } from '#core/diagnosis/trouble';
import type { Symptom } from '#core/diagnosis/question';
import { sharesOf } from '#core/diagnosis/diagnose';
import { situationOf, type Situation } from '#core/diagnosis/situation';
import { judgementOf } from '../../planning/judging';
import { buildNow, loadLibrary } from '../../planning/planning';
import { refuse } from '../../problems/problem';
import { getBuild } from '../../repositories/builds';
import { createTroubleRecord } from '../../repositories/observations';
import { getCrate } from '../../repositories/crates';
import { listRuns } from '../../repositories/runs';
import { operation } from '../operation';
import { planRequestSchema, resolvePlanRequest } from '../plan-request';
import { changed, CRATE, inBuild } from './common';

/** What there is to look at next, or the cause. @throws Problem `bad-input` with the path of an answer that was never asked for */
function asked(
  { symptom, answers }: { symptom: Symptom; answers: readonly TroubleAnswer[] },
  input: PlanInput,
  results: PairResults | undefined,
  judged?: Situation['judged']
): TroubleReport {
  try {
    return trouble(symptom, { ...situationOf(input, results), judged }, answers);
  } catch (error) {
    if (!(error instanceof UnknownAnswer)) throw error;
    const what = error.what === 'test' ? 'is nothing that this build is asked for it' : 'is no outcome of this test';
    refuse([{ path: error.message, message: what }]);
    throw error;
  }
}

/** The operations that look for a cause, by their names in the OpenAPI document. */
export const troubleOperations = {
  lookForCause: operation({
    method: 'post',
    path: '/api/trouble',
    summary:
      'When it does not work: what to look at next, from the cheapest to the dearest and at most six times, or the cause with its remedy.',
    body: planRequestSchema.extend({
      symptom: symptomSchema,
      answers: troubleAnswersSchema,
      results: pairResultsSchema.optional().describe('its newest result, where it was measured')
    }),
    response: troubleReportSchema,
    handle: async ({ db, body: { symptom, answers, results, ...request } }) =>
      asked({ symptom, answers }, await resolvePlanRequest(db, request), results)
  }),

  recordCause: operation({
    method: 'post',
    path: `${CRATE}/builds/{buildId}/trouble`,
    summary: 'Keep how a cause was looked for on a build, with the cause that was found.',
    params: inBuild,
    body: z.strictObject({ symptom: symptomSchema, answers: troubleAnswersSchema }),
    response: changed,
    status: 201,
    handle: async ({ db, params, body, by, at }) => {
      const { crateId, buildId } = params;
      const build = await getBuild(db, { crate_id: crateId, id: buildId });
      const { demo } = await getCrate(db, { id: crateId });
      // What the stand-in rig gave is no evidence outside of the demo.
      const run = newestFigures(await listRuns(db, { crateId, buildId }), demo);
      const { snapshot } = buildNow(await loadLibrary(db, crateId, [build.choice]), build);
      const judgement = run && (await judgementOf(db, { crateId, run, input: snapshot }));
      const judged = judgement && sharesOf(judgement.diagnosis);
      const { causes, end, path, known } = asked(body, snapshot, run?.results, judged);
      const found = end === 'cause' ? causes[0] : undefined;
      const said = known.map(({ test, text }) => ({ test, text, answer: 'the build says so' }));
      return createTroubleRecord(db, {
        crateId,
        buildId,
        tag: build.tag,
        record: {
          ...body,
          path: [...said, ...path].slice(0, 12),
          cause: found?.cause ?? null,
          says: (found?.says ?? '').slice(0, 600),
          because: (found?.because ?? '').slice(0, 3000)
        },
        by,
        at
      });
    }
  })
};
