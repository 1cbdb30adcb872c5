import { isDeepStrictEqual } from 'node:util';
import type { Knex } from 'knex';
import type { Choice } from '#core/build/choice';
import type { Job } from '#core/parts/job';
import type { Model } from '#core/parts/model';
import type { PlanInput } from '#core/plan/report';
import { changeMany, newId } from '../db/change';
import { writing } from '../db/writing';
import { jobToRow, listJobs } from './jobs';
import { listSpecs, modelToRow } from './models';

type WithoutId<T> = T extends unknown ? Omit<T, 'id'> : never;
const nameless = <T extends { id?: string | undefined }>({ id: _id, ...rest }: T): Omit<T, 'id'> => rest;

/** What a plan file came to in a crate: the choice that makes the plan again, how many parts were new, and what takes them back. */
export type OpenedPlan = { choice: Choice; added: number; group: string | null };

/**
 * Takes the parts of a plan into a crate, as one change. A part that the crate knows under the same name with the same specification is
 * not doubled.
 */
export async function openPlan(
  db: Knex,
  args: { crateId: string; input: PlanInput; name: string; by: string; at: string }
): Promise<OpenedPlan> {
  const { crateId, input, name, by, at } = args;
  return writing(db, crateId, async (trx) => {
    const [known, jobs] = await Promise.all([listSpecs(trx, { crateId }), listJobs(trx, crateId)]);
    const inserts: { table: 'models' | 'jobs'; id: string; row: Record<string, unknown> }[] = [];
    const idOf = (part: WithoutId<Model>): string => {
      const same = known.find((one) => isDeepStrictEqual(nameless(one), part));
      if (same) return same.id;
      const id = newId();
      inserts.push({ table: 'models', id, row: modelToRow({ ...part, id } as Model) });
      return id;
    };
    const jobIdOf = (job: Omit<Job, 'id'>): string => {
      const same = jobs.find(({ spec }) => isDeepStrictEqual(nameless(spec), job));
      if (same) return same.id;
      const id = newId();
      inserts.push({ table: 'jobs', id, row: jobToRow(job) });
      return id;
    };
    const choice: Choice = {
      hostId: idOf(nameless(input.host)),
      portId: input.portId,
      ...(input.cable ? { cableId: idOf(nameless(input.cable)) } : {}),
      enclosureId: idOf(nameless(input.enclosure)),
      driveId: idOf(nameless(input.drive)),
      ...(input.job ? { jobId: jobIdOf(nameless(input.job)) } : {}),
      ...(input.writeCache ? { writeCache: input.writeCache } : {})
    };
    if (inserts.length === 0) return { choice, added: 0, group: null };
    const group = newId();
    const event = {
      kind: 'added',
      message: `Opened the plan ${name}: ${inserts.length} ${inserts.length === 1 ? 'part' : 'parts'} added.`
    };
    await changeMany(trx, { crateId, by, at, group, event, inserts });
    return { choice, added: inserts.length, group };
  });
}
