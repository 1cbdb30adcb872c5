import { trimAnswer } from '../filesystem/trim.ts';
import { verdictOf, worstFirst, type Assumed, type Finding } from '../findings/finding.ts';
import { sentenceOf } from '../findings/words.ts';
import { buildCost } from '../cost/build-cost.ts';
import { runsUas, type Stage } from '../link/stages.ts';
import type { FilledDrive } from '../parts/fill.ts';
import type { Job } from '../parts/job.ts';
import type { Band } from '../quantities/band.ts';
import type { StackPlan } from '../stack/plan-pads.ts';
import { enduranceYears } from '../throughput/endurance.ts';
import { fillOf, type CacheForecast } from '../throughput/flash-cache.ts';
import { randomRate } from '../throughput/random.ts';
import { remarksOf } from './house-rules.ts';
import type { March } from '../thermal/march.ts';
import { heatReport, runningOn, sustainedUnder, writingOn, type Running } from './heat-report.ts';
import { fedBy, forecastJob, jobWays, needGB, phasesOf, usableFreeGB, type JobForecast } from './job-forecast.ts';
import type { PlanInput, PlanReport } from './report.ts';
import { studyBuild } from './study.ts';
import { explain, type Explained } from './workings.ts';

/** Changes whenever the same parts can give another plan; a stored plan of another version says so. */
export const ENGINE_VERSION = '3';

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

/**
 * Judges one build: parts in, report out, in closed form. Pure; no clock, no randomness.
 * Where link or fit fail, throughput and bottleneck are null and the findings say why; the rest of the report still comes.
 * @param options.workings whether every figure comes with its formula, the numbers put in and the source
 * @throws RangeError if the host has no port of that id
 */
export function plan(input: PlanInput, options: { workings: boolean } = { workings: true }): PlanReport {
  const { host, cable, job, quotes } = input;
  const assumed: Assumed[] = [];
  const assume = (part: Assumed['part'], field: string, value: Assumed['value'], from: string) =>
    void assumed.push({ part, field, value, from });
  const study = studyBuild(input, assume);
  const { rules, port, drive, enclosure, negotiation, pairing, findings, broken, stages, read, write, cache } = study;
  const { freeGB, pads, advice, decisions, usable, heatOf, warmth, offer } = study;
  const uas = runsUas(port, enclosure);
  const random = (direction: 'read' | 'write') =>
    broken ? null : randomRate(drive, negotiation.mode!, uas, direction);

  let forecast: PlanReport['job'];
  let marched: March | null = null;
  let running: Running | null = null;
  let sustained: Band | null = null;
  if (write && cache && offer) {
    const on = writingOn(write.band, cache, fillOf(drive, freeGB, 'typical'));
    const phases = job ? phasesOf(job, offer, fedBy(offer)) : null;
    running = runningOn(warmth, on, phases, job?.perDay, write.band, freeGB);
    const { cases } = running;
    sustained = sustainedUnder(warmth, write.band, cache, on, cases);
    if (job && phases) {
      const made = forecastJob(job, offer, {
        limits: warmth.limits,
        typical: warmth.typical,
        ends: { slow: cases.hot, fast: cases.cool }
      });
      ({ marched } = made);
      forecast = { ...made.forecast, ways: jobWays(job, offer, made.fed, made.forecast.seconds.typical) };
      const free = usableFreeGB(usable, input.drive.fillFraction);
      findings.push(...jobFindings(job, free, forecast, made.fed, write.band, input.drive));
      if (marched && marched.throttleAtS !== null)
        findings.push({
          code: 'throttles-in-job',
          severity: 'limit',
          about: 'job',
          afterS: marched.throttleAtS,
          from: phases.find((phase) => phase.volumeMB > 0)!.rate,
          to: marched.throttledMBps,
          form: marched.form === 'plateau' ? 'plateau' : 'saw-tooth',
          startC: warmth.limits!.startC
        });
    }
  }
  const warm = heatReport(heatOf, warmth, job, running, marched);
  findings.push(...warm.findings);

  const cost = buildCost(
    [
      { role: 'drive', id: input.drive.id },
      { role: 'enclosure', id: input.enclosure.id },
      ...(cable && negotiation.cable === cable ? [{ role: 'cable', id: cable.id }] : []),
      ...padsToPay(input, pads)
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
      sustainedWrite: sustained,
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
    stack: {
      components: pads.rows,
      bowMm: pads.bowMm,
      from: pads.board?.from ?? null,
      chosen: pads.chosen
    },
    thermal: warm.thermal,
    filesystem: advice,
    cost,
    assumed,
    houseRules: [...decisions, ...pads.decisions, ...warm.decisions, ...remarksOf({ input, findings, rules })],
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
