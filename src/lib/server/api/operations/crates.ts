import * as crates from '../../repositories/crates';
import { crateSchema, updateCrate as update } from '../../repositories/crates';
import { operation } from '../operation';
import { z } from 'zod';
import { text } from '#core/parts/form/field';
import { CRATE, inCrate, here, version, changed } from './common';
import { currency } from '#core/parts/exchange-rate';
import { patiently } from '../../db';
import { Problem } from '../../problems/problem';
import { resetDemo } from '../../demo/seed';

/** The operations at `…/crates`, by their names in the OpenAPI document. */
export const crateOperations = {
  listCrates: operation({
    method: 'get',
    path: '/api/crates',
    summary: 'All crates.',
    response: z.array(crates.crateSchema),
    handle: ({ db }) => crates.listCrates(db)
  }),

  createCrate: operation({
    method: 'post',
    path: '/api/crates',
    summary: 'Make an empty crate.',
    body: z.strictObject({ name: text('Name', 60) }),
    response: crates.crateSchema,
    status: 201,
    handle: ({ db, body, at }) => crates.createCrate(db, { name: body.name.trim(), at })
  }),

  getCrate: operation({
    method: 'get',
    path: CRATE,
    summary: 'One crate.',
    params: inCrate,
    response: crates.crateSchema,
    handle: ({ db, params }) => here(db, params.crateId)
  }),

  updateCrate: operation({
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
  }),

  deleteCrate: operation({
    method: 'delete',
    path: CRATE,
    summary: `Delete a crate with everything in it. It is hidden at once, can be brought back for ${crates.KEPT_DAYS} days, and is purged then.`,
    params: inCrate,
    body: z.strictObject({ version }),
    response: changed,
    handle: ({ db, params, body, by, at }) => crates.deleteCrate(db, { id: params.crateId, ...body, by, at })
  }),

  listDeletedCrates: operation({
    method: 'get',
    path: '/api/crates/deleted',
    summary: 'Crates that were deleted and can still be brought back.',
    response: z.array(crates.deletedCrateSchema),
    handle: ({ db }) => crates.listDeletedCrates(db)
  }),

  bringBackCrate: operation({
    method: 'post',
    path: `${CRATE}/bring-back`,
    summary: 'Bring a deleted crate back as it was.',
    params: inCrate,
    hidden: true,
    body: z.strictObject({ version }),
    response: changed,
    handle: ({ db, params, body, by, at }) => crates.bringBackCrate(db, { id: params.crateId, ...body, by, at })
  }),

  purgeCrate: operation({
    method: 'delete',
    path: `${CRATE}/for-good`,
    summary: 'Remove a deleted crate for good, at once. Nothing brings it back but a bundle or a backup.',
    params: inCrate,
    hidden: true,
    body: z.strictObject({ confirm: z.literal('for good') }),
    response: z.strictObject({ id: z.string() }),
    handle: async ({ params }) => {
      await patiently((db) => crates.purgeCrate(db, params.crateId));
      return { id: params.crateId };
    }
  }),

  resetCrate: operation({
    method: 'post',
    path: `${CRATE}/reset`,
    summary: 'Put the demo crate back to how it ships. Other crates are refused.',
    params: inCrate,
    body: z.strictObject({}),
    response: crates.crateSchema,
    handle: async ({ db, params, at }) => {
      const crate = await here(db, params.crateId);
      if (!crate.demo) throw new Problem('conflict', 'Only the demo crate can be reset.');
      return resetDemo(db, at);
    }
  })
};
