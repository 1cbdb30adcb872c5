import { PCIE_LANE_MBPS } from '../facts/buses.ts';
import { LINK_MODES } from '../facts/link-modes.ts';
import type { Band } from '../quantities/band.ts';
import { rate } from '../quantities/format.ts';
import type { PairResults } from '../results/run.ts';
import type { Best } from './best.ts';
import type { CauseCode } from './causes.ts';
import { densityOf, type Evidence } from './evidence.ts';

/** A rate that was measured, by what it is of. */
export type Figure = {
  of: 'read' | 'write' | 'random4kRead' | 'random4kWrite' | 'sustained' | 'copyIn' | 'copyOut';
  MBps: number;
  /** Of a series: the level before anything fell, which most causes leave as it is. */
  atFirst?: boolean;
  /** Of a write: how much was written for it in all, GB. More than the cache holds is written behind it. */
  writtenGB?: number;
};

type Rates = { read: number; write: number; post: number; r4: number; w4: number };
/** What a cause does to rates, for two places in its own range, 0 to 1. */
type Effect = (rates: Rates, best: Best, f: number, g: number) => Partial<Rates>;

const between = (low: number, high: number, at: number): number => low * (high / low) ** at;
const capped =
  (of: (best: Best) => Band): Effect =>
  ({ read, write, r4, w4 }, best, f) => {
    const { low, high } = of(best);
    const cap = between(low, high, f);
    return { read: Math.min(read, cap), write: Math.min(write, cap), r4: Math.min(r4, cap), w4: Math.min(w4, cap) };
  };
const both =
  (low: number, high: number): Effect =>
  ({ read, write, r4, w4 }, _best, f, g) => {
    const [a, b] = [between(low, high, f), between(low, high, g)];
    return { read: read * a, write: write * b, r4: r4 * a, w4: w4 * b };
  };
const lost = both(0.2, 0.95);

/** One sequential rate after another transport, or half the lanes: what is lost is never more than this makes of it. */
const EFFECTS: Partial<Record<CauseCode, Effect>> = {
  'usb2-fallback': capped(() => LINK_MODES.usb2.read),
  '5g-port-or-cable': capped(() => LINK_MODES['usb-5g'].read),
  '10g-fallback': capped(() => LINK_MODES['usb-10g'].read),
  'bulk-only': ({ read, write, r4, w4 }, best, f, g) => {
    const cap = best.bulkOnly ? between(best.bulkOnly.low, best.bulkOnly.high, f) : Infinity;
    const [large, small] = [between(0.7, 0.95, f), between(0.25, 0.7, g)];
    return { read: Math.min(read * large, cap), write: Math.min(write * large, cap), r4: r4 * small, w4: w4 * small };
  },
  'write-cache-off': ({ write, w4, post }, _best, f, g) => {
    const left = between(0.15, 0.4, f);
    return { write: write * left, post: Math.min(post, write * left), w4: w4 * between(0.3, 1, g) };
  },
  'slc-cliff': ({ write, post }, _best, f) => {
    // A test that runs into it holds some of the time before and some after.
    const before = f * 0.6;
    return { write: 1 / (before / write + (1 - before) / Math.min(post, write)) };
  },
  'thermal-throttle': both(0.25, 0.85),
  'pad-no-contact': both(0.2, 0.7),
  'two-lane-limit': ({ read, write }, best, f, g) => {
    // Half of the lanes that there are; or two of an older generation, where the bridge falls back in that too.
    const lane = f < 0.5 ? (best.lane ?? Infinity) : Math.min(best.lane ?? Infinity, PCIE_LANE_MBPS[3]);
    const cap = 2 * lane * between(0.82, 0.92, g);
    return { read: Math.min(read, cap), write: Math.min(write, cap) };
  },
  'host-write-ceiling': ({ write, post }, _best, f) => {
    const cap = write * between(0.38, 0.68, f);
    return { write: cap, post: Math.min(post, cap) };
  },
  'drive-nearly-full': ({ write, post, read }, _best, f, g) => ({
    write: between(Math.min(post, write) * 0.35, Math.min(write, post * 1.1), f),
    post: post * between(0.35, 0.85, g),
    read: read * between(0.9, 1, g)
  }),
  'smr-rewrite': (_rates, _best, f) => ({ write: between(10, 42, f), post: between(10, 42, f) }),
  'weak-surface': ({ read, write }, _best, f, g) => ({
    read: read * between(0.25, 0.95, f),
    write: write * between(0.6, 1, g)
  }),
  'background-load': both(0.4, 0.93),
  'encryption-cost': ({ read, write, r4, w4 }, _best, f, g) => {
    const [large, small] = [between(0.8, 0.96, f), between(0.5, 0.92, g)];
    return { read: read * large, write: write * large, r4: r4 * small, w4: w4 * small };
  },
  'unstable-link': lost,
  'no-power': lost,
  'bridge-firmware': lost,
  'not-seated': lost
};

