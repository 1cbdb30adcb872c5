import { describe, expect, it } from 'vitest';
import { aboveTarget, cheapestPrices, sortedPrices } from './cheapest';

const parts = [
  { id: 'a', kind: 'drive', name: 'Awl', target: { amount: 90, currency: 'EUR' } },
  { id: 'b', kind: 'cable', name: 'Bough' },
  { id: 'c', kind: 'pad', name: 'Cinder' }
];
const quote = (partId: string, list: number, change = {}) => ({
  partId,
  vendor: 'Shop',
  date: '2026-11-01',
  currency: 'EUR',
  list,
  ...change
});
const all = {
  parts,
  quotes: [
    quote('a', 120),
    quote('a', 100, { date: '2026-10-01' }),
    quote('a', 80, { expires: '2026-11-20' }), // no longer holds
    quote('b', 20, { currency: 'USD', vendor: 'Far' })
  ],
  rates: []
};
const rows = () => cheapestPrices(all, 'EUR', '2026-11-27');

describe('the cheapest price that still holds', () => {
  it('leaves out what has expired and what has no price, and counts the others', () => {
    expect(rows().map(({ part, home, count }) => [part.id, home, count])).toEqual([
      ['a', 100, 2],
      ['b', undefined, 1]
    ]);
  });
  it('converts with a rate that was entered, and with none otherwise', () => {
    const rate = { from: 'USD', to: 'EUR', rate: 0.9, date: '2026-11-01' };
    // 20 USD x 0.9 = 18 EUR
    expect(cheapestPrices({ ...all, rates: [rate] }, 'EUR', '2026-11-27')[1]?.home).toBeCloseTo(18, 9);
  });
  it('is 10 above a target of 90, and nothing is said in another currency', () => {
    expect(aboveTarget(rows()[0]!, 'EUR')).toBe(10);
    expect(aboveTarget(rows()[0]!, 'CHF')).toBeUndefined();
    expect(aboveTarget(rows()[1]!, 'EUR')).toBeUndefined();
  });
  it('is found by every word, and sorted with what is not known at the end of rising orders', () => {
    const order = (sort: 'name' | 'price' | 'age' | 'target', down = false, find = '') =>
      sortedPrices(rows(), { find, sort, down, currency: 'EUR' }).map(({ part }) => part.id);
    expect(order('name')).toEqual(['a', 'b']);
    expect(order('name', true)).toEqual(['b', 'a']);
    expect(order('price')).toEqual(['a', 'b']);
    expect(order('target')).toEqual(['a', 'b']);
    expect(order('age')).toEqual(['a', 'b']);
    expect(order('name', false, 'far cable')).toEqual(['b']);
    expect(order('name', false, 'nowhere')).toEqual([]);
  });
});
