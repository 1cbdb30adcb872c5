import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fillDrive } from '../parts/fill/drive';
import { aDrive } from '../../tests/parts';
import { diskRateAt, zoneTime } from './disk';
import { enduranceYears } from './endurance';
import { cliffAfter, forecastCache } from './flash-cache';
import { randomRate } from './random';

describe('where the write cache ends', () => {
  it.each([
    // fixed, no drain: all of the cache. 200 / (1 - 0) = 200
    ['fixed', 200, 1000, 3, 1000, 500, 0, 200],
    // fixed, drains at a fifth of the ingress: 200 / (1 - 200/1000) = 250
    ['fixed', 200, 1000, 3, 1000, 500, 200, 250],
    // dynamic TLC, 1000 GB free, no drain, large cap: W = (1000 - W)/3 -> 4W = 1000 -> 250
    ['dynamic', 9999, 1000, 3, 1000, 500, 0, 250],
    // dynamic QLC: W = (1000 - W)/4 -> 5W = 1000 -> 200
    ['dynamic', 9999, 1000, 4, 1000, 500, 0, 200],
    // dynamic TLC with drain 0.25 of ingress: 0.75 W = (1000 - W)/3 -> 2.25 W = 1000 - W -> W = 307.69
    ['dynamic', 9999, 1000, 3, 1000, 500, 250, 1000 / 3.25],
    // the cap decides: 100 / (1 - 0.5) = 200, below (1000)/(1.5 + 1) = 400
    ['dynamic', 100, 1000, 3, 1000, 400, 500, 200]
  ] as const)('%s cache of %d GB, %d GB free', (kind, cache, free, bits, ingress, native, drain, expected) => {
    expect(cliffAfter({ kind, cacheGB: cache, freeGB: free, bits: bits }, ingress, native, drain)).toBeCloseTo(
      expected,
      9
    );
  });

  it('there is none where the native rate keeps up, or the cache drains as fast as it fills', () => {
    expect(cliffAfter({ kind: 'fixed', cacheGB: 200, freeGB: 1000, bits: 3 }, 1000, 1000, 0)).toBeNull();
    expect(cliffAfter({ kind: 'fixed', cacheGB: 200, freeGB: 1000, bits: 3 }, 1000, 1500, 0)).toBeNull();
    expect(cliffAfter({ kind: 'fixed', cacheGB: 200, freeGB: 1000, bits: 3 }, 1000, 500, 1000)).toBeNull();
  });

  it('refuses negative figures', () => {
    expect(() => cliffAfter({ kind: 'fixed', cacheGB: -1, freeGB: 1, bits: 3 }, 1, 0, 0)).toThrow(RangeError);
  });

  it('more drain never brings the cliff nearer; less free space never moves it out', () => {
    const size = fc.double({ min: 1, max: 2000, noNaN: true });
    fc.assert(
      fc.property(
        size,
        size,
        fc.double({ min: 0, max: 0.45, noNaN: true }),
        fc.constantFrom(2, 3, 4),
        (cache, free, share, bits) => {
          const at = (f: number, drain: number) =>
            cliffAfter({ kind: 'dynamic', cacheGB: cache, freeGB: f, bits: bits }, 1000, 500, drain)!;
          expect(at(free, share * 1000)).toBeGreaterThanOrEqual(at(free, 0) - 1e-9);
          expect(at(free / 2, 0)).toBeLessThanOrEqual(at(free, 0) + 1e-9);
        }
      ),
      { seed: 7, numRuns: 300 }
    );
  });

  it('the same drive that collapses behind a tunnel is steady behind 10 Gb/s', () => {
    const drive = fillDrive(aDrive()); // post cache 1500 x 0.85 - 1 - 1.1 = 1275 - 1500 - 1650
    const fast = forecastCache(drive, { low: 2800, typical: 3400, high: 3900 }, 2000);
    expect(fast.typicalCliff).toBe(true);
    // fixed cache, nothing drained: at the cache's own size, 0.9 of it in the bad case
    expect(fast.cliffAtGB).toEqual({ low: 180, typical: 200, high: 200 });
    expect(fast.sustained).toEqual({ low: 1275, typical: 1500, high: 1500 * 1.1 });
    const slow = forecastCache(drive, { low: 900, typical: 1000, high: 1070 }, 2000);
    expect(slow.cliffAtGB).toBeNull();
    expect(slow.sustained).toEqual({ low: 900, typical: 1000, high: 1070 });
  });
});

