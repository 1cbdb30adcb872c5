import { MBR_MAX_TB } from '../facts/filesystems.ts';
import type { HouseRules } from '../facts/schools.ts';
import { adviseFilesystem } from '../filesystem/advise.ts';
import { usableTiB } from '../filesystem/capacity.ts';
import type { Assume } from '../findings/finding.ts';
import { checkFit } from '../fit/rules.ts';
import type { Pairing } from '../fit/rule.ts';
import { limitFindings } from '../link/limits.ts';
import { negotiate } from '../link/negotiate.ts';
import { bottleneckOf, chainStages } from '../link/stages.ts';
import { fillDrive, fillEnclosure, portPower } from '../parts/fill.ts';
import type { Host, Port } from '../parts/host.ts';
import { planPads } from '../stack/plan-pads.ts';
import { forecastCache } from '../throughput/flash-cache.ts';
import { warmUp, type HeatOf } from './heat-report.ts';
import type { Offer } from './job-forecast.ts';
import type { PlanInput } from './report.ts';

const noAssume = () => {};
const NONE: readonly never[] = [];

/** @returns the port of that id, or undefined */
export const portOf = (host: Host, portId: string): Port | undefined => host.ports.find((port) => port.id === portId);

/**
 * What a build is, before anything is forecast of it: its parts filled in, its link, its rates, its pads, its filesystem and how it
 * warms. Plan and simulation begin here.
 * @throws RangeError if the host has no port of that id
 */
export function studyBuild(input: PlanInput, assume: Assume) {
  const { host, cable, job } = input;
  const rules = input.houseRules as HouseRules | undefined;
  const port = portOf(host, input.portId);
  if (!port) throw new RangeError(`${host.name} has no port “${input.portId}”`);

  if (host.os.version === undefined && (host.os.family === 'macos' || host.os.family === 'linux')) {
    assume('host', 'os.version', 'current', 'older versions write fewer filesystems');
  }
  const drive = fillDrive(input.drive, assume);
  const enclosure = fillEnclosure(input.enclosure, assume);
  const negotiation = negotiate(port, cable, input.enclosure, assume);
  const needsPower = input.enclosure.externalSupply !== true;
  const portWatts = portPower(port, needsPower ? assume : noAssume);
  const chain = negotiation.mode === null ? [] : chainStages(negotiation, negotiation.mode, port, enclosure, drive);
  const chainWrite = chain.length > 0 ? bottleneckOf(chain, 'writeMBps') : null;
  const pairing: Pairing = {
    drive,
    enclosure,
    port,
    portWatts,
    negotiation,
    writeMBps: chainWrite?.band.typical,
    knownPairs: input.knownPairs ?? NONE
  };

  const findings = checkFit(pairing);
  const broken = negotiation.mode === null || findings.some((f) => f.severity === 'fail');
  const freeGB = input.drive.capacityTB * 1000 * (1 - (input.drive.fillFraction ?? 0));

  const stages = broken ? [] : chain;
  const read = broken ? null : bottleneckOf(stages, 'MBps');
  const write = broken ? null : chainWrite;
  const cache = write ? forecastCache(drive, write.band, freeGB) : null;
  if (read && write) {
    const limits = { negotiation, mode: negotiation.mode!, port, enclosure, drive, stages, read, write };
    findings.push(...limitFindings(limits, job?.minSustainedWriteMBps, rules));
  }

  const pads = planPads(
    {
      drive: input.drive,
      doubleSided: drive.doubleSided,
      enclosure: input.enclosure,
      pads: input.pads,
      chosen: input.stack,
      rules
    },
    assume
  );
  findings.push(...pads.findings);

  const {
    advice,
    findings: filesystemFindings,
    decisions
  } = adviseFilesystem({
    host: host.os,
    media: input.drive.media,
    capacityTB: input.drive.capacityTB,
    job,
    rules
  });
  findings.push(...filesystemFindings);
  const usable = usableTiB(
    advice.first.scheme === 'mbr' ? Math.min(input.drive.capacityTB, MBR_MAX_TB) : input.drive.capacityTB,
    advice.first.filesystem,
    host.os.family === 'macos'
  );

  const heatOf: HeatOf = {
    drive,
    enclosure,
    mode: broken ? null : negotiation.mode,
    stack: pads,
    rules,
    ambientC: job?.ambientC,
    assume
  };
  const warmth = warmUp(heatOf);
  const offer: Offer | null =
    read && write && cache
      ? {
          host,
          drive,
          mode: negotiation.mode!,
          read: read.band,
          write: write.band,
          cache,
          freeGB,
          usableTiB: usable,
          filesystem: advice.first.filesystem,
          rules
        }
      : null;
  return {
    rules,
    port,
    drive,
    enclosure,
    negotiation,
    pairing,
    findings,
    broken,
    stages,
    read,
    write,
    cache,
    freeGB,
    pads,
    advice,
    decisions,
    usable,
    heatOf,
    warmth,
    offer
  };
}
