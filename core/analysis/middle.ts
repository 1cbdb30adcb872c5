/** Up to so many values are put in order one by one. */
const FEW = 24;

/**
 * Gives the middle of values, which are put in order in place: numbers of an inner loop.
 * @example middleOf(Float64Array.of(3, 1, 2)) // 2
 */
export function middleOf(values: Float64Array): number {
  const n = values.length;
  if (n > FEW) values.sort();
  else
    for (let i = 1; i < n; i++) {
      const value = values[i] as number;
      let k = i - 1;
      for (; k >= 0 && (values[k] as number) > value; k--) values[k + 1] = values[k] as number;
      values[k + 1] = value;
    }
  const half = n >> 1;
  return n % 2 === 1 ? (values[half] as number) : ((values[half - 1] as number) + (values[half] as number)) / 2;
}
