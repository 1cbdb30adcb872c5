import { operation } from '../operation';
import { simulateReportSchema, simulateOptions } from '#core/simulate/simulate';
import { resolvePlanRequest, planRequestSchema } from '../plan-request';
import { defined } from '../../problems/defined';
import { Problem } from '../../problems/problem';
import { inWorker } from '../../workers/run';

const BUILD = Object.keys(planRequestSchema.shape) as (keyof typeof planRequestSchema.shape)[];
const OPTIONS = Object.keys(simulateOptions) as (keyof typeof simulateOptions)[];

/** Takes some fields out of an object. */
const pick = <T extends object, K extends keyof T>(value: T, keys: readonly K[]): Pick<T, K> =>
  Object.fromEntries(keys.map((key) => [key, value[key]])) as Pick<T, K>;

const simulateRequest = planRequestSchema.extend(simulateOptions);

/** The operations at `…/simulate`, by their names in the OpenAPI document. */
export const simulateOperations = {
  simulateOne: operation({
    method: 'post',
    path: '/api/simulate',
    summary:
      'Play a build over time on the simulated rig: rates, volume and temperatures of its job, of a write, or of writing without end. Computed in a thread of its own.',
    body: simulateRequest,
    response: simulateReportSchema,
    handle: async ({ db, body, request }) => {
      const input = await resolvePlanRequest(db, pick(body, BUILD));
      const options = { ...defined(pick(body, OPTIONS)), seconds: body.seconds };
      const played = await inWorker('simulate', { ...input, ...options }, { signal: request.signal });
      if (played) return played;
      throw new Problem('bad-input', 'This build does not connect or does not fit: there is nothing to play.', [
        { path: '', message: 'does not connect or does not fit; ask /api/plan for the reasons' }
      ]);
    }
  })
};
