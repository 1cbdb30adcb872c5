import { CRITERIA, type Criterion, type Weights } from './request.ts';

/** The figures of one combination; what is not known is NaN. */
export type Figures = Record<Criterion, number>;

const HIGHER_IS_BETTER: Record<Criterion, boolean> = {
  sustainedWrite: true,
  read: true,
  seconds: false,
  cost: false,
  perTB: false
};
/** Nothing is cheaper than a cent: a gift would be infinitely better than everything else. */
const FLOOR: Record<Criterion, number> = { sustainedWrite: 1e-3, read: 1e-3, seconds: 1e-3, cost: 0.01, perTB: 0.01 };

/** How fast a combination is: sustained write and read, MB/s, and the job, s. */
export type Pace = { sustained: number; read: number; seconds: number };

/** The best and the worst of a set, criterion by criterion; NaN where no combination has the figure. Millions are added. */
export class Extremes {
  readonly best: Figures = { sustainedWrite: NaN, read: NaN, seconds: NaN, cost: NaN, perTB: NaN };
  readonly worst: Figures = { ...this.best };

  /** Adds a combination in the cheapest and in the dearest form that it comes in. */
  add(rates: Pace, capacityTB: number, cheapest: number, dearest: number): void {
    const { sustained, read, seconds } = rates;
    const { best, worst } = this;
    if (!(sustained <= best.sustainedWrite)) best.sustainedWrite = sustained;
    if (!(sustained >= worst.sustainedWrite)) worst.sustainedWrite = sustained;
    if (!(read <= best.read)) best.read = read;
    if (!(read >= worst.read)) worst.read = read;
    if (!(seconds >= best.seconds)) best.seconds = seconds;
    if (!(seconds <= worst.seconds)) worst.seconds = seconds;
    if (Number.isNaN(cheapest)) return;
    if (!(cheapest >= best.cost)) best.cost = cheapest;
    if (!(dearest <= worst.cost)) worst.cost = dearest;
    const [low, high] = [cheapest / capacityTB, dearest / capacityTB];
    if (!(low >= best.perTB)) best.perTB = low;
    if (!(high <= worst.perTB)) worst.perTB = high;
  }
}

/** Gives how much of the best a figure reaches, 0 to 1. What is not known counts as the worst of the set. */
export function shareOfBest(criterion: Criterion, value: number, { best, worst }: Extremes): number {
  const known = Number.isNaN(value) ? worst[criterion] : value;
  const [top, here] = [Math.max(best[criterion], FLOOR[criterion]), Math.max(known, FLOOR[criterion])];
  return HIGHER_IS_BETTER[criterion] ? here / top : top / here;
}

/** Lists the criteria that count: weighted, and known of at least one combination. */
export const counting = (weights: Weights, extremes: Extremes): Criterion[] =>
  CRITERIA.filter((criterion) => weights[criterion] > 0 && !Number.isNaN(extremes.best[criterion]));

/**
 * Makes the score of this set: the weighted sum of the log-ratios to the best, in the order of the criteria; 0 is the best in
 * everything. Plain numbers in and out: it is asked millions of times.
 */
export function scorer(weights: Weights, extremes: Extremes): (pace: Pace, cost: number, perTB: number) => number {
  const criteria = counting(weights, extremes);
  const weightOf = (criterion: Criterion) => (criteria.includes(criterion) ? weights[criterion] : 0);
  const [ws, wr, wt, wc, wp] = CRITERIA.map(weightOf) as [number, number, number, number, number];
  return ({ sustained, read, seconds }, cost, perTB) => {
    let score = 0;
    if (ws !== 0) score += ws * Math.log(shareOfBest('sustainedWrite', sustained, extremes));
    if (wr !== 0) score += wr * Math.log(shareOfBest('read', read, extremes));
    if (wt !== 0) score += wt * Math.log(shareOfBest('seconds', seconds, extremes));
    if (wc !== 0) score += wc * Math.log(shareOfBest('cost', cost, extremes));
    if (wp !== 0) score += wp * Math.log(shareOfBest('perTB', perTB, extremes));
    return score;
  };
}
