import { describe, expect, it } from 'vitest';
import type { ExchangeRate } from '../parts/exchange-rate';
import type { Quote } from '../parts/quote';
import { buildCost } from './build-cost';
import { exchange, rateBetween } from './convert';
import { deliveredPrice, newestQuote } from './delivered-price';

const quote = (partId: string, list: number, more: Partial<Quote> = {}): Quote => ({
  partId,
  vendor: 'Depot',
  date: '2026-10-01',
  currency: 'EUR',
  list,
  ...more
});

describe('the landed price', () => {
  it.each([
    ['the list alone', {}, 100],
    ['less a discount', { discountPercent: 15 }, 85],
    // 100 - 15 % = 85; the coupon is off that: 75
    ['less a coupon after the discount', { discountPercent: 15, coupon: 10 }, 75],
    // 100 + 5 = 105, and tax is on the shipping too: 105 x 1.2 = 126
    ['shipping is taxed', { shipping: 5, taxPercent: 20 }, 126],
    // 100 - 10 % - 20 + 4 = 74; 74 x 1.25 = 92.5
    ['all of it', { discountPercent: 10, coupon: 20, shipping: 4, taxPercent: 25 }, 92.5],
    ['never below nothing', { coupon: 150 }, 0],
    // what the coupon leaves over pays no part of what is above the list: 100 - 150 + 60 = 10
    ['a coupon reaches into the shipping', { coupon: 150, shipping: 60 }, 10]
  ])('%s', (_, more, expected) => {
    expect(deliveredPrice(quote('a', 100, more))).toBeCloseTo(expected, 10);
  });
  it('of two quotes of one day the cheaper one counts, of two days the newer', () => {
    const quotes = [
      quote('a', 90, { date: '2026-09-01' }),
      quote('a', 120),
      quote('a', 110),
      quote('b', 1, { date: '2026-11-01' })
    ];
    expect(newestQuote(quotes, 'a')?.list).toBe(110);
    expect(newestQuote(quotes, 'c')).toBeUndefined();
    expect(newestQuote(quotes, undefined)).toBeUndefined();
  });
});

describe('exchange', () => {
  const rates: ExchangeRate[] = [
    { from: 'USD', to: 'EUR', rate: 0.8, date: '2026-01-01' },
    { from: 'EUR', to: 'USD', rate: 1.25, date: '2026-06-01' },
    { from: 'GBP', to: 'EUR', rate: 1.2, date: '2026-03-01' }
  ];
  it('takes the newest rate, in whichever direction it was entered', () => {
    // 1 / 1.25 = 0.8, of June
    expect(rateBetween(rates, 'USD', 'EUR')).toEqual({ from: 'USD', to: 'EUR', rate: 0.8, date: '2026-06-01' });
    expect(rateBetween(rates, 'EUR', 'GBP')?.rate).toBeCloseTo(1 / 1.2, 12);
  });
  it('converts nothing without a rate: not even through a third currency', () => {
    expect(exchange(10, 'USD', 'GBP', rates)).toBeUndefined();
    expect(exchange(10, 'USD', 'USD', [])).toEqual({ amount: 10 });
    expect(exchange(10, 'GBP', 'EUR', rates)?.amount).toBeCloseTo(12, 12);
  });
});

describe('the cost of a build', () => {
  const parts = [
    { role: 'drive', id: 'd' },
    { role: 'enclosure', id: 'e' },
    { role: 'cable', id: 'c' }
  ];
  const both = [quote('d', 150), quote('e', 50, { date: '2026-08-01' })];
  it('is the landed sum, per terabyte sold and per tebibyte usable', () => {
    // 200 for 2 TB is 100 a TB; 2 TB are 1.819 TiB: 200 / 1.819 = 109.95
    expect(buildCost(parts, both, { capacityTB: 2, usableTiB: 1.819 })).toMatchObject({
      total: 200,
      currency: 'EUR',
      perTB: 100,
      perTiBUsable: expect.closeTo(109.95, 2) as number,
      oldestQuote: '2026-08-01',
      withoutQuote: ['cable']
    });
  });
  it('is not known without a price of the drive or the enclosure', () => {
    expect(buildCost(parts, [both[0]!], { capacityTB: 2, usableTiB: 1.8 })).toBeNull();
    expect(buildCost(parts, [], { capacityTB: 2, usableTiB: 1.8 })).toBeNull();
    expect(buildCost(parts, undefined, { capacityTB: 2, usableTiB: 1.8 })).toBeNull();
  });
  it('adds up currencies only with a rate that was entered, and says which', () => {
    const mixed = [quote('d', 100, { currency: 'USD' }), both[1]!];
    expect(buildCost(parts, mixed, { capacityTB: 2, usableTiB: 1.8 })).toBeNull();
    expect(buildCost(parts, mixed, { capacityTB: 2, usableTiB: 1.8 }, { currency: 'EUR', rates: [] })).toBeNull();
    const rates = [{ from: 'USD', to: 'EUR', rate: 0.9, date: '2026-10-19' }];
    // 100 USD are 90 EUR; with 50 EUR that is 140
    const cost = buildCost(parts, mixed, { capacityTB: 2, usableTiB: 1.8 }, { currency: 'EUR', rates });
    expect(cost?.total).toBeCloseTo(140, 10);
    expect(cost?.exchanged).toEqual([{ from: 'USD', to: 'EUR', rate: 0.9, date: '2026-10-19' }]);
  });
  it('stays in the currency of the quotes where the home currency has no rate', () => {
    const dollars = [quote('d', 100, { currency: 'USD' }), quote('e', 20, { currency: 'USD' })];
    expect(buildCost(parts, dollars, { capacityTB: 2, usableTiB: 1.8 }, { currency: 'EUR', rates: [] })).toMatchObject({
      total: 120,
      currency: 'USD'
    });
  });
});
