import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anEnclosure, anInput, aHost } from '../../tests/parts';
import { plan } from '../plan/plan';
import { missingConditions, wayOfCopy } from './conditions';
import { checkCopy, checkRatio, type CopyClaim } from './copy-gates';
import { intervalOf, median, ratioOf, studentT } from './repeats';
import { solveFallOff, timedRatio } from './stopwatch';

describe('from where to where', () => {
  it.each([
    ['internal', 'drive', 'write'],
    ['drive', 'internal', 'read'],
    ['memory', 'drive', 'write'],
    ['drive', 'other-external', 'read'],
    ['drive', 'drive', 'neither'],
    ['internal', 'network', 'neither'],
    ['internal', 'internal', 'neither']
  ] as const)('%s to %s measures the %s', (source, target, measured) =>
    expect(wayOfCopy(source, target).measured).toBe(measured)
  );
  it('a question that was answered with “I do not know” is answered', () =>
    expect(missingConditions({ power: 'mains', notKnown: ['tool'] }, ['power', 'tool', 'ambientC'])).toEqual([
      'ambientC'
    ]));
});

// A chain of 10 Gb/s: its payload ceiling is 1212 MB/s. The computer has 16 GB of memory; its internal disk reads 500 and writes 400 MB/s.
const input = anInput({
  enclosure: anEnclosure({ modes: ['usb-10g'] }),
  host: aHost({ modes: ['usb4-40g', 'usb-10g'] }, { internalDisk: { readMBps: 500, writeMBps: 400 } })
});
const build = { input, report: plan(input) };
const claim = (change: Partial<CopyClaim>): CopyClaim => ({
  GB: 100,
  seconds: 240,
  source: 'internal',
  target: 'drive',
  ...change
});
const alarms = (change: Partial<CopyClaim>) => checkCopy(claim(change), build);
const ids = (change: Partial<CopyClaim>) => alarms(change).map(({ id, level }) => `${level} ${id}`);

describe('a copy that cannot be', () => {
  it.each<[string, Partial<CopyClaim>, string[]]>([
    // 100 GB in 240 s are 417 MB/s: below the 500 x 1.1 = 550 of the internal disk
    ['an honest one passes', {}, []],
    // 100 GB in 150 s are 667 MB/s: above 550, below 1212
    ['faster than the internal disk reads', { seconds: 150 }, ['impossible copy-above-ceiling']],
    // from memory only the connection counts: 100 GB in 80 s are 1250 MB/s, in 90 s 1111
    ['faster than the connection', { seconds: 80, source: 'memory' }, ['impossible copy-above-ceiling']],
    ['as fast as the connection lets it', { seconds: 90, source: 'memory' }, []],
    [
      'back, faster than the internal disk writes: 100 GB in 220 s are 455, 400 x 1.1 = 440',
      { seconds: 220, source: 'drive', target: 'internal' },
      ['impossible copy-above-ceiling']
    ],
    ['less than twice the memory, written', { GB: 30, seconds: 72, memoryGB: 16 }, ['impossible copy-in-memory']],
    ['twice the memory', { GB: 32, seconds: 77, memoryGB: 16 }, []],
    ['less than that, but stopped when it could be ejected', { GB: 30, seconds: 72, memoryGB: 16, flushed: true }, []],
    [
      'less than that, read',
      { GB: 30, seconds: 72, memoryGB: 16, source: 'drive', target: 'internal' },
      ['suspicious copy-from-memory']
    ],
    ['under ten seconds', { GB: 4, seconds: 9.9 }, ['suspicious copy-too-short']],
    [
      'faster than the same build’s own test: 417 against 350 x 1.1 = 385',
      { own: 350 },
      ['suspicious copy-faster-than-test']
    ],
    ['a rate that does not follow from size and time: 417, not 471', { MBps: 471 }, ['impossible copy-contradicts']],
    ['a rate that was rounded', { MBps: 420 }, []],
    [
      'a copy in which the drive took no part is not judged by it',
      { source: 'internal', target: 'network', seconds: 10 },
      []
    ]
  ])('%s', (_what, change, wanted) => expect(ids(change)).toEqual(wanted));

  it.each<[string, Partial<CopyClaim>, object]>([
    // 40 GB in 42 s are 952 MB/s; 1:42 makes 392
    ['a dropped minute: 0:42 for 1:42', { GB: 40, seconds: 42 }, { field: 'seconds', value: 102 }],
    // 800 gigabits are 100 GB
    ['bits for bytes', { GB: 800 }, { field: 'GB', value: 100 }],
    ['MB for GB', { GB: 100_000 }, { field: 'GB', value: 100 }],
    // 100 GB in 4 s; 4 minutes are 240 s
    ['minutes for seconds', { seconds: 4 }, { field: 'seconds', value: 240 }]
  ])('%s', (_what, change, meant) => expect(alarms(change)[0]?.meant).toMatchObject(meant));
  it('what is offered passes, whatever was typed', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 1e5, noNaN: true }),
        fc.double({ min: 1, max: 1e5, noNaN: true }),
        (GB, seconds) => {
          const first = alarms({ GB, seconds }).find(({ id }) => id === 'copy-above-ceiling');
          if (!first?.meant) return;
          expect(ids({ GB, seconds, [first.meant.field]: first.meant.value })).not.toContain(
            'impossible copy-above-ceiling'
          );
        }
      ),
      { seed: 16, numRuns: 500 }
    ));
  it.each([
    [{ one: 950, other: 475, times: 2 }, undefined],
    [{ one: 950, other: 475, times: 2.1 }, '2.00 times, not 2.1'],
    [{ one: 950, other: 475, percent: 100 }, undefined],
    // 950 is twice 475: 100 % more, while 475 is half of 950
    [{ one: 950, other: 475, percent: 50 }, '100 % more, not 50 %'],
    [{ one: 475, other: 950, percent: -50 }, undefined],
    [{ one: 475, other: 950, percent: -100 }, '50 % less']
  ])('%j', (ratio, says) =>
    says === undefined ? expect(checkRatio(ratio)).toBeUndefined() : expect(checkRatio(ratio)).toContain(says)
  );
});

