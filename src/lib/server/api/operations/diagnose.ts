import { z } from 'zod';
import { symptomSchema, triedAnswerSchema, UnknownAnswer } from '#core/diagnosis/asking';
import { analysisSchema, ANALYSED_DIRECTIONS } from '#core/analysis/report';
import { diagnose, diagnosisSchema, type Diagnosis } from '#core/diagnosis/diagnose';
import type { Observed } from '#core/diagnosis/observed';
import { situationOf, type Situation } from '#core/diagnosis/situation';
import { historySchema } from '#core/diagnosis/suspects';
import { conditionsSchema } from '#core/results/conditions';
import { pairResultsSchema, resultsSchema } from '#core/results/run';
import { seriesSchema } from '#core/series/series';
import { refuse } from '../../problems/problem';
import { inWorker } from '../../workers/run';
import { operation } from '../operation';
import { planRequestSchema, resolvePlanRequest } from '../plan-request';

const DIAGNOSE_BODY = 80_000_000;
/** A pasted log of five million characters is read; a longer one is cut by who pastes it. */
const LONGEST_LOG = 8_000_000;

const evidence = {
  ...resultsSchema.shape,
  results: pairResultsSchema.optional().describe('instead of figures beside the parts'),
  analysis: analysisSchema.optional().describe('as `analyse` gives it'),
  series: seriesSchema.optional(),
  direction: z.enum(ANALYSED_DIRECTIONS).optional().describe('of the series; `write` unless it is given'),
  symptoms: z.array(symptomSchema).max(10).optional(),
  conditions: conditionsSchema.optional(),
  negotiatedGbps: z.number().min(0.001).max(200).optional(),
  log: z.string().max(LONGEST_LOG).optional().describe('lines of a system log; Linux, macOS or Windows'),
  tried: z
    .array(triedAnswerSchema)
    .max(40)
    .refine((tried) => new Set(tried.map(({ test }) => test)).size === tried.length, 'names one test twice')
    .optional(),
  history: historySchema.optional().describe('other runs with the things they were measured with, this one first')
};
const request = planRequestSchema.extend(evidence);
type Asked = z.output<typeof request>;

const FIGURES = Object.keys(resultsSchema.shape) as (keyof typeof resultsSchema.shape)[];

/** Figures that stand beside the parts, and those in `results`. */
function resultsOf(body: Asked): Observed['results'] {
  const beside = Object.fromEntries(
    FIGURES.flatMap((field) => (body[field] === undefined ? [] : [[field, body[field]]]))
  );
  return { ...beside, ...body.results };
}

/** @throws Problem `bad-input` with the path of a test that this build is not asked for */
function judged(at: Situation, observed: Observed): Diagnosis {
  try {
    return diagnose(at, observed);
  } catch (error) {
    if (!(error instanceof UnknownAnswer)) throw error;
    const what = error.what === 'test' ? 'is nothing that this build is asked' : 'is no outcome of this test';
    refuse([{ path: error.message.replace(/^answers/, 'tried'), message: what }]);
    throw error;
  }
}

/** The operations at `…/diagnose`, by their names in the OpenAPI document. */
export const diagnoseOperations = {
  diagnoseResult: operation({
    method: 'post',
    path: '/api/diagnose',
    summary:
      'Weigh figures, a series, symptoms, a log, conditions and what was tried into causes with their confidence, and name the test that tells the first two apart.',
    body: request,
    bodyLimit: DIAGNOSE_BODY,
    response: diagnosisSchema,
    handle: async ({ db, body, request: http }) => {
      const { analysis, series, direction, symptoms, conditions, negotiatedGbps, log, tried, history } = body;
      const rest = Object.fromEntries(Object.entries(body).filter(([key]) => !(key in evidence)));
      const at = situationOf(await resolvePlanRequest(db, rest as z.output<typeof planRequestSchema>));
      const way = direction === 'read' ? 'read' : 'write';
      const startC = at.report.thermal?.startC ?? undefined;
      const read =
        analysis ??
        (series && (await inWorker('analyse', { series, direction: way, startC }, { signal: http.signal })));
      return judged(at, {
        results: resultsOf(body),
        ...(read ? { analysis: read, direction: way } : {}),
        ...(series?.caseC ? { case: { t: series.t, caseC: series.caseC } } : {}),
        symptoms,
        conditions,
        negotiatedGbps,
        log,
        tried,
        history
      });
    }
  })
};
