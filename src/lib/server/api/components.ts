import { z } from 'zod';
import { choiceSchema } from '#core/build/choice';
import {
  filtersSchema,
  rankInputSchema,
  rankReportSchema,
  rankRowSchema,
  weightsSchema
} from '#core/compare/ranking/request';
import { stackChoiceSchema } from '#core/pads/choice';
import { alternativeSchema } from '#core/parts/alternative';
import { cableSchema } from '#core/parts/cable';
import { driveSchema } from '#core/parts/drive';
import { enclosureSchema } from '#core/parts/enclosure';
import { exchangeRateSchema } from '#core/parts/exchange-rate';
import { hostSchema, osSchema, portSchema } from '#core/parts/host';
import { unitSchema } from '#core/parts/item';
import { jobSchema } from '#core/parts/job';
import { knownPairSchema } from '#core/parts/known-pair';
import { modelSchema } from '#core/parts/model';
import { padSchema } from '#core/parts/pad';
import { quoteSchema } from '#core/parts/quote';
import {
  bandSchema,
  decisionSchema,
  filesystemPickSchema,
  findingSchema,
  measuredSchema,
  planInputSchema,
  planReportSchema,
  workingSchema
} from '#core/plan/report';
import { attachedReportSchema } from '#core/format/attached';
import { formatRecordSchema, onItSchema } from '#core/format/record';
import { erasedSchema } from '#core/erase/sanitise';
import { listedDeviceSchema } from '#core/listing/device';
import { listingReportSchema } from '#core/listing/read';
import { formatChoicesSchema, volumeSchema } from '#core/sheets/format-choices';
import { entryInputSchema, entrySchema } from '#core/sheets/progress';
import { drawingSchema } from '#core/sheets/drawing';
import { answerSchema, askSchema, sheetSchema, stageSchema, stepSchema } from '#core/sheets/sheet';
import { analysisSchema } from '#core/analysis/report';
import { causeSchema, symptomSchema, triedAnswerSchema } from '#core/diagnosis/asking';
import { diagnosisSchema } from '#core/diagnosis/diagnose';
import { foundSchema } from '#core/diagnosis/found';
import { nextTestSchema } from '#core/diagnosis/next-test';
import { troubleAnswersSchema, troubleReportSchema } from '#core/diagnosis/trouble';
import { troubleRecordSchema } from '#core/diagnosis/record';
import { conditionsSchema } from '#core/results/conditions';
import { crateRunInputSchema, pairResultsSchema, repeatSchema, resultsSchema, runInputSchema } from '#core/results/run';
import { settingsSchema } from '#core/results/settings';
import { seriesSchema } from '#core/series/series';
import { simulateReportSchema } from '#core/simulate/simulate';
import { temperatureLogSchema } from '#core/temperature-logs/log';
import { imprintCheckSchema, observationInputSchema } from '#core/temperature-logs/observation';
import { bundleSchema } from '../repositories/archive/bundle-schema';
import { attachmentSchema } from '../repositories/attachments';
import { storedBuildSchema } from '../repositories/builds';
import { crateSchema, deletedCrateSchema } from '../repositories/crates';
import { storedObservationSchema } from '../repositories/observations';
import { storedSheetSchema } from '../repositories/sheets';
import { chainSchema, rigStateSchema, storedRunSchema } from '../repositories/runs';
import { importRequestSchema } from '../transfer/import-request';
import { errorSchema } from './operation';
import { changed, task } from './operations/common';
import { partsOrIds, plannedDriveSchema, planRequestSchema } from './plan-request';

