import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure } from '../../../tests/parts';
import type { Quote } from '../../parts/quote';
import { Frontier } from './frontier';
import { pricesOf } from './prices';
import { compareIds } from './combination';
import type { RankInput, Weights } from './request';
import { counting, Extremes, scorer, shareOfBest } from './score';
import { Top } from './top';

const point = fc.record({ cost: fc.integer({ min: 1, max: 12 }), speed: fc.integer({ min: 1, max: 12 }) });

describe('the frontier of cost and speed', () => {
  it('keeps what no other beats: 10 at 5, 20 at 9; 15 at 5 is dearer and no faster', () => {
    const frontier = new Frontier<string>();
    frontier.add(20, 9, 'b');
    frontier.add(10, 5, 'a');
    frontier.add(15, 5, 'worse');
    expect(frontier.points.map(({ cost, speed }) => [cost, speed])).toEqual([
      [10, 5],
      [20, 9]
    ]);
  });
  it('a cheaper one that is as fast pushes the dearer ones off', () => {
    const frontier = new Frontier<string>();
    for (const [cost, speed] of [
      [30, 3],
      [20, 2],
      [10, 3]
    ] as const)
      frontier.add(cost, speed, `${cost}`);
    expect(frontier.points).toEqual([{ cost: 10, speed: 3, refs: ['10'] }]);
  });
  it('what is equal in both stands together', () => {
    const frontier = new Frontier<string>();
    frontier.add(10, 3, 'a');
    frontier.add(10, 3, 'b');
    expect(frontier.points[0]!.refs).toEqual(['a', 'b']);
  });
  it('is what comparing everything with everything gives, in whatever order they come', () => {
    fc.assert(
      fc.property(fc.array(point, { maxLength: 40 }), (points) => {
        const frontier = new Frontier<number>();
        points.forEach(({ cost, speed }, i) => {
          const takes = frontier.takes(cost, speed);
          const before = JSON.stringify(frontier.points);
          frontier.add(cost, speed, i);
          // it says beforehand whether adding will change anything
          expect(JSON.stringify(frontier.points) !== before).toBe(takes);
        });
        const unbeaten = points
          .map((_, i) => i)
          .filter((i) =>
            points.every(
              (o) =>
                !(
                  o.cost <= points[i]!.cost &&
                  o.speed >= points[i]!.speed &&
                  (o.cost < points[i]!.cost || o.speed > points[i]!.speed)
                )
            )
          );
        expect(frontier.points.flatMap(({ refs }) => refs).sort((a, b) => a - b)).toEqual(unbeaten);
        const costs = frontier.points.map(({ cost }) => cost);
        expect(costs).toEqual([...costs].sort((a, b) => a - b));
      }),
      { seed: 31, numRuns: 400 }
    );
  });
});

describe('the best few of many', () => {
  it('are the first of the sorted list, however they come', () => {
    fc.assert(
      fc.property(fc.array(fc.integer(), { maxLength: 60 }), fc.integer({ min: 0, max: 20 }), (list, size) => {
        // told apart by their place, so that the order is never open
        const items = list.map((value, at) => ({ value, at }));
        const before = (a: (typeof items)[0], b: (typeof items)[0]) =>
          a.value !== b.value ? a.value > b.value : a.at < b.at;
        const top = new Top<(typeof items)[0]>(size, before);
        for (const item of items) top.add(item);
        const sorted = [...items].sort((a, b) => (before(a, b) ? -1 : 1)).slice(0, size);
        expect(top.sorted()).toEqual(sorted);
        if (size > 0) expect(top.last).toEqual(list.length < size ? undefined : sorted.at(-1));
      }),
      { seed: 32, numRuns: 400 }
    );
  });
});

const WEIGHTS: Weights = { sustainedWrite: 1, read: 0, seconds: 2, cost: 0, perTB: 0.5 };

describe('the score', () => {
  const extremes = new Extremes();
  // two combinations: 1000 MB/s, 100 s, 100 EUR for 2 TB; 500 MB/s, 50 s, 300 EUR for 2 TB
  extremes.add({ sustained: 1000, read: 1200, seconds: 100 }, 2, 100, 120);
  extremes.add({ sustained: 500, read: 900, seconds: 50 }, 2, 300, 300);

  it('knows the best and the worst of each criterion, with the dearest form counted', () => {
    expect(extremes.best).toEqual({ sustainedWrite: 1000, read: 1200, seconds: 50, cost: 100, perTB: 50 });
    expect(extremes.worst).toEqual({ sustainedWrite: 500, read: 900, seconds: 100, cost: 300, perTB: 150 });
  });
  it('a share of the best: half the rate is half, twice the time is half', () => {
    expect(shareOfBest('sustainedWrite', 500, extremes)).toBe(0.5);
    expect(shareOfBest('seconds', 100, extremes)).toBe(0.5);
    expect(shareOfBest('perTB', 50, extremes)).toBe(1);
  });
  it('what is not known counts as the worst of the set, and a gift is no better than a cent', () => {
    expect(shareOfBest('cost', NaN, extremes)).toBeCloseTo(1 / 3, 12);
    const free = new Extremes();
    free.add({ sustained: 1, read: 1, seconds: 1 }, 1, 0, 0);
    expect(shareOfBest('cost', 0, free)).toBe(1);
    expect(shareOfBest('cost', 0.02, free)).toBe(0.5);
  });
  it('weights the logarithms: ln 1 + 2 ln(50/100) + 0.5 ln(50/50) = -1.386', () => {
    const score = scorer(WEIGHTS, extremes);
    expect(score({ sustained: 1000, read: 1200, seconds: 100 }, 100, 50)).toBeCloseTo(-2 * Math.LN2, 12);
    // ln(1/2) + 2 ln 1 + 0.5 ln(50/150)
    expect(score({ sustained: 500, read: 900, seconds: 50 }, 300, 150)).toBeCloseTo(-Math.LN2 - 0.5 * Math.log(3), 12);
  });
  it('leaves out what nobody has and what does not count', () => {
    expect(counting(WEIGHTS, extremes)).toEqual(['sustainedWrite', 'seconds', 'perTB']);
    const unpriced = new Extremes();
    unpriced.add({ sustained: 1000, read: 1200, seconds: 100 }, 2, NaN, NaN);
    expect(counting(WEIGHTS, unpriced)).toEqual(['sustainedWrite', 'seconds']);
    expect(scorer(WEIGHTS, unpriced)({ sustained: 1000, read: 1200, seconds: 100 }, NaN, NaN)).toBe(0);
    const none = { sustainedWrite: 0, read: 0, seconds: 0, cost: 0, perTB: 0 };
    expect(scorer(none, extremes)({ sustained: 1, read: 1, seconds: 1 }, 1, 1)).toBe(0);
  });
});

