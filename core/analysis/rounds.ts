import { median } from '../results/repeats.ts';
import type { Analysis } from './report.ts';
import type { SampleRun, Samples } from './signal.ts';

/** Rounds of a loop move the same: within this share of the middle one, or within a sample. The last may be cut off. */
const SAME_VOLUME = 0.015;
/** So many rounds make a loop, each of so many samples. */
const LEAST = { rounds: 3, samples: 3 } as const;

/**
 * Finds rounds: stretches between pauses that moved the same amount each, at least three of them.
 * @param pauses where nothing moved
 */
export function roundsOf({ t, dt }: Samples, moved: Float64Array, pauses: readonly SampleRun[]): Analysis['loops'] {
  const edges = [...pauses, { from: t.length, to: t.length }];
  let begin = 0;
  const rounds: { from: number; to: number; GB: number }[] = [];
  for (const { from, to } of edges) {
    if (from - begin >= LEAST.samples) {
      const before = begin === 0 ? 0 : (moved[begin - 1] as number);
      rounds.push({ from: begin, to: from, GB: (moved[from - 1] as number) - before });
    }
    begin = to;
  }
  if (rounds.length < LEAST.rounds) return [];
  const middle = median(rounds.map(({ GB }) => GB));
  const whole = rounds.slice(0, -1);
  const same = Math.max(SAME_VOLUME, 1 / median(rounds.map(({ from, to }) => to - from)));
  if (whole.some(({ GB }) => Math.abs(GB / middle - 1) > same)) return [];
  return rounds.map(({ from, to, GB }) => {
    const fromS = (t[from] as number) - (dt[from] as number);
    const toS = t[to - 1] as number;
    return { fromS, toS, MBps: (GB * 1000) / (toS - fromS) };
  });
}
