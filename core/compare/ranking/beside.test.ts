import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure } from '../../../tests/parts';
import type { Job } from '../../parts/job';
import type { Quote } from '../../parts/quote';
import { alternativePoints } from './ready-made';
import { breakEven } from './break-even';
import { rank } from './rank';
import { beginWeights, USUAL_WEIGHTS, type RankInput } from './request';

const job = (change: Partial<Job> = {}): Job => ({
  name: 'J',
  purposes: [],
  transferGB: 190,
  direction: 'in',
  ...change
});
const quote = (partId: string, list: number): Quote => ({
  partId,
  vendor: 'V',
  date: '2026-05-01',
  currency: 'EUR',
  list
});
const [CABLE, CASE, DRIVE, INSIDE] = ['1', '2', '3', '4'].map((n) => n.padStart(26, '0')) as [
  string,
  string,
  string,
  string
];
const input = (change: Partial<RankInput> = {}): RankInput => ({
  hosts: [{ ...aHost(), id: '5'.padStart(26, '0') }],
  cables: [{ ...aCable(), id: CABLE }],
  enclosures: [{ ...anEnclosure(), id: CASE }],
  drives: [{ ...aDrive(), id: DRIVE }],
  job: job(),
  quotes: [quote(CABLE, 25), quote(CASE, 75), quote(DRIVE, 150), quote(INSIDE, 500)],
  ...change
});

describe('other ways beside the combinations', () => {
  it('a larger internal disk costs its surcharge over what it adds: 500 EUR for 2 - 0.5 TB is 333.33 EUR/TB', () => {
    const upgrade = {
      kind: 'alternative' as const,
      id: INSIDE,
      name: 'Upgrade',
      sort: 'internal-upgrade' as const,
      capacityTB: 2,
      baseCapacityTB: 0.5,
      readMBps: 5000,
      writeMBps: 4000
    };
    const [point] = rank(input({ alternatives: [upgrade] })).alternatives;
    expect(point).toMatchObject({ gainedTB: 1.5, cost: 500, write: 3800, fits: true });
    expect(point!.perTB).toBeCloseTo(500 / 1.5, 9);
    // 190 GB at 0.95 x 4000 = 3800 MB/s is 50 s, and one file
    expect(point!.seconds).toBeCloseTo(50.0004, 4);
  });
  it('what is not stated stays unknown, both ways need both rates, and room is what counts', () => {
    const stick = {
      kind: 'alternative' as const,
      id: INSIDE,
      name: 'Stick',
      sort: 'flash-stick' as const,
      capacityTB: 0.128,
      readMBps: 400
    };
    const of = (work: Job, price = NaN) => alternativePoints([stick], work, () => price)[0]!;
    expect(of(job())).toMatchObject({ seconds: null, write: null, cost: null, perTB: null, fits: false });
    // 38 GB at 380 MB/s
    expect(of(job({ direction: 'out', transferGB: 38 }), 20).seconds).toBeCloseTo(100.0015, 4);
    expect(of(job({ direction: 'out', transferGB: 38 }), 20).perTB).toBeCloseTo(20 / 0.128, 9);
    expect(of(job({ direction: 'both', transferGB: 38 })).seconds).toBeNull();
  });
});

describe('what is still to be paid', () => {
  const spend = (change: Partial<RankInput>) => rank(input(change)).rows[0]!.spend;
  it('everything, less what is at hand: 25 + 75 + 150, without the drive 100', () => {
    expect(spend({})).toBe(250);
    expect(spend({ stock: { [DRIVE]: 1 } })).toBe(100);
  });
  it('by the other house rule a part at hand counts with what it would sell for: 100 + 90', () => {
    const change = { stock: { [DRIVE]: 1 }, resale: { [DRIVE]: 90 } };
    expect(spend(change)).toBe(100);
    expect(spend({ ...change, houseRules: { reuse: 'resale' } })).toBe(190);
    // a budget of 150 lets it through or not
    const within = (rules: Record<string, string>) =>
      rank(input({ ...change, houseRules: rules, filters: { maxSpend: 150 } })).accepted;
    expect([within({}), within({ reuse: 'resale' })]).toEqual([1, 0]);
  });
  it('names the schools that decided', () => {
    expect(rank(input()).houseRules.map((d) => d.school)).toEqual(['pick-for']);
    expect(rank(input({ stock: { [DRIVE]: 1 }, weights: {} })).houseRules.map((d) => d.school)).toEqual(['reuse']);
  });
});

describe('the weights that a ranking begins with', () => {
  it('large transfers, a project, neither', () => {
    expect(beginWeights(job(), {}).weights.sustainedWrite).toBe(2);
    expect(beginWeights(job({ transferGB: 20, files: 50_000, purposes: ['scratch'] }), {}).weights).toMatchObject({
      read: 1,
      seconds: 2
    });
    expect(beginWeights(job({ transferGB: 20 }), {}).weights).toEqual(USUAL_WEIGHTS);
  });
  it('a house rule decides whatever the work is, and a given weight goes over it', () => {
    expect(beginWeights(job(), { 'pick-for': 'price' })).toMatchObject({
      weights: { perTB: 2 },
      decided: { own: true }
    });
    const report = rank(input({ houseRules: { 'pick-for': 'sustained' }, weights: { perTB: 7 } }));
    expect(report.weights).toMatchObject({ sustainedWrite: 3, perTB: 7 });
  });
});

describe('break-even', () => {
  it('60 EUR more, 6 minutes saved in each of 2 transfers a day: 73 hours a year, 0.82 EUR an hour', () => {
    const result = breakEven({ extra: 60, secondsSaved: 360, perDay: 2, hourValue: 15, from: '2026-11-26' });
    expect(result.hoursAYear).toBeCloseTo(0.2 * 365, 9);
    expect(result.perHour).toBeCloseTo(60 / 73, 9);
    // 0.2 h x 15 EUR = 3 EUR a day: 20 days
    expect(result.date).toBe('2026-12-16');
  });
  it('never, where nothing is saved or an hour is worth nothing; at once, where it is cheaper as well', () => {
    expect(breakEven({ extra: 60, secondsSaved: -5, perDay: 2, hourValue: 15, from: '2026-11-26' })).toMatchObject({
      perHour: null,
      date: null
    });
    expect(
      breakEven({ extra: 60, secondsSaved: 360, perDay: 2, hourValue: undefined, from: '2026-11-26' }).date
    ).toBeNull();
    expect(breakEven({ extra: 60, secondsSaved: 0.001, perDay: 1, hourValue: 1, from: '2026-11-26' }).date).toBeNull();
    expect(breakEven({ extra: -5, secondsSaved: 10, perDay: 1, hourValue: undefined, from: '2026-11-26' }).date).toBe(
      '2026-11-26'
    );
    expect(
      breakEven({ extra: -5, secondsSaved: -10, perDay: 1, hourValue: undefined, from: '2026-11-26' }).date
    ).toBeNull();
  });
});
