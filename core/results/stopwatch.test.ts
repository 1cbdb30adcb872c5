import { describe, expect, it } from 'vitest';
import { stopwatchError, timedRate } from './stopwatch';

describe('a time stopped by hand', () => {
  it('is off by 0.63 s where it was read to whole seconds, by 0.28 s where it was not', () => {
    // 1.96 x sqrt(2 x (0.2 / 1.96)^2 + 1/12) = 1.96 x sqrt(0.02082 + 0.08333) = 1.96 x 0.32273
    expect(stopwatchError(true)).toBeCloseTo(0.6325, 3);
    // 0.2 x sqrt(2)
    expect(stopwatchError(false)).toBeCloseTo(0.2828, 4);
  });
  it('30 GB in 30 s are 1000 MB/s, 2.1 % either way', () => {
    const timed = timedRate(30, 30, true);
    expect(timed.MBps).toBe(1000);
    expect(timed.percent).toBeCloseTo(2.108, 2);
    // 30000 / 30.6325 and 30000 / 29.3675
    expect(timed.low).toBeCloseTo(979.35, 1);
    expect(timed.high).toBeCloseTo(1021.54, 1);
  });
  it('a time below its own error still gives a band that ends; none gives an error', () => {
    expect(timedRate(1, 0.1, true).high).toBe(100_000);
    expect(() => timedRate(1, 0, true)).toThrow(RangeError);
    expect(() => timedRate(Number.NaN, 3, true)).toThrow(RangeError);
  });
});
