import type { PlanReport } from '../../plan/report.ts';

/** What a swap does to one figure; the typical values, in the unit of the figure. */
export type FigureDifference = {
  before: number | null;
  after: number | null;
  change: number | null;
  /** Of the figure before; null where there was none, or it was nothing. */
  percent: number | null;
  /** Null where it is the same, or where neither way is better. */
  better: boolean | null;
};

const LOWER_IS_BETTER = [
  'job.seconds',
  'cost.total',
  'cost.perTB',
  'power.steady',
  'cache.recoverS',
  'thermal.case',
  'thermal.controller',
  'thermal.battery'
];
/** Figures of which more is neither better nor worse. */
const NEITHER = /^(link|filesystem|stack|stage)\./;

/** Lists every figure of a plan that is a number, by the key of its working: the typical value of bands. */
export function typicalFigures(report: PlanReport): Map<string, number> {
  const figures = new Map<string, number>();
  for (const { figure, result } of report.workings)
    if (typeof result === 'number') figures.set(figure, result);
    else if (typeof result === 'object') figures.set(figure, result.typical);
  return figures;
}

/** Says how a figure that both plans have changed. */
function changeOf(key: string, was: number, is: number): FigureDifference {
  const change = is - was;
  const better = NEITHER.test(key) ? null : change > 0 !== LOWER_IS_BETTER.includes(key);
  return { before: was, after: is, change, percent: was === 0 ? null : (100 * change) / was, better };
}

/**
 * Gives figure by figure, what is different in the second plan. Both need their workings.
 * @example differences(plan(anInput()), plan(anInput())).size // 0
 */
export function differences(before: PlanReport, after: PlanReport): Map<string, FigureDifference> {
  const [a, b] = [typicalFigures(before), typicalFigures(after)];
  const out = new Map<string, FigureDifference>();
  for (const key of new Set([...a.keys(), ...b.keys()])) {
    const [was, is] = [a.get(key) ?? null, b.get(key) ?? null];
    if (was !== null && is !== null) {
      if (Math.abs(is - was) > 1e-9 * Math.max(Math.abs(was), Math.abs(is))) out.set(key, changeOf(key, was, is));
    } else if (was !== is) out.set(key, { before: was, after: is, change: null, percent: null, better: null });
  }
  return out;
}
