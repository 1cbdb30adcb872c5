import { intervalOf } from '../results/repeats.ts';
import { middleOf } from './middle.ts';
import type { Samples } from './signal.ts';

/** Blocks whose means are nearly independent: no fewer samples in one than this, and no more blocks than this. */
const BLOCK = { least: 10, most: 20, fewest: 3 } as const;

/**
 * Gives the interval of the mean rate at 95 %, MB/s: Student's t over the logarithms of means of blocks, for samples a second apart are
 * alike. Source: the method of batch means (Law, Kelton, "Simulation Modeling and Analysis").
 * @returns null for fewer than thirty samples that moved something
 */
export function intervalOfMean({ MBps, dt }: Samples, moving: Int32Array): { low: number; high: number } | null {
  const blocks = Math.min(BLOCK.most, Math.floor(moving.length / BLOCK.least));
  if (blocks < BLOCK.fewest) return null;
  const means: number[] = [];
  for (let b = 0; b < blocks; b++) {
    const [from, to] = [0, 1].map((k) => Math.floor(((b + k) * moving.length) / blocks)) as [number, number];
    let [moved, seconds] = [0, 0];
    for (let k = from; k < to; k++) {
      const i = moving[k] as number;
      moved += (MBps[i] as number) * (dt[i] as number);
      seconds += dt[i] as number;
    }
    means.push(seconds > 0 ? moved / seconds : (MBps[moving[from] as number] as number));
  }
  const interval = intervalOf(means);
  return interval && { low: interval.low, high: interval.high };
}

/** Gives the value below which a share of all lies; of very many, by every so many of them. */
export function quantiles(values: Float64Array, shares: readonly number[]): number[] {
  const stride = Math.max(1, Math.floor(values.length / 20_000));
  const some = stride === 1 ? Float64Array.from(values) : values.filter((_, i) => i % stride === 0);
  some.sort();
  return shares.map((share) => some[Math.min(some.length - 1, Math.floor(share * some.length))] ?? 0);
}

/** Finds the middle of all that is above nothing; 0 where nothing is. */
export function middleAboveNothing(MBps: Float64Array): number {
  const stride = Math.max(1, Math.floor(MBps.length / 20_000));
  const some: number[] = [];
  for (let i = 0; i < MBps.length; i += stride) if ((MBps[i] as number) > 0) some.push(MBps[i] as number);
  return some.length === 0 ? 0 : middleOf(Float64Array.from(some));
}
