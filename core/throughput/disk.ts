import type { GB, MBps, Seconds } from '../quantities/measures.ts';

/**
 * Gives the throughput of a hard disk at a position, MB/s: v = v_outer * sqrt(1 - x * (1 - k^2)), k = v_inner / v_outer.
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

/** A hard disk by its size and the rates at its two edges. */
export type DiskZones = { capacityGB: GB; outer: MBps; inner: MBps };

/**
 * Gives the time to move a volume, s, from a place on the disk inwards, no faster than the link: where the disk is the slower one, the integral
 * of dx / v(x) from x0 to x1, which is 2 C (s(x0) - s(x1)) / (v_outer (1 - k^2)) with s(x) = sqrt(1 - x (1 - k^2)).
 * @param from share of the capacity that is filled; what does not fit goes on at the inner rate
 * @param cap rate of the link, or Infinity
 */
export function zoneTime(volumeGB: GB, from: number, { capacityGB, outer, inner }: DiskZones, cap: MBps): Seconds {
  const k = inner / outer;
  const fall = 1 - k * k;
  const to = Math.min(1, from + volumeGB / capacityGB);
  const beyond = Math.max(0, volumeGB - (1 - from) * capacityGB);
  const tail = (beyond * 1000) / Math.min(inner, cap);
  if (fall < 1e-9) return ((to - from) * capacityGB * 1000) / Math.min(outer, cap) + tail;
  const s = (x: number) => Math.sqrt(1 - x * fall);
  // Where the disk becomes slower than the link.
  const meets = cap >= outer ? 0 : cap <= inner ? 1 : (1 - (cap / outer) ** 2) / fall;
  const middle = Math.min(to, Math.max(from, meets));
  const atCap = middle > from ? ((middle - from) * capacityGB * 1000) / cap : 0;
  return atCap + (2 * capacityGB * 1000 * (s(middle) - s(to))) / (outer * fall) + tail;
}
