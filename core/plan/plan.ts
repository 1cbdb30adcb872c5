import { MBR_MAX_TB } from '../facts/filesystems.ts';
import type { HouseRules } from '../facts/schools.ts';
import { adviseFilesystem } from '../filesystem/advise.ts';
import { trimAnswer } from '../filesystem/trim.ts';
import { usableTiB } from '../filesystem/capacity.ts';
import { verdictOf, worstFirst, type Assumed, type Finding } from '../findings/finding.ts';
import { sentenceOf } from '../findings/words.ts';
import { buildCost } from '../cost/build-cost.ts';
import { checkFit } from '../fit/rules.ts';
import type { Pairing } from '../fit/rule.ts';
import { limitFindings } from '../link/limits.ts';
import { negotiate } from '../link/negotiate.ts';
import { bottleneckOf, chainStages, runsUas, type Stage } from '../link/stages.ts';
import { fillDrive, fillEnclosure, portPower, type FilledDrive } from '../parts/fill.ts';
import type { Host, Port } from '../parts/host.ts';
import type { Job } from '../parts/job.ts';
import type { Band } from '../quantities/band.ts';
import { planPads, type StackRow } from '../stack/plan-pads.ts';
import { enduranceYears } from '../throughput/endurance.ts';
import { forecastCache, type CacheForecast } from '../throughput/flash-cache.ts';
import { randomRate } from '../throughput/random.ts';
import { remarksOf } from './house-rules.ts';
import { forecastJob, jobWays, needGB, usableFreeGB, type JobForecast } from './job-forecast.ts';
import type { PlanInput, PlanReport } from './report.ts';
import { explain, type Explained } from './workings.ts';

/** Changes whenever the same parts can give another plan; a stored plan of another version says so. */
export const ENGINE_VERSION = '2';

const WARRANTY_YEARS = 3;
const noAssume = () => {};
const NONE: readonly never[] = [];

/** @returns the port of that id, or undefined */
export const portOf = (host: Host, portId: string): Port | undefined => host.ports.find((port) => port.id === portId);

/** What a job meets on this build. */
export function jobFindings(
  job: Job,
  freeGB: number,
  forecast: JobForecast,
  cache: CacheForecast,
  write: Band,
  drive: { enduranceTBW?: number; warrantyYears?: number }
): Finding[] {
  const findings: Finding[] = [];
  if (!forecast.fits)
    findings.push({ code: 'job-does-not-fit', severity: 'fail', about: 'job', needGB: needGB(job), freeGB });
  if (forecast.cliffReached) {
    findings.push({
      code: 'cache-cliff-in-job',
      severity: 'limit',
      about: 'job',
      atGB: cache.cliffAtGB!.typical,
      before: write.typical,
      after: cache.sustained.typical
    });
  }
  if (drive.enduranceTBW !== undefined && job.perDay && job.direction !== 'out') {
    const gbPerDay = job.transferGB * job.perDay;
    const meanMB = job.files ? (job.transferGB * 1000) / job.files : undefined;
    const workload =
      meanMB === undefined ? 'mixed' : meanMB >= 1 ? 'sequential' : meanMB >= 0.1 ? 'mixed' : 'smallRandom';
    const years = enduranceYears(drive.enduranceTBW, gbPerDay, workload);
    const warrantyYears = drive.warrantyYears ?? WARRANTY_YEARS;
    if (years < warrantyYears)
      findings.push({ code: 'endurance-short', severity: 'check', about: 'drive', years, warrantyYears, gbPerDay });
  }
  return findings;
}

/**
 * Advertised against reachable: the share of the drive's rating that the stages before it can carry, percent; 100 where the link
 * is the faster one. Null for a hard disk, whose rate is no promise of a data sheet.
 */
function reachableOf({ drive }: FilledDrive, stages: readonly Stage[]): PlanReport['reachable'] {
  const link = stages.filter(({ stage }) => stage !== 'drive');
  const share = (rated: number | undefined, of: 'MBps' | 'writeMBps') =>
    rated === undefined ? null : Math.min(100, (100 * Math.min(...link.map((stage) => stage[of].typical))) / rated);
  return { readPercent: share(drive.readMBps, 'MBps'), writePercent: share(drive.writeMBps, 'writeMBps') };
}

