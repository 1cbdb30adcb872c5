import { describe, expect, it } from 'vitest';
import { rateChart, runInWords, seriesRows, timeUnit, warmthChart } from './run-chart';
import { bytesWords, takesWords } from './words';

const colours = { band: '#aaa', ink: '#111' };
// 120 s: a minute at 1000 MB/s, a minute at 500; the case from 30 to 42
const t = Array.from({ length: 120 }, (_, i) => i + 1);
const series = { t, MBps: t.map((s) => (s <= 60 ? 1000 : 500)), caseC: t.map((s) => 30 + s / 10) };

describe('the chart of a run', () => {
  it.each([
    [60, 's'],
    [179, 's'],
    [180, 'min'],
    [4 * 3600 - 1, 'min'],
    [4 * 3600, 'h']
  ])('%d s are drawn in %s', (seconds, unit) => expect(timeUnit(seconds).unit).toBe(unit));
  it('has units on both axes, and the forecast behind the rate', () => {
    const { traces, layout } = rateChart(series, { low: 900, typical: 1000, high: 1070 }, colours);
    expect(layout.xaxis?.title).toEqual({ text: 'time, s' });
    expect(layout.yaxis?.title).toEqual({ text: 'MB/s' });
    expect(layout.shapes?.[0]).toMatchObject({ y0: 900, y1: 1070, layer: 'below' });
    expect(traces[0]).toMatchObject({ x: t, y: series.MBps });
  });
  it('of minutes has minutes', () => {
    const long = { t: t.map((s) => s * 10), MBps: series.MBps };
    expect(rateChart(long, null, colours).traces[0]).toMatchObject({ x: long.t.map((s) => s / 60) });
    expect(rateChart(long, null, colours).layout.shapes).toEqual([]);
  });
  it('shows the temperatures that there are', () => {
    expect(warmthChart(series, ['#1', '#2', '#3'])?.traces).toHaveLength(1);
    expect(warmthChart({ t, MBps: series.MBps }, [])).toBeNull();
  });
  it('says the same in a sentence', () => {
    expect(runInWords(series, null)).toBe('2:00\u202fmin, from 500 to 1000 MB/s; case at most 42 °C');
    expect(runInWords({ t: [], MBps: [] }, null)).toBe('Nothing sampled yet.');
  });
});

describe('a run as a table', () => {
  // Four parts of 30 s: two at 1000, two at 500
  it('has means, ends and the warmth at the end of each part', () =>
    expect(seriesRows(series, 4)).toEqual([
      { fromS: 0, toS: 30, mean: 1000, low: 1000, high: 1000, caseC: 33 },
      { fromS: 30, toS: 60, mean: 1000, low: 1000, high: 1000, caseC: 36 },
      { fromS: 60, toS: 90, mean: 500, low: 500, high: 500, caseC: 39 },
      { fromS: 90, toS: 120, mean: 500, low: 500, high: 500, caseC: 42 }
    ]));
  it('weighs by time: 10 s at 100 and 30 s at 500 MB/s are 400 in the mean', () =>
    expect(seriesRows({ t: [10, 40], MBps: [100, 500] }, 1)).toEqual([
      { fromS: 0, toS: 40, mean: 400, low: 100, high: 500 }
    ]));
  it('leaves out parts without a sample', () =>
    expect(seriesRows({ t: [1, 100], MBps: [5, 5] }, 4).map(({ toS }) => toS)).toEqual([25, 100]));
  it('of nothing is empty', () => expect(seriesRows({ t: [], MBps: [] })).toEqual([]));
});

describe('what it costs in words', () => {
  it.each([
    [{ low: 900, typical: 900, high: 900 }, '15:00\u202fmin'],
    [{ low: 60, typical: 90, high: 120 }, '1:00\u202fmin to 2:00\u202fmin'],
    [null, 'nobody can say']
  ])('%j', (seconds, words) => expect(takesWords(seconds)).toBe(words));
  it.each([
    [25, '25\u202fGB'],
    [{ low: 25, typical: 25, high: 25 }, '25\u202fGB'],
    [null, 'nobody can say']
  ])('%j GB', (GB, words) => expect(bytesWords(GB)).toBe(words));
});
