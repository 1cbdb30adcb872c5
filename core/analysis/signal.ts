import { MOST_SAMPLES } from '../series/series.ts';
import { middleOf } from './middle.ts';

/** A stretch without data, as indices of samples, `to` not included. */
export type SampleRun = { from: number; to: number };

/** Samples that can be worked with: finite, not negative, time going on. `index` says where each was in what was given. */
export type Samples = { t: Float64Array; dt: Float64Array; MBps: Float64Array; index: Int32Array; refused: number };

/**
 * Takes out what is no sample: a time or a rate that is no number, a negative rate, a time that does not go on.
 * @returns times and lengths of samples in s; `refused` counts what was left out
 * @throws RangeError above a million samples
 */
export function soundSamples(t: readonly number[], MBps: readonly number[]): Samples {
  const n = Math.min(t.length, MBps.length);
  if (n > MOST_SAMPLES) throw new RangeError(`more than ${MOST_SAMPLES} samples`);
  const sound = {
    t: new Float64Array(n),
    dt: new Float64Array(n),
    MBps: new Float64Array(n),
    index: new Int32Array(n)
  };
  let kept = 0;
  let last = 0;
  for (let i = 0; i < n; i++) {
    const [at, rate] = [t[i] as number, MBps[i] as number];
    if (!(at >= 0 && at < Infinity && rate >= 0 && rate < Infinity) || (kept > 0 && at <= last)) continue;
    sound.t[kept] = at;
    sound.dt[kept] = at - last;
    sound.MBps[kept] = rate;
    sound.index[kept] = i;
    last = at;
    kept += 1;
  }
  // A series that is cut out of a longer one begins somewhere: its first sample is as long as most are.
  if (kept > 2) sound.dt[0] = Math.min(sound.dt[0] as number, typicalStep(sound.t, kept));
  return {
    t: sound.t.subarray(0, kept),
    dt: sound.dt.subarray(0, kept),
    MBps: sound.MBps.subarray(0, kept),
    index: sound.index.subarray(0, kept),
    refused: n - kept
  };
}

/** The time from one sample to the next that most of them have, s; of a long series by a part of it. */
function typicalStep(t: Float64Array, n: number): number {
  const steps: number[] = [];
  const stride = Math.max(1, Math.floor(n / 1000));
  for (let i = 1; i < n; i += stride) steps.push((t[i] as number) - (t[i - 1] as number));
  return middleOf(Float64Array.from(steps));
}

/** Below this share of the middle rate, and below this rate in MB/s, nothing moves. */
const NOTHING = { share: 0.01, MBps: 3 } as const;

/**
 * Finds where nothing moved: drop-outs, pauses.
 * @param middle median rate of the whole, MB/s
 */
export function findNothing(MBps: Float64Array, middle: number): SampleRun[] {
  const limit = Math.min(NOTHING.MBps, NOTHING.share * middle);
  const runs: SampleRun[] = [];
  let from = -1;
  for (let i = 0; i <= MBps.length; i++) {
    const still = i < MBps.length && (MBps[i] as number) <= limit;
    if (still && from < 0) from = i;
    if (!still && from >= 0) {
      runs.push({ from, to: i });
      from = -1;
    }
  }
  return runs;
}

/** Most blocks that change points are looked for in; more samples than this are taken together, by their median. */
export const MOST_BLOCKS = 2000;

/**
 * What change points are looked for in: natural logarithms of rates, for a slow-down is a share; each of one sample, or of a block of
 * them. `first[i]` is the sample with which block i begins; `x[i]` its middle in s.
 */
export type Signal = { y: Float64Array; x: Float64Array; first: Int32Array; perBlock: number };

/**
 * Makes the signal of the samples that moved something.
 * @param moving indices of samples, in order
 * @param trend natural logarithm of what each would be by its place on a disk; taken off
 */
export function signalOf(samples: Samples, moving: Int32Array, trend?: Float64Array): Signal {
  const perBlock = Math.max(1, Math.ceil(moving.length / MOST_BLOCKS));
  const n = Math.ceil(moving.length / perBlock);
  const signal = { y: new Float64Array(n), x: new Float64Array(n), first: new Int32Array(n), perBlock };
  const within = new Float64Array(perBlock);
  for (let b = 0; b < n; b++) {
    const [from, to] = [b * perBlock, Math.min(moving.length, (b + 1) * perBlock)];
    for (let k = from; k < to; k++) {
      const i = moving[k] as number;
      // The middle of rates is the middle of their logarithms; only a disk's curve asks for each logarithm.
      within[k - from] = trend
        ? Math.log(samples.MBps[i] as number) - (trend[i] as number)
        : (samples.MBps[i] as number);
    }
    const middle = middleOf(within.subarray(0, to - from));
    const [first, last] = [moving[from] as number, moving[to - 1] as number];
    signal.y[b] = trend ? middle : Math.log(middle);
    signal.x[b] = ((samples.t[first] as number) - (samples.dt[first] as number) + (samples.t[last] as number)) / 2;
    signal.first[b] = first;
  }
  return signal;
}

