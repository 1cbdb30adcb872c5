import * as pairs from '../../repositories/pairs';
import { operation } from '../operation';
import { CRATE, inCrate, changed, inCrateWithId, version, versioned } from './common';
import { z } from 'zod';
import { id } from '#core/parts/form/field';
import { knownPairSchema } from '#core/parts/known-pair';

/** In a crate a pair always names one of its drives. */
const pairInput = knownPairSchema.extend({ driveId: id() });

const storedPair = z.strictObject({ id: z.string(), version: z.number(), pair: knownPairSchema });

/** The operations at `…/pairs`, by their names in the OpenAPI document. */
export const pairOperations = {
  listPairs: operation({
    method: 'get',
    path: `${CRATE}/pairs`,
    summary: 'Known combinations of a drive and a bridge.',
    params: inCrate,
    response: z.array(storedPair),
    handle: ({ db, params }) => pairs.listPairs(db, params)
  }),

  createPair: operation({
    method: 'post',
    path: `${CRATE}/pairs`,
    summary: 'Note that a drive works well or badly behind a bridge.',
    params: inCrate,
    body: pairInput,
    response: changed,
    status: 201,
    handle: ({ db, params, body, by, at }) => pairs.createPair(db, { ...params, pair: body, by, at })
  }),

  updatePair: operation({
    method: 'put',
    path: `${CRATE}/pairs/{id}`,
    summary: 'Replace a known combination.',
    params: inCrateWithId,
    body: z.strictObject({ version, pair: pairInput }),
    response: changed,
    handle: ({ db, params, body, by, at }) => pairs.updatePair(db, { ...params, ...body, by, at })
  }),

  deletePair: operation({
    method: 'delete',
    path: `${CRATE}/pairs/{id}`,
    summary: 'Delete a known combination.',
    params: inCrateWithId,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) => pairs.deletePair(db, { ...params, ...body, by, at })
  })
};
