import type { CauseCode } from './causes.ts';

/** One thing that was measured, seen or read: in a sentence, with how often it is seen with each cause (any scale, the same for all). */
export type Evidence = { code: string; says: string; given: (cause: CauseCode) => number };

/** How likely something is by cause, from a table: `usual` for causes that are not in it. */
export type Likelihoods = { usual: number; given: Partial<Record<CauseCode, number>> };

/**
 * Makes evidence of a row of a table.
 * @example fromTable('x', 'It is warm.', { usual: 0.1, given: { 'thermal-throttle': 0.9 } }).given('healthy') // 0.1
 */
export const fromTable = (code: string, says: string, { usual, given }: Likelihoods): Evidence => ({
  code,
  says,
  given: (cause) => given[cause] ?? usual
});

/**
 * Gives the density of a normal distribution of logarithms: of a rate about another with a spread as a share.
 * @param off logarithm of measured over expected
 */
export const densityOf = (off: number, deviation: number): number =>
  Math.exp(-((off / deviation) ** 2) / 2) / (deviation * 2.5066283);

/**
 * Gives the density of a value whose logarithm lies anywhere between two ends, with soft edges.
 * @param value above 0, like the ends
 */
export function densityBetween(value: number, low: number, high: number, edge = 0.08): number {
  const [x, a, b] = [Math.log(value), Math.log(low), Math.log(Math.max(high, low * 1.0001))];
  return (phi((x - a) / edge) - phi((x - b) / edge)) / (b - a);
}

/** The normal distribution function, to 1e-7. Source: Abramowitz, Stegun, 26.2.17. */
function phi(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    ((((1.330274429 * t - 1.821255978) * t + 1.781477937) * t - 0.356563782) * t + 0.31938153) *
    t *
    Math.exp((-z * z) / 2) *
    0.39894228;
  return z >= 0 ? 1 - tail : tail;
}
