import { describe, expect, it } from 'vitest';
import { aDrive, anEnclosure, anInput, aHost } from '../../tests/parts.ts';
import { jobSchema } from '../parts/job.ts';
import { plan } from '../plan/plan.ts';
import type { PlanReport } from '../plan/report.ts';
import { answersOf, answerTo, type Asked, type AnswersOf } from './answers.ts';

const band = (typical: number, low = typical, high = typical) => ({ low, typical, high });
const report = plan(anInput());
const job = jobSchema.parse({ name: 'Reels', purposes: ['scratch'], transferGB: 400, direction: 'in' });
/** What one question is answered with, with plain spaces. */
const said = (about: Asked, of: Partial<AnswersOf> & { report: PlanReport }) => {
  const answer = answerTo(about, answersOf(of));
  return answer && { ...answer, text: plain(answer.text), short: plain(answer.short) };
};
const plain = (text: string) => text.replaceAll('\u202f', ' ');
const withJob = (change: object = {}, more: Partial<PlanReport> = {}): PlanReport => ({
  ...report,
  ...more,
  job: {
    seconds: band(130, 100, 300),
    cliffReached: false,
    throttleReached: null,
    fits: true,
    ways: [
      {
        direction: 'in',
        seconds: 130,
        MBps: 3000,
        limitedBy: 'link',
        spent: { bytes: 130, afterCliff: 0, files: 0, throttled: 0 }
      }
    ],
    ...change
  }
});
const thermal = report.thermal!;

describe('whether it goes together', () => {
  const finding = (
    severity: 'fail' | 'check' | 'limit',
    about: 'cable' | 'job',
    message: string
  ): Partial<PlanReport> => ({
    verdict: severity === 'fail' ? 'fails' : severity === 'check' ? 'check' : 'limited',
    findings: [{ code: 'x', severity, about, message, reason: '' }]
  });
  it('is said first, with what stands in the way', () => {
    expect(said('goes', { report: { ...report, verdict: 'works', findings: [] } })).toMatchObject({
      text: 'It goes together.',
      tone: 'good'
    });
    expect(said('goes', { report: { ...report, ...finding('limit', 'cable', 'the cable is slow') } })?.text).toBe(
      'It goes together, with a limit. The cable is slow.'
    );
    expect(said('goes', { report: { ...report, ...finding('check', 'cable', 'Look.') } })?.text).toBe(
      'It most likely goes together. Check first: Look.'
    );
    expect(said('goes', { report: { ...report, ...finding('fail', 'cable', 'No.') } })).toMatchObject({
      text: 'It does not go together. No.',
      tone: 'bad'
    });
  });
  it('a job that does not fit is no fault of the parts', () => {
    expect(said('goes', { report: { ...report, ...finding('fail', 'job', 'Too large.') } })?.text).toBe(
      'It goes together, but not for this job. Too large.'
    );
  });
  it('a fault of the parts is not hidden behind a job that does not fit', () => {
    const fail = (about: 'job' | 'drive', message: string) => ({
      code: 'x',
      severity: 'fail' as const,
      about,
      message,
      reason: ''
    });
    const both: PlanReport = {
      ...withJob(),
      verdict: 'fails',
      findings: [fail('job', 'Too large.'), fail('drive', 'Too long.')]
    };
    expect(said('goes', { report: both, job })?.text).toBe('It does not go together. Too long.');
    expect(said('job', { report: both, job })?.text).toMatch(/^Once that is mended/);
  });
  it('what does not go together has figures for when that is mended, and none where there are none', () => {
    const amiss = { ...withJob(), ...finding('fail', 'cable', 'No.') };
    expect(said('job', { report: amiss, job })?.text).toMatch(/^Once that is mended: Reels, 400 GB, takes/);
    expect(said('limit', { report: amiss })?.text).toMatch(/^Once that is mended: the /);
    const none = { ...report.throughput, read: null, write: null, sustainedWrite: null };
    const dead: PlanReport = { ...report, ...finding('fail', 'cable', 'No.'), throughput: none };
    expect(answersOf({ report: dead }).map(({ about }) => about)).toEqual(['goes', 'filesystem', 'price']);
  });
});

