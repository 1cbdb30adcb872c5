import { z } from 'zod';
import { FILESYSTEM_IDS } from '../facts/filesystems.ts';
import { LINK_MODE_IDS, type LinkMode } from '../facts/link-modes.ts';
import { cableSchema } from '../parts/cable.ts';
import { driveSchema } from '../parts/drive.ts';
import { enclosureSchema } from '../parts/enclosure.ts';
import { hostSchema } from '../parts/host.ts';
import { jobSchema } from '../parts/job.ts';
import { exchangeRateSchema, currency } from '../parts/exchange-rate.ts';
import { knownPairSchema } from '../parts/known-pair.ts';
import { padSchema } from '../parts/pad.ts';
import { stackChoiceSchema } from '../stack/choice.ts';
import { quoteSchema } from '../parts/quote.ts';

export const bandSchema = z.strictObject({ low: z.number(), typical: z.number(), high: z.number() });
const about = z.enum(['host', 'port', 'cable', 'enclosure', 'drive', 'pad', 'job']);
const stageName = z.enum(['port', 'cable', 'bridge', 'slot', 'drive']);
const filesystem = z.enum(FILESYSTEM_IDS);

export const houseRulesSchema = z.record(z.string().max(40), z.string().max(40));

/** What a plan is made from, every part in full. */
export const planInputSchema = z.strictObject({
  host: hostSchema,
  portId: z.string().min(1).max(40),
  cable: cableSchema.optional(),
  enclosure: enclosureSchema,
  drive: driveSchema,
  pads: z.array(padSchema).max(200).optional(),
  job: jobSchema.optional(),
  /** Pads that a person settled on; else the best of those at hand. */
  stack: stackChoiceSchema.optional(),
  quotes: z.array(quoteSchema).max(5000).optional(),
  houseRules: houseRulesSchema.optional(),
  knownPairs: z.array(knownPairSchema).max(500).optional(),
  /** Quotes in other currencies are converted into this one with the newest rate entered for them. */
  exchange: z.strictObject({ currency: currency(), rates: z.array(exchangeRateSchema).max(1000) }).optional()
});
export type PlanInput = z.infer<typeof planInputSchema>;

const thermalSchema = z.strictObject({
  steadyCaseC: bandSchema.describe('outer face of the case while the work goes on'),
  steadyControllerC: bandSchema.describe('as the drive reports it; of a hard disk, the disk'),
  steadyNandC: bandSchema.nullable(),
  throttleAfterS: bandSchema.nullable(),
  touch: z.enum(['comfortable', 'brief', 'do-not-hold']),
  form: z.enum(['none', 'saw-tooth', 'plateau']).describe('what throttling looks like once warmed through'),
  load: z
    .strictObject({ work: z.enum(['idle', 'read', 'write', 'post']), MBps: z.number(), share: z.number() })
    .describe('the work that the steady temperatures are for, and the share of its way that the case goes in it'),
  watts: z.number(),
  idleW: z.number(),
  idleCaseC: z.number(),
  ejectedWhPerDay: bandSchema,
  coolsInS: z.number().nullable().describe('until the case may be held for hours, after ejecting'),
  peak: z
    .strictObject({ controllerC: z.number(), caseC: z.number(), throttleAtS: z.number().nullable() })
    .nullable()
    .describe('within the job, where it gets hot enough to be followed'),
  ambientC: z.number(),
  material: z.enum(['aluminium', 'plastic']),
  timeConstantS: z.number(),
  startC: z.number().nullable().describe('where the drive begins to throttle'),
  influences: z
    .array(z.strictObject({ what: z.string(), hotK: z.number(), coolK: z.number() }))
    .describe('what each uncertain thing alone does to the controller'),
  fitted: z
    .strictObject({ caseFactor: z.number(), chipFactor: z.number().optional(), readings: z.number() })
    .nullable()
    .describe('factors from temperature readings of this enclosure')
});

const filesystemPick = z.strictObject({
  filesystem,
  scheme: z.enum(['gpt', 'mbr']),
  allocationUnit: z.string().optional(),
  because: z.array(z.string())
});

export const findingSchema = z.strictObject({
  code: z.string(),
  severity: z.enum(['note', 'limit', 'check', 'fail']),
  about,
  message: z.string(),
  reason: z.string().default('').describe('the rule behind it'),
  remedy: z.string().optional()
});

export const decisionSchema = z.strictObject({
  school: z.string(),
  choice: z.string(),
  own: z.boolean().describe('chosen for the crate; else the default'),
  effect: z.string()
});

