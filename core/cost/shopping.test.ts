import { describe, expect, it } from 'vitest';
import type { Quote } from '../parts/quote';
import { buildCost } from './build-cost';
import { exchange, rateBetween } from './convert';
import { shoppingList, type AtHand, type Need } from './shopping';

const quote = (partId: string, vendor: string, list: number, more: Partial<Quote> = {}): Quote => ({
  partId,
  vendor,
  date: '2026-10-01',
  currency: 'EUR',
  list,
  ...more
});
const RATES = [
  { from: 'USD', to: 'EUR', rate: 0.9, date: '2026-01-10' },
  { from: 'EUR', to: 'USD', rate: 1.25, date: '2026-09-01' }
];

describe('exchange rates', () => {
  it('the newest one counts, whichever way round it was entered: 1 / 1.25 = 0.8', () => {
    expect(rateBetween(RATES, 'USD', 'EUR')).toEqual({ from: 'USD', to: 'EUR', rate: 0.8, date: '2026-09-01' });
    expect(exchange(50, 'USD', 'EUR', RATES)?.amount).toBe(40);
  });
  it('the same currency needs none, an unknown one gives nothing', () => {
    expect(exchange(50, 'EUR', 'EUR', [])).toEqual({ amount: 50 });
    expect(exchange(50, 'CHF', 'EUR', RATES)).toBeUndefined();
  });
});

describe('the cost of a build in several currencies', () => {
  const parts = [
    { role: 'drive', id: 'd' },
    { role: 'enclosure', id: 'e' }
  ];
  const quotes = [quote('d', 'a', 100), quote('e', 'b', 50, { currency: 'USD' })];
  it('is not given without a rate', () =>
    expect(buildCost(parts, quotes, { capacityTB: 2, usableTiB: 1.8 })).toBeNull());
  it('is converted with the rate and names it: 100 + 50 x 0.8 = 140 EUR, 70 EUR/TB', () => {
    const cost = buildCost(parts, quotes, { capacityTB: 2, usableTiB: 1.8 }, { currency: 'EUR', rates: RATES });
    expect(cost).toMatchObject({
      total: 140,
      currency: 'EUR',
      perTB: 70,
      exchanged: [{ from: 'USD', rate: 0.8, date: '2026-09-01' }]
    });
  });
  it('stays in a foreign currency for which there is no rate', () => {
    const swiss = quotes.map((q) => ({ ...q, currency: 'CHF' }));
    expect(buildCost(parts, swiss, { capacityTB: 2, usableTiB: 1.8 }, { currency: 'EUR', rates: RATES })).toMatchObject(
      {
        total: 150,
        currency: 'CHF'
      }
    );
  });
});

