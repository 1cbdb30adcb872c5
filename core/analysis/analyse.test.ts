import { describe, expect, it } from 'vitest';
import { seeded } from '../quantities/random';
import type { Series } from '../series/series';
import { analyse } from './analyse';
import { analysisSchema } from './report';

/** A series of one sample a second with a scatter of so many percent. */
function series(seconds: number, rate: (s: number) => number, percent = 1): Series {
  const random = seeded(seconds);
  const t = Array.from({ length: seconds }, (_, i) => i + 1);
  return { t, MBps: t.map((s) => rate(s) * (1 + ((random() + random() - 1) * percent * 2.4) / 100)) };
}
const write = (of: Series, more: object = {}) => analyse({ series: of, direction: 'write', ...more });

describe('a full cache', () => {
  const fall = series(600, (s) => (s <= 200 ? 3000 : 1500));

  it('is found where it is, with what can be known of its size', () => {
    const { cliff, steps, plateau, throttle, irregular } = write(fall);
    expect(steps).toHaveLength(1);
    expect(Math.abs((steps[0]?.atS ?? 0) - 200)).toBeLessThanOrEqual(2);
    // 200 s at 3000 MB/s are 600 GB; what may have drained at 1500 of 3000 MB/s is half of it.
    expect(cliff?.cacheGB.high).toBeCloseTo(600, -1);
    expect(cliff?.cacheGB.low).toBeCloseTo(300, -1);
    expect(plateau.map(({ MBps }) => Math.round(MBps / 100))).toEqual([30, 15]);
    expect(throttle).toBeNull();
    expect(irregular).toBeNull();
  });

  it('is not called one without a temperature: a throttle looks the same', () => {
    expect(write(fall).steps[0]?.kind).toBe('cannot-tell');
    expect(write({ ...fall, controllerC: fall.t.map(() => 45) }).steps[0]?.kind).toBe('cache');
  });

  it('is found at the very beginning of a series that is read in blocks too', () => {
    // 60 s at 3300 MB/s are 198 GB; 50 000 samples are read in blocks of 25.
    const { steps, plateau } = write(series(50_000, (s) => (s <= 60 ? 3300 : 1500)));
    expect(steps).toHaveLength(1);
    expect(steps[0]?.atS).toBe(60);
    expect(steps[0]?.atGB).toBeCloseTo(198, 0);
    expect(plateau.map(({ fromS }) => fromS)).toEqual([0, 60]);
  });

  it('is no cliff of what is read', () => {
    expect(analyse({ series: fall, direction: 'read' }).cliff).toBeNull();
  });
});

describe('a throttle', () => {
  it('is told from a cache by the temperature at which it comes and stays', () => {
    const limit = series(900, (s) => (s <= 300 ? 1000 : 500));
    const warm = limit.t.map((s) => Math.round(Math.min(80, 40 + 40 * (s / 300))));
    const { steps, throttle, cliff } = write({ ...limit, controllerC: warm });
    expect(steps[0]?.kind).toBe('throttle');
    expect(throttle).toMatchObject({ form: 'plateau', atC: 80 });
    expect(cliff).toBeNull();
  });

  it('that comes and goes is a saw-tooth with its period, and no cliff', () => {
    // From 100 s on every 40 s: 20 s at half.
    const { throttle, cliff, steps } = write(series(600, (s) => (s > 100 && (s - 100) % 40 < 20 ? 500 : 1000)));
    expect(throttle?.form).toBe('saw-tooth');
    expect(throttle?.periodS).toBeCloseTo(40, 0);
    expect([throttle?.highMBps, throttle?.lowMBps].map((rate) => Math.round((rate ?? 0) / 100))).toEqual([10, 5]);
    expect(cliff).toBeNull();
    expect(steps).toEqual([]);
  });

  it('is none where the drive is cold: something else takes its turns', () => {
    const cold = series(600, (s) => (s > 100 && (s - 100) % 40 < 20 ? 500 : 1000));
    const { throttle, irregular } = write({ ...cold, controllerC: cold.t.map(() => 36) });
    expect(throttle).toBeNull();
    expect(irregular?.count).toBeGreaterThan(8);
  });
});

