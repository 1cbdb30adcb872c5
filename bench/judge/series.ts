import { seeded } from '#core/quantities/random';
import type { Series } from '#core/series/series';

/** A series that was made up, and what is true of it. */
export type MadeUp = { series: Series; stepS: number | null; everyS: number };

/** Normal numbers of a seed (Box and Muller). */
export function normals(random: () => number): () => number {
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/** What a series is troubled by. */
export type Trouble = 'white' | 'outliers' | 'alike' | 'zones' | 'jitter' | 'missing' | 'coarse';
export const TROUBLES: readonly Trouble[] = ['white', 'outliers', 'alike', 'zones', 'jitter', 'missing', 'coarse'];

type Shape = {
  seed: number;
  noise: number;
  trouble?: Trouble;
  samples?: number;
  /** The rate without noise, MB/s, by share of the whole and s. */
  rate: (share: number, s: number, random: () => number) => number;
};

/**
 * Makes a series of a shape: a factor of noise on each rate, exp(noise * normal), and what troubles it. Alike: AR(0.5) of the same
 * spread. Outliers: 2 % of samples at 0.2 to 0.6 or 1.5 to 3 times. Zones: down to half over the whole. Jitter: samples come up to a
 * third of a second off, and their rates are as if they had not. Missing: a tenth of the samples is lost. Coarse: every 5 s.
 */
export function madeUp({ seed, noise, trouble = 'white', samples = 300, rate }: Shape): Series {
  const random = seeded(seed);
  const normal = normals(random);
  const everyS = trouble === 'coarse' ? 5 : 1;
  const series: Series = { t: [], MBps: [] };
  let before = normal();
  for (let i = 0; i < samples; i++) {
    const s = (i + 1) * everyS;
    const share = (i + 0.5) / samples;
    before = trouble === 'alike' ? 0.5 * before + Math.sqrt(0.75) * normal() : normal();
    let MBps = rate(share, s, random) * Math.exp(noise * before);
    if (trouble === 'zones') MBps *= 1 - 0.5 * share;
    if (trouble === 'outliers' && random() < 0.02) MBps *= random() < 0.5 ? 0.2 + 0.4 * random() : 1.5 + 1.5 * random();
    if (trouble === 'missing' && i > 0 && random() < 0.1) continue;
    const late = trouble === 'jitter' ? (random() - 0.5) * (2 / 3) : 0;
    series.t.push(s + late);
    series.MBps.push(MBps);
  }
  return series;
}

/** One step down after so many samples. */
export function stepDown(args: {
  seed: number;
  noise: number;
  trouble: Trouble;
  share: number;
  before?: number;
  after?: number;
}): MadeUp {
  const random = seeded(args.seed ^ 0x5bd1e995);
  const before = args.before ?? 60 + Math.floor(random() * 120);
  const after = args.after ?? 60 + Math.floor(random() * 180);
  const everyS = args.trouble === 'coarse' ? 5 : 1;
  const stepS = before * everyS;
  const top = 400 + random() * 3000;
  const series = madeUp({
    ...args,
    samples: before + after,
    rate: (_share, s) => (s <= stepS ? top : top * args.share)
  });
  return { series, stepS, everyS };
}

/** A rate of 900 MB/s that falls to another now and then, for so many seconds. */
const spells =
  ({ chance, least, most, left }: { chance: number; least: number; most: number; left: number }) =>
  (seed: number): Series => {
    let seconds = 0;
    return madeUp({
      seed,
      noise: 0.05,
      samples: 500,
      rate: (_share, _s, random) => {
        if (seconds > 0) seconds -= 1;
        else if (random() < chance) seconds = least + Math.floor(random() * (most - least + 1));
        return seconds > 0 ? left : 900;
      }
    });
  };

/** Shapes that have no cliff. */
export const NO_CLIFF: Record<string, (seed: number) => Series> = {
  'flat, white noise to 10 %': (seed) => madeUp({ seed, noise: 0.01 + 0.03 * (seed % 4), rate: () => 900 }),
  'flat, alike (AR 0.5) at 10 %': (seed) => madeUp({ seed, noise: 0.1, trouble: 'alike', rate: () => 900 }),
  'zone slope of a disk, 3 %': (seed) => madeUp({ seed, noise: 0.03, trouble: 'zones', samples: 600, rate: () => 220 }),
  'zone slope in 16 steps, 1 %': (seed) =>
    madeUp({ seed, noise: 0.01, samples: 800, rate: (share) => 230 * (1 - 0.5 * (Math.floor(share * 16) / 15)) }),
  'saw-tooth, 5 %': (seed) => {
    const random = seeded(seed ^ 0x2545f491);
    const [period, high, low] = [25 + random() * 60, 0.3 + 0.4 * random(), 0.3 + 0.4 * random()];
    return madeUp({
      seed,
      noise: 0.05,
      samples: 600,
      rate: (_share, s) => 2000 * (s > 90 && (s - 90) % period < period * (1 - high) ? low : 1)
    });
  },
  'ramp-up over 10 to 60 s, 5 %': (seed) => {
    const over = 10 + (seed % 6) * 10;
    return madeUp({ seed, noise: 0.05, rate: (_share, s) => 1500 * (1 - 0.7 * Math.exp((-3 * s) / over)) });
  },
  'drop-outs of 1 to 20 s, 5 %': spells({ chance: 0.012, least: 1, most: 20, left: 0 }),
  'irregular dips of 2 to 15 s, 5 %': spells({ chance: 0.02, least: 2, most: 15, left: 420 }),
  'periodic dips, 5 %': (seed) =>
    madeUp({ seed, noise: 0.05, samples: 600, rate: (_share, s) => (s % (40 + (seed % 5) * 10) < 4 ? 450 : 1000) })
};

/** A run that warms, falls once, and is what it is; with the temperature that its drive reports, whole degrees. */
export function warmFall(seed: number, what: 'throttle' | 'cache'): Series {
  const random = seeded(seed ^ 0x1b873593);
  const normal = normals(random);
  const limit = 72 + random() * 14;
  const [start, tau] = [30 + random() * 15, 60 + random() * 240];
  // Without a fall it would settle above the limit where it throttles; where a cache fills it stays below it.
  const settles = what === 'throttle' ? limit + 5 + random() * 25 : Math.min(limit - 6, 45 + random() * 30);
  const cliffS = 60 + random() * 300;
  const share = 0.25 + random() * 0.4;
  const series: Series & { controllerC: number[] } = { t: [], MBps: [], controllerC: [] };
  let C = start;
  let fell = false;
  const top = 600 + random() * 2600;
  // After a full cache it draws less, or more, for plain cells take more work.
  const after = start + (settles - start) * (0.5 + random() * 0.6);
  for (let s = 1; s <= 900; s++) {
    if (!fell && (what === 'throttle' ? C >= limit : s > cliffS)) fell = true;
    const towards = !fell ? settles : what === 'throttle' ? limit - 1 + random() * 1 : Math.min(after, limit - 3);
    C += (towards - C) / (fell && what === 'throttle' ? tau / 3 : tau);
    series.t.push(s);
    series.MBps.push((fell ? top * share : top) * Math.exp(0.04 * normal()));
    series.controllerC.push(Math.round(C + 0.3 * normal()));
  }
  return series;
}
