import * as units from '../../repositories/units';
import * as models from '../../repositories/models';
import { operation } from '../operation';
import {
  CRATE,
  inCrate,
  setsSomething,
  severalRows,
  changed,
  inCrateWithId,
  version,
  versioned,
  partAnswer,
  partQuery
} from './common';
import { z } from 'zod';
import { KINDS } from '#core/parts/kinds';
import { modelTableQuery, filtersIn } from '../table-query';
import { modelTable } from '../../repositories/model-table';
import { modelSchema } from '#core/parts/model';
import { boardRule } from '#core/pads/board';

/** What is written: chips that cannot be where they are said to be are refused with the place. */
const modelInputSchema = modelSchema.superRefine((spec, context) => {
  if (spec.kind === 'drive') boardRule(spec, context);
});

const storedModel = z.strictObject({
  id: z.string(),
  version: z.number(),
  spec: modelSchema,
  units: z.number(),
  target: models.targetSchema.optional()
});

/** The operations at `…/models`, by their names in the OpenAPI document. */
export const modelOperations = {
  listModels: operation({
    method: 'get',
    path: `${CRATE}/models`,
    summary: 'Parts, by name; ?kind= for one kind.',
    params: inCrate,
    query: z.object({ kind: z.enum(KINDS).optional(), ...partQuery }),
    response: z.array(storedModel),
    inParts: true,
    handle: async ({ db, params, query, request }) =>
      partAnswer(request, await models.modelsAfter(db, { ...params, ...query }))
  }),

  createModel: operation({
    method: 'post',
    path: `${CRATE}/models`,
    summary: 'Add a part.',
    params: inCrate,
    body: z.strictObject({
      spec: modelInputSchema,
      have: z
        .enum(units.DO_YOU_HAVE_IT)
        .default('no')
        .describe('whether one has it; what is at hand or ordered gets an item')
    }),
    response: changed.extend({ tag: z.string().optional().describe('of the item') }),
    status: 201,
    handle: ({ db, params, body: { spec, have }, by, at }) =>
      have === 'no'
        ? models.createModel(db, { ...params, spec, by, at })
        : units.addPart(db, { ...params, spec, have, by, at })
  }),

  getModel: operation({
    method: 'get',
    path: `${CRATE}/models/{id}`,
    summary: 'One part.',
    params: inCrateWithId,
    response: storedModel,
    handle: ({ db, params }) => models.getModel(db, params)
  }),

  updateModel: operation({
    method: 'put',
    path: `${CRATE}/models/{id}`,
    summary: 'Replace a part’s specification.',
    params: inCrateWithId,
    body: z.strictObject({ version, spec: modelInputSchema }),
    response: changed,
    handle: ({ db, params, body, by, at }) => models.updateModel(db, { ...params, ...body, by, at })
  }),

  deleteModel: operation({
    method: 'delete',
    path: `${CRATE}/models/{id}`,
    summary: 'Delete a part and its prices.',
    params: inCrateWithId,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) => models.deleteModel(db, { ...params, ...body, by, at })
  }),

  listModelTable: operation({
    method: 'get',
    path: `${CRATE}/models/table`,
    summary: 'One page of the parts of a kind: found, narrowed and sorted here.',
    params: inCrate,
    // A filter that is misspelt must not look like one that lets everything through.
    query: modelTableQuery.strict(),
    response: z.strictObject({ rows: z.array(storedModel), total: z.number() }),
    handle: ({ db, params, query }) => modelTable(db, { ...params, ...query, filters: filtersIn(query) })
  }),

  editModels: operation({
    method: 'put',
    path: `${CRATE}/models/many`,
    summary: 'Set the same fields of many parts, all or none; null takes a field away.',
    params: inCrate,
    body: z.strictObject({
      items: severalRows,
      set: z.record(z.string().max(60), z.unknown()).refine(setsSomething, 'must set something')
    }),
    response: changed,
    handle: ({ db, params, body, by, at }) => models.editModels(db, { ...params, ...body, by, at })
  }),

  deleteModels: operation({
    method: 'delete',
    path: `${CRATE}/models/many`,
    summary: 'Delete many parts with what hangs on them, all or none.',
    params: inCrate,
    body: z.strictObject({ items: severalRows }),
    response: changed,
    handle: ({ db, params, body, by, at }) => models.deleteModels(db, { ...params, ...body, by, at })
  }),

  setTarget: operation({
    method: 'put',
    path: `${CRATE}/models/{id}/target`,
    summary: 'Set or clear the price at which a part would be bought.',
    params: inCrateWithId,
    body: z.strictObject({ version, target: models.targetSchema.nullable() }),
    response: changed,
    handle: ({ db, params, body, by, at }) => models.setTarget(db, { ...params, ...body, by, at })
  })
};
