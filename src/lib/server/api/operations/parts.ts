import { z } from 'zod';
import { id } from '#core/parts/form/field';
import { KINDS } from '#core/parts/kinds';
import { modelSchema } from '#core/parts/model';
import { boardRule } from '#core/pads/board';
import { quoteSchema } from '#core/parts/quote';
import { unitSchema } from '#core/parts/item';
import * as models from '../../repositories/models';
import * as quotes from '../../repositories/quotes';
import * as units from '../../repositories/units';
import { operation } from '../operation';
import { inCrate, inCrateWithId, version, versioned, changed, CRATE } from './common';

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

const storedUnit = z.strictObject({ id: z.string(), version: z.number(), unit: unitSchema });

const storedQuote = z.strictObject({ id: z.string(), version: z.number(), quote: quoteSchema });

export const listModels = operation({
  method: 'get',
  path: `${CRATE}/models`,
  summary: 'Parts, by name; ?kind= for one kind.',
  params: inCrate,
  query: z.object({ kind: z.enum(KINDS).optional() }),
  response: z.array(storedModel),
  handle: ({ db, params, query }) => models.listModels(db, { ...params, kind: query.kind })
});

export const createModel = operation({
  method: 'post',
  path: `${CRATE}/models`,
  summary: 'Add a part.',
  params: inCrate,
  body: z.strictObject({ spec: modelInputSchema }),
  response: changed,
  status: 201,
  handle: ({ db, params, body, by, at }) => models.createModel(db, { ...params, spec: body.spec, by, at })
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
  body: z.strictObject({ version, spec: modelInputSchema }),
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
  handle: ({ db, params, query }) => units.listUnits(db, { ...params, ...query })
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
  handle: ({ db, params, query }) =>
    quotes.listQuotes(db, { ...params, ...(query.partId ? { partIds: [query.partId] } : {}) })
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
