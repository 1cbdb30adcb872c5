import { median } from '../results/repeats.ts';
import type { Low } from './levels.ts';
import type { Signal } from './signal.ts';

/** Something that comes again and again: how often, how low, and which share of the time is spent low. */
export type Rhythm = {
  periodS: number;
  /** What is left of the rate while it is low, a share. */
  share: number;
  timeLow: number;
  /** From its first fall to its last rise, as values of the signal. */
  from: number;
  to: number;
  lows: Low[];
};

/** So many times make a rhythm. */
const TIMES = 3;
/** How far the times from one to the next may scatter around their middle, as a share of it: a clock; and what heat does. */
const SCATTER = { even: 0.2, sawTooth: 0.5 } as const;
/** From this share of the time on it is a saw-tooth: the low side of a throttle that comes and goes lasts. */
const SAW_TOOTH_LOW = 0.25;
/** Lows of one rhythm are alike in depth, as a logarithm. */
const ALIKE = Math.log(1.35);

/**
 * Finds a rhythm in lows: at least three of like depth, from one to the next about the same time. Heat makes it less even than a clock.
 * @param duration of the whole, s
 */
export function rhythmOf(lows: readonly Low[], { x }: Signal, duration: number): Rhythm | null {
  if (lows.length < TIMES) return null;
  const depth = median(lows.map(({ share }) => Math.log(share)));
  const alike = lows.filter(({ share }) => Math.abs(Math.log(share) - depth) <= ALIKE);
  if (alike.length < TIMES || alike.length < lows.length * 0.7) return null;
  const begins = alike.map(({ from }) => x[from] as number);
  const gaps = begins.slice(1).map((at, i) => at - (begins[i] as number));
  const period = median(gaps);
  const scatter = (1.4826 * median(gaps.map((gap) => Math.abs(gap - period)))) / period;
  const lengths = alike.map((low) => lengthOf(low, x));
  const timeLow = Math.min(1, median(lengths) / period);
  const most = timeLow >= SAW_TOOTH_LOW ? SCATTER.sawTooth : SCATTER.even;
  const wild = gaps.filter((gap) => gap > 1.8 * period || gap < 0.5 * period).length;
  if (scatter > most || wild > gaps.length * 0.34 || period > duration / 2) return null;
  const last = alike.at(-1) as Low;
  return {
    periodS: period,
    share: Math.exp(depth),
    timeLow,
    from: (alike[0] as Low).from,
    to: last.to,
    lows: alike
  };
}

/** Tells whether a rhythm is the saw-tooth of a throttle and not short dips. */
export const isSawTooth = ({ timeLow }: Rhythm): boolean => timeLow >= SAW_TOOTH_LOW;

/** Tells how long a low lasts, s. */
export function lengthOf({ from, to }: Low, x: Float64Array): number {
  const begins = x[from] as number;
  const ends = x[to] ?? x[x.length - 1] ?? begins;
  return to > from && ends > begins ? ends - begins : (x[1] ?? 1) - (x[0] ?? 0);
}
