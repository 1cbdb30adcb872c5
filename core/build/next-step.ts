import { STAGE_LABEL, type BuildStage } from './stages.ts';
import type { Advice } from '../diagnosis/of-run.ts';
import type { Comparison } from '../results/compare.ts';
import { FILESYSTEMS } from '../facts/filesystems.ts';
import { ruleName, chosenOption, type HouseRules, type HouseRuleId } from '../house-rules/house-rules.ts';
import type { PlanReport } from '../plan/report.ts';
import { day } from '../quantities/format.ts';
import { addDays } from '../quantities/days.ts';
import type { SheetProgress } from '../sheets/progress.ts';

/** `urgent` marks what stands in the way of everything else; `waits` what needs nobody today. */
export type NextStep = {
  text: string;
  station: 'pair' | 'assemble' | 'format' | 'measure' | 'log';
  tone: 'urgent' | 'do' | 'waits';
  marks?: BuildStage;
  /** ISO date of the first day on which it is another step, though nothing else changes. */
  until?: string;
};

export type BuildState = {
  stage: BuildStage;
  report: PlanReport;
  /** Differences between the stored plan and the parts or the engine of today. */
  outdated: boolean;
  /** The newest result against the plan, and its day; empty where nothing was measured. */
  latest: readonly Comparison[];
  measuredOn: string | undefined;
  /** What the newest result asks for; null where nothing is wrong, or what is has its known reason. */
  advice?: Advice | null | undefined;
  /** How far its newest run sheet is, where one was begun. */
  sheet?: SheetProgress | undefined;
  /** The same of its format sheet. */
  formatSheet?: SheetProgress | undefined;
  /** The crate's house rules; where one chose the step, the step names it. */
  rules?: HouseRules | undefined;
};

const JUDGE = {
  both: 'Run the speed check and enter the result, then time a copy of your own',
  synthetic: 'Run the speed check and enter the result',
  copy: 'Time a copy of your own with the stopwatch, and enter what the speed check gives beside it'
} as const;
/** Names a rule where the crate chose it itself; defaults go without saying in a step of a few words. */
const named = (school: HouseRuleId, rules: HouseRules | undefined): string =>
  rules?.[school] === undefined ? '' : ` (${ruleName(school, rules)})`;

/** A quarter of a year. */
const RETEST_DAYS = 91;

const at = (station: NextStep['station'], text: string, marks?: BuildStage): NextStep => ({
  text,
  station,
  tone: 'do',
  ...(marks ? { marks } : {})
});

/** Before buying: what is to be checked or thought over first. */
function planned({ report: { findings } }: BuildState): NextStep {
  const check = findings.find((f) => f.severity === 'check');
  if (check) return at('pair', `Before buying, settle this: ${check.message}`);
  const limit = findings.find((f) => f.severity === 'limit');
  return limit?.remedy
    ? at('pair', `Before buying, think it over. ${limit.remedy}`, 'bought')
    : at('pair', 'Get the parts together, then mark it as bought.', 'bought');
}

function assembled({ report, rules, formatSheet }: BuildState): NextStep {
  const begun = onSheet(formatSheet, { station: 'format', marks: 'formatted' });
  if (begun) return begun;
  const { filesystem, scheme } = report.filesystem.first;
  const format = `${FILESYSTEMS[filesystem].label}, ${scheme.toUpperCase()}`;
  const how =
    chosenOption('software', rules) === 'system'
      ? ' with the system’s own tools'
      : ', with the supplied software where it is needed';
  const erases = 'Formatting erases the drive: check its size and name first.';
  return at('format', `Format it as ${format}${how}${named('software', rules)}. ${erases}`, 'formatted');
}

const formatted = ({ rules }: BuildState): NextStep =>
  at('measure', `${JUDGE[chosenOption('judge-by', rules) as keyof typeof JUDGE]}${named('judge-by', rules)}.`);

