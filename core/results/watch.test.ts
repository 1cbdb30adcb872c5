import { describe, expect, it } from 'vitest';
import { lapWatch, readWatch, startWatch, stopWatch, type Clocks } from './watch';

const at = (s: number, change: Partial<Clocks> = {}): Clocks => ({
  now: 1_000_000 + s * 1000,
  steady: 500 + s * 1000,
  page: 'a',
  ...change
});
const begun = startWatch(at(0));

describe('a stopwatch', () => {
  it('runs, and stops', () => {
    expect(readWatch(begun, at(42.5)).seconds).toBe(42.5);
    expect(readWatch(stopWatch(begun, at(42.5)), at(99)).seconds).toBe(42.5);
    expect(stopWatch(stopWatch(begun, at(10)), at(20)).stoppedAt).toBe(at(10).now);
  });
  it('runs on across a reload: the page is another one, whose count began anew', () =>
    expect(readWatch(begun, at(60, { steady: 3, page: 'b' }))).toEqual({
      seconds: 60,
      laps: [],
      warning: null,
      usable: true
    }));
  // laps at 20 and 50, read at 55: 20, 30, 5
  it('takes laps', () =>
    expect(readWatch(lapWatch(lapWatch(begun, at(20)), at(50)), at(55)).laps).toEqual([20, 30, 5]));
  it('a clock that is set back in the middle does not matter to the page that counts', () => {
    const reading = readWatch(begun, at(60, { now: 1_000_000 + 60_000 - 3_600_000 }));
    expect([reading.seconds, reading.usable]).toEqual([60, true]);
    expect(reading.warning).toContain('set back by 3600 s');
  });
  it('set back across a reload nobody can tell', () =>
    expect(readWatch(begun, at(0, { now: 900_000, page: 'b' }))).toMatchObject({ seconds: 0, usable: false }));
  it('a lid that was closed for a minute is said, and no rate comes of it', () => {
    const reading = readWatch(begun, at(120, { steady: 500 + 60_000 }));
    expect([reading.seconds, reading.usable]).toEqual([120, false]);
    expect(reading.warning).toContain('slept');
  });
  it('left on for two days it is asked about', () => {
    const reading = readWatch(begun, at(2 * 86_400 + 5, { page: 'b' }));
    expect(reading.usable).toBe(false);
    expect(reading.warning).toContain('2 days');
  });
  it('a stop in another page than the start is by the clock', () =>
    expect(readWatch(stopWatch(begun, at(70, { steady: 9, page: 'b' })), at(99)).seconds).toBe(70));
});
