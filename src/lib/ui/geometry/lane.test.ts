import { describe, expect, it } from 'vitest';
import { barShare, laneHeight, lanePath, laneSteps, TOP_MBPS } from './lane';

describe('the lane', () => {
  it.each([
    // 106 px at 6100; the others by the square root: 106 x sqrt(38 / 6100) = 8.4
    [6100, 106],
    [2900, 73.1],
    [1000, 42.9],
    [38, 8.4],
    [0, 0]
  ])('%d MB/s stands %d px high', (rate, px) => expect(laneHeight(rate)).toBeCloseTo(px, 1));

  it('four times as fast is twice as high, up to the top of the scale', () => {
    expect(laneHeight(4000) / laneHeight(1000)).toBeCloseTo(2, 9);
    expect(laneHeight(20_000)).toBe(laneHeight(TOP_MBPS));
    expect(() => laneHeight(-1)).toThrow(RangeError);
    expect(() => laneHeight(NaN)).toThrow(RangeError);
  });

  it('gives equal columns and marks what is cut off', () => {
    expect(laneSteps([1000, 9000], 200).map(({ x, width, cut }) => [x, width, cut])).toEqual([
      [0, 100, false],
      [100, 100, true]
    ]);
    expect(laneSteps([], 200)).toEqual([]);
  });

  it('draws one closed outline from floor to floor', () => {
    const path = lanePath(laneSteps([1000, 4000], 200), 120, 20);
    // heights 42.9 and 85.8: tops at 77.1 and 34.2
    expect(path).toBe('M0 120V77.1H90C100 77.1 100 34.2 110 34.2H200V120Z');
    expect(lanePath([], 120, 20)).toBe('');
  });

  it('a bar share stays within 0 and 1', () => {
    expect([barShare(-5), barShare(2000), barShare(1e9)]).toEqual([0, 0.5, 1]);
  });
});
