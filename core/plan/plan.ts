import { trimAnswer } from '../filesystem/trim.ts';
import { verdictOf, worstFirst, type Finding } from '../findings/finding.ts';
import { sentenceOf } from '../findings/words.ts';
import { buildCost } from '../cost/build-cost.ts';
import { ruleName } from '../house-rules/house-rules.ts';
import { budgetOf, livesOnPort } from '../chain/rules/power.ts';
import { drawParts } from '../chain/power-draw.ts';
import { runsUas, type Stage } from '../chain/stages.ts';
import type { FilledDrive } from '../parts/fill/fill.ts';
import type { Job } from '../parts/job.ts';
import type { Band } from '../quantities/band.ts';
import type { StackPlan } from '../pads/plan-pads.ts';
import { enduranceYears } from '../throughput/endurance.ts';
import { fillOf, type CacheForecast } from '../throughput/flash-cache.ts';
import { needGB, usableFreeGB, type JobChain } from '../throughput/job-time.ts';
import { randomRate } from '../throughput/random.ts';
import { remarksOf } from './applied-rules.ts';
import type { ThrottleTimeline } from '../thermal/throttling/timeline.ts';
import { assumptionsOf } from './assumptions.ts';
import { describeLoad, thermalReport, sustainedWriteBand, endlessWritePhases, type DescribedLoad } from './heat.ts';
import { forecastJob, jobSeconds, jobWays, typicalJob, type JobForecast } from './job-forecast.ts';
import type { PlanInput, PlanReport } from './report.ts';
import { resolveBuild, type ResolvedBuild, type RunningChain } from './resolve-build.ts';
import { explain, type Explained } from './workings.ts';

/** Changes whenever the same parts can give another plan; a stored plan of another version says so. */
export const ENGINE_VERSION = '4';

const WARRANTY_YEARS = 3;

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

/**
 * Pads that the stack takes from the crate: one of each thickness, unless such a one is in the box. Where the chips are only
 * assumed nobody cuts anything yet, and nothing is counted.
 */
export function padsToPay(
  { pads, enclosure, quotes }: Pick<PlanInput, 'pads' | 'enclosure' | 'quotes'>,
  { rows, board, chosen }: Pick<StackPlan, 'rows' | 'board' | 'chosen'>
): { role: string; id: string | undefined }[] {
  if (!pads || rows.length === 0 || (board?.from === 'template' && !chosen)) return [];
  const used = new Set(rows.flatMap((row) => row.pads));
  for (const pad of enclosure.includedPads ?? []) used.delete(pad.thicknessMm);
  return [...used].flatMap((thickness) => {
    const among = pads.filter((pad) => pad.thicknessMm === thickness);
    const quoted = among.find((pad) => quotes?.some((quote) => quote.partId === pad.id));
    return among.length > 0 ? [{ role: 'pads', id: (quoted ?? among[0])?.id }] : [];
  });
}

type Figures = Pick<PlanReport, 'throughput' | 'cache' | 'job'>;
type Forecast = { figures: Figures; fed: CacheForecast | null; timeline: ThrottleTimeline | null; work: DescribedLoad };

/** Forecasts what a chain does that connects: rates, cache and job, with what throttling takes of them. */
function forecastOf(
  { job, drive: { media } }: PlanInput,
  { drive, enclosure, port, negotiation, freeGB, thermal }: ResolvedBuild,
  { read, write, cache, chain }: RunningChain
): Forecast {
  const on = endlessWritePhases(write.band, cache, media === 'hdd' ? null : fillOf(drive, freeGB, 'typical'));
  const wanted = job ? typicalJob(job, chain) : null;
  const work = describeLoad(thermal, on, wanted?.phases ?? null, job?.perDay, write.band, freeGB);
  const uas = runsUas(port, enclosure);
  const mode = negotiation.mode!;
  const figures: Figures = {
    throughput: {
      read: read.band,
      write: write.band,
      sustainedWrite: sustainedWriteBand(thermal, write.band, cache, work),
      random4kRead: randomRate(drive, mode, uas, 'read'),
      random4kWrite: randomRate(drive, mode, uas, 'write')
    },
    cache: { cliffAtGB: cache.cliffAtGB, recoverS: cache.recoverS }
  };
  if (!job || !wanted) return { figures, fed: null, timeline: null, work };
  const { forecast, timeline } = forecastJob(job, chain, wanted, {
    limits: work.neverThrottles ? null : thermal.limits,
    typical: thermal.typical,
    ...(work.neverThrottles ? {} : { ends: { slow: work.cases.hot, fast: work.cases.cool } })
  });
  figures.job = { ...forecast, ways: jobWays(job, chain, wanted.ways, forecast.seconds.typical) };
  return { figures, fed: wanted.fed, timeline, work };
}

/** A time that differs by less than this share is not worth a finding. */
const WORTH_SAYING = 0.1;

/** What Windows' quick removal costs a job through its files alone, where the rate does not show it. */
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

/** What comes to light only once a working chain is forecast: of its job, and of heat in it. */
function forecastFindings(input: PlanInput, study: ResolvedBuild, running: RunningChain, made: Forecast): Finding[] {
  const { job, drive } = input;
  const { needs, usable, thermal } = study;
  const { figures, fed, timeline, work } = made;
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
  findings.push(...jobFindings(job, free, figures.job, fed!, running.chain.write, drive));
  const policy = filePolicyFinding(job, study, running.chain);
  if (policy) findings.push(policy);
  if (timeline && timeline.throttleAtS !== null)
    findings.push({
      code: 'throttles-in-job',
      severity: 'limit',
      about: 'job',
      afterS: timeline.throttleAtS,
      from: work.phases.find((phase) => phase.volumeMB > 0)!.rate,
      to: timeline.throttledMBps,
      form: timeline.form === 'saw-tooth' ? 'saw-tooth' : 'plateau',
      startC: thermal.limits!.startC
    });
  return findings;
}