describe('a shopping list', () => {
  const needs: Need[] = [
    { role: 'host', name: 'Host', modelId: 'h' },
    { role: 'drive', name: 'Drive', modelId: 'd' },
    { role: 'enclosure', name: 'Case', modelId: 'e' },
    { role: 'cable', name: 'Cable', inBoxOf: 'Case' }
  ];
  const unit = (modelId: string, tag: string, more: Partial<AtHand> = {}): AtHand => ({
    modelId,
    tag,
    state: 'owned',
    ...more
  });
  const list = (change: Partial<Parameters<typeof shoppingList>[0]> = {}) =>
    shoppingList({ needs, units: [], quotes: [], rates: [], currency: 'EUR', today: '2026-11-24', ...change });

  it('tells what is owned, ordered, in a box and still to buy', () => {
    const { lines, unpriced } = list({
      units: [unit('h', 'H-1', { buildId: 'other' }), unit('d', 'D-1', { state: 'ordered' })]
    });
    expect(lines.map((line) => [line.role, line.state, line.unit?.tag])).toEqual([
      ['host', 'owned', 'H-1'],
      ['drive', 'ordered', 'D-1'],
      ['enclosure', 'to-buy', undefined],
      ['cable', 'in-the-box', undefined]
    ]);
    expect(unpriced).toEqual(['Case']);
  });
  it('a unit in another build is not free; one in this build comes first', () => {
    const units = [unit('d', 'D-1', { buildId: 'other' }), unit('d', 'D-2'), unit('d', 'D-3', { buildId: 'mine' })];
    expect(list({ units, buildId: 'mine' }).lines[1]!.unit?.tag).toBe('D-3');
    expect(list({ units: units.slice(0, 1), buildId: 'mine' }).lines[1]!.state).toBe('to-buy');
  });
  it('retired and wanted units do not count, and one unit is not counted twice', () => {
    const twice = [needs[1]!, needs[1]!];
    expect(
      list({ needs: twice, units: [unit('d', 'D-1'), unit('d', 'D-2', { state: 'retired' })] }).lines.map(
        (l) => l.state
      )
    ).toEqual(['owned', 'to-buy']);
  });

  // Drive: north 100 + 8 shipping, south 104 + 3. Case: north 40 + 8, south 41 + 3; all landed without tax.
  const quotes = [
    quote('d', 'north', 100, { shipping: 8 }),
    quote('d', 'south', 104, { shipping: 3 }),
    quote('e', 'north', 40, { shipping: 8 }),
    quote('e', 'south', 41, { shipping: 3 })
  ];
  const both = needs.slice(1, 3);
  it('apart, every part lands where it is cheapest: 107 and 44 from the south, 151', () => {
    const { separate } = list({ needs: both, quotes });
    expect(separate.total).toBe(151);
    expect(separate.parcels.map((p) => [p.vendor, p.total])).toEqual([['south', 151]]);
  });
  it('in parcels, shipping is paid once: all north 140 + 8 = 148, all south 145 + 3 = 148, split 100 + 8 + 41 + 3 = 152', () => {
    const { together } = list({ needs: both, quotes });
    expect(together.total).toBe(148);
    expect(together.parcels).toHaveLength(1);
  });
  it('parcels may change the vendor: with 0.50 off the northern case, 147.50 from the north', () => {
    const cheaper = [...quotes.slice(0, 2), quote('e', 'north', 39.5, { shipping: 8 }), quotes[3]!];
    const { together } = list({ needs: both, quotes: cheaper });
    expect(together.parcels).toMatchObject([{ vendor: 'north', goods: 139.5, shipping: 8, total: 147.5 }]);
  });
  it('tax is on shipping too: (100 + 10) x 1.19 = 130.90, of it 11.90 shipping', () => {
    const taxed = [quote('d', 'a', 100, { shipping: 10, taxPercent: 19 })];
    const [offer] = list({ needs: [needs[1]!], quotes: taxed }).lines[0]!.offers;
    expect(offer!.landed).toBeCloseTo(130.9, 9);
    expect(offer!.shipping).toBeCloseTo(11.9, 9);
  });
  it('the newest quote of a vendor counts; one that has run out stands last and is marked', () => {
    const old = [
      quote('d', 'north', 60, { date: '2026-02-01' }),
      quote('d', 'north', 100, { date: '2026-10-01' }),
      quote('d', 'south', 90, { expires: '2026-11-01' })
    ];
    const [line] = list({ needs: [needs[1]!], quotes: old }).lines;
    expect(line!.offers.map((o) => [o.vendor, o.landed, o.expired])).toEqual([
      ['north', 100, false],
      ['south', 90, true]
    ]);
  });
  it('a quote in a currency without a rate is named, not compared', () => {
    const [line] = list({ needs: [needs[1]!], quotes: [quote('d', 'far', 80, { currency: 'USD' })] }).lines;
    expect([line!.offers, line!.unconverted]).toEqual([[], ['far, USD']]);
    const [converted] = list({
      needs: [needs[1]!],
      quotes: [quote('d', 'far', 80, { currency: 'USD' })],
      rates: RATES
    }).lines;
    expect(converted!.offers[0]!.landed).toBe(64); // 80 x 0.8
  });
});

describe('two quotes of one vendor on one day', () => {
  it('the cheaper one counts, in whatever order they were entered', () => {
    const twice = [quote('d', 'north', 110), quote('d', 'north', 100), quote('d', 'north', 120)];
    for (const quotes of [twice, [...twice].reverse()]) {
      const { lines } = shoppingList({
        needs: [{ role: 'drive', name: 'Drive', modelId: 'd' }],
        units: [],
        quotes,
        rates: [],
        currency: 'EUR',
        today: '2026-11-24'
      });
      expect(lines[0]!.offers.map(({ landed }) => landed)).toEqual([100]);
    }
  });
});
