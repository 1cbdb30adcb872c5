import { duration, figure } from '#core/quantities/format';

/** A copy that was timed by hand. */
export type TimedCopy = {
  way: 'read' | 'write';
  GB: number;
  seconds: number;
  MBps: number;
  /** By how much a finger may be off, s. */
  errorS: number;
};

/** What a timed copy puts into the form of a result: the rate, what was copied, and how it was measured. */
export const typedFrom = ({ way, GB, seconds, MBps, errorS }: TimedCopy): Record<string, string> => ({
  [way === 'read' ? 'readMBps' : 'writeMBps']: String(Number(MBps.toPrecision(4))),
  testGB: String(GB),
  repeats: '1',
  notes: `Timed by hand: ${GB} GB in ${duration(seconds)}, ±${figure(errorS)} s.`
});
