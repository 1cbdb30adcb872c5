import { z } from 'zod';
import { conditionsSchema } from '#core/results/conditions';
import { PROTOCOL_IDS } from '#core/results/protocol-ids';
import { pairResultsSchema, resultsSchema } from '#core/results/run';
import { settingsSchema } from '#core/results/settings';
import { choiceSchema } from '#core/build/choice';
import { imprintCheckSchema } from '#core/temperature-logs/observation';
import { STAGES } from '#core/build/stages';
import { currency, exchangeRateSchema } from '#core/parts/exchange-rate';
import { id, text } from '#core/parts/form/field';
import { jobSchema } from '#core/parts/job';
import { knownPairSchema } from '#core/parts/known-pair';
import { KINDS } from '#core/parts/kinds';
import { modelSchema } from '#core/parts/model';
import { quoteSchema } from '#core/parts/quote';
import { unitSchema, UNIT_STATES } from '#core/parts/item';
import { houseRulesSchema, planInputSchema, planReportSchema } from '#core/plan/report';
import { erasedSchema } from '#core/erase/sanitise';
import { formatRecordSchema, onItSchema } from '#core/format/record';
import { troubleRecordSchema } from '#core/diagnosis/record';
import { MOST_UNITS } from '#core/assembly/run-sheet';
import { seenStepsSchema } from '#core/sheets/progress';
import { answerSchema, stepId } from '#core/sheets/sheet';
import { temperatureLogSchema } from '#core/temperature-logs/log';
import { fieldsOf } from '../../problems/fields';
import type { FieldProblem } from '../../problems/problem';
import { HOLDERS } from '../attachments';
import { SHEET_KINDS } from '#core/format/compose';
import { targetSchema } from '../models';
import { seriesMetaSchema } from '../run-series';
import { chainSchema, rigRowSchema } from '../runs';
import { foundSchema } from '#core/diagnosis/found';

/** In the order in which rows can be written: what is referred to comes first. Contents of files come before all of them. */
export const ROW_TABLES = [
  'crates',
  'counters',
  'models',
  'jobs',
  'builds',
  'units',
  'quotes',
  'rates',
  'pairs',
  'runs',
  'observations',
  'sheets',
  'checks',
  'attachments',
  'revisions',
  'events'
] as const;
export type RowTable = (typeof ROW_TABLES)[number];
export type DbRow = Record<string, unknown>;

const when = z.iso.datetime();
const day = z.iso.date();
const line = (max: number) => z.string().max(max);
const flag = z.union([z.literal(0), z.literal(1), z.boolean()]);
const stored = {
  id: id(),
  crate_id: id(),
  version: z.number().int().min(1).max(4e9),
  created_at: when,
  updated_at: when
};
/** Everything a change can be of; also in the log. */
const WRITTEN = z.enum([
  'crates',
  'models',
  'units',
  'quotes',
  'jobs',
  'builds',
  'runs',
  'observations',
  'rates',
  'pairs',
  'sheets',
  'checks',
  'attachments'
]);
const record = z.record(z.string(), z.unknown());

/** The address of a crate, and what a build's label says: what a page can be reached by. */
export const slugSchema = z
  .string()
  .max(60)
  .regex(/^[a-z0-9]+(?:-[a-z0-9]+)*$/, 'must be letters and digits with single hyphens');
export const buildTagSchema = z
  .string()
  .max(20)
  .regex(/^AC-\d{4,9}$/, 'must be AC- and a number');
export const sha256Schema = z.string().regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in hex');

const sameName = (row: { name: string; spec: { name: string } }) => row.name === row.spec.name;

