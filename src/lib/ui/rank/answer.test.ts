import { describe, expect, it } from 'vitest';
import type { RankRow, Weights } from '#core/compare/ranking/request';
import { rankAnswer } from './answer';
import { foldPorts } from './fold';

const band = (typical: number) => ({ low: typical, typical, high: typical });
const row = (name: string, change: Partial<RankRow> = {}): RankRow => ({
  hostId: 'h',
  portId: 'p',
  enclosureId: name,
  driveId: 'd',
  verdict: 'works',
  sustainedWrite: band(1000),
  read: band(1000),
  seconds: 100,
  cost: 100,
  perTB: 50,
  spend: 100,
  toBuy: [],
  frontier: false,
  score: 0,
  shares: { sustainedWrite: 1, read: 1, seconds: 1, cost: 1, perTB: 1 },
  ...change
});
const weights = (change: Partial<Weights>): Weights => ({
  sustainedWrite: 0,
  read: 0,
  seconds: 0,
  cost: 0,
  perTB: 0,
  ...change
});
const said = { lineOf: ({ enclosureId }: { enclosureId: string }) => enclosureId, currency: 'EUR' };
const plain = (text = '') => text.replaceAll('\u202f', ' ');

describe('which should I buy', () => {
  it('names the first, and why: what it reaches of the best in what counts, the weightiest first', () => {
    const first = row('A', { shares: { sustainedWrite: 0.5, read: 1, seconds: 1, cost: 0.8, perTB: 1 } });
    const answer = rankAnswer([first], weights({ sustainedWrite: 1, cost: 2 }), said)!;
    expect(plain(answer.first)).toBe('A: the job in about 1:40 min, 100.00 EUR.');
    expect(plain(answer.why)).toBe(
      'First because it comes to 80 % of the best price, 50 % of the best write after the cache, and nothing adds up to more.'
    );
    expect(answer.next).toBeUndefined();
    expect(rankAnswer([], weights({}), said)).toBeUndefined();
  });
  it('says at which price the next one would be first', () => {
    // a distance of 0.2 at a weight of 2: the price has to fall by the factor e^(-0.1) = 0.9048
    const answer = rankAnswer([row('A'), row('B', { score: -0.2, cost: 200 })], weights({ cost: 1, perTB: 1 }), said)!;
    expect(plain(answer.next)).toBe(
      'B: the job in about 1:40 min, 200.00 EUR. It would be first for less than 180.97 EUR, 19.03 EUR below its price.'
    );
  });
  it('where no price counts it is the rate', () => {
    // e^(0.5) = 1.6487
    const answer = rankAnswer([row('A'), row('B', { score: -0.5 })], weights({ sustainedWrite: 1 }), said)!;
    expect(plain(answer.next)).toContain('It would be first if it wrote 1650 MB/s after the cache, not 1000.');
    expect(rankAnswer([row('A'), row('B', { score: -9 })], weights({ sustainedWrite: 1 }), said)!.next).toContain(
      'No change of one'
    );
    expect(rankAnswer([row('A'), row('B')], weights({ cost: 1 }), said)!.next).toContain('as good as the first');
  });
  it('names the cheapest of all that were ranked, also where it is not among the rows', () => {
    const rows = [row('A'), row('B', { cost: 90 })];
    const answer = rankAnswer(rows, weights({}), { ...said, cheapest: { first: row('Z'), cost: 12.5 } })!;
    expect(plain(answer.cheapest)).toBe('Z: 12.50 EUR.');
    expect(rankAnswer(rows, weights({}), { ...said, cheapest: { first: row('A'), cost: 100 } })!.cheapest).toContain(
      'The first is the cheapest'
    );
    expect(rankAnswer(rows, weights({}), said)!.cheapest).toBeUndefined();
  });
});

describe('a pairing on several computers', () => {
  it('is one row where it stands best, and places run without gaps', () => {
    const rows = [
      row('A'),
      row('A', { hostId: 'g', score: -1 }),
      row('B', { score: -2 }),
      row('A', { cableId: 'c', score: -3 })
    ];
    expect(
      foldPorts(rows, true).map(({ row: { enclosureId, cableId }, rank, alike }) => [
        enclosureId,
        cableId,
        rank,
        alike.length
      ])
    ).toEqual([
      ['A', undefined, 1, 1],
      ['B', undefined, 2, 0],
      ['A', 'c', 3, 0]
    ]);
    expect(foldPorts(rows, false).map(({ rank }) => rank)).toEqual([1, 2, 3, 4]);
  });
});
