import { ABOUTS, SEVERITIES, VERDICTS } from '../findings/finding.ts';
import { STAGE_NAMES } from '../chain/stages.ts';
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
import { stackChoiceSchema } from '../pads/choice.ts';
import { quoteSchema } from '../parts/quote.ts';

export const bandSchema = z.strictObject({ low: z.number(), typical: z.number(), high: z.number() });
const about = z.enum(ABOUTS);
const stageName = z.enum(STAGE_NAMES);
const filesystem = z.enum(FILESYSTEM_IDS);

export const houseRulesSchema = z.record(z.string().max(40), z.string().max(40));

/** What was measured on this very chain: it stands in the place of the forecast where a job's time is worked out. */
export const measuredSchema = z.strictObject({
  readMBps: z.number().min(0.001).max(1e5).optional(),
  writeMBps: z.number().min(0.001).max(1e5).optional(),
  date: z.iso.date(),
  simulated: z.boolean().optional().describe('on the stand-in rig; counts in a demo crate only')
});
export type Measured = z.infer<typeof measuredSchema>;

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
  /** How Windows treats the drive, where somebody looked; else the house rule, else its default. */
  writeCache: z.enum(['performance', 'quick-removal']).optional(),
  measured: measuredSchema.optional(),
  /** Quotes in other currencies are converted into this one with the newest rate entered for them. */
  exchange: z.strictObject({ currency: currency(), rates: z.array(exchangeRateSchema).max(1000) }).optional()
});
export type PlanInput = z.infer<typeof planInputSchema>;

const thermalSchema = z.strictObject({
  steadyCaseC: bandSchema.describe('outer face of the case while the work goes on'),
  steadyControllerC: bandSchema.describe('as the drive reports it; of a hard disk, the disk'),
  steadyNandC: bandSchema.nullable(),
  steadyBridgeC: bandSchema.nullable().default(null).describe('the bridge chip, over the case'),
  throttleAfterS: bandSchema.nullable(),
  touch: z.enum(['comfortable', 'brief', 'do-not-hold']),
  form: z.enum(['none', 'saw-tooth', 'plateau', 'off']).describe('what throttling looks like once warmed through'),
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

export const filesystemPickSchema = z.strictObject({
  filesystem,
  scheme: z.enum(['gpt', 'mbr']),
  allocationUnit: z.string().optional(),
  because: z.array(z.string()),
  variant: z.literal('case-sensitive').optional(),
  rule: z.string().optional().describe('the house rule that put it here'),
  loses: z.string().optional().describe('what is lost by it against the first')
});

export const findingSchema = z.strictObject({
  code: z.string(),
  severity: z.enum(SEVERITIES),
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

const linkSchema = z.strictObject({
  mode: z.enum(LINK_MODE_IDS as [LinkMode, ...LinkMode[]]).nullable(),
  stages: z.array(z.strictObject({ stage: stageName, label: z.string(), MBps: bandSchema, writeMBps: bandSchema })),
  bottleneck: stageName.nullable(),
  alsoLimits: z.array(stageName),
  writeBottleneck: stageName.nullable()
});
const throughputSchema = z.strictObject({
  read: bandSchema.nullable(),
  write: bandSchema.nullable(),
  sustainedWrite: bandSchema.nullable(),
  random4kRead: bandSchema.nullable(),
  random4kWrite: bandSchema.nullable()
});
const cacheSchema = z.strictObject({ cliffAtGB: bandSchema.nullable(), recoverS: bandSchema.nullable() });
const jobForecastSchema = z.strictObject({
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
});

/** What a build draws from its port. */
const powerSchema = z.strictObject({
  steadyW: bandSchema.describe('while it writes as fast as its chain lets it'),
  peakW: bandSchema,
  idleW: z.number(),
  portW: z.number().nullable().describe('what the port gives; null where the build has a supply of its own'),
  portStated: z.boolean(),
  parts: z.array(
    z.strictObject({
      what: z.enum(['drive-rest', 'drive-data', 'converter', 'bridge', 'fan']),
      W: bandSchema,
      assumed: z.boolean()
    })
  )
});

/** What an earlier engine did not say yet is filled with nothing, so that a stored plan of it can still be read. */
export const planReportSchema = z.strictObject({
  engine: z.string().describe('version of the engine that made this plan'),
  verdict: z.enum(VERDICTS),
  findings: z.array(findingSchema),
  link: linkSchema,
  throughput: throughputSchema,
  /** How much of the drive's rating the rest of the chain can use, percent. */
  reachable: z
    .strictObject({ readPercent: z.number().nullable(), writePercent: z.number().nullable() })
    .nullable()
    .default(null),
  cache: cacheSchema,
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
  job: jobForecastSchema.optional(),
  /** What would be if the parts fitted; null where they do, and where no link comes about. */
  ifItFitted: z
    .strictObject({
      link: linkSchema,
      throughput: throughputSchema,
      cache: cacheSchema,
      job: jobForecastSchema.optional()
    })
    .nullable()
    .default(null),
  power: powerSchema.nullable().default(null).describe('null where parts do not go together'),
  measured: measuredSchema.nullable().default(null).describe('the rates that the time of the job rests on'),
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
    first: filesystemPickSchema,
    others: z.array(filesystemPickSchema),
    rejected: z.array(z.strictObject({ filesystem, because: z.string() })),
    none: z.literal(true).optional().describe('none does all that is asked: the first comes nearest'),
    ways: z.array(z.string()).optional().describe('where none does: the least bad ways out'),
    slack: z
      .strictObject({
        cluster: z.number().describe('bytes'),
        files: z.number(),
        perFile: z.number().describe('bytes'),
        bytes: z.number(),
        share: z.number(),
        text: z.string()
      })
      .optional()
      .describe('what the ends of files leave unused with this allocation unit')
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
      from: z.string(),
      figures: z.array(z.string()).default([]).describe('groups of figures that rest on it')
    })
  ),
  houseRules: z.array(decisionSchema).default([]).describe('the house rules that decided something here'),
  workings: z.array(workingSchema)
});
export type PlanReport = z.infer<typeof planReportSchema>;
export type Working = z.infer<typeof workingSchema>;