/** Pads that the stack takes from the crate: one of each thickness, unless such a one is in the box. */
export function padsToPay(
  { pads, enclosure, quotes }: Pick<PlanInput, 'pads' | 'enclosure' | 'quotes'>,
  rows: readonly StackRow[]
): { role: string; id: string | undefined }[] {
  if (!pads || rows.length === 0) return [];
  const used = new Set(rows.flatMap((row) => row.pads));
  for (const pad of enclosure.includedPads ?? []) used.delete(pad.thicknessMm);
  return [...used].flatMap((thickness) => {
    const among = pads.filter((pad) => pad.thicknessMm === thickness);
    const quoted = among.find((pad) => quotes?.some((quote) => quote.partId === pad.id));
    return among.length > 0 ? [{ role: 'pads', id: (quoted ?? among[0])?.id }] : [];
  });
}

/**
 * Judges one build: parts in, report out, in closed form. Pure; no clock, no randomness.
 * Where link or fit fail, throughput and bottleneck are null and the findings say why; the rest of the report still comes.
 * @param options.workings whether every figure comes with its formula, the numbers put in and the source
 * @throws RangeError if the host has no port of that id
 */
export function plan(input: PlanInput, options: { workings: boolean } = { workings: true }): PlanReport {
  const { host, cable, job, quotes } = input;
  const rules = input.houseRules as HouseRules | undefined;
  const port = portOf(host, input.portId);
  if (!port) throw new RangeError(`${host.name} has no port “${input.portId}”`);

  const assumed: Assumed[] = [];
  const assume = (part: Assumed['part'], field: string, value: Assumed['value'], from: string) =>
    void assumed.push({ part, field, value, from });
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
  const uas = runsUas(port, enclosure);
  const random = (direction: 'read' | 'write') =>
    broken ? null : randomRate(drive, negotiation.mode!, uas, direction);
  const cache = write ? forecastCache(drive, write.band, freeGB) : null;
  if (read && write) {
    const limits = { negotiation, mode: negotiation.mode!, port, enclosure, drive, stages, read, write };
    findings.push(...limitFindings(limits, job?.minSustainedWriteMBps, rules));
  }

  const pads = planPads(input.drive, input.enclosure, input.pads, rules, assume);
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

  let forecast: PlanReport['job'];
  if (job && read && write && cache) {
    const offer = {
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
    };
    const made = forecastJob(job, offer);
    forecast = { ...made.forecast, ways: jobWays(job, offer, made.fed) };
    const free = usableFreeGB(usable, input.drive.fillFraction);
    findings.push(...jobFindings(job, free, forecast, made.fed, write.band, input.drive));
  }

  const cost = buildCost(
    [
      { role: 'drive', id: input.drive.id },
      { role: 'enclosure', id: input.enclosure.id },
      ...(cable && negotiation.cable === cable ? [{ role: 'cable', id: cable.id }] : []),
      ...padsToPay(input, pads.components)
    ],
    quotes,
    input.drive.capacityTB,
    usable,
    input.exchange
  );

  const report: PlanReport = {
    engine: ENGINE_VERSION,
    verdict: verdictOf(findings),
    findings: worstFirst(findings).map((finding) => ({
      code: finding.code,
      severity: finding.severity,
      about: finding.about,
      ...sentenceOf(finding)
    })),
    link: {
      mode: negotiation.mode,
      stages: stages.map(({ stage, label, MBps, writeMBps }) => ({ stage, label, MBps, writeMBps })),
      bottleneck: read?.at ?? null,
      alsoLimits: read?.also ?? [],
      writeBottleneck: write?.at ?? null
    },
    throughput: {
      read: read?.band ?? null,
      write: write?.band ?? null,
      sustainedWrite: cache?.sustained ?? null,
      random4kRead: random('read'),
      random4kWrite: random('write')
    },
    reachable: broken ? null : reachableOf(drive, stages),
    cache: { cliffAtGB: cache?.cliffAtGB ?? null, recoverS: cache?.recoverS ?? null },
    trim:
      write && cache
        ? trimAnswer({
            mode: negotiation.mode!,
            port,
            enclosure,
            drive,
            filesystem: advice.first.filesystem,
            os: host.os.family,
            cache,
            write: write.band
          })
        : null,
    ...(forecast ? { job: forecast } : {}),
    stack: { components: pads.components },
    thermal: null,
    filesystem: advice,
    cost,
    assumed,
    houseRules: [...decisions, ...pads.decisions, ...remarksOf({ input, findings, rules })],
    workings: []
  };
  if (options.workings) {
    const explained: Explained = {
      input,
      port,
      drive,
      enclosure,
      pairing,
      stages,
      read,
      write,
      usable,
      freeGB,
      report
    };
    report.workings = explain(explained);
  }
  return report;
}
