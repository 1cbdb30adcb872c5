import { z } from 'zod';
import { bandSchema } from '../plan/report.ts';
import { conditionsSchema } from '../results/conditions.ts';
import { seriesSchema } from '../series/series.ts';

export const ANALYSED_DIRECTIONS = ['read', 'write', 'mixed'] as const;

/** What is analysed: a series that was sampled while data went one way. */
export const analyseInputSchema = z.strictObject({
  series: seriesSchema,
  direction: z.enum(ANALYSED_DIRECTIONS),
  predicted: bandSchema.optional().describe('MB/s: the forecast that it is held against'),
  startC: z.number().min(30).max(110).optional().describe('where this drive begins to throttle, °C'),
  conditions: conditionsSchema.optional()
});
export type AnalyseInput = z.infer<typeof analyseInputSchema>;

// The unit stands in the name of each: s, MB/s.
const seconds = () => z.number();
const MBps = () => z.number();

export const analysisSchema = z.strictObject({
  plateau: z
    .array(z.strictObject({ fromS: seconds(), toS: seconds(), MBps: MBps(), GB: z.number() }))
    .describe('stretches of one level, in order'),
  steps: z
    .array(
      z.strictObject({
        atS: seconds(),
        atGB: z.number(),
        kind: z.enum(['cache', 'throttle', 'cannot-tell']),
        beforeMBps: MBps(),
        afterMBps: MBps(),
        atC: z.number().optional()
      })
    )
    .describe('falls that stay for a while'),
  recovery: z.array(z.strictObject({ fromS: seconds(), toS: seconds() })).describe('from a fall to its rise'),
  dips: z
    .strictObject({ periodS: seconds(), depth: z.number().describe('what is lost while it is low, a share of 1') })
    .nullable(),
  irregular: z
    .strictObject({ count: z.number(), depth: z.number(), shareOfTime: z.number() })
    .nullable()
    .describe('dips that come at no fixed times'),
  dropouts: z.array(z.strictObject({ atS: seconds(), forS: seconds() })),
  start: z.strictObject({ unsteadyS: seconds() }),
  loops: z.array(z.strictObject({ fromS: seconds(), toS: seconds(), MBps: MBps() })).describe('equal rounds'),
  cliff: z
    .strictObject({
      atS: seconds(),
      atGB: z.number(),
      beforeMBps: MBps(),
      afterMBps: MBps(),
      cacheGB: z.strictObject({ low: z.number(), high: z.number() }).describe('as far as one cliff tells it')
    })
    .nullable(),
  throttle: z
    .strictObject({
      form: z.enum(['saw-tooth', 'plateau']),
      periodS: seconds().optional(),
      lowMBps: MBps(),
      highMBps: MBps(),
      atC: z.number().optional(),
      atS: seconds()
    })
    .nullable(),
  zone: z
    .strictObject({
      outerMBps: MBps(),
      innerMBps: MBps(),
      weak: z.array(z.strictObject({ from: z.number(), to: z.number(), MBps: MBps() }))
    })
    .optional(),
  median: MBps(),
  interval95: z
    .strictObject({ low: MBps(), high: MBps() })
    .nullable()
    .describe('of the mean, from means of blocks; null where too little was sampled'),
  against: z.enum(['below', 'inside', 'above']).nullable().describe('the settled rate against the forecast'),
  stats: z.strictObject({
    samples: z.number(),
    refused: z.number().describe('samples that are none: no number, negative, going back in time'),
    seconds: seconds(),
    movedGB: z.number(),
    meanMBps: MBps(),
    lowMBps: MBps().describe('the slowest twentieth is below'),
    highMBps: MBps(),
    noise: z.number().describe('of one sample, a share of 1'),
    alike: z.number().describe('of neighbouring samples, 0 to 1')
  }),
  enough: z.boolean().describe('whether there are enough samples to tell anything')
});
export type Analysis = z.infer<typeof analysisSchema>;
