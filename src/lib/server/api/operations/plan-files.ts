import { z } from 'zod';
import { planFileSchema } from '#core/answers/plan-file';
import { choiceSchema } from '#core/build/choice';
import { boardRule } from '#core/pads/board';
import { openPlan } from '../../repositories/plan-files';
import { operation } from '../operation';
import { CRATE, inCrate } from './common';

/** The operations at `…/plan-files`, by their names in the OpenAPI document. */
export const planFileOperations = {
  openPlanFile: operation({
    method: 'post',
    path: `${CRATE}/plan-files`,
    summary: 'Take the parts of a plan file into a crate; what it knows already is not doubled.',
    params: inCrate,
    body: planFileSchema.superRefine(({ input: { drive } }, context) => boardRule(drive, context)),
    response: z.strictObject({
      choice: choiceSchema,
      added: z.number(),
      group: z.string().nullable().describe('what undo takes; null where nothing was added')
    }),
    status: 201,
    handle: ({ db, params, body: { input, name }, by, at }) => openPlan(db, { ...params, input, name, by, at })
  })
};
