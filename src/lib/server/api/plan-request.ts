import type { Knex } from 'knex';
import { z } from 'zod';
import { libraryOf } from '#core/build/assemble';
import { gather, type ChosenParts } from '#core/build/gather';
import { cableSchema, type Cable } from '#core/parts/cable';
import { driveSchema, type Drive } from '#core/parts/drive';
import { enclosureSchema, type Enclosure } from '#core/parts/enclosure';
import { id } from '#core/parts/form/field';
import { hostSchema, type Host } from '#core/parts/host';
import { jobSchema, type Job } from '#core/parts/job';
import { padSchema, type Pad } from '#core/parts/pad';
import { planInputSchema, type PlanInput } from '#core/plan/report';
import { boardRule } from '#core/pads/board';
import { loadLibrary } from '../planning/planning';
import { Problem } from '../problems/problem';
import { defined } from '../problems/defined';

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
  knownPairs: planInputSchema.shape.knownPairs,
  exchange: planInputSchema.shape.exchange,
  measured: planInputSchema.shape.measured,
  writeCache: planInputSchema.shape.writeCache,
  stack: planInputSchema.shape.stack
});
type PlanRequest = z.output<typeof planRequestSchema>;

const isStored = (part: object): part is { id: string } => Object.keys(part).length === 1 && 'id' in part;

/**
 * Puts the stored parts in place of their ids, and what the crate knows around them beside them: its pads, prices, rates, known
 * pairs, house rules and results, unless the request brings its own.
 * @throws Problem `bad-input` with the path of an id that leads nowhere or to another kind of part
 */
export async function resolvePlanRequest(db: Knex, request: PlanRequest): Promise<PlanInput> {
  const { crateId, pads: givenPads, ...given } = request;
  const idOf = (value: object | undefined) => (value && isStored(value) ? value.id : undefined);
  const choice = {
    hostId: idOf(given.host),
    cableId: idOf(given.cable),
    enclosureId: idOf(given.enclosure),
    driveId: idOf(given.drive),
    jobId: idOf(given.job)
  };
  const padIds = givenPads?.flatMap((pad) => idOf(pad) ?? []) ?? [];
  if ((padIds.length > 0 || Object.values(choice).some(Boolean)) && !crateId)
    throw new Problem('bad-input', 'crateId: is needed with the id of a stored part.', [
      { path: 'crateId', message: 'is needed with the id of a stored part' }
    ]);
  const known = crateId ? await loadLibrary(db, crateId, [defined(choice)]) : libraryOf([], []);

  const part = <T extends object>(
    value: T | { id: string },
    among: ReadonlyMap<string, T> | undefined,
    kind: string,
    path: string
  ): T => {
    if (!isStored(value)) return value as T;
    const found = among?.get(value.id);
    if (!found)
      throw new Problem('bad-input', `${path}.id: is no ${kind} of this crate.`, [
        { path: `${path}.id`, message: `is no ${kind} of this crate` }
      ]);
    return found;
  };
  const ownPads = new Map(known.pads.flatMap((pad) => (pad.id ? [[pad.id, pad] as const] : [])));
  const { job } = given;
  const chosen: ChosenParts = {
    host: part<Host>(given.host, known.host, 'host', 'host'),
    portId: given.portId,
    ...(given.cable ? { cable: part<Cable>(given.cable, known.cable, 'cable', 'cable') } : {}),
    enclosure: part<Enclosure>(given.enclosure, known.enclosure, 'enclosure', 'enclosure'),
    drive: part<Drive>(given.drive, known.drive, 'drive', 'drive'),
    ...(job ? { job: part<Job>(job, known.job, 'job', 'job') } : {}),
    stack: given.stack,
    writeCache: given.writeCache
  };
  const gathered = gather(chosen, {
    ...known,
    pads: givenPads ? givenPads.map((pad, i) => part<Pad>(pad, ownPads, 'pad', `pads.${i}`)) : known.pads,
    quotes: given.quotes ?? known.quotes,
    houseRules: given.houseRules ?? known.houseRules,
    knownPairs: given.knownPairs ?? known.knownPairs,
    exchange: given.exchange ?? known.exchange
  });
  return given.measured ? { ...gathered, measured: given.measured } : gathered;
}
