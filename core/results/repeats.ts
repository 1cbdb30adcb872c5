import { figure, rate } from '../quantities/format.ts';

/** Student's t at 95 %, two sides, by degrees of freedom. Source: any table of the distribution. */
const T95 = [
  12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228, 2.201, 2.179, 2.16, 2.145, 2.131, 2.12, 2.11,
  2.101, 2.093
];

/**
 * Gives Student's t at 95 % for so many degrees of freedom.
 * @throws RangeError below 1
 * @example studentT(2) // 4.303
 */
export function studentT(freedom: number): number {
  if (!(freedom >= 1)) throw new RangeError('there is no interval without a second result');
  return T95[Math.floor(freedom) - 1] ?? (freedom < 30 ? 2.09 : freedom < 60 ? 2.05 : 2.0);
}

/**
 * Gives the middle one; between the two in the middle of an even number.
 * @throws RangeError for none
 * @example median([3, 1, 2]) // 2
 */
export function median(values: readonly number[]): number {
  if (values.length === 0) throw new RangeError('there is no middle of nothing');
  const order = [...values].sort((a, b) => a - b);
  const half = order.length / 2;
  return order.length % 2 === 1
    ? (order[Math.floor(half)] as number)
    : ((order[half - 1] as number) + (order[half] as number)) / 2;
}

/** Where the mean of repeats lies at 95 %; with one result only the result itself, and no interval. */
export type Interval = { mean: number; low: number; high: number; n: number };

/**
 * Gives the interval of the geometric mean of repeats, 95 %: Student's t on the logarithms, for rates scatter by shares. It holds for as
 * few as two, where a bootstrap does not.
 * @param values each above 0
 * @returns null for fewer than two, or where one of them is not above 0
 * @example intervalOf([100]) // null
 */
export function intervalOf(values: readonly number[]): Interval | null {
  const n = values.length;
  if (n < 2 || values.some((value) => !(value > 0))) return null;
  const logs = values.map(Math.log);
  const mean = logs.reduce((sum, value) => sum + value, 0) / n;
  const variance = logs.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (n - 1);
  const half = studentT(n - 1) * Math.sqrt(variance / n);
  return { mean: Math.exp(mean), low: Math.exp(mean - half), high: Math.exp(mean + half), n };
}

/**
 * Says median and interval in a few words.
 * @example repeatsWords([100, 100, 100]) // '100 MB/s in the middle of 3'
 */
export function repeatsWords(values: readonly number[]): string {
  const middle = `${rate(median(values))} MB/s`;
  if (values.length === 1) return `${middle}, once: without a repeat nobody knows how far it scatters`;
  const interval = intervalOf(values);
  const spread = interval && (interval.high / interval.low - 1) * 100 >= 0.05;
  return `${middle} in the middle of ${values.length}${
    spread ? `, the mean from ${rate(interval.low)} to ${rate(interval.high)} MB/s at 95 %` : ''
  }`;
}

/** How far one rate lies from another, with what is uncertain about it. */
export type Ratio = { ratio: number; low: number; high: number; says: string };

/**
 * Compares two rates, each with its own relative error at 95 %: errors of a ratio add as squares.
 * @param baseline what it is held against, by its name: a ratio without one says nothing
 * @example ratioOf({ value: 200, error: 0.03 }, { value: 100, error: 0.04 }, 'before').ratio // 2
 */
export function ratioOf(
  one: { value: number; error: number },
  other: { value: number; error: number },
  baseline: string
): Ratio {
  const ratio = one.value / other.value;
  const error = Math.hypot(one.error, other.error);
  const [low, high] = [ratio / (1 + error), ratio * (1 + error)];
  const percent = Math.abs(ratio - 1) * 100;
  if (low <= 1 && high >= 1)
    return {
      ratio,
      low,
      high,
      says: `No difference from ${baseline} that is larger than its error (${figure(low)} to ${figure(high)} times).`
    };
  const whole = Math.round(ratio);
  const exactly =
    whole >= 2 && low <= whole && high >= whole ? ` “Exactly ${whole} times” lies inside, and so do the others.` : '';
  return {
    ratio,
    low,
    high,
    says: `${figure(ratio)} times ${baseline} (${figure(low)} to ${figure(high)}), ${figure(percent)} % ${ratio > 1 ? 'more' : 'less'}.${exactly}`
  };
}
