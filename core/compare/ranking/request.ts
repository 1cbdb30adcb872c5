import { VERDICTS } from '../../findings/finding.ts';
import { z } from 'zod';
import { appliedRule, chosenOption, type AppliedRule, type HouseRules } from '../../house-rules/house-rules.ts';
import { alternativeSchema } from '../../parts/alternative.ts';
import { currency, exchangeRateSchema } from '../../parts/exchange-rate.ts';
import { cableSchema } from '../../parts/cable.ts';
import { driveSchema } from '../../parts/drive.ts';
import { enclosureSchema } from '../../parts/enclosure.ts';
import { hostSchema } from '../../parts/host.ts';
import { jobSchema, type Job } from '../../parts/job.ts';
import { knownPairSchema } from '../../parts/known-pair.ts';
import { padSchema } from '../../parts/pad.ts';
import { quoteSchema } from '../../parts/quote.ts';
import { bandSchema, decisionSchema, houseRulesSchema, measuredSchema } from '../../plan/report.ts';

/** What combinations are compared by. The first two are better when higher, the others when lower. */
export const CRITERIA = ['sustainedWrite', 'read', 'seconds', 'cost', 'perTB'] as const;
export type Criterion = (typeof CRITERIA)[number];
/** What else people weigh; none of it counts unless they say so. More of each is better. */
export const TRAITS = ['silence', 'lightness', 'tools', 'reach', 'fallback', 'room'] as const;
export type Trait = (typeof TRAITS)[number];
export type Weights = Record<Criterion, number> & Partial<Record<Trait, number>>;

/** Speed over the whole job, the time it takes and the price of a terabyte count alike; the person moves them. */
export const USUAL_WEIGHTS: Weights = { sustainedWrite: 1, read: 0, seconds: 1, cost: 0, perTB: 1 };

/** A single transfer of this much is a large one, GB. */
const LARGE_GB = 100;

/**
 * Gives the weights that a ranking begins with, by the house rule on what a drive is picked for. By the work: what it writes for long
 * where single transfers are large; the time with all its small files, and reading, where a project lives on the drive.
 * @example beginWeights({ name: 'j', purposes: [], transferGB: 1, direction: 'in' }, undefined).weights.sustainedWrite // 1
 */
export function beginWeights(job: Job, rules: HouseRules | undefined): { weights: Weights; decided: AppliedRule } {
  const begin = (effect: string, weights: Weights) => ({ weights, decided: appliedRule('pick-for', rules, effect) });
  switch (chosenOption('pick-for', rules)) {
    case 'sustained':
      return begin('writing for long counts most', { sustainedWrite: 3, read: 0, seconds: 1, cost: 0, perTB: 0.5 });
    case 'price':
      return begin('the price counts most', { sustainedWrite: 0.5, read: 0, seconds: 0.5, cost: 1, perTB: 2 });
  }
  if (job.purposes.includes('scratch') && (job.files ?? 0) > 0 && job.transferGB < LARGE_GB)
    return begin('a project lives on it: the time with all its files and reading count most', {
      sustainedWrite: 0.5,
      read: 1,
      seconds: 2,
      cost: 0,
      perTB: 1
    });
  if (job.transferGB >= LARGE_GB)
    return begin('single transfers are large: writing past the cache counts most', {
      sustainedWrite: 2,
      read: 0,
      seconds: 1,
      cost: 0,
      perTB: 1
    });
  return begin('neither large transfers nor a project: speed, time and price alike', USUAL_WEIGHTS);
}

const weight = z.number().min(0).max(100).optional();
export const weightsSchema = z.strictObject({
  sustainedWrite: weight,
  read: weight,
  seconds: weight,
  cost: weight,
  perTB: weight,
  silence: weight.describe('no fan, no disk'),
  lightness: weight.describe('weight of case, drive and supply'),
  tools: weight.describe('opened without tools'),
  reach: weight.describe('length of the cable'),
  fallback: weight.describe('runs on a plain USB port as well'),
  room: weight.describe('room for the job with a reserve of a fifth')
});

/** What narrows the ranking among combinations that work. What is filtered out is counted, and is no rejection. */
export const filtersSchema = z.strictObject({
  verdicts: z
    .array(z.enum(VERDICTS).exclude(['fails']))
    .min(1)
    .max(3)
    .optional(),
  minSustainedWriteMBps: z.number().min(0).max(1e5).optional(),
  minCapacityTB: z.number().min(0).max(1000).optional(),
  maxCost: z.number().min(0).max(1e7).optional(),
  /** What is still to be paid: parts in the stock cost nothing more. */
  maxSpend: z.number().min(0).max(1e7).optional(),
  ownedOnly: z.boolean().optional()
});
export type Filters = z.infer<typeof filtersSchema>;

export const MOST_ROWS = 5000;

/** A row names its parts by id: two of one id could not be told apart. */
const distinct = (parts: readonly { id?: string | undefined }[]): boolean => {
  const ids = parts.flatMap(({ id }) => (id === undefined ? [] : [id]));
  return new Set(ids).size === ids.length;
};
const TWICE = 'two have the same id';