/** Causes under which a run begins as fast as the chain can be. */
const BEGINS_WELL: readonly CauseCode[] = [
  'healthy',
  'slc-cliff',
  'host-disk-cliff',
  'thermal-throttle',
  'pad-no-contact',
  'drive-nearly-full',
  'smr-rewrite',
  'weak-surface',
  'background-load',
  'unstable-link',
  'no-power',
  'bridge-firmware',
  'not-seated'
];

/** What is left of the rate of a copy where the other side is the slower one. */
const OTHER_SIDE = { low: 0.12, high: 0.7 } as const;
/** Scatter of one figure around what makes it, as a share; of copies it is what their files cost. */
const SCATTER = {
  read: 0.035,
  write: 0.035,
  sustained: 0.1,
  random4kRead: 0.3,
  random4kWrite: 0.3,
  copyIn: 0.2,
  copyOut: 0.2
} as const;
/** How often a figure is beside everything that is known, over so many e-folds. */
const ODD = { share: 0.004, folds: 7 } as const;
/** Places in a band, and in the range of a cause, that are summed over: the middles of equal shares. */
const PLACES = [0.1, 0.26, 0.38, 0.5, 0.62, 0.74, 0.9] as const;
const RANGE = [0.07, 0.21, 0.36, 0.5, 0.64, 0.79, 0.93] as const;

/** A place in a band: 0 its low end, 0.5 the typical value, 1 its high end. */
const placeIn = (band: Band | null, at: number): number => {
  if (!band) return NaN;
  const { low, typical, high } = band;
  return at < 0.5 ? low + (typical - low) * at * 2 : typical + (high - typical) * (at - 0.5) * 2;
};

/** How much of a copy the other side lets through under a cause. */
const otherSide = (cause: CauseCode, g: number): number =>
  cause === 'host-disk-cliff' ? between(OTHER_SIDE.low, OTHER_SIDE.high, g) : 1;

/** What each figure then is. @param slow what the other side lets through of a copy */
function expected(of: Figure['of'], rates: Rates, best: Best, slow: number): number {
  switch (of) {
    case 'read':
      return rates.read;
    case 'write':
      return rates.write;
    case 'sustained':
      return rates.post;
    case 'random4kRead':
      return rates.r4;
    case 'random4kWrite':
      return rates.w4;
    case 'copyIn':
      return Math.min(rates.write, best.internalDisk?.readMBps ?? Infinity) * slow;
    case 'copyOut':
      return Math.min(rates.read, best.internalDisk?.writeMBps ?? Infinity) * slow;
  }
}

/** Figures of a disk are from different places on it. */
const DISK_SCATTER = { ...SCATTER, read: 0.1, write: 0.1 } as const;

/** Tells whether more was written for a figure than the cache holds. */
const isBeyondCache = ({ of, writtenGB }: Figure, { cliffGB }: Best): boolean =>
  of === 'write' && writtenGB !== undefined && cliffGB !== null && writtenGB > cliffGB.low * 0.8;

/** The density of all figures for one place in the band and one in the range of a cause. */
function densityOfAll(
  figures: readonly Figure[],
  { base, changed, best, slow, cause }: { base: Rates; changed: Rates; best: Best; slow: number; cause: CauseCode }
): number {
  const [well, sound] = [BEGINS_WELL.includes(cause), cause === 'healthy'];
  let product = 1;
  for (const figure of figures) {
    const { of, MBps, atFirst } = figure;
    const rates = atFirst && well ? base : changed;
    const density = (rate: number) => densityOf(Math.log(MBps / rate), best.disk ? DISK_SCATTER[of] : SCATTER[of]);
    const expectedRate = expected(of, rates, best, atFirst && well ? 1 : slow);
    // What nothing is forecast of speaks for no cause.
    if (!Number.isFinite(expectedRate)) continue;
    const one = density(expectedRate);
    // Half of it may be from before the cache was full, half from after.
    const may = !sound && isBeyondCache(figure, best) ? (one + density(Math.min(rates.post, expectedRate))) / 2 : one;
    product *= may * (1 - ODD.share) + ODD.share / ODD.folds;
  }
  return product;
}

