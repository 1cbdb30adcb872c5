import type { Knex } from 'knex';
import { z } from 'zod';
import { cableSchema } from '#core/parts/cable';
import { driveSchema } from '#core/parts/drive';
import { enclosureSchema } from '#core/parts/enclosure';
import { id } from '#core/parts/field';
import { hostSchema } from '#core/parts/host';
import { jobSchema } from '#core/parts/job';
import { modelSchema, type Model } from '#core/parts/model';
import { padSchema } from '#core/parts/pad';
import { planInputSchema, type PlanInput } from '#core/plan/report';
import { boardRule } from '#core/stack/board';
import { Problem } from '../problem';
import { getCrate } from '../repositories/crates';
import { getJob } from '../repositories/jobs';
import { listModels } from '../repositories/models';

const stored = z.strictObject({ id: id() });
/** A part in full, or the id of a stored one. What is no bare id is checked as a part in full, so that errors name its fields. */
const fullOrStored = <T extends z.ZodType>(full: T) => z.union([stored, full]);

export const planRequestSchema = z.strictObject({
  crateId: id().optional(),
  host: fullOrStored(hostSchema),
  portId: planInputSchema.shape.portId,
  cable: fullOrStored(cableSchema).optional(),
  enclosure: fullOrStored(enclosureSchema),
  drive: fullOrStored(driveSchema.superRefine(boardRule)),
  pads: z.array(fullOrStored(padSchema)).max(200).optional(),
  job: fullOrStored(jobSchema).optional(),
  quotes: planInputSchema.shape.quotes,
  houseRules: planInputSchema.shape.houseRules,
  stack: planInputSchema.shape.stack
});
type PlanRequest = z.output<typeof planRequestSchema>;

const isStored = (part: object): part is { id: string } => Object.keys(part).length === 1 && 'id' in part;

/** Puts the stored parts in place of their ids.
 *  @throws Problem `bad-input` with the path of an id that leads nowhere or to another kind of part */
export async function resolvePlanRequest(db: Knex, request: PlanRequest): Promise<PlanInput> {
  const { crateId, ...given } = request;
  const refs: string[] = [];
  for (const part of [given.host, given.cable, given.enclosure, given.drive, ...(given.pads ?? [])])
    if (part && isStored(part)) refs.push(part.id);
  const needsCrate = refs.length > 0 || (given.job !== undefined && isStored(given.job));
  if (needsCrate && !crateId)
    throw new Problem('bad-input', 'crateId: is needed with the id of a stored part.', [
      { path: 'crateId', message: 'is needed with the id of a stored part' }
    ]);
  const crate = crateId ? await getCrate(db, { id: crateId }) : undefined;
  const found = new Map<string, Model>(
    crate && refs.length > 0
      ? (await listModels(db, { crateId: crate.id, ids: refs })).map(({ id, spec }) => [id, spec])
      : []
  );

  const part = <K extends Model['kind']>(
    value: { id: string } | Extract<Model, { kind: K }>,
    kind: K,
    path: string
  ): Extract<Model, { kind: K }> => {
    if (!isStored(value)) return value as Extract<Model, { kind: K }>;
    const spec = found.get(value.id);
    if (spec?.kind !== kind)
      throw new Problem('bad-input', `${path}.id: is no ${kind} of this crate.`, [
        { path: `${path}.id`, message: `is no ${kind} of this crate` }
      ]);
    return modelSchema.parse(spec) as Extract<Model, { kind: K }>;
  };
  return {
    host: part(given.host, 'host', 'host'),
    portId: given.portId,
    ...(given.cable ? { cable: part(given.cable, 'cable', 'cable') } : {}),
    enclosure: part(given.enclosure, 'enclosure', 'enclosure'),
    drive: part(given.drive, 'drive', 'drive'),
    ...(given.pads ? { pads: given.pads.map((pad, i) => part(pad, 'pad', `pads.${i}`)) } : {}),
    ...(given.job
      ? {
          job: isStored(given.job)
            ? (await getJob(db, { crateId: crate!.id, id: given.job.id })).spec
            : (given.job as PlanInput['job'])
        }
      : {}),
    ...(given.stack ? { stack: given.stack } : {}),
    ...(given.quotes ? { quotes: given.quotes } : {}),
    houseRules: given.houseRules ?? crate?.houseRules ?? {}
  };
}