/** Noise of a signal: of one value (as a share), and of the mean of many, where neighbours are alike; `phi` says by how much. */
export type Noise = { one: number; long: number; phi: number };

/** A normal scatter is this many median deviations. */
const MAD = 1.4826;
/** Nothing is steadier than this. */
const LEAST_NOISE = 0.004;
const MOST_PHI = 0.8;

/** A difference counts no more than so many deviations: steps and outliers do not widen what is found. */
const CUT = 2.5;
/** What is left of the variance of normal numbers that are cut at 2.5 deviations: E min(z², 6.25). */
const CUT_KEEPS = 0.947;

/** The variance of differences between values so far apart, robust against outliers and steps. */
function varianceOfDifferences(y: Float64Array, lag: number): number {
  const n = y.length - lag;
  if (n <= 0) return 0;
  const differences = new Float64Array(n);
  for (let i = 0; i < n; i++) differences[i] = Math.abs((y[i + lag] as number) - (y[i] as number));
  const limit = CUT * MAD * middleOf(differences);
  let sum = 0;
  for (let i = 0; i < n; i++) sum += Math.min(differences[i] as number, limit) ** 2;
  return sum / n / CUT_KEEPS;
}

/**
 * Estimates the noise around levels that may change: differences at lags 1 and 2 know nothing of levels, and their ratio gives how alike
 * neighbours are, var(lag 2) / var(lag 1) = 1 + phi. Source: Chakar, Lebarbier, Lévy-Leduc, Robin, "A robust approach for estimating
 * change-points in the mean of an AR(1) process", Bernoulli 23 (2017), with cut squares in the place of their Qn.
 */
export function noiseOf(y: Float64Array): Noise {
  const [one, two] = [varianceOfDifferences(y, 1), varianceOfDifferences(y, 2)];
  if (one < 1e-12) return { one: LEAST_NOISE, long: LEAST_NOISE, phi: 0 };
  const phi = Math.min(MOST_PHI, Math.max(0, two / one - 1));
  const sigma = Math.max(LEAST_NOISE, Math.sqrt(one / (2 * (1 - phi))));
  return { one: sigma, long: sigma * Math.sqrt((1 + phi) / (1 - phi)), phi };
}

/**
 * Narrows a noise by what is left beside lines: the scale of what is left, and its likeness from one value to the next, where they are
 * less. Both count values beyond three deviations as three.
 */
export function narrower(noise: Noise, residual: Float64Array): Noise {
  const scale = Math.max(LEAST_NOISE, MAD * middleOf(residual.map(Math.abs)));
  const cut = (value: number) => Math.max(-3 * scale, Math.min(3 * scale, value));
  let [square, product] = [0, 0];
  for (let i = 1; i < residual.length; i++) {
    const [before, here] = [cut(residual[i - 1] as number), cut(residual[i] as number)];
    square += here * here;
    product += here * before;
  }
  const phi = Math.min(noise.phi, Math.max(0, square > 0 ? product / square : 0));
  const one = Math.min(noise.one, scale * 1.1);
  return withPhi({ one }, phi);
}

/** Gives the same scatter another likeness of neighbours. */
export const withPhi = ({ one }: Pick<Noise, 'one'>, phi: number): Noise => ({
  one,
  phi,
  long: one * Math.sqrt((1 + phi) / (1 - phi))
});

/** Half of the window that a value is held against. */
const HALF_WINDOW = 4;
const FAR = 4;

/**
 * Puts the median of its neighbours in the place of a value that lies far from it. Steps keep their edges; runs of up to four values
 * that come back go. Source: Hampel, "The influence curve and its role in robust estimation" (1974); a Hampel filter.
 */
export function withoutOutliers(y: Float64Array, noise: Noise): Float64Array {
  const clean = Float64Array.from(y);
  for (let i = 0; i < y.length; i++) {
    // At both ends the window is shifted and not cut, or one-sided drops at an end would be taken for outliers.
    const from = Math.max(0, Math.min(i - HALF_WINDOW, y.length - 2 * HALF_WINDOW - 1));
    const window = y.slice(from, Math.min(y.length, from + 2 * HALF_WINDOW + 1));
    if (window.length < 5) continue;
    const middle = middleOf(window);
    if (Math.abs((y[i] as number) - middle) <= FAR * noise.one) continue;
    const end = i < HALF_WINDOW || i >= y.length - HALF_WINDOW;
    if (end && belongsToAnEnd(y, i, middle, noise)) continue;
    clean[i] = middle;
  }
  return clean;
}

/** Tells a level that only an end of the series shows from a single outlier there: its neighbour lies on the same side. */
function belongsToAnEnd(y: Float64Array, i: number, middle: number, noise: Noise): boolean {
  const side = Math.sign((y[i] as number) - middle);
  const beside = [y[i - 1], y[i + 1]].filter((value): value is number => value !== undefined);
  return beside.some((value) => (value - middle) * side > FAR * noise.one * 0.75);
}
