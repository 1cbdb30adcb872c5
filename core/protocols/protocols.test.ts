import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { aDrive, aHost, anInput } from '../../tests/parts';
import { plan } from '../plan/plan';
import { PROTOCOL_IDS } from '../results/protocol-ids';
import { briefOf } from './brief';
import { phasesOf, settled } from './phases';
import { coolDown, planForAccuracy, planPasses } from './planner';
import { PROTOCOLS, protocolOf, protocolsFor } from './protocols';
import { planQueue } from './queue';
import { summarise } from './summary';
import { testedBuild, testedHost, testedModel, type TestedSubject } from './tested';

/** A drive of round figures: 1000 MB/s until 100 GB are in, 500 after it, reads at 2000; 2 TB of which all is free; rated for 600 TB. */
const flat = (value: number) => ({ low: value, typical: value, high: value });
const subject = (change: Partial<TestedSubject> = {}): TestedSubject => ({
  name: 'Round',
  capacityGB: 2000,
  freeGB: 2000,
  media: 'nvme',
  read: flat(2000),
  write: flat(1000),
  sustained: flat(500),
  cliffGB: flat(100),
  recoverS: flat(200),
  enduranceTBW: 600,
  warm: { idleC: 35, steadyC: 51, timeConstantS: 800 },
  ...change
});

describe('protocols', () => {
  it('each has its row, and what it asks for is set to something usual', () => {
    expect(PROTOCOLS.map(({ id }) => id)).toEqual([...PROTOCOL_IDS]);
    for (const { asks, usual, id } of PROTOCOLS)
      for (const key of Object.keys(asks))
        if (key !== 'otherBuildId' && !(id === 'soak' && key === 'GB'))
          expect(usual, `${id} ${key}`).toHaveProperty(key);
  });
  it('a sweep is for disks; an internal disk has its own', () => {
    expect(protocolsFor('build', 'nvme').map(({ id }) => id)).not.toContain('sweep');
    expect(protocolsFor('build', 'hdd').map(({ id }) => id)).toContain('sweep');
    expect(protocolsFor('host').map(({ id }) => id)).toEqual(['baseline']);
    expect(() => protocolOf('none' as 'soak')).toThrow(RangeError);
  });
});

