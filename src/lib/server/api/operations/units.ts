import { day } from '#core/quantities/format';
import * as units from '../../repositories/units';
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
import { id, text, isoDate, isAhead } from '#core/parts/form/field';
import { unitSchema, UNIT_STATES } from '#core/parts/item';
import { unitTableQuery } from '../table-query';
import { unitTable } from '../../repositories/unit-table';
import { refuse } from '../../problems/problem';
import { KINDS } from '#core/parts/kinds';

const storedUnit = z.strictObject({ id: z.string(), version: z.number(), unit: unitSchema });

const unitRow = z.strictObject({
  id: z.string(),
  version: z.number(),
  unit: unitSchema,
  model: z.strictObject({ id: z.string(), name: z.string(), kind: z.enum(KINDS) }),
  build: z.strictObject({ id: z.string(), tag: z.string(), name: z.string() }).optional()
});

const unitEdit = z
  .strictObject({
    state: z.enum(UNIT_STATES).optional(),
    location: text('Where', 120).nullable().optional(),
    custodian: text('Who has it', 120).nullable().optional(),
    dueBack: isoDate().nullable().optional(),
    buildId: id().nullable().optional(),
    notes: z.string().max(2000).nullable().optional()
  })
  .refine(setsSomething, 'must set something');

/** The operations at `…/units`, by their names in the OpenAPI document. */
export const unitOperations = {
  listUnits: operation({
    method: 'get',
    path: `${CRATE}/units`,
    summary: 'Physical things, by tag.',
    params: inCrate,
    query: z.object({ modelId: id().optional(), ...partQuery }),
    response: z.array(storedUnit),
    inParts: true,
    handle: async ({ db, params, query, request }) =>
      partAnswer(request, await units.unitsAfter(db, { ...params, ...query }))
  }),

  createUnit: operation({
    method: 'post',
    path: `${CRATE}/units`,
    summary: 'Add an item of a part.',
    params: inCrate,
    body: unitSchema,
    response: changed,
    status: 201,
    handle: ({ db, params, body, by, at }) => units.createUnit(db, { ...params, unit: body, by, at })
  }),

  updateUnit: operation({
    method: 'put',
    path: `${CRATE}/units/{id}`,
    summary: 'Replace an item.',
    params: inCrateWithId,
    body: z.strictObject({ version, unit: unitSchema }),
    response: changed,
    handle: ({ db, params, body, by, at }) => units.updateUnit(db, { ...params, ...body, by, at })
  }),

  deleteUnit: operation({
    method: 'delete',
    path: `${CRATE}/units/{id}`,
    summary: 'Delete an item.',
    params: inCrateWithId,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) => units.deleteUnit(db, { ...params, ...body, by, at })
  }),

  listUnitTable: operation({
    method: 'get',
    path: `${CRATE}/units/table`,
    summary: 'One page of the items with their parts and builds; ?tag= finds one.',
    params: inCrate,
    query: unitTableQuery.strict(),
    response: z.strictObject({ rows: z.array(unitRow), total: z.number() }),
    handle: ({ db, params, query }) => unitTable(db, { ...params, ...query })
  }),

  addUnits: operation({
    method: 'post',
    path: `${CRATE}/units/many`,
    summary: 'Add several items of one part; tags are given.',
    params: inCrate,
    body: z.strictObject({
      count: z.number().int().min(1).max(200),
      unit: unitSchema.omit({ id: true, tag: true })
    }),
    response: changed.extend({ tags: z.array(z.string()) }),
    status: 201,
    handle: ({ db, params, body, by, at }) => units.addUnits(db, { ...params, ...body, by, at })
  }),

  editUnits: operation({
    method: 'put',
    path: `${CRATE}/units/many`,
    summary: 'Set the same fields of many items, all or none; null takes a field away.',
    params: inCrate,
    body: z.strictObject({ items: severalRows, set: unitEdit }),
    response: changed,
    handle: ({ db, params, body, by, at }) => units.editUnits(db, { ...params, ...body, by, at })
  }),

  deleteUnits: operation({
    method: 'delete',
    path: `${CRATE}/units/many`,
    summary: 'Delete many items, all or none.',
    params: inCrate,
    body: z.strictObject({ items: severalRows }),
    response: changed,
    handle: ({ db, params, body, by, at }) => units.deleteUnits(db, { ...params, ...body, by, at })
  }),

  checkOut: operation({
    method: 'post',
    path: `${CRATE}/units/check-out`,
    summary: 'Lend items to somebody, with the day they are due back.',
    params: inCrate,
    body: z.strictObject({ items: severalRows, to: text('Who takes it', 120), dueBack: isoDate().optional() }),
    response: changed,
    handle: ({ db, params, body: { items: which, to, dueBack }, by, at }) => {
      if (dueBack !== undefined && isAhead(at.slice(0, 10), dueBack))
        refuse([{ path: 'dueBack', message: 'is in the past' }]);
      return units.editUnits(db, {
        ...params,
        items: which,
        set: { custodian: to, dueBack: dueBack ?? null },
        event: {
          kind: 'checked out',
          message: (tags) => `${to} took ${tags}${dueBack ? `, due back ${day(dueBack)}` : ''}.`
        },
        by,
        at
      });
    }
  }),

  checkIn: operation({
    method: 'post',
    path: `${CRATE}/units/check-in`,
    summary: 'Note items as returned, and say where they are now.',
    params: inCrate,
    body: z.strictObject({ items: severalRows, location: text('Where', 120).optional() }),
    response: changed,
    handle: ({ db, params, body: { items: which, location }, by, at }) =>
      units.editUnits(db, {
        ...params,
        items: which,
        set: { custodian: null, dueBack: null, ...(location ? { location } : {}) },
        event: { kind: 'checked in', message: (tags) => `${tags} came back${location ? `, to ${location}` : ''}.` },
        by,
        at
      })
  })
};