describe('how long the job takes', () => {
  it('is a time with its ends', () => {
    expect(said('job', { report: withJob(), job })).toMatchObject({
      text: 'Reels, 400 GB, takes about 2:10 min, from 1:40 min to 5:00 min.',
      short: '2:10 min for Reels'
    });
  });
  it('says on what it rests, and that it does not fit', () => {
    const measured = { writeMBps: 3000, date: '2026-11-20', simulated: true };
    expect(said('job', { report: withJob({ fits: false }, { measured }), job })).toMatchObject({
      text: 'Reels, 400 GB, takes about 2:10 min by the rates of a simulated check on 20 Nov 2026, from 1:40 min to 5:00 min. It does not fit on the drive.',
      tone: 'bad'
    });
  });
  it('without a job it is what it copies at, and where the cache ends', () => {
    const rates = {
      read: band(3400),
      write: band(3412),
      sustainedWrite: band(1500),
      random4kRead: null,
      random4kWrite: null
    };
    const of = { ...report, throughput: rates, cache: { cliffAtGB: band(445), recoverS: null } };
    expect(said('job', { report: of })?.text).toBe(
      'It writes about 3410 MB/s until the cache is full after about 445 GB, then about 1500 MB/s, and reads about 3400 MB/s.'
    );
    expect(said('job', { report: { ...of, cache: { cliffAtGB: null, recoverS: null } } })?.text).toBe(
      'It writes about 3410 MB/s, and reads about 3400 MB/s.'
    );
  });
});

describe('what limits it', () => {
  const stages = (rates: Record<string, number>): PlanReport['link']['stages'] =>
    Object.entries(rates).map(([stage, MBps]) => ({
      stage: stage as 'port',
      label: stage,
      MBps: band(MBps),
      writeMBps: band(MBps)
    }));
  const chain = (
    rates: Record<string, number>,
    slowest: 'port' | 'drive' | 'bridge',
    also: ('port' | 'cable')[] = []
  ) => ({
    ...report,
    link: {
      mode: null,
      stages: stages(rates),
      bottleneck: slowest,
      alsoLimits: also,
      writeBottleneck: slowest
    },
    throughput: { ...report.throughput, write: band(1000) },
    reachable: { readPercent: 20, writePercent: 25 }
  });
  it('and what that costs: what stays unused, and what the next link would allow', () => {
    // 100 - 25 = 75 % unused; without the port, the cable at 1750 is next
    expect(said('limit', { report: chain({ port: 1000, cable: 1750, bridge: 3400, drive: 4000 }, 'port') })?.text).toBe(
      'The port is the slowest link: it holds the write at about 1000 MB/s, so that about 75 % of what the drive writes by its rating stays unused. Were it faster, the cable would allow about 1750 MB/s.'
    );
  });
  it('names every link that holds it as much, and looks beyond all of them', () => {
    const of = chain({ port: 1000, cable: 1000, bridge: 1000, slot: 1700, drive: 4000 }, 'bridge', ['port', 'cable']);
    expect(said('limit', { report: of })).toMatchObject({ short: 'bridge, port and cable' });
    expect(said('limit', { report: of })?.text).toContain(
      'Were they faster, the enclosure’s slot would allow about 1700 MB/s'
    );
  });
  it('promises nothing where the next link is as slow', () => {
    expect(said('limit', { report: chain({ port: 1000, cable: 1010, drive: 4000 }, 'port') })?.text).not.toContain(
      'Were'
    );
  });
  it('a drive that is the slowest itself holds nothing back, and the job says what it waits for', () => {
    const of = { ...withJob(), ...chain({ port: 3000, drive: 1000 }, 'drive') };
    expect(said('limit', { report: of, job })?.text).toBe(
      'The drive itself is the slowest link: it writes about 1000 MB/s, and no other link holds it back. The job waits for the link.'
    );
  });
});

