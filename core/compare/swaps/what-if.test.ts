import type { Model } from '../../parts/model';
import { untyped } from '../../../tests/untyped';
import { type Assembled, assemble, libraryOf, type InStock, type Library } from '../../build/assemble';
import type { PlanInput } from '../../plan/report';
import { describe, expect, it } from 'vitest';
import { aCable, aDrive, aHost, anEnclosure, aPort } from '../../../tests/parts';
import type { Choice } from '../../build/choice';
import { optionsAt, pickedAt, stepAt, withPicked } from '../../build/options';
import type { Job } from '../../parts/job';
import type { Quote } from '../../parts/quote';
import { plan } from '../../plan/plan';
import { priceOf, swapsAt } from './swaps';
import { differences } from './difference';
import { fallbacks } from '../../plan/fallback';
import { onAllHosts } from './computers';
import { offersFor } from './offers';

const id = (n: number) => String(n).padStart(26, '0');
const quote = (partId: string, list: number, currency = 'EUR'): Quote => ({
  partId,
  vendor: 'V',
  date: '2026-05-01',
  currency,
  list
});
const owned = (free = 1, ...builds: string[]): InStock => ({ owned: free + builds.length, free, builds });

const SLOW = { ...aCable({ name: 'Slow C-C', modes: ['usb-10g'], active: true }), id: id(1) };
const FAST = { ...aCable({ name: 'Fast C-C' }), id: id(2) };
const CASE = { ...anEnclosure(), id: id(3) };
const DRIVE = { ...aDrive(), id: id(4) };
const HOST = {
  ...aHost(
    {},
    {
      name: 'Desk',
      ports: [aPort(), aPort({ id: 'a', label: 'USB-A', plug: 'usb-a', modes: ['usb-5g'], powerW: 4.5 })]
    }
  ),
  id: id(5)
};
const CHOICE: Choice = { hostId: HOST.id, portId: 'p', cableId: SLOW.id, enclosureId: CASE.id, driveId: DRIVE.id };

function library(
  change: {
    parts?: object[];
    quotes?: Quote[];
    rules?: Record<string, string>;
    stock?: [string, InStock][];
    jobs?: (Job & { id: string })[];
  } = {}
): Library {
  return libraryOf(
    [SLOW, FAST, CASE, DRIVE, HOST, ...untyped<(Model & { id: string })[]>(change.parts ?? [])],
    change.jobs ?? [],
    {
      quotes: change.quotes ?? [quote(FAST.id, 24.9)],
      houseRules: change.rules ?? {},
      exchange: { currency: 'EUR', rates: [{ from: 'USD', to: 'EUR', rate: 0.9, date: '2026-01-01' }] }
    },
    new Map(change.stock ?? [[FAST.id, owned()]])
  );
}
const planOf = (lib: Library, choice: Choice = CHOICE, workings = false) => {
  const assembled = assemble(lib, choice);
  if (!assembled.ok) throw new Error('the test’s own choice is incomplete');
  return plan(assembled.input, { workings });
};
const offers = (lib: Library, choice: Choice = CHOICE) => offersFor(lib, choice, planOf(lib, choice));

/** The input of what was assembled; a test in which it was not fails here. */
function inputFrom(assembled: Assembled): PlanInput {
  if (!assembled.ok) throw new Error(assembled.missing[0]!.message);
  return assembled.input;
}

