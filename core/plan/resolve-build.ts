/* eslint-disable @typescript-eslint/no-non-null-assertion -- every chain has its stages */
import { formattedDrive } from '../filesystem/formatted.ts';
import { PHONE_RECORDING_MBPS } from '../facts/buses.ts';
import type { AppliedRule, HouseRules } from '../house-rules/house-rules.ts';
import type { FilesystemAdvice } from '../filesystem/advise.ts';
import type { Finding } from '../findings/finding.ts';
import { powerNeed, type PowerNeed } from '../chain/power-need.ts';
import { checkFit, stops } from '../chain/rules/rules.ts';
import type { Pairing } from '../chain/rules/rule.ts';
import { limitFindings } from '../chain/rules/limits.ts';
import { negotiate, type Negotiation } from '../chain/negotiate.ts';
import { bottleneckOf, chainStages, type Bottleneck, type Stage } from '../chain/stages.ts';
import { writeCachePolicy, type WriteCachePolicy } from '../chain/write-cache.ts';
import { fillDrive, type FilledDrive } from '../parts/fill/drive.ts';
import { fillEnclosure, type FilledEnclosure } from '../parts/fill/enclosure.ts';
import { portPower } from '../parts/fill/port.ts';
import type { Host, Port } from '../parts/host.ts';
import type { Job } from '../parts/job.ts';
import { minBand, type Band } from '../quantities/band.ts';
import { planPads, type StackPlan } from '../pads/plan-pads.ts';
import { thermalModel, type ThermalModel } from '../thermal/forecast/thermal-model.ts';
import { forecastCache, type CacheForecast } from '../throughput/flash-cache.ts';
import { withMeasured, type JobChain } from '../throughput/job-time.ts';
import type { PlanInput } from './report.ts';

const NONE: readonly never[] = [];

/**
 * Finds the port of an id; undefined where the host has none.
 * @example portOf(aHost(), 'nowhere') // undefined
 */
export const portOf = (host: Host, portId: string): Port | undefined => host.ports.find((port) => port.id === portId);

/** A chain that connects: its stages, its slowest links, its cache, and what it offers to a job. */
export type RunningChain = {
  stages: readonly Stage[];
  read: Bottleneck;
  write: Bottleneck;
  cache: CacheForecast;
  /** With measured rates in the place of the forecast, where there are any. */
  chain: JobChain;
};

/** Everything about a build before anything is forecast of it. */
export type ResolvedBuild = {
  rules: HouseRules | undefined;
  port: Port;
  drive: FilledDrive;
  enclosure: FilledEnclosure;
  negotiation: Negotiation;
  policy: WriteCachePolicy | null;
  pairing: Pairing;
  /** What it draws; null without a common link mode. */
  need: PowerNeed | null;
  findings: Finding[];
  /** Whether parts do not go together, so that nothing can be measured on them. */
  broken: boolean;
  /** Null without a common link mode. In a broken build it is what would be if the parts fitted. */
  running: RunningChain | null;
  freeGB: number;
  pads: StackPlan;
  advice: FilesystemAdvice;
  decisions: AppliedRule[];
  usable: number;
  thermal: ThermalModel;
  /** The write that the job needs, MB/s, and whether it is only what phones record at. */
  needs: { MBps: number; assumed: boolean } | null;
};

/** Gives the rate that a job needs: stated, or for a phone that records video onto the drive what such a phone writes. */
function neededWrite(host: Host, job: Job | undefined): ResolvedBuild['needs'] {
  if (job?.minSustainedWriteMBps !== undefined) return { MBps: job.minSustainedWriteMBps, assumed: false };
  const phone = host.os.family === 'ios' || host.os.family === 'android';
  return phone && job?.purposes.includes('camera') && job.direction !== 'out'
    ? { MBps: PHONE_RECORDING_MBPS, assumed: true }
    : null;
}

const narrowest = (stages: readonly Stage[], of: 'MBps' | 'writeMBps'): Band => {
  let band = stages[0]![of];
  for (const stage of stages) if (stage.stage !== 'drive') band = minBand(band, stage[of]);
  return band;
};

/** Chain and pairing of a build, as far as they connect. */
type Connected = Pick<ResolvedBuild, 'port' | 'drive' | 'enclosure' | 'negotiation' | 'policy' | 'pairing' | 'need'> & {
  stages: readonly Stage[] | null;
  write: Bottleneck | null;
};

