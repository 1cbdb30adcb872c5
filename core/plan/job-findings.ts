/* eslint-disable @typescript-eslint/no-non-null-assertion -- asked of a job that fills its cache, throttles or is held back, so that the figure is there */
import type { Finding } from '../findings/finding.ts';
import { ruleName } from '../house-rules/house-rules.ts';
import type { Job } from '../parts/job.ts';
import type { Band } from '../quantities/band.ts';
import { enduranceYears } from '../throughput/endurance.ts';
import type { CacheForecast } from '../throughput/flash-cache.ts';
import { needGB, usableFreeGB, type JobChain } from '../throughput/job-time.ts';
import { jobSeconds, type JobForecast } from './job-forecast.ts';
import type { PlanInput } from './report.ts';
import type { ResolvedBuild, RunningChain } from './resolve-build.ts';

import type { ChainForecast } from './forecast.ts';

const WARRANTY_YEARS = 3;
/** Mean sizes of files that tell how a job wears a drive, MB. */
const LARGE_FILES_MB = 1;
const SMALL_FILES_MB = 0.1;

/** What a job meets on a build: GB that are free for it, its forecast, the cache as the job fills it, and the write, MB/s. */
export type JobMeets = { freeGB: number; forecast: JobForecast; cache: CacheForecast; write: Band };
type Endurance = { enduranceTBW?: number; warrantyYears?: number };

/** Tells what a job meets on this build: no room, a full cache, or more writing than the drive is made for. */
export function jobFindings(job: Job, { freeGB, forecast, cache, write }: JobMeets, drive: Endurance): Finding[] {
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
  const worn = enduranceFinding(job, drive);
  if (worn) findings.push(worn);
  return findings;
}

/** Tells where a job would wear the drive out within its warranty. */
function enduranceFinding(job: Job, drive: Endurance): Finding | undefined {
  if (drive.enduranceTBW === undefined || !job.perDay || job.direction === 'out') return undefined;
  const gbPerDay = job.transferGB * job.perDay;
  const years = enduranceYears(drive.enduranceTBW, gbPerDay, workloadOf(job));
  const warrantyYears = drive.warrantyYears ?? WARRANTY_YEARS;
  return years < warrantyYears
    ? { code: 'endurance-short', severity: 'check', about: 'drive', years, warrantyYears, gbPerDay }
    : undefined;
}

function workloadOf({ transferGB, files }: Job): 'sequential' | 'mixed' | 'smallRandom' {
  const meanMB = files ? (transferGB * 1000) / files : undefined;
  if (meanMB === undefined) return 'mixed';
  return meanMB >= LARGE_FILES_MB ? 'sequential' : meanMB >= SMALL_FILES_MB ? 'mixed' : 'smallRandom';
}

/** A time that differs by less than this share is not worth a finding. */
const WORTH_SAYING = 0.1;

/** Tells what Windows' quick removal costs a job through its files alone, where the rate does not show it. */
function filePolicyFinding(job: Job, { policy, rules, findings }: ResolvedBuild, chain: JobChain): Finding | undefined {
  if (!chain.quickRemoval || (job.files ?? 0) < 2 || job.direction === 'out') return undefined;
  if (findings.some(({ code }) => code === 'write-cache-policy')) return undefined;
  const now = jobSeconds(job, chain, null);
  const better = jobSeconds(job, { ...chain, quickRemoval: false }, null);
  return 1 - better / now > WORTH_SAYING
    ? {
        code: 'write-cache-policy',
        severity: 'limit',
        about: 'host',
        from: policy!.from,
        now,
        better,
        of: 'job',
        rule: ruleName('write-cache', rules)
      }
    : undefined;
}

/** Tells what comes to light only once a working chain is forecast: of its job, and of heat in it. */
export function forecastFindings(
  input: PlanInput,
  build: ResolvedBuild,
  running: RunningChain,
  made: ChainForecast
): Finding[] {
  const { job, drive } = input;
  const { needs, usable, thermal } = build;
  const { figures, fed, timeline, load } = made;
  const findings: Finding[] = [];
  const gives = figures.throughput.sustainedWrite!.typical;
  if (needs && gives < needs.MBps * (1 - 1e-9))
    findings.push({
      code: 'job-minimum-missed',
      severity: 'limit',
      about: 'job',
      needs: needs.MBps,
      gives,
      assumed: needs.assumed
    });
  if (!job || !figures.job) return findings;
  const free = usableFreeGB(usable, drive.fillFraction);
  findings.push(
    ...jobFindings(job, { freeGB: free, forecast: figures.job, cache: fed!, write: running.chain.write }, drive)
  );
  const policy = filePolicyFinding(job, build, running.chain);
  if (policy) findings.push(policy);
  if (timeline && timeline.throttleAtS !== null)
    findings.push({
      code: 'throttles-in-job',
      severity: 'limit',
      about: 'job',
      afterS: timeline.throttleAtS,
      from: load.phases.find((phase) => phase.volumeMB > 0)!.rate,
      to: timeline.throttledMBps,
      form: timeline.form === 'saw-tooth' ? 'saw-tooth' : 'plateau',
      startC: thermal.limits!.startC
    });
  return findings;
}