describe('what of the crate would mend a finding', () => {
  it('a cable that is at hand, with what it gives: 1000 to 3400 MB/s', () => {
    expect(offers(library())).toEqual([
      {
        code: 'cable-limits-link',
        place: 'cable',
        id: FAST.id,
        name: 'Fast C-C',
        from: 'free',
        verdict: 'works',
        before: 1000,
        after: 3400,
        direction: 'write',
        sentence: 'With Fast C-C, which is in your crate: write 1000 → about 3400\u202fMB/s.'
      }
    ]);
  });
  it('says where it is when a build holds it, and what it costs when it is not there', () => {
    expect(offers(library({ stock: [[FAST.id, owned(0, 'AC-0002')]] }))[0]).toMatchObject({
      from: 'in-a-build',
      sentence: expect.stringContaining('in your crate (in AC-0002)') as string
    });
    expect(offers(library({ stock: [] }))[0]).toMatchObject({
      from: 'to-buy',
      sentence: expect.stringContaining('to buy for about 24.90\u202fEUR') as string
    });
    expect(offers(library({ stock: [], quotes: [] }))[0]!.sentence).toContain('has no price yet');
  });
  it('what is free comes before what is in a build; a faster one to buy stands beside a slower one at hand', () => {
    const middle = { ...aCable({ name: 'Middle C-C', modes: ['usb4-20g'] }), id: id(6) };
    const twin = { ...aCable({ name: 'A twin' }), id: id(7) };
    const both = library({
      parts: [middle, twin],
      stock: [
        [FAST.id, owned()],
        [twin.id, owned(0, 'AC-0009')],
        [middle.id, owned()]
      ]
    });
    expect(offers(both).map((o) => o.name)).toEqual(['Fast C-C']);
    const slowerAtHand = library({ parts: [middle], stock: [[middle.id, owned()]] });
    expect(offers(slowerAtHand).map((o) => [o.name, o.from])).toEqual([
      ['Middle C-C', 'free'],
      ['Fast C-C', 'to-buy']
    ]);
  });
  it('offers nothing that would break the build or gain nothing', () => {
    const short = { ...aCable({ name: 'Wrong ends', ends: ['usb-a', 'usb-c'] }), id: id(6) };
    const same = { ...aCable({ name: 'No better', modes: ['usb-10g'], active: true }), id: id(7) };
    const lib = library({
      parts: [short, same],
      stock: [
        [short.id, owned()],
        [same.id, owned()]
      ]
    });
    expect(offers(lib).map((o) => o.name)).toEqual(['Fast C-C']);
  });
  it('a drive that does not go in: an enclosure for it, a failing chain that becomes whole', () => {
    const bay = {
      ...anEnclosure({
        name: 'Bay 25',
        formFactor: '2.5in',
        protocols: ['sata'],
        modes: ['usb-10g'],
        downstreamSataGbps: 6,
        maxThicknessMm: 9.5
      }),
      id: id(8)
    };
    const disk = {
      ...aDrive({
        name: 'Disk',
        media: 'sata-ssd',
        formFactor: '2.5in',
        pcie: undefined,
        m2Key: undefined,
        m2LengthMm: undefined,
        thicknessMm: 7,
        sataGbps: 6,
        readMBps: 550,
        writeMBps: 500
      }),
      id: id(9)
    };
    const lib = library({ parts: [bay, disk], stock: [[bay.id, owned()]] });
    const choice = { ...CHOICE, driveId: disk.id };
    expect(planOf(lib, choice).verdict).toBe('fails');
    const [first] = offers(lib, choice);
    expect(first).toMatchObject({ name: 'Bay 25', place: 'enclosure', before: null });
    // write: 500 x 0.95 = 475
    expect(first!.sentence).toBe('With Bay 25, which is in your crate, it goes together: write about 475\u202fMB/s.');
  });
  it('a job that does not fit: a larger drive, not one that fails elsewhere', () => {
    const job = { id: id(20), name: 'Big', purposes: [], transferGB: 3000, direction: 'in' as const };
    const large = { ...aDrive({ name: 'Large', capacityTB: 8 }), id: id(10) };
    const wrong = { ...aDrive({ name: 'A wrong one', capacityTB: 8, m2LengthMm: 110 }), id: id(11) };
    const lib = library({
      parts: [large, wrong],
      jobs: [job],
      stock: [
        [large.id, owned()],
        [wrong.id, owned()],
        [FAST.id, owned()]
      ]
    });
    const choice = { ...CHOICE, cableId: FAST.id, jobId: job.id };
    expect(offers(lib, choice).find((o) => o.code === 'job-does-not-fit')).toMatchObject({
      name: 'Large',
      place: 'drive'
    });
  });
  it('a choice that is incomplete offers nothing', () => {
    expect(offersFor(library(), { ...CHOICE, driveId: id(99) }, planOf(library()))).toEqual([]);
  });
});

describe('every other part at a place', () => {
  it('price over the gain: 24.90 EUR over 2400 MB/s, nothing where it is at hand', () => {
    const bought = swapsAt(library({ stock: [] }), CHOICE, 'cable', planOf(library()));
    expect(bought.map((s) => s.name)).toEqual(['Fast C-C']);
    expect(bought[0]!.perGain!.amount).toBeCloseTo(24.9 / 2400, 12);
    expect(swapsAt(library(), CHOICE, 'cable', planOf(library()))[0]!.perGain).toMatchObject({
      of: 'write',
      amount: 0
    });
  });
  it('a swap that loses has no price of a gain', () => {
    const lib = library({ quotes: [quote(SLOW.id, 9)] });
    const choice = { ...CHOICE, cableId: FAST.id };
    expect(swapsAt(lib, choice, 'cable', planOf(lib, choice))[0]!.perGain).toBeNull();
  });
  it('a part that is at hand costs nothing, or what its unit would bring, by the house rule', () => {
    const stock: [string, InStock][] = [[FAST.id, { owned: 1, free: 1, builds: [], resale: 11 }]];
    expect(priceOf(library({ stock }), FAST.id)).toEqual({ amount: 0, currency: 'EUR', from: 'crate' });
    expect(priceOf(library({ stock, rules: { reuse: 'resale' } }), FAST.id)).toEqual({
      amount: 11,
      currency: 'EUR',
      from: 'crate'
    });
    // 30 USD at 0.9
    expect(priceOf(library({ stock: [], quotes: [quote(FAST.id, 30, 'USD')] }), FAST.id)!.amount).toBeCloseTo(27, 9);
    expect(priceOf(library({ stock: [], quotes: [quote(FAST.id, 30, 'CHF')] }), FAST.id)).toBeNull();
  });
});