/** What the rows of each table must be, so that every page can read them. */
const SCHEMAS: Record<RowTable, z.ZodType> = {
  crates: z.strictObject({
    id: id(),
    slug: slugSchema,
    name: text('Name', 120),
    demo: flag,
    house_rules: houseRulesSchema,
    currency: currency().default('EUR'),
    version: stored.version,
    created_at: when,
    updated_at: when,
    deleted_at: when.nullable().optional()
  }),
  counters: z.strictObject({ name: line(40), value: z.number().int().min(0).max(4e9) }),
  models: z
    .strictObject({
      ...stored,
      kind: z.enum(KINDS),
      name: text('Name', 120),
      spec: modelSchema,
      target: targetSchema.nullable().optional()
    })
    .refine((row) => sameName(row) && row.kind === row.spec.kind, { path: ['spec'], message: 'is of another part' }),
  jobs: z
    .strictObject({ ...stored, name: text('Name', 120), spec: jobSchema })
    .refine(sameName, { path: ['spec', 'name'], message: 'is another one' }),
  builds: z.strictObject({
    ...stored,
    tag: buildTagSchema,
    name: text('Name', 120),
    stage: z.enum(STAGES),
    choice: choiceSchema,
    snapshot: planInputSchema,
    report: planReportSchema,
    engine: line(20)
  }),
  units: z.strictObject({
    ...stored,
    model_id: id(),
    build_id: id().nullable().optional(),
    tag: unitSchema.shape.tag,
    state: z.enum(UNIT_STATES),
    details: unitSchema.omit({ id: true, modelId: true, buildId: true, tag: true, state: true })
  }),
  quotes: z.strictObject({
    ...stored,
    part_id: id(),
    date: day,
    details: quoteSchema.omit({ partId: true, date: true })
  }),
  rates: z.strictObject({ ...stored, date: day, details: exchangeRateSchema.omit({ date: true }) }),
  pairs: z.strictObject({
    ...stored,
    drive_id: id(),
    bridge: knownPairSchema.shape.bridge,
    details: knownPairSchema.omit({ driveId: true, drive: true, bridge: true })
  }),
  runs: z
    .strictObject({
      ...stored,
      build_id: id().nullable(),
      host_id: id().nullable().optional(),
      model_id: id().nullable().optional(),
      protocol: z.enum(PROTOCOL_IDS),
      date: day,
      simulated: flag,
      results: resultsSchema,
      conditions: conditionsSchema,
      chain: chainSchema,
      accepted: z.array(line(60)).max(20),
      settings: settingsSchema.nullable().optional(),
      series: seriesMetaSchema.nullable().optional(),
      rig: rigRowSchema.nullable().optional(),
      found: foundSchema.nullable().optional(),
      busy_drive: line(60).nullable().optional()
    })
    // Figures, a series, or the rig that is still at it: one of them there is.
    .refine((row) => row.series || row.rig || pairResultsSchema.safeParse(row.results).success, {
      path: ['results'],
      message: 'at least one result is needed'
    })
    .refine((row) => [row.build_id, row.host_id, row.model_id].filter((id) => typeof id === 'string').length === 1, {
      path: ['build_id'],
      message: 'must name one thing that was measured'
    }),
  observations: z.discriminatedUnion('kind', [
    z.strictObject({ ...stored, build_id: id(), kind: z.literal('imprint'), date: day, seen: imprintCheckSchema }),
    z.strictObject({
      ...stored,
      build_id: id(),
      kind: z.literal('temperature'),
      date: day,
      seen: temperatureLogSchema
    }),
    z.strictObject({ ...stored, build_id: id(), kind: z.literal('trouble'), date: day, seen: troubleRecordSchema }),
    z.strictObject({ ...stored, build_id: id(), kind: z.literal('formatted'), date: day, seen: formatRecordSchema }),
    z.strictObject({ ...stored, build_id: id(), kind: z.literal('on-it'), date: day, seen: onItSchema }),
    z.strictObject({ ...stored, build_id: id(), kind: z.literal('erased'), date: day, seen: erasedSchema })
  ]),
  sheets: z.strictObject({
    ...stored,
    build_id: id(),
    kind: z.enum(SHEET_KINDS),
    name: text('Name', 120),
    unit_ids: z.array(id()).max(MOST_UNITS),
    ready_made: flag,
    seen: seenStepsSchema
  }),
  checks: z.strictObject({
    ...stored,
    sheet_id: id(),
    seq: z.number().int().min(0).max(4e9),
    name: line(400),
    step_id: stepId(),
    unit_id: id().nullable(),
    done: flag.nullable(),
    note: line(1000).nullable(),
    answer: answerSchema.nullable(),
    at: when,
    by: line(60),
    against: id().nullable()
  }),
  attachments: z.strictObject({
    ...stored,
    step_id: stepId().nullable().optional(),
    unit_id: id().nullable().optional(),
    subject_table: z.enum(HOLDERS),
    subject_id: id(),
    name: text('Name', 200),
    type: z.string().regex(/^[\w.+-]{1,48}\/[\w.+-]{1,48}$/, 'must be a type such as image/png'),
    size: z.number().int().min(0).max(4e9),
    sha256: sha256Schema
  }),
  revisions: z.strictObject({
    id: id(),
    crate_id: id(),
    group_id: id(),
    at: when,
    by: line(60),
    row_table: WRITTEN,
    row_id: id(),
    before: record.nullable(),
    after: record.nullable(),
    undone: flag
  }),
  events: z.strictObject({
    seq: z.number().int().min(1).optional(),
    crate_id: id(),
    at: when,
    by: line(60),
    kind: line(40),
    subject_table: WRITTEN,
    subject_id: id(),
    message: line(400)
  })
};

/** What is wrong with a row, by the path below it; nothing where every page can read it. */
export function rowProblems(table: RowTable, row: DbRow): FieldProblem[] {
  const parsed = SCHEMAS[table].safeParse(row);
  return parsed.success ? [] : fieldsOf(parsed.error);
}

/** Which column refers to which table. */
export const REFERENCES: readonly { table: RowTable; column: string; to: RowTable }[] = [
  { table: 'units', column: 'model_id', to: 'models' },
  { table: 'quotes', column: 'part_id', to: 'models' },
  { table: 'pairs', column: 'drive_id', to: 'models' },
  { table: 'runs', column: 'build_id', to: 'builds' },
  { table: 'runs', column: 'host_id', to: 'models' },
  { table: 'runs', column: 'model_id', to: 'models' },
  { table: 'observations', column: 'build_id', to: 'builds' },
  { table: 'sheets', column: 'build_id', to: 'builds' },
  { table: 'checks', column: 'sheet_id', to: 'sheets' },
  { table: 'units', column: 'build_id', to: 'builds' }
];

/** How many rows go into one statement. */
export const batchOf = (table: RowTable): number => (table === 'builds' || table === 'revisions' ? 50 : 200);