/** What a build draws, part by part, and what its port gives; null without a chain that writes. */
function powerReport({ pairing, need, broken, running, thermal }: ResolvedBuild): PlanReport['power'] {
  const rate = pairing.writeMBps;
  if (broken || !running || !rate || !need) return null;
  const { draw, steady, peak } = need;
  const { idleW, efficiency, bridgeRestW, fanW } = thermal.draw;
  const fromPort = livesOnPort(pairing);
  return {
    steadyW: steady,
    peakW: peak,
    idleW: idleW.typical / efficiency + bridgeRestW + fanW,
    portW: fromPort ? budgetOf(pairing) : null,
    portStated: pairing.portWatts.stated,
    parts: drawParts(draw, rate).filter(({ W }) => W.high > 0)
  };
}

const NOTHING: PlanReport['throughput'] = {
  read: null,
  write: null,
  sustainedWrite: null,
  random4kRead: null,
  random4kWrite: null
};

/** What the parts of a build cost; null without a quote for drive and enclosure. */
function costOf(input: PlanInput, { negotiation, pads, usable }: ResolvedBuild): PlanReport['cost'] {
  const { drive, enclosure, quotes, exchange } = input;
  if (!quotes || quotes.length === 0) return null;
  const parts = [
    { role: 'drive', id: drive.id },
    { role: 'enclosure', id: enclosure.id }
  ];
  if (negotiation.cableFrom === 'chosen') parts.push({ role: 'cable', id: negotiation.cable!.id });
  parts.push(...padsToPay(input, pads));
  return buildCost(parts, quotes, drive.capacityTB, usable, exchange);
}

/** What a chain looks like in a report. */
const linkReport = (mode: PlanReport['link']['mode'], running: RunningChain | null): PlanReport['link'] => ({
  mode,
  stages: running ? running.stages.map(({ stage, label, MBps, writeMBps }) => ({ stage, label, MBps, writeMBps })) : [],
  bottleneck: running?.read.at ?? null,
  alsoLimits: running?.read.also ?? [],
  writeBottleneck: running?.write.at ?? null
});

/**
 * Judges one build: parts in, report out, in closed form. Pure; no clock, no randomness.
 * Where link or fit fail, throughput and bottleneck are null, the findings say why, and `ifItFitted` keeps the figures of the chain
 * where there is one; the rest of the report still comes. Findings about power take no figure away.
 * @param options.workings whether every figure comes with its formula, the numbers put in and the source
 * @throws RangeError if the host has no port of that id
 */
export function plan(input: PlanInput, options: { workings: boolean } = { workings: true }): PlanReport {
  const { host, job } = input;
  const study = resolveBuild(input);
  const { rules, port, drive, enclosure, negotiation, pairing, findings, broken, running } = study;
  const { freeGB, pads, advice, decisions, usable, thermal } = study;
  const { mode } = negotiation;

  const made = running && forecastOf(input, study, running);
  const works = broken ? null : running;
  if (works && made) findings.push(...forecastFindings(input, study, works, made));
  const warm = thermalReport(
    { enclosure: input.enclosure, isDisk: input.drive.media === 'hdd', rules },
    thermal,
    works && made ? made.work : null,
    works && made ? made.timeline : null
  );
  findings.push(...warm.findings);

  const link = linkReport(mode, works);

  const report: PlanReport = {
    engine: ENGINE_VERSION,
    verdict: verdictOf(findings),
    findings: worstFirst(findings).map((finding) => {
      const said = sentenceOf(finding);
      const { code, severity, about } = finding;
      const { message, reason, remedy } = said;
      return remedy === undefined
        ? { code, severity, about, message, reason }
        : { code, severity, about, message, reason, remedy };
    }),
    link,
    throughput: works && made ? made.figures.throughput : NOTHING,
    reachable: works ? reachableOf(drive, works.stages) : null,
    cache: works && made ? made.figures.cache : { cliffAtGB: null, recoverS: null },
    trim: works
      ? trimAnswer({
          mode: mode!,
          port,
          enclosure,
          drive,
          filesystem: advice.first.filesystem,
          os: host.os.family,
          cache: works.cache,
          write: works.write.band
        })
      : null,
    ifItFitted: broken && running && made ? { link: linkReport(mode, running), ...made.figures } : null,
    power: powerReport(study),
    measured: works && job ? (input.measured ?? null) : null,
    stack: {
      components: pads.rows,
      bowMm: pads.bowMm,
      from: pads.board?.from ?? null,
      chosen: pads.chosen
    },
    thermal: warm.thermal,
    filesystem: advice,
    cost: costOf(input, study),
    assumed: assumptionsOf(input, study),
    houseRules: decisions.concat(
      pads.decisions,
      warm.decisions,
      remarksOf({ input, findings, rules, policy: study.policy })
    ),
    workings: []
  };
  if (works && made?.figures.job) report.job = made.figures.job;
  if (options.workings) {
    const explained: Explained = {
      input,
      port,
      drive,
      enclosure,
      pairing,
      stages: works?.stages ?? [],
      read: works?.read ?? null,
      write: works?.write ?? null,
      usable,
      freeGB,
      report
    };
    report.workings = explain(explained);
  }
  return report;
}
