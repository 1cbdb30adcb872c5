import { z } from 'zod';
import { currency, exchangeRateSchema } from '#core/parts/exchange-rate';
import { id, text } from '#core/parts/form/field';
import { knownPairSchema } from '#core/parts/known-pair';
import { quoteSchema } from '#core/parts/quote';
import { crateSchema, updateCrate as update } from '../../repositories/crates';
import * as pairs from '../../repositories/pairs';
import * as quotes from '../../repositories/quotes';
import * as rates from '../../repositories/rates';
import { operation } from '../operation';
import { changed, CRATE, here, inCrate, inCrateWithId, version, versioned } from './common';

export const updateCrate = operation({
  method: 'put',
  path: CRATE,
  summary: 'Rename a crate or choose the currency it adds up in.',
  params: inCrate,
  body: z.strictObject({ version, name: text('Name', 60), currency: currency() }),
  response: crateSchema.extend({ group: z.string().describe('what undo takes') }),
  handle: async ({ db, params, body, by, at }) => {
    const { group } = await update(db, { id: params.crateId, ...body, by, at });
    return { ...(await here(db, params.crateId)), group };
  }
});

export const updateQuote = operation({
  method: 'put',
  path: `${CRATE}/quotes/{id}`,
  summary: 'Replace a quote.',
  params: inCrateWithId,
  body: z.strictObject({ version, quote: quoteSchema }),
  response: changed,
  handle: ({ db, params, body, by, at }) => quotes.updateQuote(db, { ...params, ...body, by, at })
});

const storedRate = z.strictObject({ id: z.string(), version: z.number(), rate: exchangeRateSchema });

export const listRates = operation({
  method: 'get',
  path: `${CRATE}/rates`,
  summary: 'Exchange rates as they were entered, newest first.',
  params: inCrate,
  response: z.array(storedRate),
  handle: ({ db, params }) => rates.listRates(db, params.crateId)
});

export const createRate = operation({
  method: 'post',
  path: `${CRATE}/rates`,
  summary: 'Note an exchange rate of a day.',
  params: inCrate,
  body: exchangeRateSchema,
  response: changed,
  status: 201,
  handle: ({ db, params, body, by, at }) => rates.createRate(db, { ...params, rate: body, by, at })
});

export const deleteRate = operation({
  method: 'delete',
  path: `${CRATE}/rates/{id}`,
  summary: 'Delete an exchange rate.',
  params: inCrateWithId,
  body: versioned,
  response: changed,
  handle: ({ db, params, body, by, at }) => rates.deleteRate(db, { ...params, ...body, by, at })
});

/** In a crate a pair always names one of its drives. */
const pairInput = knownPairSchema.extend({ driveId: id() });
const storedPair = z.strictObject({ id: z.string(), version: z.number(), pair: knownPairSchema });

export const listPairs = operation({
  method: 'get',
  path: `${CRATE}/pairs`,
  summary: 'Known pairs of a drive model and a bridge.',
  params: inCrate,
  response: z.array(storedPair),
  handle: ({ db, params }) => pairs.listPairs(db, params)
});

export const createPair = operation({
  method: 'post',
  path: `${CRATE}/pairs`,
  summary: 'Note that a drive works well or badly behind a bridge.',
  params: inCrate,
  body: pairInput,
  response: changed,
  status: 201,
  handle: ({ db, params, body, by, at }) => pairs.createPair(db, { ...params, pair: body, by, at })
});

export const updatePair = operation({
  method: 'put',
  path: `${CRATE}/pairs/{id}`,
  summary: 'Replace a known pair.',
  params: inCrateWithId,
  body: z.strictObject({ version, pair: pairInput }),
  response: changed,
  handle: ({ db, params, body, by, at }) => pairs.updatePair(db, { ...params, ...body, by, at })
});

export const deletePair = operation({
  method: 'delete',
  path: `${CRATE}/pairs/{id}`,
  summary: 'Delete a known pair.',
  params: inCrateWithId,
  body: versioned,
  response: changed,
  handle: ({ db, params, body, by, at }) => pairs.deletePair(db, { ...params, ...body, by, at })
});