describe('what it costs, before it starts', () => {
  // 5 x 5 GB at 1000 and at 2000 MB/s are 25 s and 12.5 s; random 15 s each way: 67.5 s. 25 of 600 000 GB are 0.00417 %.
  it('a speed check', () => {
    const brief = briefOf('pair-check', {}, subject());
    expect(brief.seconds?.typical).toBeCloseTo(67.5, 6);
    expect(brief.writesGB?.typical).toBe(25);
    expect(brief.readsGB).toBe(25);
    expect(brief.wearPercent).toBeCloseTo(0.0041667, 6);
    expect(brief.needsGB).toEqual({ drive: 5, other: 0 });
  });
  // 900 s: 100 s fill 100 GB, 800 s at 500 MB/s are 400 GB: 500 GB
  it('a soak writes through the cache: 100 GB and 400 GB', () =>
    expect(briefOf('soak', {}, subject()).writesGB?.typical).toBeCloseTo(500, 6));
  // 12 rounds of 16 GB: 100 GB at 1000 MB/s are 100 s, 92 GB at 500 are 184 s; reads 192 GB at 2000 are 96 s: 380 s
  it('a loop runs out of its cache in the seventh round', () =>
    expect(briefOf('loop', {}, subject()).seconds?.typical).toBeCloseTo(380, 6));
  // 3 copies of 40 GB: 40 s each in, 20 s out; 400 files at 1.5 ms are 0.6 s a copy; 5 rests of 120 s.
  // A rest of 120 s empties 100 GB x 120 / 200 = 60 GB: the cache never fills. 120 + 60 + 3.6 + 600 = 783.6 s
  it('copies rest in between, and the cache recovers meanwhile', () =>
    expect(briefOf('copy', {}, subject()).seconds?.typical).toBeCloseTo(783.6, 6));
  // A disk of 2 TB, read at 2000 (1000 s), written at 1000 MB/s: 98 % and 2 % are 2000 s, 20 % anew 400 s; 40 GB of 8 MB are 5000 files, 7.5 s
  it('a sweep of an empty disk is read, written, and a fifth written anew; of one that holds something only read', () => {
    const disk = subject({ media: 'hdd', cliffGB: null, sustained: null });
    expect(briefOf('sweep', {}, disk).seconds?.typical).toBeCloseTo(3407.5, 6);
    expect(briefOf('sweep', { fillPercent: 30 }, disk)).toMatchObject({ writesGB: flat(0), readsGB: 2000 });
  });
  it('where nothing is forecast nothing is promised, but what is set stands', () => {
    const brief = briefOf('pair-check', {}, subject({ read: null, write: null }));
    expect([brief.seconds, brief.writesGB?.typical]).toEqual([null, 25]);
    expect(briefOf('soak', {}, subject({ read: null, write: null }))).toMatchObject({
      seconds: flat(900),
      writesGB: null
    });
  });

  const codes = (id: Parameters<typeof briefOf>[0], set: object, change: Partial<TestedSubject>) =>
    briefOf(id, set, subject(change))
      .spoilers.filter(({ serious }) => serious)
      .map(({ code }) => code);
  const host = (more: object): TestedSubject['host'] => ({ name: 'Kiln', family: 'linux', ...more });
  it.each<[string, Parameters<typeof briefOf>[0], object, Partial<TestedSubject>, string[]]>([
    ['a folder smaller than twice the memory', 'copy', { GB: 40 }, { host: host({ memoryGB: 32 }) }, ['memory']],
    ['a folder of exactly twice the memory', 'copy', { GB: 64 }, { host: host({ memoryGB: 32 }) }, []],
    ['a file that does not fit', 'pair-check', { GB: 50 }, { freeGB: 40 }, ['does-not-fit']],
    [
      'no room at the other end',
      'copy',
      { GB: 100 },
      { host: host({ memoryGB: 8, internal: { readMBps: 3000, writeMBps: 3000, freeGB: 150 } }) },
      ['other-end-full']
    ],
    ['writing over everything', 'acceptance', {}, {}, ['writes-over']],
    ['a sweep that only reads', 'sweep', { fillPercent: 30 }, { media: 'hdd' }, []]
  ])('%s', (_what, id, set, change, wanted) => expect(codes(id, set, change)).toEqual(wanted));
  it('a slower internal disk is named', () =>
    expect(
      briefOf(
        'copy',
        { GB: 100 },
        subject({ host: host({ internal: { readMBps: 500, writeMBps: 400 } }) })
      ).spoilers.find(({ code }) => code === 'internal-disk')?.text
    ).toContain('reads 500, writes 400 MB/s'));
  it('a drive smaller than what is usual is tested with what fits it: half of 4 GB', () =>
    expect(settled('loop', {}, { capacityGB: 4, freeGB: 4, media: 'nvme' }).GB).toBe(2));

  it('whatever is set: bands are in order, and no phase is without an end', () =>
    fc.assert(
      fc.property(
        fc.constantFrom(...PROTOCOL_IDS),
        fc.record(
          {
            GB: fc.double({ min: 0.01, max: 5000, noNaN: true }),
            rounds: fc.integer({ min: 1, max: 50 }),
            seconds: fc.integer({ min: 10, max: 90_000 })
          },
          { requiredKeys: [] }
        ),
        fc.boolean(),
        (id, set, disk) => {
          const brief = briefOf(id, set, testedBuild(disk ? DISK : FLASH, plan(disk ? DISK : FLASH)));
          for (const band of [brief.seconds, brief.writesGB]) {
            expect(band).not.toBeNull();
            if (band) expect(band.low <= band.typical + 1e-9 && band.typical <= band.high + 1e-9).toBe(true);
          }
          for (const phase of brief.phases) expect((phase.GB ?? phase.seconds ?? 0) > 0).toBe(true);
        }
      ),
      { seed: 16, numRuns: 200 }
    ));
});
const KNOWN = aHost({}, { internalDisk: { readMBps: 3000, writeMBps: 2500 } });
const FLASH = anInput({ host: KNOWN });
const DISK = anInput({
  host: KNOWN,
  drive: aDrive({ media: 'hdd', formFactor: '2.5in', capacityTB: 4, thicknessMm: 7 }),
  enclosure: {
    kind: 'enclosure',
    name: 'Bay',
    formFactor: '2.5in',
    protocols: ['sata'],
    modes: ['usb-10g', 'usb-5g'],
    plug: 'usb-c',
    maxThicknessMm: 15
  }
});

