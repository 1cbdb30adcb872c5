import { z } from 'zod';
import { leadsOf } from '#core/assembly/leads';
import { runSheet, sheetOptions } from '#core/assembly/run-sheet';
import { plan } from '#core/plan/plan';
import { sheetSchema } from '#core/sheets/sheet';
import { operation } from '../operation';
import { planRequestSchema, resolvePlanRequest } from '../plan-request';

/** The operations at `…/run-sheet`, by their names in the OpenAPI document. */
export const runSheetOperations = {
  composeSheet: operation({
    method: 'post',
    path: '/api/run-sheet',
    summary:
      'The run sheet of a build: what to lay out, and stages of steps that each end in a check; and how it is plugged and unplugged. Nothing is stored.',
    body: planRequestSchema.extend(sheetOptions),
    response: sheetSchema.extend({
      leads: z.strictObject({ plug: z.array(z.string()), unplug: z.array(z.string()), notes: z.array(z.string()) })
    }),
    handle: async ({ db, body: { units, from, ...request } }) => {
      const input = await resolvePlanRequest(db, request);
      return { ...runSheet(input, { units, from }), leads: leadsOf(input, plan(input, { workings: false })) };
    }
  })
};
