import { median } from '../results/repeats.ts';
import type { Samples } from './signal.ts';

/** A disk's rate along its radius: natural logarithm of MB/s as a + b p + c p², p from 0 at the outer edge to 1. */
export type ZoneCurve = { a: number; b: number; c: number; from: number; to: number };

/** Places that are slower than the curve around them. */
export type WeakPlace = { from: number; to: number; MBps: number };

/** Tukey's biweight: residuals beyond so many deviations count nothing. */
const CUT = 4.685;
const ROUNDS = 12;
/** A curve needs this much of the disk, and so many samples. */
const LEAST = { span: 0.3, samples: 20 } as const;
/** Points that a curve is fitted to at most. */
const MOST_POINTS = 2000;

/** Solves three linear equations. @returns null where they are not independent */
function solved(m: number[][]): [number, number, number] | null {
  for (let i = 0; i < 3; i++) {
    let pivot = i;
    for (let r = i + 1; r < 3; r++) if (Math.abs(cell(m, r, i)) > Math.abs(cell(m, pivot, i))) pivot = r;
    [m[i], m[pivot]] = [m[pivot] as number[], m[i] as number[]];
    if (Math.abs(cell(m, i, i)) < 1e-12) return null;
    for (let r = 0; r < 3; r++) {
      if (r === i) continue;
      const factor = cell(m, r, i) / cell(m, i, i);
      m[r] = (m[r] as number[]).map((value, k) => value - factor * cell(m, i, k));
    }
  }
  return [cell(m, 0, 3) / cell(m, 0, 0), cell(m, 1, 3) / cell(m, 1, 1), cell(m, 2, 3) / cell(m, 2, 2)];
}
const cell = (m: number[][], row: number, column: number): number => m[row]?.[column] ?? 0;

/** Weighted least squares of the curve. */
function fitted(p: readonly number[], y: readonly number[], w: readonly number[]): [number, number, number] | null {
  const m = [0, 1, 2].map(() => [0, 0, 0, 0]);
  p.forEach((at, i) => {
    const powers = [1, at, at * at];
    const weight = w[i] as number;
    for (let r = 0; r < 3; r++) {
      const row = m[r] as number[];
      for (let k = 0; k < 3; k++) row[k] = (row[k] as number) + weight * (powers[r] as number) * (powers[k] as number);
      row[3] = (row[3] as number) + weight * (powers[r] as number) * (y[i] as number);
    }
  });
  return solved(m);
}

/**
 * Fits the curve of a disk to rates by place, so that weak places do not draw it down: iteratively reweighted least squares with Tukey's
 * biweight, from the upper middle of each fiftieth of the disk. Source: Holland, Welsch, "Robust regression using iteratively reweighted
 * least-squares" (1977).
 * @param position of each sample, 0 to 1
 * @returns null where too little of the disk was passed over
 */
export function zoneCurve(samples: Samples, moving: Int32Array, position: (i: number) => number): ZoneCurve | null {
  const stride = Math.max(1, Math.ceil(moving.length / MOST_POINTS));
  const [p, y]: [number[], number[]] = [[], []];
  for (let k = 0; k < moving.length; k += stride) {
    const i = moving[k] as number;
    const at = position(i);
    if (!Number.isFinite(at)) continue;
    p.push(at);
    y.push(Math.log(samples.MBps[i] as number));
  }
  const [from, to] = [p.reduce((a, b) => Math.min(a, b), 1), p.reduce((a, b) => Math.max(a, b), 0)];
  if (p.length < LEAST.samples || to - from < LEAST.span) return null;
  let curve = fitted(p, y, startWeights(p, y));
  for (let round = 0; round < ROUNDS && curve; round++) {
    const [a, b, c] = curve;
    const off = y.map((value, i) => value - (a + b * (p[i] as number) + c * (p[i] as number) ** 2));
    const scale = Math.max(0.005, 1.4826 * median(off.map(Math.abs)));
    const weights = off.map((value) => {
      const u = value / (CUT * scale);
      return Math.abs(u) >= 1 ? 0 : (1 - u * u) ** 2;
    });
    curve = fitted(p, y, weights) ?? curve;
  }
  return curve && { a: curve[0], b: curve[1], c: curve[2], from, to };
}

/** What counts first: in each fiftieth of the disk what lies near its upper quarter. */
function startWeights(p: readonly number[], y: readonly number[]): number[] {
  const bins = Array.from({ length: 50 }, (): number[] => []);
  const binOf = (at: number) => Math.min(49, Math.floor(at * 50));
  p.forEach((at, i) => bins[binOf(at)]?.push(y[i] as number));
  const upper = bins.map((values) => values.sort((a, b) => a - b)[Math.floor(values.length * 0.75)] ?? 0);
  return p.map((at, i) => (Math.abs((y[i] as number) - (upper[binOf(at)] as number)) < 0.15 ? 1 : 0.001));
}

/** Gives the curve at a place, as a logarithm. */
export const curveAt = ({ a, b, c }: ZoneCurve, p: number): number => a + b * p + c * p * p;

/** A place is weak below this share of the curve. */
const WEAK_BELOW = 0.75;
/** Two weak places nearer than this are one. */
const TOGETHER = 0.004;
/** What is slow for longer than this share of the disk is no place. */
const WIDEST = 0.06;

/**
 * Finds places that are slower than the disk around them. One slow sample is none, unless another pass is slow at the same place.
 * @param curve that the disk follows
 */
export function weakPlaces(
  samples: Samples,
  moving: Int32Array,
  position: (i: number) => number,
  curve: ZoneCurve
): WeakPlace[] {
  const slow: { p: number; i: number; near: boolean }[] = [];
  let last = -2;
  for (let k = 0; k < moving.length; k++) {
    const i = moving[k] as number;
    const p = position(i);
    if ((samples.MBps[i] as number) >= WEAK_BELOW * Math.exp(curveAt(curve, p))) continue;
    const before = slow.at(-1);
    const near = last === k - 1;
    if (near && before) before.near = true;
    slow.push({ p, i, near });
    last = k;
  }
  slow.sort((a, b) => a.p - b.p);
  const groups: (typeof slow)[] = [];
  for (const one of slow) {
    const group = groups.at(-1);
    if (group && one.p - (group.at(-1)?.p ?? -1) <= TOGETHER) group.push(one);
    else groups.push([one]);
  }
  return groups
    .filter((group) => group.length > 1 || group.some(({ near }) => near))
    .filter((group) => (group.at(-1)?.p ?? 0) - (group[0]?.p ?? 0) <= WIDEST)
    .map((group) => ({
      from: group[0]?.p ?? 0,
      to: group.at(-1)?.p ?? 0,
      MBps: median(group.map(({ i }) => samples.MBps[i] as number))
    }));
}
