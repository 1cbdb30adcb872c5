import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { packSeries, unpackSeries } from './pack';
import { reduceSeries } from './reduce';
import { movedGB, seriesSchema, sliceSeries, type Series } from './series';
import { seriesCsv } from './table';

describe('a series', () => {
  const paths = (value: unknown) => seriesSchema.safeParse(value).error?.issues.map(({ path }) => path.join('.')) ?? [];
  it.each<[string, unknown, string[]]>([
    ['is taken as it is', { t: [1, 2], MBps: [5, 6] }, []],
    ['may be one sample', { t: [0], MBps: [0] }, []],
    ['without a sample', { t: [], MBps: [] }, ['t']],
    ['goes back in time', { t: [1, 3, 2], MBps: [1, 1, 1] }, ['t.2']],
    ['stands still', { t: [1, 1], MBps: [1, 1] }, ['t.1']],
    ['has a column that is shorter', { t: [1, 2], MBps: [1, 2], caseC: [30] }, ['caseC']],
    ['has a negative rate', { t: [1], MBps: [-1] }, ['MBps.0']],
    ['has no number in it', { t: [1], MBps: [NaN] }, ['MBps.0']],
    ['has an unknown column', { t: [1], MBps: [1], fan: [1] }, ['']]
  ])('%s', (_what, series, wanted) => expect(paths(series)).toEqual(wanted));

  // 10 s at 100 MB/s are 1 GB, the next 10 s at 300 MB/s are 3 GB
  it('moves what its rates add up to', () => expect(movedGB({ t: [10, 20], MBps: [100, 300] })).toBe(4));
  it('is cut with all its columns', () =>
    expect(sliceSeries({ t: [1, 2, 3], MBps: [5, 6, 7], caseC: [30, 31, 32] }, 1, 2)).toEqual({
      t: [2],
      MBps: [6],
      caseC: [31]
    }));
});

const someSeries = fc
  .array(
    fc.record({
      step: fc.integer({ min: 1, max: 90_000 }),
      rate: fc.integer({ min: 0, max: 8_000_000 }),
      caseC: fc.integer({ min: -20_000, max: 120_000 })
    }),
    { minLength: 1, maxLength: 400 }
  )
  .map((samples): Series => {
    let at = 0;
    return {
      t: samples.map(({ step }) => (at += step) / 1000),
      MBps: samples.map(({ rate }) => rate / 1000),
      caseC: samples.map(({ caseC }) => caseC / 1000)
    };
  });

describe('packed', () => {
  it('comes back exactly where its values are whole steps', () =>
    fc.assert(
      fc.property(someSeries, (series) => {
        expect(unpackSeries(packSeries(series))).toEqual(series);
      }),
      { seed: 16, numRuns: 300 }
    ));
  it('any other value is off by half a step at most: 0.0005 MB/s', () => {
    const MBps = [1 / 3, 2 / 3, 1234.56789];
    const back = unpackSeries(packSeries({ t: [1, 2, 3], MBps })).MBps;
    for (const [i, value] of back.entries())
      expect(Math.abs(value - (MBps[i] as number))).toBeLessThanOrEqual(0.0005001);
  });
  // A steady second and a rate that wanders by a few MB/s: 2 bytes for 1000 ms, 2 for up to 8 MB/s either way; 3 columns of 8 bytes are 24.
  it('takes a fraction of the bytes of plain numbers', () => {
    const t = Array.from({ length: 5000 }, (_, i) => i + 1);
    const MBps = t.map((s) => 950 + (s % 7));
    expect(packSeries({ t, MBps }).length).toBeLessThan(5000 * 5);
  });
  it.each([
    ['nothing', []],
    ['something else', [1, 2, 3, 4]],
    ['a series that was cut', [...packSeries({ t: [1, 2, 3], MBps: [9, 9, 9] }).slice(0, -1)]],
    ['a length beyond all bounds', [0x61, 0x73, 0x31, 0xff, 0xff, 0xff, 0xff, 0x7f, 3]],
    ['a number that never ends', [0x61, 0x73, 0x31, ...Array.from({ length: 40 }, () => 0xff)]]
  ])('%s is refused', (_what, bytes) => expect(() => unpackSeries(Uint8Array.from(bytes))).toThrow(RangeError));
});

describe('reduced', () => {
  it('keeps the highest and the lowest of every stretch, and both ends; all it shows was measured', () =>
    fc.assert(
      fc.property(someSeries, fc.integer({ min: 8, max: 100 }), (series, points) => {
        const reduced = reduceSeries(series, points);
        const were = new Map(series.t.map((t, i) => [t, series.MBps[i]]));
        for (const [i, t] of reduced.t.entries()) expect(were.get(t)).toBe(reduced.MBps[i]);
        expect(Math.max(...reduced.MBps)).toBe(Math.max(...series.MBps));
        expect(Math.min(...reduced.MBps)).toBe(Math.min(...series.MBps));
        expect([reduced.t[0], reduced.t.at(-1)]).toEqual([series.t[0], series.t.at(-1)]);
        expect(reduced.t.length).toBeLessThanOrEqual(
          Math.max(series.t.length > points ? points * 1.2 + 8 : series.t.length, 8)
        );
      }),
      { seed: 16, numRuns: 300 }
    ));
  it('one dip of one second in a million stays, and one peak', () => {
    const t = Array.from({ length: 1_000_000 }, (_, i) => i + 1);
    const MBps = new Array<number>(1_000_000).fill(950);
    MBps[123_456] = 3;
    MBps[876_543] = 1200;
    const reduced = reduceSeries({ t, MBps }, 800);
    expect(reduced.t).toContain(123_457);
    expect(reduced.t).toContain(876_544);
    expect(reduced.t.length).toBeLessThan(820);
  });
  it('a shorter one is left as it is', () => {
    const series = { t: [1, 2], MBps: [1, 2] };
    expect(reduceSeries(series, 8)).toBe(series);
  });
  it('fewer than 8 points are refused', () => expect(() => reduceSeries({ t: [1], MBps: [1] }, 7)).toThrow(RangeError));
});

describe('as CSV', () => {
  it('has a unit in every head, and says that it is simulated in every line', () =>
    expect(seriesCsv({ t: [1, 2], MBps: [950, 951.5], caseC: [31, 31.2] }, true).split('\r\n')).toEqual([
      '"Time, s","Rate, MB/s","Case, °C",Source',
      '1,950,31,simulated',
      '2,951.5,31.2,simulated',
      ''
    ]));
});
