import { describe, expect, it } from 'vitest';
import { aDrive, anInput } from '../../tests/parts.ts';
import type { ToPay } from '../build/to-pay.ts';
import { jobSchema } from '../parts/job.ts';
import { plan } from '../plan/plan.ts';
import type { PlanReport } from '../plan/report.ts';
import { sideBySide, type LaidPlan } from './side-by-side.ts';

const band = (typical: number) => ({ low: typical, typical, high: typical });
const report = plan(anInput());
const bill = (amount: number, unpriced: string[] = []): ToPay => ({
  amount,
  currency: 'EUR',
  names: [],
  ordered: [],
  unpriced
});
const laid = (name: string, seconds: number | null, pay: ToPay, change: Partial<PlanReport> = {}): LaidPlan => ({
  name,
  input: anInput(seconds === null ? {} : { job }),
  toPay: pay,
  report: {
    ...report,
    verdict: 'works',
    ...(seconds === null
      ? {}
      : { job: { seconds: band(seconds), cliffReached: false, throttleReached: null, fits: true, ways: [] } }),
    ...change
  }
});
const job = jobSchema.parse({ name: 'Reels', purposes: [], transferGB: 100, direction: 'in' });
const plain = (text: string) => text.replaceAll('\u202f', ' ');
const line = (plans: LaidPlan[], label: string) => sideBySide(plans).lines.find((one) => one.label === label);
const says = (...plans: LaidPlan[]) => plain(sideBySide(plans).conclusion);

describe('plans side by side', () => {
  it('the better one is named line by line; what is as good as the same is not', () => {
    const plans = [laid('A', 100, bill(50)), laid('B', 200, bill(20)), laid('C', 102, bill(20.1))];
    // 102 s is within 3 % of 100 s, 20.10 within 3 % of 20
    expect(line(plans, 'The job takes')).toMatchObject({ best: [0, 2], differs: true });
    expect(line(plans, 'Still to pay')).toMatchObject({ best: [1, 2], differs: true });
    expect(line(plans, 'Read')).toMatchObject({ best: [], differs: false });
    expect(line(plans, 'Drive')).toMatchObject({ best: [], differs: false });
    const other = { ...laid('D', 100, bill(0)), input: anInput({ drive: aDrive({ name: 'Other', capacityTB: 4 }) }) };
    expect(line([plans[0]!, other], 'Capacity')).toMatchObject({ best: [1], differs: true });
    expect(line([plans[0]!, other], 'Drive')).toMatchObject({ differs: true });
  });
  it('what does not go together is no bargain', () => {
    const plans = [laid('A', 100, bill(50)), laid('B', 100, bill(30)), laid('C', 1, bill(0), { verdict: 'fails' })];
    expect(line(plans, 'Still to pay')?.best).toEqual([1]);
    expect(line(plans, 'The job takes')?.best).toEqual([]);
  });
  it('what has no price is no cheaper', () => {
    const plans = [laid('A', 100, bill(0, ['Case'])), laid('B', 100, bill(20))];
    expect(line(plans, 'Still to pay')).toMatchObject({ values: ['no price', '20.00\u202fEUR'], best: [] });
  });
});

describe('the sentence that concludes', () => {
  it('weighs time against money', () => {
    expect(says(laid('A', 120, bill(80)), laid('B', 240, bill(30)))).toBe(
      'A does the job in about 2:00 min, B in about 4:00 min; the faster one costs 50.00 EUR more to buy.'
    );
    expect(says(laid('A', 120, bill(30)), laid('B', 240, bill(80)))).toBe(
      'A is the better one: it does the job in about 2:00 min, and no other costs less to buy.'
    );
    expect(says(laid('A', 120, bill(30)), laid('B', 122, bill(10)))).toBe(
      'They are equally fast; B is the cheapest: 10.00 EUR to pay.'
    );
    expect(says(laid('A', 120, bill(30)), laid('B', 121, bill(30)))).toBe(
      'They are equally fast, and there is as much to pay for each.'
    );
  });
  it('says what it does not know', () => {
    expect(says(laid('A', 120, bill(0, ['Case'])), laid('B', 240, bill(5)))).toBe(
      'A is the fastest: it does the job in about 2:00 min. Not all of them have a price.'
    );
  });
  it('without a job it is the time of a terabyte', () => {
    const rate = (MBps: number) => ({ throughput: { ...report.throughput, sustainedWrite: band(MBps) } });
    // 10^6 MB at 1000 MB/s: 1000 s; at 500 MB/s: 2000 s
    expect(says(laid('A', null, bill(80), rate(1000)), laid('B', null, bill(30), rate(500)))).toBe(
      'A writes a terabyte in about 16:40 min, B in about 33:20 min; the faster one costs 50.00 EUR more to buy.'
    );
  });
  it('times of different jobs are no race: then it is the time of a terabyte for all', () => {
    const rate = (MBps: number) => ({ throughput: { ...report.throughput, sustainedWrite: band(MBps) } });
    const other = {
      ...laid('B', 5, bill(30), rate(500)),
      input: anInput({ job: { ...job, name: 'Small', transferGB: 1 } })
    };
    const plans = [laid('A', 100, bill(80), rate(1000)), other];
    expect(line(plans, 'The job takes')?.best).toEqual([]);
    expect(says(...plans)).toContain('A writes a terabyte in about 16:40 min, B in about 33:20 min');
    expect(says(laid('A', 100, bill(80), rate(1000)), laid('C', null, bill(30), rate(500)))).toContain(
      'writes a terabyte'
    );
  });
  it('what does not go together is out, what is to be checked is said', () => {
    const out = laid('C', 10, bill(0), { verdict: 'fails' });
    expect(says(laid('A', 120, bill(30)), out)).toBe('A is the one that goes together. C does not go together.');
    expect(says(out, out)).toBe('None of them goes together.');
    expect(says(laid('A', 120, bill(30), { verdict: 'check' }), laid('B', 240, bill(80)), out)).toMatch(
      / Check first: A\. C does not go together\.$/
    );
    expect(says(laid('A', 1, bill(1)))).toBe('');
  });
});
