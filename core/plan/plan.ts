import { fullAdvice } from '../filesystem/full-advice.ts';
import { forecastChain, type ChainForecast } from './forecast.ts';
import { forecastFindings } from './job-findings.ts';
import {
  findingsReport,
  linkReport,
  NO_THROUGHPUT,
  reachableOf,
  trimReport,
  powerReport,
  costOf
} from './report-parts.ts';
import { verdictOf } from '../findings/finding.ts';
import { remarksOf } from './applied-rules.ts';
import { assumptionsOf } from './assumptions.ts';
import { thermalReport } from './heat.ts';
import type { PlanInput, PlanReport } from './report.ts';
import { resolveBuild, type ResolvedBuild, type RunningChain } from './resolve-build.ts';
import { explain, type Explained } from './workings.ts';

/** Changes whenever the same parts can give another plan; a stored plan of another version says so. */
export const ENGINE_VERSION = '4';

/**
 * Judges one build: parts in, report out, in closed form. Pure; no clock, no randomness.
 * Where link or fit fail, throughput and bottleneck are null, the findings say why, and `ifItFitted` keeps the figures of the chain
 * where there is one; the rest of the report still comes. Findings about power take no figure away.
 * @param options.workings whether every figure comes with its formula, the numbers put in and the source
 * @throws RangeError if the host has no port of that id
 * @example plan(anInput()).verdict // 'works'
 */
export function plan(input: PlanInput, options: { workings: boolean } = { workings: true }): PlanReport {
  const build = resolveBuild(input);
  const { rules, findings, broken, running } = build;
  const made = running && forecastChain(input, build, running);
  const works = broken ? null : running;
  const forecast = works && made;
  if (works && made) findings.push(...forecastFindings(input, build, works, made));
  const warm = thermalReport(
    { enclosure: input.enclosure, isDisk: input.drive.media === 'hdd', operating: input.drive.operating, rules },
    build.thermal,
    forecast ? forecast.load : null,
    forecast ? forecast.timeline : null
  );
  findings.push(...warm.findings);
  const report = reportOf(input, build, { works, made, warm });
  if (forecast?.figures.job) report.job = forecast.figures.job;
  if (options.workings) report.workings = explain(explainedOf(input, build, works, report));
  return report;
}

/** What was worked out of a build: what works of it, its forecast, working or not, and its heat. */
type Worked = { works: RunningChain | null; made: ChainForecast | null; warm: ReturnType<typeof thermalReport> };

// eslint-disable-next-line complexity -- one field of the report each, null where nothing runs
function reportOf(input: PlanInput, build: ResolvedBuild, { works, made, warm }: Worked): PlanReport {
  const { rules, negotiation, findings, broken, running, pads, advice, decisions, policy } = build;
  const { mode } = negotiation;
  const figures = works && made ? made.figures : null;
  const remarks = remarksOf({ input, findings, rules, policy });
  return {
    engine: ENGINE_VERSION,
    verdict: verdictOf(findings),
    findings: findingsReport(findings),
    link: linkReport(mode, works),
    throughput: figures?.throughput ?? NO_THROUGHPUT,
    reachable: works && reachableOf(build.drive, works.stages),
    cache: figures?.cache ?? { cliffAtGB: null, recoverS: null },
    trim: trimReport(build, input.host.os.family, works),
    ifItFitted: broken && made ? { link: linkReport(mode, running), ...made.figures } : null,
    power: powerReport(build),
    measured: works && input.job ? (input.measured ?? null) : null,
    stack: { components: pads.rows, bowMm: pads.bowMm, from: pads.board?.from ?? null, chosen: pads.chosen },
    thermal: warm.thermal,
    filesystem: fullAdvice(
      { host: input.host.os, media: input.drive.media, capacityTB: input.drive.capacityTB, job: input.job, rules },
      { advice, findings, decisions }
    ),
    cost: costOf(input, build),
    assumed: assumptionsOf(input, build),
    houseRules: decisions.concat(pads.decisions, warm.decisions, remarks),
    workings: []
  };
}

const explainedOf = (
  input: PlanInput,
  { port, drive, enclosure, pairing, usable, freeGB }: ResolvedBuild,
  works: RunningChain | null,
  report: PlanReport
): Explained => ({
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
});
