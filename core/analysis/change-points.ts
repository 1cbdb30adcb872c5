/* eslint-disable @typescript-eslint/no-non-null-assertion -- indices below the length of the column: inner loops */
import type { Noise } from './signal.ts';

/** Sums over a signal, so that the error of a straight line through any stretch is known at once. */
type Sums = { x: Float64Array; y: Float64Array; xx: Float64Array; xy: Float64Array; yy: Float64Array };

function sumsOf(x: Float64Array, y: Float64Array): Sums {
  const n = y.length;
  const sums: Sums = {
    x: new Float64Array(n + 1),
    y: new Float64Array(n + 1),
    xx: new Float64Array(n + 1),
    xy: new Float64Array(n + 1),
    yy: new Float64Array(n + 1)
  };
  for (let i = 0; i < n; i++) {
    const [a, b] = [x[i]!, y[i]!];
    sums.x[i + 1] = sums.x[i]! + a;
    sums.y[i + 1] = sums.y[i]! + b;
    sums.xx[i + 1] = sums.xx[i]! + a * a;
    sums.xy[i + 1] = sums.xy[i]! + a * b;
    sums.yy[i + 1] = sums.yy[i]! + b * b;
  }
  return sums;
}

/** The squared error that a straight line through values from..to-1 leaves. */
function lineError(sums: Sums, from: number, to: number): number {
  const n = to - from;
  const [sx, sy] = [sums.x[to]! - sums.x[from]!, sums.y[to]! - sums.y[from]!];
  const sxx = sums.xx[to]! - sums.xx[from]! - (sx * sx) / n;
  const sxy = sums.xy[to]! - sums.xy[from]! - (sx * sy) / n;
  const syy = sums.yy[to]! - sums.yy[from]! - (sy * sy) / n;
  return Math.max(0, syy - (sxx > 1e-12 ? (sxy * sxy) / sxx : 0));
}

/** No stretch between two changes is shorter than this many values. */
export const SHORTEST = 4;
/** What a further change has to save, in squared errors of the noise, for each e-fold of the length. */
const PENALTY = 2.7;

/**
 * Finds where a signal changes its level or its slope: the split into straight lines of the least squared error, with a penalty for each
 * change. Source: Killick, Fearnhead, Eckley, "Optimal detection of changepoints with a linear computational cost" (PELT), JASA 107
 * (2012), with lines as segments; the penalty counts in the noise of means, so that likeness of neighbours makes no changes.
 * @returns indices at which a new stretch begins, in order, without 0
 */
export function changePoints(x: Float64Array, y: Float64Array, noise: Noise): number[] {
  const n = y.length;
  if (n < 2 * SHORTEST) return [];
  // Large times would lose the small differences in their squares.
  const span = Math.max(1e-9, x[n - 1]! - x[0]!);
  const at = x.map((value) => (value - x[0]!) / span);
  const mean = y.reduce((sum, value) => sum + value, 0) / n;
  const sums = sumsOf(
    at,
    y.map((value) => value - mean)
  );
  const penalty = Math.max(13, PENALTY * Math.log(n)) * noise.long ** 2;
  const best = new Float64Array(n + 1).fill(Infinity);
  const from = new Int32Array(n + 1);
  best[0] = -penalty;
  let open = [0];
  for (let to = SHORTEST; to <= n; to++) {
    const costs: number[] = [];
    for (const begin of open) {
      const cost = best[begin]! + lineError(sums, begin, to);
      costs.push(cost);
      if (cost + penalty < best[to]!) {
        best[to] = cost + penalty;
        from[to] = begin;
      }
    }
    const limit = best[to]!;
    open = open.filter((_, i) => costs[i]! <= limit);
    const next = to - SHORTEST + 1;
    if (next >= SHORTEST) open.push(next);
  }
  const points: number[] = [];
  for (let to = from[n]!; to > 0; to = from[to]!) points.push(to);
  return points.reverse();
}

/** Values with where each lies. */
export type Values = { x: Float64Array; y: Float64Array };

/** A straight line through a stretch, with what it is worth at an end. */
export type FittedLine = { at: (x: number) => number; errorAt: (x: number) => number };

/**
 * Puts a straight line through values from..to-1; through fewer than eight, or where the slope is no larger than its error, a level.
 */
export function lineThrough({ x, y }: Values, from: number, to: number, noise: Noise): FittedLine {
  const n = to - from;
  let [sx, sy] = [0, 0];
  for (let i = from; i < to; i++) {
    sx += x[i]!;
    sy += y[i]!;
  }
  const [mx, my] = [sx / n, sy / n];
  let [sxx, sxy] = [0, 0];
  for (let i = from; i < to; i++) {
    sxx += (x[i]! - mx) ** 2;
    sxy += (x[i]! - mx) * (y[i]! - my);
  }
  const slope = n >= 8 && sxx > 0 ? sxy / sxx : 0;
  const counts = Math.abs(slope) > (2.5 * noise.long) / Math.sqrt(Math.max(sxx, 1e-12));
  return {
    at: (where) => (counts ? my + slope * (where - mx) : my),
    errorAt: (where) => noise.long * Math.sqrt(1 / n + (counts && sxx > 0 ? (where - mx) ** 2 / sxx : 0))
  };
}

/** How far a change is moved at most from where it was found first, in values. */
const NEARBY = 12;
/** A residual counts no more than this many deviations. */
const CUT = 3;

/**
 * Moves a change to where the two lines beside it explain the values best, by what is new in each value (its residual less phi times the
 * one before), and no value counting more than three deviations: neighbours that are alike, and outliers, do not draw it away.
 */
export function movedToFit({ x, y }: Values, at: number, lines: [FittedLine, FittedLine], noise: Noise): number {
  const [before, after] = lines;
  const from = Math.max(1, at - NEARBY);
  const to = Math.min(y.length - 1, at + NEARBY);
  const width = noise.one * Math.sqrt(1 - noise.phi ** 2);
  let best = at;
  let least = Infinity;
  for (let candidate = from; candidate <= to; candidate++) {
    let loss = 0;
    for (let i = from; i <= to; i++) {
      const here = y[i]! - (i < candidate ? before : after).at(x[i]!);
      const last = y[i - 1]! - (i - 1 < candidate ? before : after).at(x[i - 1]!);
      const fresh = (here - noise.phi * Math.max(-CUT * noise.one, Math.min(CUT * noise.one, last))) / width;
      loss += Math.min(CUT * CUT, fresh * fresh);
    }
    if (loss < least - 1e-9) {
      least = loss;
      best = candidate;
    }
  }
  return best;
}
