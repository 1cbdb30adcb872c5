import type { Seconds } from '../quantities/measures.ts';

/**
 * A stopwatch as data, so that it runs on across a reload, another page, or a lid that is closed. Moments are by the clock of the day, ms; where
 * the page itself has been open since the start its own steady count stands beside it, and tells whether the clock was set.
 */
export type Watch = {
  startedAt: number;
  /** The steady count of the page that started it, and which page that was. */
  steadyAt: number;
  page: string;
  laps: Lap[];
  stoppedAt?: number | undefined;
  stoppedSteady?: number | undefined;
};
export type Lap = { at: number; steady: number };
/** What a page reads its clocks as. */
export type Clocks = { now: number; steady: number; page: string };

/** By so much the two clocks may differ before anybody is told, s. */
const CLOCKS_DIFFER_S = 2;
/** Longer than this nobody watches a copy, s. */
const FORGOTTEN_S = 24 * 3600;

/**
 * Starts a watch.
 * @example startWatch({ now: 5, steady: 1, page: 'a' }).startedAt // 5
 */
export const startWatch = ({ now, steady, page }: Clocks): Watch => ({
  startedAt: now,
  steadyAt: steady,
  page,
  laps: []
});

/**
 * Stops a watch that runs; one that has stopped stays as it is.
 * @example stopWatch(startWatch({ now: 0, steady: 0, page: 'a' }), { now: 9, steady: 9, page: 'a' }).stoppedAt // 9
 */
export const stopWatch = (watch: Watch, { now, steady, page }: Clocks): Watch =>
  watch.stoppedAt !== undefined
    ? watch
    : { ...watch, stoppedAt: now, ...(page === watch.page ? { stoppedSteady: steady } : {}) };

/**
 * Takes a lap: the end of one copy and the beginning of the next.
 * @example lapWatch(startWatch({ now: 0, steady: 0, page: 'a' }), { now: 9, steady: 9, page: 'a' }).laps.length // 1
 */
export const lapWatch = (watch: Watch, { now, steady }: Clocks): Watch =>
  watch.stoppedAt !== undefined ? watch : { ...watch, laps: [...watch.laps, { at: now, steady }] };

export type WatchReading = {
  seconds: Seconds;
  /** Each lap by itself, s, the last one up to now or to the stop. */
  laps: Seconds[];
  /** What is odd about the time, in a sentence; nothing where all is well. */
  warning: string | null;
  /** Whether a rate may be worked out of it. */
  usable: boolean;
};

/**
 * Reads a watch. Where page and start are the same, its steady count decides: it does not care for a clock that is set. A clock that went on by more
 * than the page counted means a computer that slept, or one whose clock was set forward: then nobody can tell.
 * @example readWatch(startWatch({ now: 0, steady: 0, page: 'a' }), { now: 5000, steady: 5000, page: 'a' }).seconds // 5
 */
export function readWatch(watch: Watch, clocks: Clocks): WatchReading {
  const until = watch.stoppedAt ?? clocks.now;
  const byClock = (until - watch.startedAt) / 1000;
  const steadyUntil =
    watch.stoppedAt === undefined ? (clocks.page === watch.page ? clocks.steady : undefined) : watch.stoppedSteady;
  const bySteady = steadyUntil === undefined ? undefined : (steadyUntil - watch.steadyAt) / 1000;
  const { seconds, warning, usable } = judged(byClock, bySteady);
  const marks = [watch.startedAt, ...watch.laps.map(({ at }) => at), until];
  const laps =
    watch.laps.length === 0 ? [] : marks.slice(1).map((at, i) => Math.max(0, (at - (marks[i] as number)) / 1000));
  return { seconds, laps, warning, usable };
}

function judged(byClock: Seconds, bySteady: Seconds | undefined): Omit<WatchReading, 'laps'> {
  if (byClock < 0 && bySteady === undefined)
    return {
      seconds: 0,
      usable: false,
      warning: 'The clock of this computer was set back meanwhile: this time cannot be told. Start anew.'
    };
  if (bySteady !== undefined && Math.abs(byClock - bySteady) > CLOCKS_DIFFER_S) {
    const slept = byClock > bySteady;
    return slept
      ? {
          seconds: byClock,
          usable: false,
          warning: `The computer slept, or its clock was set, for ${Math.round(byClock - bySteady)} s meanwhile: a copy stands still then. Do it again, with sleep switched off.`
        }
      : {
          seconds: bySteady,
          usable: true,
          warning: `The clock was set back by ${Math.round(bySteady - byClock)} s meanwhile; this page counted on by itself.`
        };
  }
  if (byClock > FORGOTTEN_S)
    return {
      seconds: byClock,
      usable: false,
      warning: `It has been running for ${Math.floor(byClock / 86_400)} ${byClock < 172_800 ? 'day' : 'days'}: was it forgotten? No rate is worked out of it.`
    };
  return { seconds: Math.max(0, bySteady ?? byClock), usable: true, warning: null };
}