describe('subjects', () => {
  it('a ready-made drive has what its label says, half of it at worst', () =>
    expect(
      testedModel({ kind: 'alternative', name: 'Stick', sort: 'flash-stick', capacityTB: 0.5, writeMBps: 400 })
    ).toMatchObject({
      capacityGB: 500,
      read: null,
      write: { low: 200, typical: 360, high: 400 }
    }));
  it('an internal disk is what was entered of it, and nothing is forecast of an unknown one', () => {
    expect(testedHost(aHost({}, { internalDisk: { readMBps: 1000, writeMBps: 800, cacheGB: 50 } }))).toMatchObject({
      read: { low: 800, typical: 1000, high: 1050 },
      cliffGB: { low: 35, typical: 50, high: 50 }
    });
    expect(testedHost(aHost())).toMatchObject({ read: null, write: null });
  });
});

describe('how large and how often', () => {
  // By hand 0.2 x sqrt 2 = 0.283 s, of 2.5 % are 11.3 s: less than 20 s, so 20 s at 1000 MB/s: 20 GB. t(n-1) x 3 % / sqrt(n) <= 5 % x 0.866 = 4.33 %:
  // n = 4: 3.182 x 3 / 2 = 4.77 %; n = 5: 2.776 x 3 / 2.236 = 3.72 %. Five.
  it('within 5 %, by hand', () =>
    expect(planForAccuracy(0.05, true, subject())).toMatchObject({ GB: 20, seconds: 20, repeats: 5 }));
  // 0.283 / 0.5 % = 56.6 s, 57 GB; n = 18: 2.11 x 3 / 4.243 = 1.49 % > 0.87 %: twenty are the most that is asked for
  it('within 1 %', () => expect(planForAccuracy(0.01, true, subject())).toMatchObject({ GB: 57, repeats: 20 }));
  it('twice the memory at least', () =>
    expect(planForAccuracy(0.1, false, subject({ host: { name: 'Kiln', family: 'linux', memoryGB: 64 } })).GB).toBe(
      128
    ));
  it.each([0, 0.6, NaN])('%s is no accuracy', (within) =>
    expect(() => planForAccuracy(within, true, subject())).toThrow(RangeError)
  );

  // From 51 to 37 C above a rest of 35: 800 x ln(16 / 2) = 1663.6 s; from 39: 800 x ln 2 = 554.5 s; 37 is cool
  it('cools as an exponential does', () => {
    expect(coolDown(subject())?.seconds).toBeCloseTo(1663.55, 1);
    expect(coolDown(subject(), 39)?.seconds).toBeCloseTo(554.52, 1);
    expect(coolDown(subject(), 37)).toEqual({ seconds: 0, toC: 37 });
    expect(coolDown(subject({ warm: null }))).toBeNull();
  });
  // 8 TB at 160 MB/s are 50 000 s a pass; 3 passes 150 000 s, that is 2 days (1.74 rounded up) before the last one
  it('passes over a disk against the last day', () =>
    expect(planPasses(subject({ capacityGB: 8000, read: flat(160) }), 3, '2026-12-10')).toEqual({
      passS: 50_000,
      passes: 3,
      totalS: 150_000,
      lastStart: '2026-12-08'
    }));
});

