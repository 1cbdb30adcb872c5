import { z } from 'zod';
import type { LinkMode } from '../facts/link-modes.ts';
import { id, isoDate, measure } from '../parts/form/field.ts';
import { seriesSchema } from '../series/series.ts';
import { conditionsSchema, type Conditions } from './conditions.ts';
import { PROTOCOL_IDS } from './protocol-ids.ts';
import { settingsSchema } from './settings.ts';

/** One timed stretch of a run: a repeat, a round, one way of a copy. */
export const repeatSchema = z.strictObject({
  what: z.enum(['write', 'read', 'copy-in', 'copy-out', 'rewrite', 'task']),
  GB: z.number().min(0.001).max(200_000).optional(),
  seconds: z.number().min(0.01).max(1e7).optional(),
  MBps: z.number().min(0.001).max(1e6).optional(),
  byHand: z.boolean().optional().describe('timed with a stopwatch')
});
export type Repeat = z.infer<typeof repeatSchema>;

const rate = (title: string) => measure(title, 'MB/s', 0.001, 1e6).optional();

/** What came out, MB/s. At least one figure. Rates of copies stand by themselves: another disk has its part in them. */
export const resultsSchema = z.strictObject({
  readMBps: rate('Sequential read'),
  writeMBps: rate('Sequential write'),
  random4kReadMBps: rate('Random 4 KiB read, queue depth 1'),
  random4kWriteMBps: rate('Random 4 KiB write, queue depth 1'),
  sustainedWriteMBps: rate('Write after the cache'),
  copyInMBps: rate('Copy to the drive'),
  copyOutMBps: rate('Copy from the drive'),
  repeats: z.array(repeatSchema).max(500).optional(),
  limitedBy: z.enum(['drive', 'program', 'other-disk', 'unknown']).optional()
});
export const pairResultsSchema = resultsSchema.refine(
  ({ repeats, limitedBy: _limitedBy, ...figures }) =>
    Object.values(figures).some((value) => value !== undefined) || (repeats?.length ?? 0) > 0,
  'at least one result is needed'
);

/** What a run was of: a build, a computer's internal disk, or something bought complete. */
export const subjectSchema = z.union([
  z.strictObject({ buildId: id() }),
  z.strictObject({ hostId: id() }),
  z.strictObject({ modelId: id() })
]);
export type Subject = z.infer<typeof subjectSchema>;

export const runInputSchema = z.strictObject({
  protocol: z.enum(PROTOCOL_IDS),
  date: isoDate(),
  results: pairResultsSchema.optional(),
  series: seriesSchema.optional(),
  settings: settingsSchema.optional(),
  conditions: conditionsSchema,
  simulated: z.boolean().default(false),
  /** Alarms of the plausibility gates that the person has looked at and keeps. */
  accepted: z.array(z.string().max(60)).max(20).default([])
});
/** The same of a run on whatever it was measured on. */
export const crateRunInputSchema = runInputSchema.extend({ subject: subjectSchema });

export type PairResults = z.infer<typeof resultsSchema>;
export type RunInput = z.input<typeof runInputSchema>;
/** A result as it was kept: its figures, under which conditions, and the chain it ran on by the names of then. */
export type KeptResult = {
  date: string;
  simulated: boolean;
  results: PairResults;
  conditions: Conditions;
  chain: { host: string; port: string; os: string; cable?: string | undefined; mode: LinkMode | null };
};
