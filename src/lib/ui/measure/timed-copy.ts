import { median } from '#core/results/repeats';
import type { Conditions } from '#core/results/conditions';
import type { PairResults, Repeat } from '#core/results/run';

/** Copies that were timed by hand, under which conditions, and which alarms somebody looked at. */
export type TimedCopies = { repeats: Repeat[]; accepted: string[]; conditions: Conditions };

/** Sums timed copies up: the middle of each way. */
export function copyResults(repeats: readonly Repeat[]): PairResults {
  const rates = (what: Repeat['what']) =>
    repeats.flatMap((repeat) =>
      repeat.what === what && repeat.GB && repeat.seconds ? [(repeat.GB * 1000) / repeat.seconds] : []
    );
  const middle = (what: Repeat['what']) => {
    const list = rates(what);
    return list.length > 0 ? Number(median(list).toPrecision(4)) : undefined;
  };
  const [into, from] = [middle('copy-in'), middle('copy-out')];
  return {
    ...(into === undefined ? {} : { copyInMBps: into }),
    ...(from === undefined ? {} : { copyOutMBps: from }),
    repeats: [...repeats]
  };
}