describe('whether it gets too hot', () => {
  const hot = (change: object): PlanReport => ({
    ...withJob(),
    thermal: { ...thermal, touch: 'comfortable', ...change }
  });
  it('says by how much it stays below, and what a hand may do', () => {
    const of = hot({ steadyControllerC: band(54, 45, 67), startC: 80, steadyCaseC: band(48), touch: 'brief' });
    // 80 - 54 = 26 K
    expect(said('heat', { report: of })).toMatchObject({
      text: 'It stays cool enough: in long work the drive reports about 54 °C (45 °C to 67 °C), about 26 K below the 80 °C at which it slows down. The case gets to about 48 °C: touch it briefly only.',
      short: '54 °C, 26 K to spare',
      tone: 'good'
    });
  });
  it('a band that reaches the limit is no “cool enough”', () => {
    expect(said('heat', { report: hot({ steadyControllerC: band(72, 60, 80), startC: 80 }) })).toMatchObject({
      tone: 'check'
    });
    expect(said('heat', { report: hot({ startC: null }) })?.text).toContain('Where it slows down is not known');
  });
  it('says when it slows down, and whether the job is done before', () => {
    const late = { throttleAfterS: band(250, 200, 400), startC: 80 };
    expect(said('heat', { report: hot(late) })).toMatchObject({
      text: 'It gets too hot in long work: it slows down from 80 °C on, after about 4:10 min, from 3:20 min to 6:40 min.',
      tone: 'bad'
    });
    const done = withJob(
      { throttleReached: false },
      { thermal: { ...hot(late).thermal!, peak: { controllerC: 71, caseC: 40, throttleAtS: null } } }
    );
    expect(said('heat', { report: done, job })?.text).toContain('Within this job it stays cool enough, at most 71 °C.');
  });
});

describe('what it costs and what is to be done', () => {
  const cost = {
    total: 229.8,
    currency: 'EUR',
    perTB: 114.9,
    perTiBUsable: 126.4,
    oldestQuote: '2026-11-01',
    withoutQuote: []
  };
  const pay = { amount: 100.8, currency: 'EUR', names: ['Case', 'Cable'], ordered: [], unpriced: [] };
  it('the whole, and what of it is still to pay', () => {
    expect(said('price', { report: { ...report, cost }, toPay: pay })).toMatchObject({
      text: 'It costs 229.80 EUR delivered, 114.90 EUR for each TB. Still to pay: 100.80 EUR for Case and Cable.',
      short: '229.80 EUR, 100.80 EUR to pay'
    });
    expect(
      said('price', { report: { ...report, cost }, toPay: { ...pay, amount: 0, names: [], ordered: ['Case'] } })?.text
    ).toContain('Nothing is still to pay. Case is ordered.');
    expect(
      said('price', { report: { ...report, cost: null }, toPay: { ...pay, names: [], unpriced: ['Case'] } })?.text
    ).toBe('No price is known for the whole. No price is noted for Case, still to be bought.');
    expect(
      said('price', { report: { ...report, cost: null }, toPay: { ...pay, names: [], unpriced: ['A', 'B', 'C'] } })
        ?.text
    ).toBe('No price is known for the whole. Note one for the drive and one for the enclosure.');
  });
  it('the next step is a sentence', () => {
    expect(said('do', { report, next: 'save it as a build' })?.text).toBe('Save it as a build.');
    expect(said('do', { report })).toBeUndefined();
  });
});

it('every plan has a whole sentence for each question that it can answer', () => {
  const inputs = [
    anInput(),
    anInput({ job }),
    anInput({ enclosure: anEnclosure({ modes: ['usb-10g'], protocols: ['sata'] }), drive: aDrive() }),
    anInput({ drive: aDrive({ media: 'hdd', formFactor: '3.5in', capacityTB: 8 }) }),
    anInput({ host: aHost({ modes: ['usb2'], powerW: 2.5 }) })
  ];
  for (const input of inputs)
    for (const { text, short } of answersOf({ report: plan(input), job: input.job })) {
      expect(text).toMatch(/^[A-Z].*[.!?]$/s);
      expect(`${text} ${short}`).not.toMatch(/undefined|NaN|null|\.\.|[a-z][A-Z][a-z]+\b(?<!eSATA|exFAT|macOS|iPadOS)/);
    }
});