/** Tells how likely figures are under a cause: summed over where in its band this chain lies, and over the range of the cause. */
function likelihood(figures: readonly Figure[], best: Best, cause: CauseCode): number {
  const effect = EFFECTS[cause];
  const ranges = effect || cause === 'host-disk-cliff' ? RANGE : [0.5];
  let sum = 0;
  for (const place of PLACES) {
    const base = ratesAt(best, place);
    for (const f of ranges)
      for (const g of ranges) {
        const changed = effect ? { ...base, ...effect(base, best, f, g) } : base;
        sum += densityOfAll(figures, { base, changed, best, slow: otherSide(cause, g), cause });
      }
  }
  const shows = cause === 'healthy' || effectShows(figures, best, cause);
  return (sum / (PLACES.length * ranges.length ** 2)) * (shows ? 1 : UNSEEN);
}

/** A cause that changes none of what was measured by as much as this is no answer to what was measured. */
const SHOWS = 0.05;
const UNSEEN = 0.08;

/** Tells whether a cause would show in any of the figures, at the strong end of its range. */
function effectShows(figures: readonly Figure[], best: Best, cause: CauseCode): boolean {
  const effect = EFFECTS[cause];
  const base = ratesAt(best, 0.5);
  return figures.some(({ of, atFirst }) => {
    // What comes later in a series shows there.
    if (atFirst && BEGINS_WELL.includes(cause)) return true;
    const sound = expected(of, base, best, 1);
    return [0.07, 0.93].some((at) => {
      const changed = effect ? { ...base, ...effect(base, best, at, at) } : base;
      return !(expected(of, changed, best, otherSide(cause, at)) > sound * (1 - SHOWS));
    });
  });
}

const ratesAt = (best: Best, place: number): Rates => ({
  read: placeIn(best.read, place),
  write: placeIn(best.write, place),
  post: placeIn(best.post, place),
  r4: placeIn(best.random4kRead, place),
  w4: placeIn(best.random4kWrite, place)
});

const NAMES: Record<Figure['of'], string> = {
  read: 'reads',
  write: 'writes',
  sustained: 'after the cache writes',
  random4kRead: 'reads small blocks',
  random4kWrite: 'writes small blocks',
  copyIn: 'is copied to',
  copyOut: 'is copied from'
};

/** The forecast beside a figure. */
function beside(of: Figure['of'], best: Best): string {
  const band = {
    read: best.read,
    write: best.write,
    sustained: best.post,
    random4kRead: best.random4kRead,
    random4kWrite: best.random4kWrite,
    copyIn: best.write,
    copyOut: best.read
  }[of];
  return band ? ` (the chain can do ${rate(band.low)} to ${rate(band.high)})` : '';
}

/**
 * Makes evidence of rates, all together: the place of a chain in its band is the same for each of them.
 * @param figures in MB/s, each above 0
 * @returns nothing where there are none
 */
export function figuresEvidence(figures: readonly Figure[], best: Best): Evidence[] {
  const usable = figures.filter(({ MBps }) => MBps > 0);
  if (usable.length === 0 || best.mode === null) return [];
  const known = new Map<CauseCode, number>();
  const words = usable.map(
    ({ of, MBps, atFirst }) => `${NAMES[of]} at ${rate(MBps)} MB/s${atFirst ? ' at first' : ''}${beside(of, best)}`
  );
  return [
    {
      code: 'figures',
      says: `It ${words.join(', ')}.`,
      given: (cause) => {
        const had = known.get(cause);
        if (had !== undefined) return had;
        const value = likelihood(usable, best, cause);
        known.set(cause, value);
        return value;
      }
    }
  ];
}

/** Figures of results, by what each is of. */
const OF_RESULT = {
  readMBps: 'read',
  writeMBps: 'write',
  sustainedWriteMBps: 'sustained',
  random4kReadMBps: 'random4kRead',
  random4kWriteMBps: 'random4kWrite',
  copyInMBps: 'copyIn',
  copyOutMBps: 'copyOut'
} as const satisfies Partial<Record<keyof PairResults, Figure['of']>>;

/** Lists the rates of results, as figures of the chain. */
export const figuresOfResults = (results: PairResults): Figure[] =>
  (Object.keys(OF_RESULT) as (keyof typeof OF_RESULT)[]).flatMap((field): Figure[] => {
    const [of, MBps] = [OF_RESULT[field], results[field]];
    return MBps !== undefined && MBps > 0 ? [{ of, MBps }] : [];
  });