/** What a result that is too low asks for: what its cause asks for where it shows one, else to look in the order of the house. */
function tooSlow({ latest, advice, rules }: BuildState): NextStep | undefined {
  if (advice === null) return undefined;
  if (advice) return { text: `${advice.text} ${advice.next}`, station: 'measure', tone: 'urgent' };
  const below = latest.filter((row) => row.place === 'below');
  if (below.length === 0) return undefined;
  const worst = below.reduce((a, b) => (a.percentOfTypical < b.percentOfTypical ? a : b));
  const where =
    chosenOption('one-host', rules) === 'link-first'
      ? 'other port, other cable, then a second computer'
      : 'the drive’s own test and health first, then port, cable and computer';
  const text = `Find out why it measured ${Math.round(worst.percentOfTypical)} % of the typical forecast: ${where}${named('one-host', rules)}.`;
  return { text, station: 'measure', tone: 'urgent' };
}

/** Of one that was measured, or is used: no result at all, or the next check. */
function inUse({ stage, measuredOn }: BuildState, today: string): NextStep {
  if (measuredOn === undefined)
    return at('measure', `Marked as ${STAGE_LABEL[stage]}, without a result: run the speed check once.`);
  if (stage === 'benched') return at('measure', 'Measured as forecast: put it in service.', 'in service');
  const due = addDays(measuredOn, RETEST_DAYS);
  return due <= today
    ? at('measure', `Last measured ${day(measuredOn)}: run the speed check again.`)
    : { text: `In service. Next check from ${day(due)}.`, station: 'measure', tone: 'waits', until: due };
}

/** Names the stage of a run sheet that is at hand; nothing where none was begun. */
function onSheet(
  sheet: SheetProgress | undefined,
  { station, marks }: { station: 'assemble' | 'format'; marks: BuildStage } = {
    station: 'assemble',
    marks: 'assembled'
  }
): NextStep | undefined {
  if (!sheet) return undefined;
  const name = station === 'format' ? 'format sheet' : 'run sheet';
  if (sheet.current === null) return at(station, `The ${name} is done to its last check.`, marks);
  const { title } = sheet.stages[sheet.current] ?? { title: '' };
  return at(
    station,
    `Stage ${sheet.current + 1} of ${sheet.stages.length}: ${title.charAt(0).toLowerCase()}${title.slice(1)}.`
  );
}

const bought = ({ sheet }: BuildState): NextStep =>
  onSheet(sheet) ?? at('assemble', 'Assemble it: the run sheet leads through it step by step.', 'assembled');

/** What each stage asks for, where nothing stands in the way. */
const STEP_OF: Record<BuildStage, (build: BuildState, today: string) => NextStep> = {
  planned,
  bought,
  assembled,
  formatted,
  benched: inUse,
  'in service': inUse,
  retired: () => ({ text: 'Retired; nothing to do.', station: 'log', tone: 'waits' })
};

/**
 * Finds the one next useful step of a build: what stands in the way first, then what its stage asks for.
 * @param today ISO date; the clock is the caller's
 * @example nextStep({ stage: 'bought', report: plan(anInput()), outdated: false, latest: [] }, '2026-11-27').marks // 'assembled'
 */
export function nextStep(build: BuildState, today: string): NextStep {
  const { stage, report, outdated } = build;
  if (stage !== 'retired') {
    const failing = report.findings.find((f) => f.severity === 'fail');
    if (failing) return { text: failing.remedy ?? failing.message, station: 'pair', tone: 'urgent' };
    // Whoever has the parts in hand goes on with the sheet, which itself says what changes of parts make new.
    const atHand = stage === 'planned' || stage === 'bought' ? onSheet(build.sheet) : undefined;
    if (atHand) return atHand;
    if (outdated)
      return at('pair', 'Its parts have changed since it was planned: look at the differences and plan again.');
  }
  return (stage === 'retired' ? undefined : tooSlow(build)) ?? STEP_OF[stage](build, today);
}