describe('random 4 KiB at queue depth 1', () => {
  it('NVMe with DRAM through a tunnel: 4096 / (60 + 11) = 57.69 MB/s read', () => {
    const read = randomRate(fillDrive(aDrive()), 'usb4-40g', true, 'read');
    expect(read.typical).toBeCloseTo(57.69, 2);
    expect(read.low).toBeCloseTo(4096 / (75 + 15), 9); // 45.51
    expect(read.high).toBeCloseTo(4096 / (45 + 8), 9); // 77.28
  });

  it('bulk-only is worse than UAS: 4096 / (60 + 65) = 32.77 against 4096 / (60 + 120) = 22.76', () => {
    const drive = fillDrive(aDrive());
    expect(randomRate(drive, 'usb-10g', true, 'read').typical).toBeCloseTo(32.768, 3);
    expect(randomRate(drive, 'usb-10g', false, 'read').typical).toBeCloseTo(22.756, 3);
  });

  it('a hard disk: seek 8 to 13 ms and half a turn of 4.17 ms at 7200 rpm lands in 0.22 to 0.34 MB/s', () => {
    const disk = fillDrive({ kind: 'drive', name: 'disk', media: 'hdd', formFactor: '3.5in', capacityTB: 8 });
    const read = randomRate(disk, 'usb-5g', true, 'read');
    // 4096 B / (13 ms + 4.17 ms + 0.09 ms) = 0.237; 4096 / (8 + 4.17 + 0.045) = 0.335
    expect(read.low).toBeCloseTo(0.237, 3);
    expect(read.high).toBeCloseTo(0.335, 3);
  });

  it('without DRAM 10 - 20 - 40 µs more behind USB: 4096 / (60 + 20 + 65) = 28.25; a tunnel lends the host’s memory: 57.69', () => {
    const drive = fillDrive(aDrive({ flash: { cell: 'qlc', dram: false } }));
    expect(randomRate(drive, 'usb-10g', true, 'read').typical).toBeCloseTo(28.248, 2);
    expect(randomRate(drive, 'usb4-40g', true, 'read').typical).toBeCloseTo(4096 / 71, 9);
  });

  it('a write goes through the system’s stack: 4096 / (22 + 11 + 35) = 60.2, from 4096 / 95 to 4096 / 43 in a tunnel', () => {
    const { low, typical, high } = randomRate(fillDrive(aDrive()), 'usb4-40g', true, 'write');
    expect([low, typical, high].map((v) => Math.round(v * 10) / 10)).toEqual([43.1, 60.2, 95.3]);
  });

  it('a hard disk takes a write into its own cache: 0.8 to 2 MB/s', () => {
    const disk = fillDrive({ kind: 'drive', name: 'disk', media: 'hdd', formFactor: '3.5in', capacityTB: 8 });
    const { low, typical, high } = randomRate(disk, 'usb-5g', true, 'write');
    expect(low).toBeGreaterThan(0.75);
    expect(typical).toBeCloseTo(1.15, 1);
    expect(high).toBeLessThan(2.05);
  });
});

describe('hard disks', () => {
  it('is v_outer at the edge, v_inner at the hub, and sqrt(1 - (1 - k²)/2) half way', () => {
    expect(diskRateAt(0, 200, 100)).toBe(200);
    expect(diskRateAt(1, 200, 100)).toBeCloseTo(100, 9);
    expect(diskRateAt(0.5, 200, 100)).toBeCloseTo(200 * Math.sqrt(1 - 0.5 * 0.75), 9); // 158.11
  });

  it('one pass takes 2C/(v_outer + v_inner): the same as summing dx / v(x)', () => {
    // 8 TB at 246 and 118: 2 x 8e6 MB / 364 = 43956 s
    const pass = zoneTime(8000, 0, { capacityGB: 8000, outer: 246, inner: 118 }, Infinity);
    expect(pass).toBeCloseTo(43_956, 0);
    const n = 20_000;
    let sum = 0;
    for (let i = 0; i < n; i++) sum += 8e6 / n / diskRateAt((i + 0.5) / n, 246, 118);
    expect(sum).toBeCloseTo(pass, 0);
  });

  it('refuses places off the disk and impossible edges', () => {
    expect(() => diskRateAt(-0.1, 200, 100)).toThrow(RangeError);
    expect(() => diskRateAt(0.5, 100, 200)).toThrow(RangeError);
  });
});

describe('the time a disk takes for a part of itself', () => {
  // 200 MB/s outside, 100 inside: k = 0.5, 1 - k^2 = 0.75, s(x) = sqrt(1 - 0.75 x).
  it('the whole disk is one pass: 2 x 4 000 000 / 300 = 26 666.7 s', () =>
    expect(zoneTime(4000, 0, { capacityGB: 4000, outer: 200, inner: 100 }, Infinity)).toBeCloseTo(26_666.667, 2));
  it('the outer half: 2 C (1 - s(0.5)) / (200 x 0.75) = 8 000 000 x (1 - 0.790569) / 150 = 11 169.6 s', () =>
    expect(zoneTime(2000, 0, { capacityGB: 4000, outer: 200, inner: 100 }, Infinity)).toBeCloseTo(11169.64, 1));
  it('behind a link of 160 MB/s the disk is slower from (1 - 0.64) / 0.75 = 0.48 on: 1920 GB at 160, then 80 GB from s = 0.8', () =>
    // 1 920 000 / 160 = 12 000 s; 8 000 000 x (0.8 - 0.790569) / 150 = 502.9 s
    expect(zoneTime(2000, 0, { capacityGB: 4000, outer: 200, inner: 100 }, 160)).toBeCloseTo(12502.97, 1));
  it('what does not fit goes on at the inner rate, and a slow link is the only limit', () => {
    expect(zoneTime(1100, 0.75, { capacityGB: 4000, outer: 200, inner: 100 }, Infinity)).toBeCloseTo(
      zoneTime(1000, 0.75, { capacityGB: 4000, outer: 200, inner: 100 }, Infinity) + 1000,
      6
    );
    expect(zoneTime(380, 0.3, { capacityGB: 4000, outer: 200, inner: 100 }, 38)).toBeCloseTo(10_000, 6);
  });
});

describe('endurance', () => {
  it('600 TBW at 100 GB a day, sequential: 600 000 / (100 x 365 x 0.6) = 27.4 years', () => {
    expect(enduranceYears(600, 100, 'sequential')).toBeCloseTo(27.397, 3);
    expect(enduranceYears(600, 100, 'smallRandom')).toBeCloseTo(8.219, 3);
    expect(enduranceYears(600, 0, 'mixed')).toBe(Infinity);
  });
});
