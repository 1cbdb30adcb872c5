import { z } from 'zod';
import { id, isAhead, isoDate, text } from '#core/parts/form/field';
import { KINDS } from '#core/parts/kinds';
import { modelSchema } from '#core/parts/model';
import { UNIT_STATES, unitSchema } from '#core/parts/item';
import { modelTable } from '../../repositories/model-table';
import * as models from '../../repositories/models';
import { unitTable } from '../../repositories/unit-table';
import * as units from '../../repositories/units';
import { search } from '../../repositories/search';
import { refuse } from '../../problems/problem';
import { operation } from '../operation';
import { filtersIn, modelTableQuery, unitTableQuery } from '../table-query';
import { changed, CRATE, inCrate, inCrateWithId, version } from './common';

const items = z
  .array(z.strictObject({ id: id(), version }))
  .min(1)
  .max(500)
  .refine((list) => new Set(list.map((item) => item.id)).size === list.length, 'must not name anything twice');
const something = (set: object) => Object.keys(set).length > 0;
const storedModel = z.strictObject({
  id: z.string(),
  version: z.number(),
  spec: modelSchema,
  units: z.number(),
  target: models.targetSchema.optional()
});
const unitRow = z.strictObject({
  id: z.string(),
  version: z.number(),
  unit: unitSchema,
  model: z.strictObject({ id: z.string(), name: z.string(), kind: z.enum(KINDS) }),
  build: z.strictObject({ id: z.string(), tag: z.string(), name: z.string() }).optional()
});

export const listModelTable = operation({
  method: 'get',
  path: `${CRATE}/models/table`,
  summary: 'One page of the parts of a kind: found, narrowed and sorted here.',
  params: inCrate,
  // A filter that is misspelt must not look like one that lets everything through.
  query: modelTableQuery.strict(),
  response: z.strictObject({ rows: z.array(storedModel), total: z.number() }),
  handle: ({ db, params, query }) => modelTable(db, { ...params, ...query, filters: filtersIn(query) })
});

export const editModels = operation({
  method: 'put',
  path: `${CRATE}/models/many`,
  summary: 'Set the same fields of many parts, all or none; null takes a field away.',
  params: inCrate,
  body: z.strictObject({
    items,
    set: z.record(z.string().max(60), z.unknown()).refine(something, 'must set something')
  }),
  response: changed,
  handle: ({ db, params, body, by, at }) => models.editModels(db, { ...params, ...body, by, at })
});

export const deleteModels = operation({
  method: 'delete',
  path: `${CRATE}/models/many`,
  summary: 'Delete many parts with what hangs on them, all or none.',
  params: inCrate,
  body: z.strictObject({ items }),
  response: changed,
  handle: ({ db, params, body, by, at }) => models.deleteModels(db, { ...params, ...body, by, at })
});

export const setTarget = operation({
  method: 'put',
  path: `${CRATE}/models/{id}/target`,
  summary: 'Set or clear the price at which a part would be bought.',
  params: inCrateWithId,
  body: z.strictObject({ version, target: models.targetSchema.nullable() }),
  response: changed,
  handle: ({ db, params, body, by, at }) => models.setTarget(db, { ...params, ...body, by, at })
});

export const listUnitTable = operation({
  method: 'get',
  path: `${CRATE}/units/table`,
  summary: 'One page of the units with their models and builds; ?tag= finds one.',
  params: inCrate,
  query: unitTableQuery.strict(),
  response: z.strictObject({ rows: z.array(unitRow), total: z.number() }),
  handle: ({ db, params, query }) => unitTable(db, { ...params, ...query })
});

export const addUnits = operation({
  method: 'post',
  path: `${CRATE}/units/many`,
  summary: 'Add several units of one model; tags are given.',
  params: inCrate,
  body: z.strictObject({
    count: z.number().int().min(1).max(200),
    unit: unitSchema.omit({ id: true, tag: true })
  }),
  response: changed.extend({ tags: z.array(z.string()) }),
  status: 201,
  handle: ({ db, params, body, by, at }) => units.addUnits(db, { ...params, ...body, by, at })
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
  .refine(something, 'must set something');

export const editUnits = operation({
  method: 'put',
  path: `${CRATE}/units/many`,
  summary: 'Set the same fields of many units, all or none; null takes a field away.',
  params: inCrate,
  body: z.strictObject({ items, set: unitEdit }),
  response: changed,
  handle: ({ db, params, body, by, at }) => units.editUnits(db, { ...params, ...body, by, at })
});

export const deleteUnits = operation({
  method: 'delete',
  path: `${CRATE}/units/many`,
  summary: 'Delete many units, all or none.',
  params: inCrate,
  body: z.strictObject({ items }),
  response: changed,
  handle: ({ db, params, body, by, at }) => units.deleteUnits(db, { ...params, ...body, by, at })
});

export const checkOut = operation({
  method: 'post',
  path: `${CRATE}/units/check-out`,
  summary: 'Give units to somebody, with the day they are due back.',
  params: inCrate,
  body: z.strictObject({ items, to: text('Who takes it', 120), dueBack: isoDate().optional() }),
  response: changed,
  handle: ({ db, params, body: { items: which, to, dueBack }, by, at }) => {
    if (dueBack !== undefined && isAhead(at.slice(0, 10), dueBack))
      refuse([{ path: 'dueBack', message: 'is in the past' }]);
    return units.editUnits(db, {
      ...params,
      items: which,
      set: { custodian: to, dueBack: dueBack ?? null },
      event: { kind: 'checked out', message: (tags) => `${to} took ${tags}${dueBack ? `, due back ${dueBack}` : ''}.` },
      by,
      at
    });
  }
});

export const checkIn = operation({
  method: 'post',
  path: `${CRATE}/units/check-in`,
  summary: 'Take units back, and say where they are now.',
  params: inCrate,
  body: z.strictObject({ items, location: text('Where', 120).optional() }),
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
});

export const findEverything = operation({
  method: 'get',
  path: `${CRATE}/search`,
  summary: 'Find words in parts, units, builds, jobs, quotes and known pairs.',
  params: inCrate,
  query: z.object({ q: z.string().min(1).max(200) }),
  response: z.array(
    z.strictObject({
      sort: z.enum(['part', 'unit', 'build', 'job', 'quote', 'pair']),
      title: z.string(),
      detail: z.string(),
      path: z.string().describe('below the page of the crate; builds below the root')
    })
  ),
  handle: ({ db, params, query }) => search(db, { ...params, words: query.q })
});