const [CABLE, CASE, DRIVE] = ['1', '2', '3'].map((n) => n.padStart(26, '0')) as [string, string, string];
const quote = (partId: string, list: number, more: Partial<Quote> = {}): Quote => ({
  partId,
  vendor: 'V',
  date: '2026-05-01',
  currency: 'EUR',
  list,
  ...more
});
const input = (quotes: Quote[], more: Partial<RankInput> = {}): RankInput => ({
  hosts: [aHost()],
  cables: [{ ...aCable(), id: CABLE }],
  enclosures: [{ ...anEnclosure(), id: CASE }],
  drives: [{ ...aDrive(), id: DRIVE }],
  job: { name: 'j', purposes: [], transferGB: 1, direction: 'in' },
  quotes,
  ...more
});
const NONE: (string | undefined)[] = [];

describe('prices of combinations', () => {
  it('add up drive, enclosure and cable; without a cable its price is left out', () => {
    const prices = pricesOf(input([quote(CABLE, 25), quote(CASE, 75), quote(DRIVE, 150)]));
    expect(prices.total(0, 0, 0, NONE)).toBe(250);
    expect(prices.total(0, 0, -1, NONE)).toBe(225);
    expect(prices).toMatchObject({ currency: 'EUR', plainSum: true });
  });
  it('without a price of drive or enclosure there is no total; a cable without one adds nothing', () => {
    expect(pricesOf(input([quote(CABLE, 25), quote(CASE, 75)])).total(0, 0, 0, NONE)).toBeNaN();
    expect(pricesOf(input([quote(CASE, 75), quote(DRIVE, 150)])).total(0, 0, 0, NONE)).toBe(225);
    expect(pricesOf(input([])).currency).toBeNull();
  });
  it('the newest quote counts, landed: 100 - 10 % + 5 = 95', () => {
    const old = quote(DRIVE, 500, { date: '2026-01-01' });
    const prices = pricesOf(input([old, quote(DRIVE, 100, { discountPercent: 10, shipping: 5 })]));
    expect(prices.priceOf(DRIVE)).toBe(95);
    expect(prices.quotes).toHaveLength(1);
  });
  it('two currencies are one where a rate was entered: 100 USD at 0.9 and 75 EUR', () => {
    const quotes = [quote(CASE, 75), quote(DRIVE, 100, { currency: 'USD' })];
    const rates = [{ from: 'USD', to: 'EUR', rate: 0.9, date: '2026-04-01' }];
    const converted = pricesOf(input(quotes, { exchange: { currency: 'EUR', rates } }));
    expect(converted.total(0, 0, -1, NONE)).toBeCloseTo(165, 9);
    // without one, amounts of two currencies are never compared
    const apart = pricesOf(input(quotes, { exchange: { currency: 'EUR', rates: [] } }));
    expect(apart.plainSum).toBe(false);
    expect(apart.total(0, 0, -1, NONE)).toBeNaN();
  });
  it('one foreign currency alone is ranked as it is', () => {
    const prices = pricesOf(
      input([quote(CASE, 75, { currency: 'CHF' }), quote(DRIVE, 100, { currency: 'CHF' })], {
        exchange: { currency: 'EUR', rates: [] }
      })
    );
    expect(prices.currency).toBe('CHF');
    expect(prices.total(0, 0, -1, NONE)).toBe(175);
  });
  it('pads are added where they are paid for', () => {
    const pad = {
      kind: 'pad' as const,
      id: '4'.padStart(26, '0'),
      name: 'P',
      thicknessMm: 1,
      widthMm: 10,
      lengthMm: 10
    };
    const prices = pricesOf(input([quote(CASE, 75), quote(DRIVE, 150), quote(pad.id, 8)], { pads: [pad] }));
    expect(prices.total(0, 0, -1, [pad.id])).toBe(233);
    expect(prices.total(0, 0, -1, [undefined])).toBe(225);
  });
});

describe('ties', () => {
  it('are settled by the ids in the order of the chain, no cable before any', () => {
    const base = { hostId: 'a', portId: 'p', enclosureId: 'e', driveId: 'd' };
    expect(compareIds(base, { ...base })).toBe(0);
    expect(compareIds({ ...base, hostId: 'b' }, { ...base, driveId: 'a' })).toBe(1);
    expect(compareIds(base, { ...base, cableId: 'c' })).toBe(-1);
    expect(compareIds({ ...base, driveId: 'a' }, base)).toBe(-1);
  });
});