/** The schemas that the OpenAPI document names; everything else stands where it is used. */
const NAMED: readonly (readonly [string, z.ZodType])[] = [
  ['Error', errorSchema],
  ['Task', task],
  ...Object.entries(partsOrIds),
  ['Analysis', analysisSchema],
  ['Diagnosis', diagnosisSchema],
  ['NextTest', nextTestSchema],
  ['FoundLater', foundSchema],
  ['TriedTest', triedAnswerSchema],
  ['Changed', changed],
  ['Band', bandSchema],
  ['Os', osSchema],
  ['Port', portSchema],
  ['Host', hostSchema],
  ['Cable', cableSchema],
  ['Enclosure', enclosureSchema],
  ['Drive', driveSchema],
  ['PlannedDrive', plannedDriveSchema],
  ['Pad', padSchema],
  ['Alternative', alternativeSchema],
  ['Model', modelSchema],
  ['Unit', unitSchema],
  ['Quote', quoteSchema],
  ['ExchangeRate', exchangeRateSchema],
  ['KnownPair', knownPairSchema],
  ['Job', jobSchema],
  ['Stack', stackChoiceSchema],
  ['Choice', choiceSchema],
  ['PlanInput', planInputSchema],
  ['PlanRequest', planRequestSchema],
  ['PlanReport', planReportSchema],
  ['Finding', findingSchema],
  ['Working', workingSchema],
  ['AppliedRule', decisionSchema],
  ['MeasuredRates', measuredSchema],
  ['RankInput', rankInputSchema],
  ['RankReport', rankReportSchema],
  ['RankRow', rankRowSchema],
  ['RankWeights', weightsSchema],
  ['RankFilters', filtersSchema],
  ['SimulateReport', simulateReportSchema],
  ['Results', pairResultsSchema],
  ['Conditions', conditionsSchema],
  ['Run', runInputSchema],
  ['CrateRun', crateRunInputSchema],
  ['KeptResults', resultsSchema],
  ['Repeat', repeatSchema],
  ['RunSettings', settingsSchema],
  ['Series', seriesSchema],
  ['RigState', rigStateSchema],
  ['StoredRun', storedRunSchema],
  ['Chain', chainSchema],
  ['Observation', observationInputSchema],
  ['StoredObservation', storedObservationSchema],
  ['TemperatureLog', temperatureLogSchema],
  ['ImprintCheck', imprintCheckSchema],
  ['StoredBuild', storedBuildSchema],
  ['Crate', crateSchema],
  ['DeletedCrate', deletedCrateSchema],
  ['ListedDevice', listedDeviceSchema],
  ['ListingReport', listingReportSchema],
  ['AttachedDisks', attachedReportSchema],
  ['Volume', volumeSchema],
  ['FormatChoices', formatChoicesSchema],
  ['FormatRecord', formatRecordSchema],
  ['OnIt', onItSchema],
  ['Erased', erasedSchema],
  ['FilesystemPick', filesystemPickSchema],
  ['SheetDrawing', drawingSchema],
  ['SheetStep', stepSchema],
  ['SheetAsk', askSchema],
  ['SheetAnswer', answerSchema],
  ['SheetStage', stageSchema],
  ['RunSheet', sheetSchema],
  ['SheetEntryInput', entryInputSchema],
  ['SheetEntry', entrySchema],
  ['StoredSheet', storedSheetSchema],
  ['Symptom', symptomSchema],
  ['TroubleAnswers', troubleAnswersSchema],
  ['TroubleReport', troubleReportSchema],
  ['TroubleRecord', troubleRecordSchema],
  ['CauseCode', causeSchema],
  ['Attachment', attachmentSchema],
  ['ImportRequest', importRequestSchema],
  ['Bundle', bundleSchema]
];
const NAME = new Map<unknown, string>(NAMED.map(([name, schema]) => [schema, name]));

type Io = 'input' | 'output';
type Json = Record<string, unknown>;

/** Where a named schema stands. What is taken may differ from what is given: defaults, dates. */
const place = (name: string): Json => ({ $ref: `#/components/schemas/${name}` });

/** Writes a schema as JSON Schema, with the named ones in it by reference. */
function written(schema: z.ZodType, io: Io, nameOf: (name: string, io: Io) => string): Json {
  const { $schema: _dialect, ...rest } = z.toJSONSchema(schema, {
    io,
    unrepresentable: 'any',
    reused: 'inline',
    override: ({ zodSchema, jsonSchema, path }) => {
      const name = path.length > 0 ? NAME.get(zodSchema) : undefined;
      if (name === undefined) return;
      // What is said of it here, such as a title, stays beside the reference.
      const { title, description } = jsonSchema;
      for (const key of Object.keys(jsonSchema)) delete jsonSchema[key];
      Object.assign(jsonSchema, place(nameOf(name, io)), title ? { title } : {}, description ? { description } : {});
    }
  }) as Json & { $schema?: string };
  return rest;
}

/** The names of schemas that are taken otherwise than they are given. */
const DIFFER = new Set(
  NAMED.filter(([, schema]) => {
    const asIs = (name: string) => name;
    return JSON.stringify(written(schema, 'input', asIs)) !== JSON.stringify(written(schema, 'output', asIs));
  }).map(([name]) => name)
);
const nameOf = (name: string, io: Io): string => (io === 'input' && DIFFER.has(name) ? `${name}Taken` : name);

/** Writes a schema for the document: by reference where it has a name. */
export function schemaOf(schema: z.ZodType, io: Io): Json {
  const name = NAME.get(schema);
  return name === undefined ? written(schema, io, nameOf) : place(nameOf(name, io));
}

/** Gives all named schemas that a document refers to, by their names. */
export function componentsFor(paths: object): Record<string, Json> {
  const components: Record<string, Json> = {};
  const byName = new Map(
    NAMED.flatMap(([name, schema]) =>
      (['input', 'output'] as const).map((io) => [nameOf(name, io), { schema, io }] as const)
    )
  );
  const add = (text: string): void => {
    for (const [, name] of text.matchAll(/"#\/components\/schemas\/(\w+)"/g)) {
      const found = byName.get(name!);
      if (!found || components[name!]) continue;
      const json = written(found.schema, found.io, nameOf);
      components[name!] = json;
      add(JSON.stringify(json));
    }
  };
  add(JSON.stringify(paths));
  return Object.fromEntries(Object.entries(components).sort(([a], [b]) => (a < b ? -1 : 1)));
}
