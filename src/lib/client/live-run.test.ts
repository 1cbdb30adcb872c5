import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { LiveRun, type LiveState } from './live-run.svelte';

vi.mock('$app/navigation', () => ({ invalidateAll: () => Promise.resolve(), goto: () => Promise.resolve() }));

/** A stand-in for the browser's event source, driven by the test. */
class FakeSource {
  static readonly CLOSED = 2;
  static all: FakeSource[] = [];
  readyState = 1;
  onopen?: () => void;
  onerror?: () => void;
  readonly heard = new Map<string, (event: { data: string }) => void>();
  constructor(readonly url: string) {
    FakeSource.all.push(this);
  }
  addEventListener(event: string, listener: (event: { data: string }) => void): void {
    this.heard.set(event, listener);
  }
  close(): void {
    this.readyState = FakeSource.CLOSED;
  }
  samples(first: number, rates: number[]): void {
    const samples = { t: rates.map((_, i) => first + i + 1), MBps: rates };
    this.heard.get('samples')?.({ data: JSON.stringify({ first, samples }) });
  }
  state(change: Partial<LiveState>): void {
    const state = { state: 'running', sampled: 0, atS: 0, wantedS: 100, speed: 1, why: null, ...change };
    this.heard.get('state')?.({ data: JSON.stringify(state) });
  }
}
const source = () => FakeSource.all.at(-1) as FakeSource;

beforeEach(() => {
  FakeSource.all = [];
  vi.useFakeTimers();
  vi.stubGlobal('EventSource', FakeSource);
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('a run that goes on', () => {
  const begin = () => {
    const ended = vi.fn();
    const live = new LiveRun(ended);
    return { live, ended, stop: live.listen('/events') };
  };
  it('is drawn as its samples come, at most twice a second', () => {
    const { live } = begin();
    source().samples(0, [100, 200]);
    expect(live.drawn.MBps).toEqual([100, 200]);
    source().samples(2, [300]);
    expect(live.drawn.MBps).toEqual([100, 200]);
    vi.advanceTimersByTime(600);
    expect(live.drawn.MBps).toEqual([100, 200, 300]);
  });
  it('what is told twice is taken once', () => {
    const { live } = begin();
    source().samples(0, [1, 2, 3]);
    source().samples(1, [2, 3, 4]);
    vi.advanceTimersByTime(600);
    expect(live.drawn.MBps).toEqual([1, 2, 3, 4]);
  });
  it('says once that it has ended, and draws the last of it', () => {
    const { live, ended } = begin();
    source().state({});
    source().samples(0, [1]);
    source().samples(1, [2]);
    source().state({ state: 'done' });
    expect(live.drawn.MBps).toEqual([1, 2]);
    expect(ended).toHaveBeenCalledOnce();
    expect(source().readyState).toBe(FakeSource.CLOSED);
  });
  it('a server that answers with an error is asked again, for what comes after the last sample', () => {
    const { live } = begin();
    source().samples(0, [1, 2, 3]);
    source().readyState = FakeSource.CLOSED;
    source().onerror?.();
    expect(live.away).toBe(true);
    vi.advanceTimersByTime(2500);
    expect(FakeSource.all.map(({ url }) => url)).toEqual(['/events', '/events?after=3']);
    source().onopen?.();
    expect(live.away).toBe(false);
  });
  it('one that is only gone the browser asks again by itself', () => {
    const { live } = begin();
    source().readyState = 0;
    source().onerror?.();
    vi.advanceTimersByTime(5000);
    expect(live.away).toBe(true);
    expect(FakeSource.all).toHaveLength(1);
  });
  it('a page that was left asks nobody any more', () => {
    const { stop } = begin();
    source().readyState = FakeSource.CLOSED;
    source().onerror?.();
    stop();
    vi.advanceTimersByTime(5000);
    expect(FakeSource.all).toHaveLength(1);
  });
  it('taken up again it begins anew, without what the last listening said', () => {
    const { live, stop } = begin();
    source().samples(0, [1, 2]);
    source().state({ state: 'paused' });
    stop();
    live.listen('/events');
    expect(live.state).toBeNull();
    source().samples(0, [5]);
    vi.advanceTimersByTime(600);
    expect(live.drawn.MBps).toEqual([5]);
  });
});
