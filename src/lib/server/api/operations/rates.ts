import * as rates from '../../repositories/rates';
import { operation } from '../operation';
import { CRATE, inCrate, changed, inCrateWithId, versioned } from './common';
import { z } from 'zod';
import { exchangeRateSchema } from '#core/parts/exchange-rate';

const storedRate = z.strictObject({ id: z.string(), version: z.number(), rate: exchangeRateSchema });

/** The operations at `…/rates`, by their names in the OpenAPI document. */
export const rateOperations = {
  listRates: operation({
    method: 'get',
    path: `${CRATE}/rates`,
    summary: 'Exchange rates as they were entered, newest first.',
    params: inCrate,
    response: z.array(storedRate),
    handle: ({ db, params }) => rates.listRates(db, params.crateId)
  }),

  createRate: operation({
    method: 'post',
    path: `${CRATE}/rates`,
    summary: 'Note an exchange rate of a day.',
    params: inCrate,
    body: exchangeRateSchema,
    response: changed,
    status: 201,
    handle: ({ db, params, body, by, at }) => rates.createRate(db, { ...params, rate: body, by, at })
  }),

  deleteRate: operation({
    method: 'delete',
    path: `${CRATE}/rates/{id}`,
    summary: 'Delete an exchange rate.',
    params: inCrateWithId,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) => rates.deleteRate(db, { ...params, ...body, by, at })
  })
};
