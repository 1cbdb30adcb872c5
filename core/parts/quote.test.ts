import { describe, expect, it } from 'vitest';
import { exchangeRateSchema, rateProblems } from './exchange-rate';
import { quoteProblems, quoteSchema, type Quote } from './quote';

const today = '2026-11-24';
const quote = (more: Partial<Quote> = {}): Quote => ({
  partId: '0'.repeat(26),
  vendor: 'Depot',
  date: '2026-11-01',
  currency: 'EUR',
  list: 100,
  ...more
});
const paths = (problems: { path: string }[]) => problems.map((p) => p.path);

describe('what no single field of a quote shows', () => {
  it.each([
    ['an ordinary one', {}, []],
    ['a coupon of the whole price', { coupon: 100 }, []],
    // 100 less 20 % is 80, and 80.01 is more
    ['a coupon above the reduced price', { discountPercent: 20, coupon: 80.01 }, ['coupon']],
    ['run out before it was made', { expires: '2026-10-31' }, ['expires']],
    ['valid on its own day only', { expires: '2026-11-01' }, []],
    ['dated tomorrow, where it is tomorrow already', { date: '2026-11-25' }, []],
    ['dated the day after', { date: '2026-11-26' }, ['date']]
  ])('%s', (_, more, expected) => {
    expect(paths(quoteProblems(quote(more), today))).toEqual(expected);
  });
  it('a currency is three letters, in whatever case it is typed', () => {
    expect(quoteSchema.parse(quote({ currency: ' eur ' })).currency).toBe('EUR');
    expect(quoteSchema.safeParse(quote({ currency: 'euro' })).success).toBe(false);
  });
});

describe('an exchange rate', () => {
  const rate = { from: 'USD', to: 'EUR', rate: 0.9, date: '2026-11-01' };
  it.each([
    ['an ordinary one', rate, []],
    ['of a currency in itself', { ...rate, to: 'USD' }, ['from']],
    ['of a day to come', { ...rate, date: '2027-01-01' }, ['date']]
  ])('%s', (_, value, expected) => {
    expect(paths(rateProblems(exchangeRateSchema.parse(value), today))).toEqual(expected);
  });
});
