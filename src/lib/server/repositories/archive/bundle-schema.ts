import { z } from 'zod';
import { choiceSchema } from '#core/build/choice';
import { STAGES } from '#core/build/stages';
import { currency } from '#core/parts/exchange-rate';
import { id, text } from '#core/parts/form/field';
import { jobSchema } from '#core/parts/job';
import { modelSchema } from '#core/parts/model';
import { UNIT_STATES } from '#core/parts/item';
import { houseRulesSchema, planInputSchema, planReportSchema } from '#core/plan/report';
import { HOLDERS } from '../attachments';
import { SHEET_KINDS } from '#core/format/compose';
import { targetSchema } from '../models';
import { buildTagSchema, sha256Schema, slugSchema } from './rows';

/** Every row of a bundle: what the contract says of it, and when it was made and changed. */
const stored = { id: id(), version: z.number().int().min(1), createdAt: z.iso.datetime(), updatedAt: z.iso.datetime() };
const day = z.iso.date();
const details = z.record(z.string(), z.unknown());
const line = (max: number) => z.string().max(max);
/** What a bundle says of the crate itself. */
export const bundleCrateSchema = z.strictObject({
  name: text('Name', 120),
  slug: slugSchema,
  houseRules: houseRulesSchema,
  currency: currency()
});

/**
 * A whole crate as one JSON document. Details of units, quotes, rates, pairs and runs are as the API takes them; files are
 * base64. Undo history is not in it; the log is. For other programs: what is opened here is checked by the schemas of the rows.
 */
export const bundleSchema = z
  .strictObject({
    format: z.literal('ash-crate-bundle'),
    formatVersion: z.literal(1),
    exportedAt: z.iso.datetime(),
    crate: bundleCrateSchema,
    models: z.array(z.strictObject({ ...stored, spec: modelSchema, target: targetSchema.nullable() })),
    units: z.array(
      z.strictObject({
        ...stored,
        modelId: id(),
        buildId: id().nullable(),
        tag: line(20),
        state: z.enum(UNIT_STATES),
        details
      })
    ),
    quotes: z.array(z.strictObject({ ...stored, partId: id(), date: day, details })),
    rates: z.array(z.strictObject({ ...stored, date: day, details })),
    pairs: z.array(z.strictObject({ ...stored, driveId: id(), bridge: line(120), details })),
    jobs: z.array(z.strictObject({ ...stored, name: line(120), spec: jobSchema })),
    builds: z.array(
      z.strictObject({
        ...stored,
        tag: buildTagSchema,
        name: line(120),
        stage: z.enum(STAGES),
        choice: choiceSchema,
        snapshot: planInputSchema,
        report: planReportSchema,
        engine: line(20)
      })
    ),
    runs: z.array(
      z.strictObject({
        ...stored,
        buildId: id().nullable(),
        hostId: id().nullable().optional(),
        modelId: id().nullable().optional(),
        protocol: line(20),
        date: day,
        simulated: z.boolean(),
        results: details,
        conditions: details,
        chain: details,
        accepted: z.array(z.unknown()),
        settings: details.nullable().optional(),
        series: details.nullable().optional().describe('what its file of type application/x-series holds'),
        rig: details.nullable().optional(),
        found: details.nullable().optional().describe('what was found out about it afterwards')
      })
    ),
    observations: z
      .array(
        z.strictObject({
          ...stored,
          buildId: id(),
          kind: z.enum(['imprint', 'temperature', 'trouble', 'formatted', 'on-it', 'erased']),
          date: day,
          seen: details
        })
      )
      .default([]),
    sheets: z
      .array(
        z.strictObject({
          ...stored,
          buildId: id(),
          kind: z.enum(SHEET_KINDS),
          name: line(120),
          unitIds: z.array(id()),
          readyMade: z.boolean(),
          seen: z.record(z.string(), z.string())
        })
      )
      .default([]),
    checks: z
      .array(
        z.strictObject({
          ...stored,
          sheetId: id(),
          seq: z.number().int().min(0),
          name: line(400),
          stepId: line(80),
          unitId: id().nullable(),
          done: z.boolean().nullable(),
          note: line(1000).nullable(),
          answer: details.nullable(),
          at: z.iso.datetime(),
          by: line(60),
          against: id().nullable()
        })
      )
      .default([]),
    attachments: z.array(
      z.strictObject({
        ...stored,
        stepId: line(80).nullable().optional(),
        unitId: id().nullable().optional(),
        subjectTable: z.enum(HOLDERS),
        subjectId: id(),
        name: line(200),
        type: line(100),
        size: z.number().int().min(0),
        sha256: sha256Schema,
        content: z.base64()
      })
    ),
    events: z.array(
      z.strictObject({
        at: z.iso.datetime(),
        by: line(60),
        kind: line(40),
        subjectTable: line(20),
        subjectId: id(),
        message: line(400)
      })
    )
  })
  .meta({
    title: 'Ash Crate bundle',
    description: 'A whole crate: parts, items (units), prices (quotes), builds, results, log and files.'
  });
