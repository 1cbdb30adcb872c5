import { z } from 'zod';
import { PCIE_LANE_MBPS } from '../facts/buses.ts';
import { planInputSchema, planReportSchema } from '../plan/report.ts';
import { assumptionsOf } from '../plan/assumptions.ts';
import { resolveBuild } from '../plan/resolve-build.ts';
import { diskEdges, diskStart, fileCost, hostEnd, directionsOf, type JobDirection } from '../throughput/job-time.ts';
import { slotLink } from '../chain/stages.ts';
import { flashCacheOf } from '../throughput/flash-cache.ts';
import { thermalModel } from '../thermal/forecast/thermal-model.ts';
import { settingAt } from '../thermal/model/setting.ts';
import { copyParameters } from '../thermal/model/parameters.ts';
import { COVERED, faultyRate, NEARLY_FULL_DRIVE, noisy, SIMULATED_FAULTS, type SimulatedFault } from './faults.ts';
import { diskFlow, flashWrite, ontoHostDisk, plainFlow, type Flow } from './flow.ts';
import { runTransient, EVENT_KINDS, type Leg } from './transient.ts';

/** Samples that a run keeps unless it is asked for more or fewer, and the most that it keeps at all. */
const USUAL_SAMPLES = 1800;
const MOST_SAMPLES = 20_000;

/** What a simulation takes beside a build. */
export const simulateOptions = {
  seconds: z.number().min(1).max(259_200),
  writeGB: z.number().min(0.001).max(200_000).optional().describe('a write of this much, instead of the job or a soak'),
  fillFraction: z.number().min(0).max(0.99).optional(),
  ambientC: z.number().min(-20).max(60).optional(),
  fan: z.boolean().optional().describe('with or without a fan, whatever the enclosure has'),
  bare: z.boolean().optional().describe('without any pads'),
  material: z.enum(['aluminium', 'plastic']).optional().describe('instead of what the enclosure is made of'),
  stands: z.enum(['flat', 'edge', 'cloth']).optional().describe('instead of how the enclosure stands'),
  start: z.enum(['idle', 'ambient']).optional().describe('warm from being connected, or just plugged in'),
  rewrite: z.boolean().optional().describe('over what was written before: shingled disks collapse'),
  fault: z.enum(SIMULATED_FAULTS).optional(),
  seed: z
    .number()
    .int()
    .min(0)
    .max(4294967295)
    .optional()
    .describe('adds noise to the rates, the same for the same seed'),
  everyS: z.number().min(0.1).max(3600).optional().describe('between samples')
};
export const simulateInputSchema = planInputSchema.extend(simulateOptions);
export type SimulateInput = z.infer<typeof simulateInputSchema>;

const column = () => z.array(z.number());
export const simulateReportSchema = z.strictObject({
  simulated: z.literal(true),
  samples: z.strictObject({
    t: column().describe('s'),
    MBps: column().describe('mean over (t[i-1], t[i]]'),
    writtenGB: column(),
    controllerC: column().describe('as the drive reports it; of a hard disk, the disk'),
    nandC: column().describe('empty for a hard disk'),
    caseC: column().describe('outer face')
  }),
  events: z.array(z.strictObject({ t: z.number(), kind: z.enum(EVENT_KINDS) })),
  summary: z.strictObject({
    doneS: z.number().nullable(),
    movedGB: z.number(),
    peakControllerC: z.number(),
    peakNandC: z.number(),
    peakCaseC: z.number(),
    heatJ: z.number().describe('all that was drawn'),
    storedJ: z.number().describe('what of it is still in the bodies'),
    startC: z.number().nullable().describe('where the drive begins to throttle')
  }),
  assumed: planReportSchema.shape.assumed
});
export type SimulateReport = z.infer<typeof simulateReportSchema>;

/** What the fault of the host's own disk does: after so much it takes a share of the rate. */
const HOST_CLIFF = { GB: 60, share: 1 / 3 } as const;

const sameAs = (value: number) => ({ low: value, typical: value, high: value });

/**
 * Plays a build over time on the stand-in rig: typical rates, cache, heat and throttle of the plan's own models, second by second.
 * No device is involved; every result of it is shown as simulated.
 * @returns null where the build does not connect or does not fit: then there is nothing to play
 * @throws RangeError if the host has no port of that id
 */
