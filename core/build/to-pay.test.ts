import { describe, expect, it } from 'vitest';
import { aCable, aDrive, anEnclosure } from '../../tests/parts.ts';
import { libraryOf, type InStock } from './assemble.ts';
import { leftToPay } from './to-pay.ts';

const quote = (partId: string, list: number, currency = 'EUR') => ({
  partId,
  vendor: 'Quay',
  date: '2026-11-01',
  currency,
  list
});
const needs = [
  { role: 'host', name: 'Computer', modelId: 'h' },
  { role: 'drive', name: 'Drive', modelId: 'd' },
  { role: 'enclosure', name: 'Case', modelId: 'e' },
  { role: 'cable', name: 'Cable', modelId: 'c' },
  { role: 'pad', name: 'Pad', inBoxOf: 'Case' }
] as const;
const library = (stock: Record<string, InStock>) =>
  libraryOf(
    [
      { ...aDrive(), id: 'd' },
      { ...anEnclosure(), id: 'e' },
      { ...aCable(), id: 'c' }
    ],
    [],
    {
      quotes: [quote('d', 100), quote('e', 50, 'USD'), quote('h', 999)],
      exchange: { currency: 'EUR', rates: [{ date: '2026-11-01', from: 'USD', to: 'EUR', rate: 0.9 }] }
    },
    new Map(Object.entries(stock))
  );

describe('what is still to pay', () => {
  it('is what is neither at hand, nor ordered, nor in a box; a computer is never to pay', () => {
    // 100 EUR + 50 USD x 0.9
    expect(leftToPay(library({}), needs)).toEqual({
      amount: 145,
      currency: 'EUR',
      names: ['Drive', 'Case'],
      ordered: [],
      unpriced: ['Cable']
    });
  });
  it('leaves out what is owned, and says what is ordered', () => {
    const stock = { d: { owned: 1, free: 1, builds: [] }, e: { owned: 0, free: 0, builds: [], ordered: 1 } };
    expect(leftToPay(library(stock), needs)).toMatchObject({
      amount: 0,
      names: [],
      ordered: ['Case'],
      unpriced: ['Cable']
    });
  });
  it('an item in this build is its own, one in another build is not free', () => {
    const stock = { d: { owned: 1, free: 0, builds: ['AC-0001'] } };
    expect(leftToPay(library(stock), needs, 'AC-0001').names).toEqual(['Case']);
    expect(leftToPay(library(stock), needs, 'AC-0002').names).toEqual(['Drive', 'Case']);
  });
  it('two of a part need two of them', () => {
    const twice = [needs[1], needs[1]];
    expect(leftToPay(library({ d: { owned: 1, free: 1, builds: [] } }), twice).amount).toBe(100);
    expect(leftToPay(library({ d: { owned: 1, free: 1, builds: [], ordered: 1 } }), twice).ordered).toEqual(['Drive']);
  });
  it('a price in a currency without a rate is none', () => {
    const other = { ...library({}), exchange: { currency: 'EUR', rates: [] } };
    expect(leftToPay(other, needs)).toMatchObject({ amount: 100, unpriced: ['Case', 'Cable'] });
  });
});