describe('several builds in one evening', () => {
  const item = (id: string, runS: number, coolS: number, times: number) => ({ id, name: id, runS, coolS, times });
  it('one cools while the other runs: 4 x 60 s without a pause, where one by one it were 360', () => {
    const { slots, totalS, oneByOneS } = planQueue([item('a', 60, 60, 2), item('b', 60, 60, 2)]);
    expect(slots.map(({ id, fromS }) => [id, fromS])).toEqual([
      ['a', 0],
      ['b', 60],
      ['a', 120],
      ['b', 180]
    ]);
    expect([totalS, oneByOneS]).toEqual([240, 360]);
  });
  it('alone it waits for itself', () =>
    expect(planQueue([item('a', 60, 100, 2)]).slots[1]).toEqual({
      id: 'a',
      name: 'a',
      turn: 2,
      fromS: 160,
      toS: 220,
      waitedS: 100
    }));
  it('nothing is nothing', () => expect(planQueue([])).toEqual({ slots: [], totalS: 0, oneByOneS: 0 }));
  it('never two at once, never one that is warm, and every run once', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.integer({ min: 1, max: 900 }), fc.integer({ min: 0, max: 2000 }), fc.integer({ min: 1, max: 5 })),
          { minLength: 1, maxLength: 6 }
        ),
        (list) => {
          const queue = list.map(([runS, coolS, times], i) => item(`d${i}`, runS, coolS, times));
          const { slots, totalS, oneByOneS } = planQueue(queue);
          expect(slots.length).toBe(queue.reduce((sum, { times }) => sum + times, 0));
          for (const [i, slot] of slots.entries()) {
            expect(slot.fromS).toBeGreaterThanOrEqual(slots[i - 1]?.toS ?? 0);
            const before = slots.slice(0, i).findLast(({ id }) => id === slot.id);
            const cools = queue.find(({ id }) => id === slot.id)?.coolS ?? 0;
            if (before) expect(slot.fromS).toBeGreaterThanOrEqual(before.toS + cools);
          }
          expect(totalS).toBeLessThanOrEqual(oneByOneS);
        }
      ),
      { seed: 16, numRuns: 300 }
    ));
});

describe('summed up', () => {
  const timed = (work: 'write' | 'read' | 'copy-in' | 'task', GB: number, seconds: number) => ({
    work,
    GB,
    seconds,
    round: 1
  });
  // 10 GB in 10, 12.5 and 20 s: 1000, 800, 500 MB/s; the middle is 800
  it('the middle of the repeats', () =>
    expect(
      summarise(
        'pair-check',
        [10, 20, 12.5].map((s) => timed('write', 10, s)),
        undefined
      )
    ).toMatchObject({ writeMBps: 800 }));
  it('of a loop, the settled half: 1000, 1000, 500, 400 give 450', () =>
    expect(
      summarise(
        'loop',
        [10, 10, 20, 25].map((s) => timed('write', 10, s)),
        undefined
      ).writeMBps
    ).toBe(450));
  it('copies are kept apart from what the drive itself does', () =>
    expect(Object.keys(summarise('copy', [timed('copy-in', 10, 10)], undefined))).toEqual(['repeats', 'copyInMBps']));
  // 400 samples: 100 at 1000, 300 at 500. The first half minute: 1000; the last quarter of 400 s: 500
  it('of a soak, its first half minute and its last quarter', () => {
    const t = Array.from({ length: 400 }, (_, i) => i + 1);
    const series = { t, MBps: t.map((s) => (s <= 100 ? 1000 : 500)) };
    expect(summarise('soak', [timed('write', 250, 400)], series)).toMatchObject({
      writeMBps: 1000,
      sustainedWriteMBps: 500
    });
  });
  it('a program that takes as long as on the internal disk is the limit itself: 250 of 240 s are 4 % more', () => {
    expect(summarise('own-program', [timed('task', 40, 250)], undefined, 240).limitedBy).toBe('program');
    expect(summarise('own-program', [timed('task', 40, 253)], undefined, 240).limitedBy).toBe('drive');
  });
  it('phases are never empty', () => {
    for (const { id, usual } of PROTOCOLS) expect(phasesOf(id, usual, subject()).length, id).toBeGreaterThan(0);
  });
});