describe('stepping through a place', () => {
  const options = optionsAt(library(), 'port');
  it('goes round in both directions and begins where nothing is picked', () => {
    const [first, second] = options.map((o) => o.id) as [string, string];
    expect(stepAt(options, first, 1)).toBe(second);
    expect(stepAt(options, second, 1)).toBe(first);
    expect(stepAt(options, first, -1)).toBe(second);
    expect(stepAt(options, undefined, 1)).toBe(first);
    expect(stepAt(options, 'gone', -1)).toBe(second);
    expect(stepAt([], first, 1)).toBeUndefined();
  });
  it('picks a host and its port as one', () => {
    const next = withPicked(CHOICE, 'port', options[1]!.id);
    expect(next).toMatchObject({ hostId: HOST.id, portId: 'a' });
    expect(pickedAt(next, 'port')).toBe(options[1]!.id);
    expect(pickedAt({ driveId: DRIVE.id }, 'port')).toBeUndefined();
  });
});

describe('the difference of two plans', () => {
  const lib = library({
    quotes: [quote(FAST.id, 24.9), quote(SLOW.id, 9.9), quote(CASE.id, 80), quote(DRIVE.id, 150)]
  });
  const all = differences(planOf(lib, CHOICE, true), planOf(lib, { ...CHOICE, cableId: FAST.id }, true));
  it('figure by figure: write 1000 to 3400 is 240 % more and better', () => {
    const write = all.get('throughput.write')!;
    expect([write.before, write.after, write.change, write.better]).toEqual([1000, 3400, 2400, true]);
    expect(write.percent).toBeCloseTo(240, 9);
  });
  it('a higher price is worse: 239.90 to 254.90', () => {
    expect(all.get('cost.total')!.change).toBeCloseTo(15, 9);
    expect(all.get('cost.total')!.better).toBe(false);
  });
  it('a cliff appears where there was none: no percentage of nothing', () => {
    // 1000 MB/s is below the 1500 after the cache, 3400 is above
    expect(all.get('cache.cliffAtGB')).toMatchObject({ before: null, change: null, percent: null, better: null });
  });
  it('what is the same is not listed', () => {
    expect(all.has('capacity.usable')).toBe(false);
    expect(differences(planOf(lib, CHOICE, true), planOf(lib, CHOICE, true)).size).toBe(0);
  });
  it('a faster link makes it warmer, and that is not better', () => {
    const warmer = all.get('thermal.controller')!;
    expect(warmer.change).toBeGreaterThan(0);
    expect(warmer.better).toBe(false);
  });
});

describe('one build on all hosts', () => {
  const other = {
    ...aHost({}, { name: 'Lap', ports: [aPort({ id: 'x', plug: 'usb-a', modes: ['usb-5g'], powerW: 4.5 })] }),
    id: id(12)
  };
  const toA = { ...aCable({ name: 'A to C', ends: ['usb-a', 'usb-c'], modes: ['usb-5g'] }), id: id(13) };
  it('every port of every host, with the chosen cable where it goes and another where it does not', () => {
    const rows = onAllHosts(library({ parts: [other, toA], stock: [[toA.id, owned()]] }), CHOICE);
    expect(rows.map((r) => [r.host, r.portId, r.cable, r.otherCable])).toEqual([
      ['Desk', 'p', 'Slow C-C', false],
      ['Desk', 'a', 'A to C', true],
      ['Lap', 'x', 'A to C', true]
    ]);
    // a USB-A port of 5 Gb/s: 435 typical
    expect(rows[2]!.report.throughput.read!.typical).toBe(435);
  });
  it('without another cable the row says that it fails', () => {
    const rows = onAllHosts(library({ parts: [other] }), CHOICE);
    expect(rows[2]).toMatchObject({ otherCable: false });
    expect(rows[2]!.report.verdict).toBe('fails');
  });
});

describe('what a lower mode makes of it', () => {
  it('a 40 Gb/s chain can come up as Thunderbolt 3, 10 Gb/s, 5 Gb/s and USB 2.0', () => {
    const assembled = assemble(library(), { ...CHOICE, cableId: FAST.id });
    const list = fallbacks(inputFrom(assembled));
    // the host’s usb4-40g implies 20g, 10g, 5g and usb2; the enclosure usb4-40g, tbt3, 10g and what they imply
    expect(list.map((f) => f.mode)).toEqual(['usb4-20g', 'usb-10g', 'usb-5g', 'usb2']);
    expect(list.map((f) => f.report.throughput.read!.typical)).toEqual([1750, 1000, 435, 38]);
    for (const { when } of list) expect(when).not.toBe('');
  });
  it('a chain without a common mode has nothing to fall back to', () => {
    const lib = library({ parts: [{ ...anEnclosure({ modes: ['tbt3-40g'] }), id: id(14) }] });
    const assembled = assemble(lib, { ...CHOICE, enclosureId: id(14) });
    expect(fallbacks(inputFrom(assembled))).toEqual([]);
  });
});
