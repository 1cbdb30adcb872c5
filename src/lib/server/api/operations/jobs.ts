import * as jobs from '../../repositories/jobs';
import { operation } from '../operation';
import { CRATE, inCrate, changed, inCrateWithId, version, versioned, partAnswer, partQuery } from './common';
import { z } from 'zod';
import { jobSchema } from '#core/parts/job';

const storedJob = z.strictObject({ id: z.string(), version: z.number(), spec: jobSchema });

/** The operations at `…/jobs`, by their names in the OpenAPI document. */
export const jobOperations = {
  listJobs: operation({
    method: 'get',
    path: `${CRATE}/jobs`,
    summary: 'Jobs, by name.',
    params: inCrate,
    query: z.object(partQuery),
    response: z.array(storedJob),
    inParts: true,
    handle: async ({ db, params, query, request }) =>
      partAnswer(request, await jobs.jobsAfter(db, { ...params, ...query }))
  }),

  createJob: operation({
    method: 'post',
    path: `${CRATE}/jobs`,
    summary: 'Add a job.',
    params: inCrate,
    body: z.strictObject({ spec: jobSchema }),
    response: changed,
    status: 201,
    handle: ({ db, params, body, by, at }) => jobs.createJob(db, { ...params, ...body, by, at })
  }),

  updateJob: operation({
    method: 'put',
    path: `${CRATE}/jobs/{id}`,
    summary: 'Replace a job.',
    params: inCrateWithId,
    body: z.strictObject({ version, spec: jobSchema }),
    response: changed,
    handle: ({ db, params, body, by, at }) => jobs.updateJob(db, { ...params, ...body, by, at })
  }),

  deleteJob: operation({
    method: 'delete',
    path: `${CRATE}/jobs/{id}`,
    summary: 'Delete a job.',
    params: inCrateWithId,
    body: versioned,
    response: changed,
    handle: ({ db, params, body, by, at }) => jobs.deleteJob(db, { ...params, ...body, by, at })
  })
};
