import type { DriveTemperatures } from './heat-link.ts';
import type { Levels } from './levels.ts';
import type { Analysis, AnalyseInput } from './report.ts';
import type { Samples, Signal } from './signal.ts';

/** Everything that the parts of an analysis are made from. */
export type Work = {
  samples: Samples;
  moving: Int32Array;
  signal: Signal;
  levels: Levels;
  /** Natural logarithm of the disk's curve at each sample; undefined where no places are known. */
  trend: Float64Array | undefined;
  temperatures: DriveTemperatures | undefined;
  /** GB moved before the end of each sample. */
  moved: Float64Array;
  direction: AnalyseInput['direction'];
  startC: number | undefined;
};

/** Gives the rate of a logarithm that had the disk's curve taken off, by the curve in the middle of what was passed. */
export const rateOf = (log: number, { trend, moving }: Pick<Work, 'trend' | 'moving'>, at?: number): number =>
  Math.exp(log + (trend ? (trend[at ?? (moving[moving.length >> 1] as number)] ?? 0) : 0));

/** Tells when a value of the signal begins, s. */
export const beginS = ({ samples, signal }: Work, value: number): number => {
  const i = signal.first[value];
  return i === undefined ? (samples.t.at(-1) ?? 0) : (samples.t[i] as number) - (samples.dt[i] as number);
};
/** Tells what was moved before a value of the signal begins, GB. */
export const movedAt = ({ moved, signal }: Work, value: number): number => {
  const i = signal.first[value];
  return i === undefined ? (moved.at(-1) ?? 0) : i === 0 ? 0 : (moved[i - 1] as number);
};

/** Lists the stretches of one level, in order. */
export function plateausOf(work: Work): Analysis['plateau'] {
  return work.levels.stretches.map(({ from, to, level }) => {
    const middle = work.signal.first[(from + to) >> 1];
    return {
      fromS: beginS(work, from),
      toS: beginS(work, to),
      MBps: rateOf(level, work, middle),
      GB: movedAt(work, to) - movedAt(work, from)
    };
  });
}
