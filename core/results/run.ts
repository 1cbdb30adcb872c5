import { z } from 'zod';
import { FILESYSTEM_IDS } from '../facts/filesystems.ts';
import type { LinkMode } from '../facts/link-modes.ts';
import { isoDate, measure } from '../parts/form/field.ts';

/** What a pair check gives: medians, MB/s. At least one of the four. */
export const pairResultsSchema = z
  .strictObject({
    readMBps: measure('Sequential read', 'MB/s', 0.001, 1e6).optional(),
    writeMBps: measure('Sequential write', 'MB/s', 0.001, 1e6).optional(),
    random4kReadMBps: measure('Random 4 KiB read, queue depth 1', 'MB/s', 0.001, 1e6).optional(),
    random4kWriteMBps: measure('Random 4 KiB write, queue depth 1', 'MB/s', 0.001, 1e6).optional()
  })
  .refine((results) => Object.values(results).some((value) => value !== undefined), 'at least one result is needed');

/** Everything that two runs must share before they may be compared. */
export const conditionsSchema = z.strictObject({
  filesystem: z.enum(FILESYSTEM_IDS).optional(),
  writeCache: z.enum(['performance', 'quick-removal', 'system-default']).optional(),
  fillPercent: z.number().min(0).max(100).optional(),
  ambientC: z.number().min(-30).max(60).optional(),
  startC: z.number().min(-30).max(110).optional(),
  power: z.enum(['mains', 'battery']).optional(),
  encrypted: z.boolean().optional(),
  indexing: z.boolean().optional(),
  testGB: z.number().min(0.001).max(100_000).optional(),
  repeats: z.number().int().min(1).max(1000).optional(),
  notes: z.string().max(2000).optional()
});

export const runInputSchema = z.strictObject({
  protocol: z.literal('pair-check'),
  date: isoDate(),
  results: pairResultsSchema,
  conditions: conditionsSchema,
  simulated: z.boolean().default(false),
  /** Alarms of the plausibility gates that the person has looked at and keeps. */
  accepted: z.array(z.string().max(60)).max(20).default([])
});

export type PairResults = z.infer<typeof pairResultsSchema>;
export type Conditions = z.infer<typeof conditionsSchema>;
export type RunInput = z.input<typeof runInputSchema>;
/** A result as it was kept: its figures, under which conditions, and the chain it ran on by the names of then. */
export type KeptResult = {
  date: string;
  simulated: boolean;
  results: PairResults;
  conditions: Conditions;
  chain: { host: string; port: string; os: string; cable?: string | undefined; mode: LinkMode | null };
};
