/** A prediction: never a bare number. `low <= typical <= high`, all three in one unit. */
export type Band<Q extends number = number> = { low: Q; typical: Q; high: Q };

/** Makes a band of three values.
 * @throws RangeError if the three are not in order, not finite, or not numbers. */
export function band<Q extends number>(low: Q, typical: Q, high: Q): Band<Q> {
  if (!(low <= typical && typical <= high) || !Number.isFinite(low) || !Number.isFinite(high)) {
    throw new RangeError(`not a band: ${low} - ${typical} - ${high}`);
  }
  return { low, typical, high };
}

/** Gives elementwise minimum: low with low, typical with typical, high with high. Stays in order because min is monotone. */
export function minBand<Q extends number>(a: Band<Q>, b: Band<Q>): Band<Q> {
  return {
    low: a.low < b.low ? a.low : b.low,
    typical: a.typical < b.typical ? a.typical : b.typical,
    high: a.high < b.high ? a.high : b.high
  };
}

/** Gives the band with a ceiling laid over it. */
export function capBand<Q extends number>(a: Band<Q>, ceiling: Q): Band<Q> {
  return {
    low: a.low < ceiling ? a.low : ceiling,
    typical: a.typical < ceiling ? a.typical : ceiling,
    high: a.high < ceiling ? a.high : ceiling
  };
}

/** Gives a value with the factors that widen it: `scaleBand(7000, 0.85, 0.95, 1)` is 5950 - 6650 - 7000. */
export function scaleBand(value: number, low: number, typical: number, high: number): Band {
  return { low: value * low, typical: value * typical, high: value * high };
}

export type BandPosition = 'below' | 'within' | 'above';

/** Tells where a measured value stands against a band; its edges count as within. */
export function positionInBand(value: number, of: Band): BandPosition {
  return value < of.low ? 'below' : value > of.high ? 'above' : 'within';
}
