import type { Band } from '../quantities/band.ts';
import { rate } from '../quantities/format.ts';
import type { PairResults } from '../results/run.ts';
import type { Best } from './best.ts';
import type { CauseCode } from './causes.ts';
import { BEGINS_WELL, EFFECTS, type RateChange, type RateName, type Rates } from './effects.ts';
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

/** Which rates each figure follows from, the one that it is of first. */
const FOLLOWS: Record<Figure['of'], readonly RateName[]> = {
  read: ['read'],
  write: ['write'],
  sustained: ['post'],
  random4kRead: ['r4'],
  random4kWrite: ['w4'],
  copyIn: ['write', 'other'],
  copyOut: ['read', 'other']
};

/** What a figure then is, MB/s. */
function expected(of: Figure['of'], rates: Rates, { internalDisk }: Best): number {
  const rate = rates[FOLLOWS[of][0] as RateName];
  if (of === 'copyIn') return Math.min(rate, internalDisk?.readMBps ?? Infinity) * rates.other;
  if (of === 'copyOut') return Math.min(rate, internalDisk?.writeMBps ?? Infinity) * rates.other;
  return rate;
}

/** Figures of a disk are from different places on it. */
const DISK_SCATTER = { ...SCATTER, read: 0.1, write: 0.1 } as const;

/** Tells whether more was written for a figure than the cache holds. */
const isBeyondCache = ({ of, writtenGB }: Figure, { cliffGB }: Best): boolean =>
  of === 'write' && writtenGB !== undefined && cliffGB !== null && writtenGB > cliffGB.low * 0.8;

/** The density of one figure. @param sound whether nothing is wrong: then a full cache is the cause of its own name */
function densityOfFigure(figure: Figure, rates: Rates, best: Best, sound: boolean): number {
  const { of, MBps } = figure;
  const rate = expected(of, rates, best);
  // What nothing is forecast of speaks for no cause.
  if (!Number.isFinite(rate)) return 1;
  const scatter = best.disk ? DISK_SCATTER[of] : SCATTER[of];
  const beside = (about: number) => densityOf(Math.log(MBps / about), scatter);
  // Half of it may be from before the cache was full, half from after.
  const density =
    !sound && isBeyondCache(figure, best) ? (beside(rate) + beside(Math.min(rates.post, rate))) / 2 : beside(rate);
  return density * (1 - ODD.share) + ODD.share / ODD.folds;
}

/** The rates with one change of a cause, at a place in its range. */
function changedBy({ of, to }: RateChange, at: number, sound: Rates, best: Best): Rates {
  const rates = { ...sound };
  for (const name of of) rates[name] = to(sound[name], at, sound, best);
  return rates;
}

/**
 * Tells how likely figures are under a cause: summed over where in its band this chain lies, and for each of its changes over the range of
 * that, by the figures that follow from it.
 */
function likelihood(figures: readonly Figure[], best: Best, places: readonly Rates[], cause: CauseCode): number {
  const changes = EFFECTS[cause] ?? [];
  const sound = cause === 'healthy';
  const touched = changes.map(({ of }) =>
    figures.filter((figure) => !beginsWell(figure, cause) && FOLLOWS[figure.of].some((name) => of.includes(name)))
  );
  const rest = figures.filter((figure) => !touched.some((some) => some.includes(figure)));
  const all = (some: readonly Figure[], rates: Rates) =>
    some.reduce((product, figure) => product * densityOfFigure(figure, rates, best, sound), 1);
  const sum = places.reduce((total, rates) => {
    let product = all(rest, rates);
    changes.forEach((change, i) => {
      const some = touched[i] as Figure[];
      if (some.length === 0) return;
      product *= RANGE.reduce((mean, at) => mean + all(some, changedBy(change, at, rates, best)), 0) / RANGE.length;
    });
    return total + product;
  }, 0);
  const shows = sound || figures.some((figure) => isSeenIn(figure, cause, best));
  return (sum / places.length) * (shows ? 1 : UNSEEN);
}

/** What a run begins with most causes leave as it is. */
const beginsWell = ({ atFirst }: Figure, cause: CauseCode): boolean => atFirst === true && BEGINS_WELL.has(cause);

/** A cause that changes none of what was measured by as much as this is no answer to what was measured. */
const SHOWS = 0.05;
const UNSEEN = 0.08;

/** Tells whether a cause would show in a figure, at either end of its ranges; what comes later in a series shows there. */
function isSeenIn(figure: Figure, cause: CauseCode, best: Best): boolean {
  if (beginsWell(figure, cause)) return true;
  const sound = ratesAt(best, 0.5);
  const rate = expected(figure.of, sound, best);
  return (EFFECTS[cause] ?? []).some((change) =>
    [RANGE[0], RANGE[RANGE.length - 1] as number].some(
      (at) => expected(figure.of, changedBy(change, at, sound, best), best) <= rate * (1 - SHOWS)
    )
  );
}

const ratesAt = (best: Best, place: number): Rates => ({
  read: placeIn(best.read, place),
  write: placeIn(best.write, place),
  post: placeIn(best.post, place),
  r4: placeIn(best.random4kRead, place),
  w4: placeIn(best.random4kWrite, place),
  other: 1
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
  const places = PLACES.map((place) => ratesAt(best, place));
  // Causes that do the same to rates are as likely by them.
  const known = new Map<unknown, number>();
  const words = usable.map(
    ({ of, MBps, atFirst }) => `${NAMES[of]} at ${rate(MBps)} MB/s${atFirst ? ' at first' : ''}${beside(of, best)}`
  );
  return [
    {
      code: 'figures',
      says: `It ${words.join(', ')}.`,
      given: (cause) => {
        const alike = EFFECTS[cause] ?? cause;
        const value = known.get(alike) ?? likelihood(usable, best, places, cause);
        known.set(alike, value);
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
