import { describe, expect, it } from 'vitest';
import { seeded, shuffled } from './random';

describe('a fair shuffle', () => {
  it('keeps what is there, and leaves the list as it was', () => {
    const list = [1, 2, 3, 4];
    expect([...shuffled(list, seeded(1))].sort()).toEqual([1, 2, 3, 4]);
    expect(list).toEqual([1, 2, 3, 4]);
    expect(shuffled([], seeded(1))).toEqual([]);
  });
  it('makes each of the 6 orders of 3 things as often as any other: 6000 shuffles, 1000 each, within 4 sigma (115)', () => {
    const random = seeded(20261127);
    const seen = new Map<string, number>();
    for (let i = 0; i < 6000; i++) {
      const order = shuffled(['a', 'b', 'c'], random).join('');
      seen.set(order, (seen.get(order) ?? 0) + 1);
    }
    expect(seen.size).toBe(6);
    // sigma of a binomial: sqrt(6000 x 1/6 x 5/6) = 28.9
    for (const count of seen.values()) expect(Math.abs(count - 1000)).toBeLessThan(115.5);
  });
  it('by hand: with 0 each time the last changes places with the first', () =>
    // i = 2: swap 2 and 0 -> c b a; i = 1: swap 1 and 0 -> b c a
    expect(shuffled(['a', 'b', 'c'], () => 0)).toEqual(['b', 'c', 'a']));
});