const combinationSchema = z.strictObject({
  hostId: z.string(),
  portId: z.string(),
  cableId: z.string().optional(),
  enclosureId: z.string(),
  driveId: z.string()
});
export type Combination = z.infer<typeof combinationSchema>;

/** Everything that is combined, parts in full. */
export const rankInputSchema = z.strictObject({
  hosts: z.array(hostSchema).min(1).max(50).refine(distinct, TWICE),
  cables: z.array(cableSchema).max(200).refine(distinct, TWICE),
  enclosures: z.array(enclosureSchema).min(1).max(500).refine(distinct, TWICE),
  drives: z.array(driveSchema).min(1).max(500).refine(distinct, TWICE),
  pads: z.array(padSchema).max(200).optional(),
  job: jobSchema,
  quotes: z.array(quoteSchema).max(20_000).optional(),
  houseRules: houseRulesSchema.optional(),
  knownPairs: z.array(knownPairSchema).max(500).optional(),
  exchange: z.strictObject({ currency: currency(), rates: z.array(exchangeRateSchema).max(1000) }).optional(),
  weights: weightsSchema.optional(),
  filters: filtersSchema.optional(),
  /** Other ways to the same end, ranked beside the combinations. */
  alternatives: z.array(alternativeSchema).max(200).optional(),
  /** What a part at hand would sell for, by id: counts where the house rule says so. */
  resale: z.record(z.string().max(40), z.number().min(0).max(1e6)).optional(),
  /** Results of single combinations, newest first: the newest sound one stands in the place of the forecast of its job. */
  measured: z
    .array(
      combinationSchema.extend({
        date: z.iso.date(),
        simulated: z.boolean(),
        readMBps: z.number().min(0.001).max(1e6).optional(),
        writeMBps: z.number().min(0.001).max(1e6).optional()
      })
    )
    .max(5000)
    .optional(),
  /** How many of each part are at hand, by id. */
  stock: z.record(z.string().max(40), z.number().int().min(0).max(10_000)).optional(),
  limit: z.number().int().min(0).max(MOST_ROWS).optional()
});
export type RankInput = z.infer<typeof rankInputSchema>;

const byCriterion = z.partialRecord(z.enum(CRITERIA), z.number());
const byWeighed = z.partialRecord(z.enum([...CRITERIA, ...TRAITS]), z.number());
export const rankRowSchema = combinationSchema.extend({
  verdict: z.enum(VERDICTS),
  sustainedWrite: bandSchema,
  read: bandSchema,
  seconds: z.number().describe('of the job, typical'),
  measured: measuredSchema.optional().describe('what the time rests on, where this combination was measured'),
  cost: z.number().nullable(),
  perTB: z.number().nullable(),
  frontier: z.boolean().describe('none is both cheaper and faster in sustained writing'),
  score: z.number().describe('weighted sum of log-ratios to the best in the set; 0 is the best in everything'),
  shares: byWeighed.describe('how much of the best in the set it reaches, criterion by criterion'),
  spend: z.number().nullable().describe('still to be paid for what is not in the stock'),
  toBuy: z.array(z.string()).describe('ids of the parts that are not in the stock')
});
export type RankRow = z.infer<typeof rankRowSchema>;

/** Another way to the same end: no forecast, but what its maker states. */
export const alternativePointSchema = z.strictObject({
  id: z.string(),
  name: z.string(),
  sort: z.string(),
  gainedTB: z.number().describe('what it adds: an upgrade counts what is above the base'),
  cost: z.number().nullable(),
  perTB: z.number().nullable(),
  write: z.number().nullable().describe('typical, 0.95 of what is stated, as of a drive'),
  read: z.number().nullable(),
  seconds: z.number().nullable().describe('of the job, typical; its caches are not known'),
  fits: z.boolean()
});
export type AlternativePoint = z.infer<typeof alternativePointSchema>;

const frontierPointSchema = z.strictObject({
  cost: z.number(),
  sustainedWrite: z.number(),
  count: z.number().describe('combinations at exactly this point'),
  first: combinationSchema
});
export type FrontierPoint = z.infer<typeof frontierPointSchema>;
export const rankReportSchema = z.strictObject({
  considered: z.number(),
  accepted: z.number(),
  filtered: z.number().describe('work, but were narrowed out by the filters'),
  rows: z.array(rankRowSchema),
  frontier: z.array(frontierPointSchema).describe('of total cost against sustained write, cheapest first'),
  frontierPerTB: z
    .array(frontierPointSchema)
    .describe('the same with the cost of a terabyte in the place of the total'),
  rejected: z.array(z.strictObject({ code: z.string(), count: z.number(), examples: z.array(combinationSchema) })),
  alternatives: z.array(alternativePointSchema),
  houseRules: z.array(decisionSchema).describe('the house rules that decided something here'),
  best: byCriterion,
  weights: byWeighed,
  currency: z.string().nullable()
});
export type RankReport = z.infer<typeof rankReportSchema>;
