import type { Knex } from 'knex';
import { z } from 'zod';
import {
  imprintCheckSchema,
  observationInputSchema,
  untouchedBy,
  type ObservationInput
} from '#core/temperature-logs/observation';
import { erasedSchema, MEANS_LABEL } from '#core/erase/sanitise';
import { formatRecordSchema, lossOf, onItSchema, recordWords } from '#core/format/record';
import { troubleRecordSchema, type TroubleRecord } from '#core/diagnosis/record';
import { planInputSchema, type PlanInput } from '#core/plan/report';
import { SYMPTOM_WORDS } from '#core/diagnosis/question';
import { temperatureLogSchema, type TemperatureLog } from '#core/temperature-logs/log';
import { change, newId, type ChangeResult } from '../db/change';
import { notFound } from '../problems/problem';

const base = { id: z.string(), version: z.number(), buildId: z.string(), date: z.string() };
export const storedObservationSchema = z.discriminatedUnion('kind', [
  z.strictObject({ ...base, kind: z.literal('imprint'), seen: imprintCheckSchema }),
  z.strictObject({ ...base, kind: z.literal('temperature'), seen: temperatureLogSchema }),
  z.strictObject({ ...base, kind: z.literal('trouble'), seen: troubleRecordSchema }),
  z.strictObject({ ...base, kind: z.literal('formatted'), seen: formatRecordSchema }),
  z.strictObject({ ...base, kind: z.literal('on-it'), seen: onItSchema }),
  z.strictObject({ ...base, kind: z.literal('erased'), seen: erasedSchema })
]);
export type StoredObservation = z.infer<typeof storedObservationSchema>;
type By = { by: string; at: string };

const fromRow = (row: Record<string, unknown>): StoredObservation =>
  storedObservationSchema.parse({
    id: row.id,
    version: row.version,
    buildId: row.build_id,
    date: row.date,
    kind: row.kind,
    seen: row.seen
  });

/** What was seen on a build, newest first. */
export async function listObservations(
  db: Knex,
  args: { crateId: string; buildId: string }
): Promise<StoredObservation[]> {
  const where = { crate_id: args.crateId, build_id: args.buildId };
  return (await db('observations').where(where).orderBy('date', 'desc').orderBy('id', 'desc')).map(fromRow);
}

/** The temperature logs of every build in one enclosure, each with the parts it was read on. */
export async function logsOfEnclosure(
  db: Knex,
  args: { crateId: string; enclosureId: string }
): Promise<{ tag: string; build: PlanInput; log: TemperatureLog }[]> {
  const rows = (await db('observations')
    .join('builds', 'builds.id', 'observations.build_id')
    .where({ 'observations.crate_id': args.crateId, 'observations.kind': 'temperature' })
    .where({ 'builds.crate_id': args.crateId, 'builds.enclosure_id': args.enclosureId })
    .orderBy('observations.id')
    .limit(500)
    .select('observations.seen', 'builds.snapshot', 'builds.tag')) as {
    seen: unknown;
    snapshot: unknown;
    tag: string;
  }[];
  return rows.map(({ seen, snapshot, tag }) => ({
    tag,
    build: planInputSchema.parse(snapshot),
    log: temperatureLogSchema.parse(seen)
  }));
}

function sentenceFor(tag: string, { kind, seen }: ObservationInput): string {
  if (kind === 'temperature')
    return `Entered temperatures of ${tag}: ${Math.max(...seen.points.map((p) => p.C))} °C ${seen.place === 'case' ? 'on the case' : `at the ${seen.place}`}.`;
  if (kind === 'formatted') return `Formatted ${tag}: ${recordWords(seen)}.`;
  if (kind === 'on-it') return `What would be lost by erasing ${tag}: ${lossOf(seen).says}`;
  if (kind === 'erased') return `Erased the drive ${seen.serial} of ${tag}: ${MEANS_LABEL[seen.means].toLowerCase()}.`;
  const untouched = untouchedBy(seen).length;
  return untouched > 0
    ? `Imprint check of ${tag}: ${untouched} of ${seen.chips.length} pads did not touch.`
    : `Imprint check of ${tag}: every pad touches.`;
}

/** What kind of event each is. */
const EVENT_OF = {
  imprint: 'measured',
  temperature: 'measured',
  formatted: 'formatted',
  'on-it': 'formatted',
  erased: 'erased'
} as const;

export function createObservation(
  db: Knex,
  args: { crateId: string; buildId: string; tag: string; observation: ObservationInput } & By
): Promise<ChangeResult> {
  const { crateId, buildId, tag, by, at } = args;
  const observation = observationInputSchema.parse(args.observation);
  const { kind, date, seen } = observation;
  return change(db, {
    action: 'insert',
    table: 'observations',
    crateId,
    id: newId(),
    by,
    at,
    event: { kind: EVENT_OF[kind], message: sentenceFor(tag, observation).slice(0, 400) },
    row: { build_id: buildId, kind, date, seen }
  });
}

/** Keeps how a cause was looked for on a build, and where that ended. */
export function createTroubleRecord(
  db: Knex,
  args: { crateId: string; buildId: string; tag: string; record: TroubleRecord } & By
): Promise<ChangeResult> {
  const { crateId, buildId, tag, record, by, at } = args;
  const ended = record.cause === null ? 'could not be told' : record.says;
  const message = `${tag} ${SYMPTOM_WORDS[record.symptom]}: ${ended}`.slice(0, 400);
  return change(db, {
    action: 'insert',
    table: 'observations',
    crateId,
    id: newId(),
    by,
    at,
    event: { kind: 'trouble', message },
    row: { build_id: buildId, kind: 'trouble', date: at.slice(0, 10), seen: record }
  });
}

const WHAT = {
  imprint: 'an imprint check',
  temperature: 'a temperature log',
  trouble: 'a search for a cause',
  formatted: 'the record of a format',
  'on-it': 'what was said to be on the drive',
  erased: 'a certificate of erasing'
} as const;

export async function deleteObservation(
  db: Knex,
  args: { crateId: string; buildId: string; id: string; version: number } & By
): Promise<ChangeResult> {
  const { crateId, buildId, id, version, by, at } = args;
  const row = await db('observations').where({ crate_id: crateId, build_id: buildId, id }).first('kind');
  if (!row) throw notFound('observation');
  const event = { kind: 'deleted', message: `Deleted ${WHAT[row.kind as keyof typeof WHAT]}.` };
  return change(db, { action: 'delete', table: 'observations', crateId, id, version, by, at, event });
}
