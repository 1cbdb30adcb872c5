/* eslint-disable @typescript-eslint/no-non-null-assertion -- there are always three parts */
import type { Celsius, Seconds } from '../../quantities/measures.ts';
import type { DecayPart } from './chip-modes.ts';

export type SawTooth = { fastS: Seconds; slowS: Seconds };

/**
 * Gives the saw-tooth in which a throttled drive settles: so many seconds at the faster rate, then so many at the slower one, such that
 * the controller gets to `high` at the end of the one and to `low` at the end of the other. With parts of K_i (kelvin between the
 * two rates) and rates l_i, a_i = exp(-l_i t_fast) and b_i = exp(-l_i t_slow):
 *   high - cold = sum K_i (1 - a_i) / (1 - a_i b_i),  low - cold = sum K_i (1 - a_i) b_i / (1 - a_i b_i).
 * Both are solved by Newton's method in the logarithms of the two times, with halved steps where it would overshoot.
 * @param cold where the controller settles at the slower rate; where it settles at the faster one is `cold` plus all K_i
 * @returns null where there is no such saw-tooth: the faster rate does not reach `high`, or the slower one not `low`
 */
export function sawToothOf(parts: readonly DecayPart[], cold: Celsius, low: Celsius, high: Celsius): SawTooth | null {
  const hot = cold + parts.reduce((sum, part) => sum + part.kelvin, 0);
  if (hot <= high || cold >= low) return null;
  const [wantHigh, wantLow] = [high - cold, low - cold];
  const errors = (x: number, y: number) => {
    const [fastS, slowS] = [Math.exp(x), Math.exp(y)];
    let [u, w, ux, uy, wx, wy] = [0, 0, 0, 0, 0, 0];
    for (const { kelvin, rate } of parts) {
      const a = Math.exp(-rate * fastS);
      const b = Math.exp(-rate * slowS);
      const rest = 1 - a * b;
      // Below what a double can tell apart the part stands still at its mean.
      if (rest < 1e-12) {
        const share = fastS / (fastS + slowS);
        u += kelvin * share;
        w += kelvin * share;
        continue;
      }
      u += (kelvin * (1 - a)) / rest;
      w += (kelvin * (1 - a) * b) / rest;
      const da = -rate * fastS * a;
      const db = -rate * slowS * b;
      const square = rest * rest;
      ux += (kelvin * da * (b - 1)) / square;
      uy += (kelvin * (1 - a) * a * db) / square;
      wx += (kelvin * da * b * (b - 1)) / square;
      wy += (kelvin * (1 - a) * db) / square;
    }
    return { e: u - wantHigh, f: w - wantLow, ux, uy, wx, wy };
  };
  // To begin with, one part that does what the quick ones do, or the slow one where they do not span the tooth.
  const quick = parts.slice(1).reduce((sum, part) => sum + part.kelvin, 0);
  const main = quick > high - low ? parts[2]!.rate : parts[0]!.rate * 3;
  let x = Math.log(Math.max(1e-3, Math.log((hot - low) / (hot - high)) / main));
  let y = Math.log(Math.max(1e-3, Math.log((high - cold) / (low - cold)) / main));
  let now = errors(x, y);
  for (let i = 0; i < 60; i++) {
    const size = Math.abs(now.e) + Math.abs(now.f);
    if (size < 1e-6) break;
    const determinant = now.ux * now.wy - now.uy * now.wx;
    if (Math.abs(determinant) < 1e-14) break;
    const dx = (now.uy * now.f - now.wy * now.e) / determinant;
    const dy = (now.wx * now.e - now.ux * now.f) / determinant;
    let share = Math.min(1, 1.5 / Math.max(Math.abs(dx), Math.abs(dy)));
    let next = errors(x + dx * share, y + dy * share);
    for (let half = 0; half < 8 && Math.abs(next.e) + Math.abs(next.f) > size; half++) {
      share /= 2;
      next = errors(x + dx * share, y + dy * share);
    }
    x += dx * share;
    y += dy * share;
    now = next;
  }
  return { fastS: Math.exp(x), slowS: Math.exp(y) };
}
