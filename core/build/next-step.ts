import type { Comparison } from '../results/compare.ts';
import { FILESYSTEMS } from '../facts/filesystems.ts';
import { ruleName, chosenOption, type HouseRules, type HouseRuleId } from '../house-rules/house-rules.ts';
import type { PlanReport } from '../plan/report.ts';
import { day } from '../quantities/format.ts';
import type { BuildStage } from './stages.ts';
import { addDays } from '../quantities/days.ts';

/** `urgent` marks what stands in the way of everything else; `waits` what needs nobody today. */
export type NextStep = {
  text: string;
  station: 'pair' | 'measure' | 'log';
  tone: 'urgent' | 'do' | 'waits';
  marks?: BuildStage;
};

export type BuildState = {
  stage: BuildStage;
  report: PlanReport;
  /** Differences between the stored plan and the parts or the engine of today. */
  outdated: boolean;
  /** The newest result against the plan, and its day; empty where nothing was measured. */
  latest: readonly Comparison[];
  measuredOn: string | undefined;
  /** The crate's house rules; where one chose the step, the step names it. */
  rules?: HouseRules | undefined;
};

const JUDGE = {
  both: 'Run the pair check and enter the result, then time a copy of your own',
  synthetic: 'Run the pair check and enter the result',
  copy: 'Time a copy of your own with the stopwatch, and enter what the pair check gives beside it'
} as const;
/** Names a rule where the crate chose it itself; defaults go without saying in a step of a few words. */
const named = (school: HouseRuleId, rules: HouseRules | undefined): string =>
  rules?.[school] === undefined ? '' : ` (${ruleName(school, rules)})`;

/** A quarter of a year. */
const RETEST_DAYS = 91;

/**
 * The one next useful step of a build.
 * @param today ISO date; the clock is the caller's
 */
export function nextStep(build: BuildState, today: string): NextStep {
  const { stage, report, rules } = build;
  if (stage === 'retired') return { text: 'Retired; nothing to do.', station: 'log', tone: 'waits' };
  const failing = report.findings.find((f) => f.severity === 'fail');
  if (failing) return { text: failing.remedy ?? failing.message, station: 'pair', tone: 'urgent' };
  if (build.outdated)
    return {
      text: 'Its parts have changed since it was planned: look at the differences and plan again.',
      station: 'pair',
      tone: 'do'
    };
  const check = report.findings.find((f) => f.severity === 'check');
  const limit = report.findings.find((f) => f.severity === 'limit');
  const { first } = report.filesystem;
  const format = `${FILESYSTEMS[first.filesystem].label}, ${first.scheme.toUpperCase()}`;
  switch (stage) {
    case 'planned':
      if (check) return { text: `Before buying, settle this: ${check.message}`, station: 'pair', tone: 'do' };
      if (limit?.remedy)
        return { text: `Before buying, think it over. ${limit.remedy}`, station: 'pair', tone: 'do', marks: 'bought' };
      return { text: 'Get the parts together, then mark it as bought.', station: 'pair', tone: 'do', marks: 'bought' };
    case 'bought':
      return {
        text: 'Assemble it: no cable connected, bare metal touched first.',
        station: 'pair',
        tone: 'do',
        marks: 'assembled'
      };
    case 'assembled':
      return {
        text: `Format it as ${format}${chosenOption('software', rules) === 'system' ? ' with the system’s own tools' : ', with the supplied software where it is needed'}${named('software', rules)}. Formatting erases the drive: check its size and name first.`,
        station: 'pair',
        tone: 'do',
        marks: 'formatted'
      };
    case 'formatted':
      return {
        text: `${JUDGE[chosenOption('judge-by', rules) as keyof typeof JUDGE]}${named('judge-by', rules)}.`,
        station: 'measure',
        tone: 'do'
      };
    case 'benched':
    case 'in service': {
      const below = build.latest.filter((row) => row.place === 'below');
      if (below.length > 0) {
        const worst = below.reduce((a, b) => (a.percentOfTypical < b.percentOfTypical ? a : b));
        return {
          text: `Find out why it measured ${Math.round(worst.percentOfTypical)} % of the typical forecast: ${chosenOption('one-host', rules) === 'link-first' ? 'other port, other cable, then a second host' : 'the drive’s own test and health first, then port, cable and host'}${named('one-host', rules)}.`,
          station: 'measure',
          tone: 'urgent'
        };
      }
      if (build.measuredOn === undefined) {
        return {
          text: `Marked as ${stage}, without a result: run the pair check once.`,
          station: 'measure',
          tone: 'do'
        };
      }
      if (stage === 'benched') {
        return {
          text: 'Measured as forecast: put it in service.',
          station: 'measure',
          tone: 'do',
          marks: 'in service'
        };
      }
      const due = addDays(build.measuredOn, RETEST_DAYS);
      return due <= today
        ? { text: `Last measured ${day(build.measuredOn)}: run the pair check again.`, station: 'measure', tone: 'do' }
        : { text: `In service. Next check from ${day(due)}.`, station: 'measure', tone: 'waits' };
    }
  }
}
