import type { MBps, Seconds, TB } from '../quantities/unit.ts';

/**
 * Throughput of a hard disk at a position: v = v_outer * sqrt(1 - x * (1 - k^2)), k = v_inner / v_outer.
 * @param x fraction of the capacity from the outer edge, 0..1
 * @throws RangeError if x is outside 0..1, or the inner edge is faster than the outer one
 * Source: areal density is constant over the surface, so the rate follows the radius.
 */
export function diskRateAt(x: number, outer: MBps, inner: MBps): MBps {
  if (!(x >= 0 && x <= 1)) throw new RangeError(`no place on the disk: ${x}`);
  if (!(inner > 0 && inner <= outer))
    throw new RangeError(`not the rates of a disk: ${outer} outside, ${inner} inside`);
  const k = inner / outer;
  return outer * Math.sqrt(1 - x * (1 - k * k));
}

/** Time of one pass over the whole disk: 2 C / (v_outer + v_inner), the integral of dx / v(x). */
export function fullPass(capacity: TB, outer: MBps, inner: MBps): Seconds {
  return (2 * (capacity as number) * 1e6) / (outer + inner);
}