export const workingSchema = z.strictObject({
  figure: z.string(),
  formula: z.string(),
  substituted: z.string(),
  result: z.union([z.number(), bandSchema, z.string()]),
  unit: z.string(),
  source: z.string()
});

/** What an earlier engine did not say yet is filled with nothing, so that a stored plan of it can still be read. */
export const planReportSchema = z.strictObject({
  engine: z.string().describe('version of the engine that made this plan'),
  verdict: z.enum(['works', 'limited', 'check', 'fails']),
  findings: z.array(findingSchema),
  link: z.strictObject({
    mode: z.enum(LINK_MODE_IDS as [LinkMode, ...LinkMode[]]).nullable(),
    stages: z.array(z.strictObject({ stage: stageName, label: z.string(), MBps: bandSchema, writeMBps: bandSchema })),
    bottleneck: stageName.nullable(),
    alsoLimits: z.array(stageName),
    writeBottleneck: stageName.nullable()
  }),
  throughput: z.strictObject({
    read: bandSchema.nullable(),
    write: bandSchema.nullable(),
    sustainedWrite: bandSchema.nullable(),
    random4kRead: bandSchema.nullable(),
    random4kWrite: bandSchema.nullable()
  }),
  /** How much of the drive's rating the rest of the chain can use, percent. */
  reachable: z
    .strictObject({ readPercent: z.number().nullable(), writePercent: z.number().nullable() })
    .nullable()
    .default(null),
  cache: z.strictObject({ cliffAtGB: bandSchema.nullable(), recoverS: bandSchema.nullable() }),
  trim: z
    .strictObject({
      answer: z.enum(['yes', 'no', 'unknown', 'not-needed']),
      because: z.array(z.string()),
      effect: z.string(),
      check: z.string().describe('how to find out on this system'),
      onceWrittenGB: bandSchema.nullable().describe('the cliff once every block was written and none given back')
    })
    .nullable()
    .default(null),
  job: z
    .strictObject({
      seconds: bandSchema,
      cliffReached: z.boolean(),
      throttleReached: z.boolean().nullable(),
      fits: z.boolean(),
      ways: z
        .array(
          z.strictObject({
            direction: z.enum(['in', 'out']),
            seconds: z.number(),
            MBps: z.number(),
            limitedBy: z.enum(['files', 'host-disk', 'host-disk-cache', 'drive-cache', 'drive', 'link', 'heat']),
            spent: z.strictObject({
              bytes: z.number(),
              afterCliff: z.number(),
              files: z.number(),
              throttled: z.number().default(0)
            })
          })
        )
        .default([])
    })
    .optional(),
  stack: z.strictObject({
    components: z.array(
      z.strictObject({
        role: z.string(),
        side: z.enum(['top', 'bottom']),
        gapMm: z.number(),
        pads: z.array(z.number()),
        compressionPercent: z.number(),
        verdict: z.enum(['good', 'marginal', 'high', 'no-contact', 'over-compressed']),
        component: z.number().default(0).describe('which chip of the board'),
        padNames: z.array(z.string()).default([]),
        pressureMPa: z.number().default(0),
        forceN: z.number().default(0)
      })
    ),
    bowMm: bandSchema.nullable().default(null).describe('how far the pads press the board down'),
    from: z.enum(['stated', 'template']).nullable().default(null).describe('whether the drive states its chips'),
    chosen: z.boolean().default(false).describe('whether a person settled on these pads')
  }),
  thermal: thermalSchema.nullable().describe('null in plans of engines before 3'),
  filesystem: z.strictObject({
    first: filesystemPick,
    others: z.array(filesystemPick),
    rejected: z.array(z.strictObject({ filesystem, because: z.string() }))
  }),
  cost: z
    .strictObject({
      total: z.number(),
      currency: z.string(),
      perTB: z.number(),
      perTiBUsable: z.number(),
      oldestQuote: z.string(),
      withoutQuote: z.array(z.string()),
      exchanged: z
        .array(z.strictObject({ from: z.string(), to: z.string(), rate: z.number(), date: z.string() }))
        .optional()
    })
    .nullable(),
  assumed: z.array(
    z.strictObject({
      part: about,
      field: z.string(),
      value: z.union([z.number(), z.string(), z.boolean()]),
      from: z.string()
    })
  ),
  houseRules: z.array(decisionSchema).default([]).describe('the schools that decided something here'),
  workings: z.array(workingSchema)
});
export type PlanReport = z.infer<typeof planReportSchema>;
export type Working = z.infer<typeof workingSchema>;