describe('repeats', () => {
  it('the middle', () => {
    expect(median([3, 1, 2])).toBe(2);
    expect(median([4, 1, 3, 2])).toBe(2.5);
    expect(() => median([])).toThrow(RangeError);
  });
  // ln 90 = 4.4998, ln 100 = 4.6052, ln 110 = 4.7005: mean 4.60182 (99.67), s = 0.10039, 4.303 s / sqrt 3 = 0.24940: 77.7 to 127.9
  it('three of 90, 100 and 110 lie in 77.7 to 127.9 at 95 %', () => {
    const interval = intervalOf([90, 100, 110]);
    expect(interval?.mean).toBeCloseTo(99.67, 1);
    expect(interval?.low).toBeCloseTo(77.7, 0);
    expect(interval?.high).toBeCloseTo(127.9, 0);
  });
  it('one has no interval, and neither has what is not above 0', () => {
    expect(intervalOf([100])).toBeNull();
    expect(intervalOf([100, 0])).toBeNull();
    expect(() => studentT(0)).toThrow(RangeError);
  });
  // 3 % and 4 % are 5 % together: 2 / 1.05 = 1.905, 2 x 1.05 = 2.1
  it('twice, with its interval', () => {
    const { low, high, says } = ratioOf({ value: 200, error: 0.03 }, { value: 100, error: 0.04 }, 'before');
    expect([low, high]).toEqual([2 / 1.05, 2.1]);
    expect(says).toContain('2 times before');
    expect(says).toContain('“Exactly 2 times” lies inside');
  });
  it('a difference inside the error is none', () =>
    expect(ratioOf({ value: 103, error: 0.03 }, { value: 100, error: 0.04 }, 'before').says).toContain(
      'No difference'
    ));
  it('below 20 s no ratio is claimed', () => {
    expect(timedRatio({ GB: 10, seconds: 19.9 }, { GB: 10, seconds: 40 }, 'before')).toBeNull();
    expect(timedRatio({ GB: 10, seconds: 20 }, { GB: 10, seconds: 40 }, 'before')?.ratio).toBe(2);
  });
});

describe('a copy that fell off a cache', () => {
  // 100 GB at 1000 MB/s are 100 s, 300 GB at 500 are 600 s: 400 GB in 700 s
  it.each([
    ['the size of the cache', { fast: 1000, slow: 500 }],
    ['the rate after it', { fast: 1000, cliffGB: 100 }],
    ['the rate before it', { slow: 500, cliffGB: 100 }]
  ])('gives %s', (_what, known) => {
    const found = solveFallOff({ GB: 400, seconds: 700, ...known });
    expect(found.cliffGB.value).toBeCloseTo(100, 6);
    expect(found.fast.value).toBeCloseTo(1000, 6);
    expect(found.slow.value).toBeCloseTo(500, 6);
    for (const { low, value, high } of Object.values(found)) expect(low <= value && value <= high).toBe(true);
  });
  // 2 % of the slow rate alone: 400 GB at 510 are 784.3 s: (784.3 - 700) / (1/510 - 1/1000) = 87.7 GB
  it('says how far it may be off', () =>
    expect(solveFallOff({ GB: 400, seconds: 700, fast: 1000, slow: 500 }).cliffGB.low).toBeLessThan(88));
  it.each([
    ['too little is known', { GB: 400, seconds: 700, fast: 1000 }],
    ['faster than the fast rate all the way', { GB: 400, seconds: 300, fast: 1000, slow: 500 }],
    ['slower than the slow one', { GB: 400, seconds: 900, fast: 1000, slow: 500 }],
    ['a cache larger than the copy', { GB: 400, seconds: 700, fast: 1000, cliffGB: 500 }]
  ])('%s: that is said', (_what, copy) => expect(() => solveFallOff(copy)).toThrow(RangeError));
});
