import * as quotes from '../../repositories/quotes';
import { operation } from '../operation';
import { CRATE, inCrate, changed, inCrateWithId, version, versioned, partAnswer, partQuery } from './common';
import { z } from 'zod';
import { id } from '#core/parts/form/field';
import { quoteSchema } from '#core/parts/quote';

const storedQuote = z.strictObject({ id: z.string(), version: z.number(), quote: quoteSchema });

/** The operations at `…/quotes`, by their names in the OpenAPI document. */
export const quoteOperations = {
  listQuotes: operation({
    method: 'get',
    path: `${CRATE}/quotes`,
    summary: 'Prices, newest first.',
    params: inCrate,
    query: z.object({ partId: id().optional(), ...partQuery }),
    response: z.array(storedQuote),
    inParts: true,
    handle: async ({ db, params, query, request }) =>
      partAnswer(request, await quotes.quotesAfter(db, { ...params, ...query }))
  }),

  createQuote: operation({
    method: 'post',
    path: `${CRATE}/quotes`,
    summary: 'Note a price for a part.',
    params: inCrate,
    body: quoteSchema,
    response: changed,
    status: 201,
    handle: ({ db, params, body, by, at }) => quotes.createQuote(db, { ...params, quote: body, by, at })
  }),

  updateQuote: operation({
    method: 'put',
    path: `${CRATE}/quotes/{id}`,
    summary: 'Replace a price.',
    params: inCrateWithId,
    body: z.strictObject({ version, quote: quoteSchema }),
    response: changed,
    handle: ({ db, params, body, by, at }) => quotes.updateQuote(db, { ...params, ...body, by, at })
  }),

  deleteQuote: operation({
    method: 'delete',
    path: `${CRATE}/quotes/{id}`,
    summary: 'Delete a price.',
    params: inCrateWithId,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) => quotes.deleteQuote(db, { ...params, ...body, by, at })
  })
};
