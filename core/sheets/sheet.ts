import { z } from 'zod';
import { bandSchema } from '../plan/report.ts';
import { RETENTIONS, OPENINGS } from '../parts/enclosure.ts';
import { drawingSchema } from './drawing.ts';
import { formatChoicesSchema } from './format-choices.ts';

/**
 * Names a step of a sheet: its code, where it is done, and the parts that it is for, so that a step for another part is another step.
 * @example stepId().safeParse('../x').success // false
 */
export const stepId = () => z.string().regex(/^[a-z0-9][a-z0-9.:-]{0,79}$/, 'is no step of a sheet');

/** One thing the hands do. */
export const stepSchema = z.strictObject({
  id: stepId(),
  code: z.string(),
  text: z.string(),
  reason: z.string().optional(),
  caution: z.string().optional(),
  command: z.string().optional().describe('what shows or does the same in a terminal; never names a device'),
  see: z
    .enum(['guard', 'ladder', 'record', 'on-it', 'plan'])
    .optional()
    .describe('which part of the station it is done in'),
  drawing: drawingSchema.optional(),
  ask: z.string().optional().describe('what is written down here'),
  once: z.literal(true).optional().describe('done once, however many items are put together')
});
export type SheetStep = z.infer<typeof stepSchema>;

/** What the part itself does not say, and the sheet depends on: the answer is kept in the part. */
export const askSchema = z.strictObject({
  question: z.enum(['retention', 'opening', 'screws', 'directionMark']),
  text: z.string(),
  options: z.array(z.strictObject({ value: z.string(), label: z.string() }))
});
export type Ask = z.infer<typeof askSchema>;

/** The answer to a question, as a part keeps it. */
export const answerSchema = z.discriminatedUnion('question', [
  z.strictObject({ question: z.literal('retention'), value: z.enum(RETENTIONS) }),
  z.strictObject({ question: z.literal('opening'), value: z.enum(OPENINGS) }),
  z.strictObject({ question: z.literal('directionMark'), value: z.boolean() }),
  z.strictObject({
    question: z.literal('screws'),
    value: z.strictObject({ head: z.enum(['cross', 'star', 'hex']), count: z.number().int().min(1).max(24) })
  }),
  z.strictObject({ question: z.literal('format'), value: formatChoicesSchema })
]);
export type SheetAnswer = z.infer<typeof answerSchema>;

export const stageSchema = z.strictObject({
  id: z.string(),
  title: z.string(),
  steps: z.array(stepSchema),
  asks: z.array(askSchema),
  check: z.string(),
  checkId: stepId().describe('what is ticked when the check of this stage holds')
});
export type SheetStage = z.infer<typeof stageSchema>;

/** A thing to have on the table before the first step. */
export const kitSchema = z.strictObject({
  id: stepId(),
  what: z.string(),
  from: z.string().describe('where it comes from, in words'),
  modelId: z.string().optional()
});
export type Kit = z.infer<typeof kitSchema>;

export const sheetSchema = z.strictObject({
  minutes: bandSchema.describe('of all items together'),
  units: z.number(),
  tools: z.array(z.string()),
  spares: z.array(z.string()),
  kit: z.array(kitSchema),
  stages: z.array(stageSchema),
  warnings: z.array(z.string()).describe('what the plan says against putting it together at all')
});
export type RunSheet = z.infer<typeof sheetSchema>;

/**
 * Lists everything of a sheet that can be ticked, with its words: kit, steps, and the check that ends each stage.
 * @example tickable({ kit: [], stages: [] }).length // 0
 */
export const tickable = ({
  kit,
  stages
}: Pick<RunSheet, 'kit' | 'stages'>): { id: string; text: string; once: boolean }[] => [
  ...kit.map(({ id, what }) => ({ id, text: what, once: true })),
  ...stages.flatMap(({ steps, check, checkId }) => [
    ...steps.map(({ id, text, once }) => ({ id, text, once: once === true })),
    { id: checkId, text: check, once: true }
  ])
];