describe('what comes and goes', () => {
  it('dips at fixed times have a period and a depth', () => {
    const { dips, cliff } = write(series(600, (s) => (s % 50 < 5 ? 600 : 1000)));
    expect(dips?.periodS).toBeCloseTo(50, 0);
    expect(dips?.depth).toBeCloseTo(0.4, 1);
    expect(cliff).toBeNull();
  });

  it('stops are listed with when and for how long', () => {
    const { dropouts, steps } = write(series(300, (s) => ((s > 100 && s <= 104) || (s > 200 && s <= 201) ? 0 : 900)));
    expect(dropouts).toEqual([
      { atS: 100, forS: 4 },
      { atS: 200, forS: 1 }
    ]);
    expect(steps).toEqual([]);
  });

  it('a pause of twenty minutes is a stop, and what comes after it is the same level', () => {
    const before = series(120, () => 900);
    const after = before.t.map((t) => t + 1320);
    const { plateau, steps } = write({ t: [...before.t, ...after], MBps: [...before.MBps, ...before.MBps] });
    expect(steps).toEqual([]);
    expect(plateau).toHaveLength(1);
  });

  it('rounds between pauses are a loop, and no drop-outs', () => {
    // Three rounds of 40 s at 500 MB/s, 20 GB each, with 10 s in between.
    const { loops, dropouts } = write(series(150, (s) => ((s - 1) % 50 < 40 ? 500 : 0), 0.5));
    expect(loops).toHaveLength(3);
    expect(loops.map(({ MBps }) => Math.round(MBps / 10))).toEqual([50, 50, 50]);
    expect(dropouts).toEqual([]);
  });

  it('an unsteady start is measured', () => {
    const { start, cliff } = write(series(300, (s) => 1000 * (1 - 0.7 * Math.exp(-s / 8))));
    // Within 12 % once 0.7 exp(-s/8) < 0.12: after 8 ln(0.7 / 0.12) = 14.1 s
    expect(start.unsteadyS).toBeGreaterThan(10);
    expect(start.unsteadyS).toBeLessThan(20);
    expect(cliff).toBeNull();
  });
});

describe('a disk', () => {
  const whole = (weak: (p: number) => boolean): Series => {
    const made = series(800, (s) => (240 - 120 * (s / 800)) * (weak(s / 800) ? 0.2 : 1));
    return { ...made, positionFraction: made.t.map((s) => s / 800) };
  };

  it('that slows towards the inner edge is sound', () => {
    const { zone, cliff, steps } = analyse({ series: whole(() => false), direction: 'read' });
    expect(zone?.outerMBps).toBeCloseTo(240, -1);
    expect(zone?.innerMBps).toBeCloseTo(120, -1);
    expect(zone?.weak).toEqual([]);
    expect([cliff, steps]).toEqual([null, []]);
  });

  it('has its weak places found where they are', () => {
    const { zone } = analyse({ series: whole((p) => p > 0.4 && p < 0.41), direction: 'read' });
    expect(zone?.weak).toHaveLength(1);
    expect(zone?.weak[0]?.from).toBeGreaterThan(0.395);
    expect(zone?.weak[0]?.to).toBeLessThan(0.415);
  });
});

describe('what is no series', () => {
  it.each([
    ['two samples', [1, 2], [100, 100]],
    ['all zero', [1, 2, 3, 4, 5, 6, 7, 8, 9, 10], new Array(10).fill(0)],
    ['nothing', [], []]
  ])('of %s nothing is told, and nothing breaks', (_, t, MBps) => {
    const report = write({ t: [...t], MBps: [...MBps] as number[] });
    expect(report.enough).toBe(false);
    expect(analysisSchema.safeParse(report).success).toBe(true);
    expect([report.cliff, report.throttle, report.dips]).toEqual([null, null, null]);
  });

  it('all equal is one level without noise worth the name', () => {
    const { plateau, steps, interval95, stats } = write({
      t: series(60, () => 1).t,
      MBps: new Array(60).fill(500) as number[]
    });
    expect(plateau).toHaveLength(1);
    expect(steps).toEqual([]);
    expect(interval95?.low).toBeCloseTo(500, 6);
    expect(interval95?.high).toBeCloseTo(500, 6);
    expect(stats.noise).toBeLessThan(0.01);
  });

  it('samples that are none are left out and counted', () => {
    const made = series(200, () => 800);
    const MBps = made.MBps.map((rate, i) => (i === 10 ? NaN : i === 20 ? -5 : i === 30 ? Infinity : rate));
    const t = made.t.map((s, i) => (i === 40 ? 5 : s));
    const { stats, steps } = write({ t, MBps });
    expect(stats.refused).toBe(4);
    expect(stats.samples).toBe(196);
    expect(steps).toEqual([]);
  });

  it('a million samples and more are refused, a million are read', () => {
    const many = Array.from({ length: 1_000_001 }, (_, i) => i + 1);
    expect(() => write({ t: many, MBps: many })).toThrow(RangeError);
  });
});

describe('against the forecast', () => {
  it.each([
    [700, 'below'],
    [1000, 'inside'],
    [1300, 'above']
  ] as const)('%i MB/s is %s', (rate, where) => {
    const { against } = write(
      series(100, () => rate),
      { predicted: { low: 900, typical: 1000, high: 1070 } }
    );
    expect(against).toBe(where);
  });
});