export function simulate(input: SimulateInput): SimulateReport | null {
  const {
    seconds,
    writeGB,
    fan,
    bare,
    rewrite,
    seed,
    fillFraction,
    ambientC,
    material,
    stands,
    start,
    everyS,
    fault: given,
    ...rest
  } = input;
  const fault: SimulatedFault = given ?? 'healthy';
  const fill = fault === 'drive-nearly-full' ? NEARLY_FULL_DRIVE.fill : fillFraction;
  const job = rest.job;
  const { cooling } = rest.enclosure;
  const built = {
    ...rest,
    drive: fill === undefined ? rest.drive : { ...rest.drive, fillFraction: fill },
    enclosure:
      material === undefined
        ? rest.enclosure
        : { ...rest.enclosure, cooling: { kind: 'passive' as const, ...cooling, material } }
  };
  const study = resolveBuild(built);
  const { drive, enclosure, running, broken, rules, pads, freeGB } = study;
  if (!running || broken) return null;
  const { chain } = running;
  const { host, mode } = chain;

  const thermal = thermalModel(
    { drive, enclosure, stack: fault === 'pad-no-contact' ? withoutController(pads) : pads },
    mode,
    rules,
    { ambientC: ambientC ?? job?.ambientC, fan, bare, stands }
  );
  const parameters = copyParameters(thermal.typical.parameters);
  if (fault === 'thermal-throttle') parameters.area *= COVERED;
  const setting = settingAt(thermal.geometry, thermal.draw, parameters);

  const pcie = slotLink(drive, enclosure);
  const lane = pcie ? PCIE_LANE_MBPS[pcie.generation] : PCIE_LANE_MBPS[3];
  const copies = job !== undefined && writeGB === undefined;
  const isDisk = drive.drive.media === 'hdd';
  /** Where a fault or the host's own disk holds a way back, MB/s: the same caps as in the plan's own job time. */
  const capOf = (way: JobDirection): { MBps: number; other: ReturnType<typeof hostEnd> } => {
    const of = way === 'in' ? 'write' : 'read';
    const link = faultyRate(fault, of, (isDisk ? chain.link : chain)[of].typical, lane);
    const other = copies ? hostEnd(host, way, link) : { MBps: Infinity, cliffGB: null, after: Infinity };
    return { MBps: Math.min(link, other.MBps), other };
  };
  const flowOf = (way: JobDirection, volumeGB: number): Flow => {
    const writes = way === 'in';
    const { MBps, other } = capOf(way);
    // The host's own disk falls off its cache while it takes what comes from the drive, by itself or as a fault.
    const host60 = fault === 'host-disk-cliff' && !writes;
    const hostCliffGB = host60 ? HOST_CLIFF.GB : other.cliffGB;
    const hostAfter = host60 ? MBps * HOST_CLIFF.share : other.after;
    if (isDisk) {
      const of = writes ? 'write' : 'read';
      const { outer, inner } = diskEdges(drive, of);
      const factor = chain.diskFactor[of];
      return diskFlow(
        {
          capacityGB: drive.drive.capacityTB * 1000,
          outer: outer.typical * factor,
          inner: inner.typical * factor,
          from: Number.isFinite(volumeGB)
            ? diskStart(drive, volumeGB, way, 'typical')
            : (drive.drive.fillFraction ?? 0),
          cap: MBps,
          hostCliffGB,
          hostAfter,
          rewriting: rewrite === true || fault === 'smr-rewrite',
          shingled: drive.drive.disk?.recording === 'smr' || fault === 'smr-rewrite'
        },
        of
      );
    }
    if (!writes)
      return hostCliffGB !== null && MBps > hostAfter
        ? ontoHostDisk(MBps, hostCliffGB, hostAfter)
        : plainFlow(MBps, 'read');
    const cache = flashCacheOf(drive, freeGB);
    if (!cache) return plainFlow(MBps, 'write');
    const post = cache.post.typical * (fault === 'drive-nearly-full' ? NEARLY_FULL_DRIVE.post : 1);
    return flashWrite({ ...cache, post: sameAs(post) }, freeGB, MBps);
  };
  const leg = (way: JobDirection, volumeGB: number): Leg => ({
    flow: flowOf(way, volumeGB),
    perMB: copies ? ((job.files ?? 1) * fileCost(chain, way).typical) / (volumeGB * 1000) : 0,
    volumeGB
  });
  const legs: Leg[] = copies
    ? directionsOf(job).map((way) => leg(way, job.transferGB))
    : [leg('in', writeGB ?? Infinity)];

  const interval = Math.max(everyS ?? Math.max(1, seconds / USUAL_SAMPLES), seconds / MOST_SAMPLES);
  const air = setting.network.ambientC;
  const played = runTransient(setting, thermal.limits, legs, {
    seconds,
    everyS: interval,
    stepS: 2,
    ...(start === 'ambient' ? { start: { controllerC: air, nandC: air, caseC: air } } : {})
  });
  const { samples } = played;
  return {
    simulated: true,
    samples: {
      ...samples,
      ...(seed === undefined ? {} : { MBps: noisy(samples.MBps, fault, seed) }),
      ...(drive.drive.media === 'hdd' ? { nandC: [] } : {})
    },
    events: played.events,
    summary: {
      doneS: played.doneS,
      movedGB: played.movedGB,
      peakControllerC: played.peak.controllerC,
      peakNandC: played.peak.nandC,
      peakCaseC: played.peak.caseC,
      heatJ: played.heatJ,
      storedJ: played.storedJ,
      startC: thermal.limits?.startC ?? null
    },
    assumed: assumptionsOf(built, study)
  };
}

/** The stack with the controller's pad not touching. */
function withoutController<T extends { filled: readonly { chip: { role: string }; choice: unknown }[] }>(stack: T): T {
  return {
    ...stack,
    filled: stack.filled.map((place) => (place.chip.role === 'controller' ? { ...place, choice: null } : place))
  };
}
