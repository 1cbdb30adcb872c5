import type { Knex } from 'knex';
import { z } from 'zod';
import { libraryOf, type Library } from '#core/build/assemble';
import { gather, type ChosenParts } from '#core/build/gather';
import { cableSchema, type Cable } from '#core/parts/cable';
import { driveSchema, type Drive } from '#core/parts/drive';
import { enclosureSchema, type Enclosure } from '#core/parts/enclosure';
import { id } from '#core/parts/form/field';
import { hostSchema, type Host } from '#core/parts/host';
import { jobSchema, type Job } from '#core/parts/job';
import { padSchema, type Pad } from '#core/parts/pad';
import { planInputSchema, type PlanInput } from '#core/plan/report';
import { portOf } from '#core/plan/resolve-build';
import { boardRule } from '#core/pads/board';
import { loadLibrary } from '../planning/planning';
import { Problem, refuse } from '../problems/problem';
import { defined } from '../problems/defined';

const stored = z.strictObject({ id: id() });
/** A part in full, or the id of a stored one. What is no bare id is checked as a part in full, so that errors name its fields. */
const fullOrStored = <T extends z.ZodType>(full: T) => z.union([stored, full]);

/** A drive with chips that lie on its board, as it is planned with. */
export const plannedDriveSchema = driveSchema.superRefine(boardRule);

/** Parts as a request may name them, by what each is called in the OpenAPI document: in full, or by the id of a stored one. */
export const partsOrIds = {
  HostOrId: fullOrStored(hostSchema),
  CableOrId: fullOrStored(cableSchema),
  EnclosureOrId: fullOrStored(enclosureSchema),
  DriveOrId: fullOrStored(plannedDriveSchema),
  PadOrId: fullOrStored(padSchema),
  JobOrId: fullOrStored(jobSchema)
};

export const planRequestSchema = z.strictObject({
  crateId: id().optional(),
  host: partsOrIds.HostOrId,
  portId: planInputSchema.shape.portId,
  cable: partsOrIds.CableOrId.optional(),
  enclosure: partsOrIds.EnclosureOrId,
  drive: partsOrIds.DriveOrId,
  pads: z.array(partsOrIds.PadOrId).max(200).optional(),
  job: partsOrIds.JobOrId.optional(),
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

/** Looks stored parts up; what was sent in full is taken as it is. */
type Lookup = <T extends object>(
  value: T | { id: string },
  among: ReadonlyMap<string, T> | undefined,
  kind: string,
  path?: string
) => T;

const lookUp: Lookup = (value, among, kind, path = kind) => {
  if (!isStored(value)) return value;
  const found = among?.get(value.id);
  if (!found) refuse([{ path: `${path}.id`, message: `is no ${kind} of this crate` }]);
  return found!;
};

const idOf = (value: object | undefined) => (value && isStored(value) ? value.id : undefined);

/** Loads what the ids of a request refer to. Without an id and a crate nothing is looked up. */
async function knownOf(db: Knex, { crateId, ...given }: PlanRequest): Promise<Library> {
  const choice = {
    hostId: idOf(given.host),
    cableId: idOf(given.cable),
    enclosureId: idOf(given.enclosure),
    driveId: idOf(given.drive),
    jobId: idOf(given.job)
  };
  if (crateId) return loadLibrary(db, crateId, [defined(choice)]);
  if (Object.values(choice).some(Boolean) || given.pads?.some((pad) => idOf(pad)))
    refuse([{ path: 'crateId', message: 'is needed with the id of a stored part' }]);
  return libraryOf([], []);
}

/**
 * Puts the stored parts in place of their ids, and what the crate knows around them beside them: its pads, prices, rates, known
 * combinations, house rules and results, unless the request brings its own.
 * @throws Problem `bad-input` with the path of an id that leads nowhere or to another kind of part, or of a port that is not there
 */
export async function resolvePlanRequest(db: Knex, request: PlanRequest): Promise<PlanInput> {
  const { crateId: _crate, pads, ...given } = request;
  const known = await knownOf(db, request);
  const ownPads = new Map(known.pads.flatMap((pad) => (pad.id ? [[pad.id, pad] as const] : [])));
  const chosen: ChosenParts = {
    host: lookUp<Host>(given.host, known.host, 'host'),
    portId: given.portId,
    ...(given.cable ? { cable: lookUp<Cable>(given.cable, known.cable, 'cable') } : {}),
    enclosure: lookUp<Enclosure>(given.enclosure, known.enclosure, 'enclosure'),
    drive: lookUp<Drive>(given.drive, known.drive, 'drive'),
    ...(given.job ? { job: lookUp<Job>(given.job, known.job, 'job') } : {}),
    stack: given.stack,
    writeCache: given.writeCache
  };
  if (!portOf(chosen.host, chosen.portId))
    throw new Problem('bad-input', `${chosen.host.name} has no port “${chosen.portId}”.`, [
      { path: 'portId', message: 'is no port of this computer' }
    ]);
  const gathered = gather(chosen, {
    ...known,
    ...defined({
      quotes: given.quotes,
      houseRules: given.houseRules,
      knownPairs: given.knownPairs,
      exchange: given.exchange,
      pads: pads?.map((pad, i) => lookUp<Pad>(pad, ownPads, 'pad', `pads.${i}`))
    })
  });
  return given.measured ? { ...gathered, measured: given.measured } : gathered;
}