/** Fills in what is missing, negotiates the link and lists its stages. */
function connect(input: PlanInput, port: Port): Connected {
  const drive = fillDrive(input.drive);
  const enclosure = fillEnclosure(input.enclosure);
  const negotiation = negotiate(port, input.cable, input.enclosure);
  const { mode } = negotiation;
  const policy = writeCachePolicy(input.host.os, input.houseRules as HouseRules | undefined, input.writeCache);
  const quickRemoval = policy?.policy === 'quick-removal';
  const stages = mode === null ? null : chainStages({ negotiation, mode, port, enclosure, drive, quickRemoval });
  const write = stages && bottleneckOf(stages, 'writeMBps');
  const pairing: Pairing = {
    drive,
    enclosure,
    port,
    portWatts: portPower(port),
    negotiation,
    writeMBps: write?.band,
    knownPairs: input.knownPairs ?? NONE,
    need: undefined
  };
  const need = write ? powerNeed(pairing) : null;
  pairing.need = need ?? undefined;
  return { port, drive, enclosure, negotiation, policy, pairing, need, stages, write };
}

/** Gives what a chain does that connects; null where it does not. */
function runningChain(
  input: PlanInput,
  { drive, negotiation, policy, stages, write }: Connected,
  room: { freeGB: number; usable: number; filesystem: FilesystemAdvice['first']['filesystem'] }
): RunningChain | null {
  const { mode } = negotiation;
  if (!stages || !write || mode === null) return null;
  const read = bottleneckOf(stages, 'MBps');
  const cache = forecastCache(drive, write.band, room.freeGB);
  const chain: JobChain = {
    host: input.host,
    drive,
    mode,
    link: { read: narrowest(stages, 'MBps'), write: narrowest(stages, 'writeMBps') },
    read: read.band,
    write: write.band,
    cache,
    freeGB: room.freeGB,
    usableTiB: room.usable,
    filesystem: room.filesystem,
    quickRemoval: policy?.policy === 'quick-removal',
    diskFactor: { read: 1, write: 1 }
  };
  return { stages, read, write, cache, chain: withMeasured(chain, input.measured) };
}

/**
 * Resolves a build: fills in missing specifications, negotiates the link, checks the fit, advises pads and filesystem, and finds how
 * the build warms. Plan and simulation begin here.
 * @throws RangeError if the host has no port of that id
 */
export function resolveBuild(input: PlanInput): ResolvedBuild {
  const { host, job } = input;
  const rules = input.houseRules as HouseRules | undefined;
  const port = portOf(host, input.portId);
  if (!port) throw new RangeError(`${host.name} has no port “${input.portId}”`);

  const connected = connect(input, port);
  const { drive, enclosure, negotiation, policy, pairing, need } = connected;
  const { mode } = negotiation;
  const findings = checkFit(pairing);
  const broken = mode === null || findings.some(stops);
  const freeGB = input.drive.capacityTB * 1000 * (1 - (input.drive.fillFraction ?? 0));
  const pads = planPads({
    drive: input.drive,
    doubleSided: drive.doubleSided,
    enclosure: input.enclosure,
    pads: input.pads,
    chosen: input.stack,
    rules
  });
  const { media, capacityTB } = input.drive;
  const formatted = formattedDrive({ host: host.os, media, capacityTB, job, rules });
  const { advice, usable } = formatted;
  const running = runningChain(input, connected, { freeGB, usable, filesystem: advice.first.filesystem });
  const needs = neededWrite(host, job);
  if (running && mode !== null && !broken) {
    const { stages, read, write } = running;
    const neededWrite = needs?.MBps;
    findings.push(
      ...limitFindings({ negotiation, mode, port, enclosure, drive, policy, stages, read, write, rules, neededWrite })
    );
  }
  findings.push(...pads.findings, ...formatted.findings);
  // Field by field: a spread of so many takes as long as the whole negotiation.
  return {
    rules,
    port,
    drive,
    enclosure,
    negotiation,
    policy,
    pairing,
    need,
    findings,
    broken,
    running,
    freeGB,
    pads,
    advice,
    decisions: formatted.decisions,
    usable,
    thermal: thermalModel({ drive, enclosure, stack: pads }, mode, rules, { ambientC: job?.ambientC }),
    needs
  };
}
