import { FILE_COST_S } from '../../facts/flash.ts';
import type { Alternative } from '../../parts/alternative.ts';
import type { Job } from '../../parts/job.ts';
import { needGB } from '../../throughput/job-time.ts';
import type { AlternativePoint } from './request.ts';

/** Of an "up to" rate this much is typical, as for drives. */
const TYPICAL_SHARE = 0.95;

/**
 * Gives other ways to the same end beside the builds. A larger internal disk costs its surcharge over the capacity gained. What is not
 * stated stays unknown; their caches are unknown too, so a long job may take longer than said.
 */
export function alternativePoints(
  alternatives: readonly (Alternative & { id: string })[],
  job: Job,
  priceOf: (id: string) => number
): AlternativePoint[] {
  return alternatives.map(({ id, name, sort, capacityTB, baseCapacityTB, readMBps, writeMBps }) => {
    const gainedTB = sort === 'internal-upgrade' ? Math.max(0, capacityTB - (baseCapacityTB ?? 0)) : capacityTB;
    const [read, write] = [readMBps, writeMBps].map((rate) => (rate === undefined ? null : rate * TYPICAL_SHARE)) as [
      number | null,
      number | null
    ];
    const perFile = (sort === 'internal-upgrade' ? FILE_COST_S.tunnel : FILE_COST_S.usb).typical;
    const way = (rate: number | null) =>
      rate === null ? null : (job.transferGB * 1000) / rate + (job.files ?? 1) * perFile;
    const [into, outOf] = [way(write), way(read)];
    const seconds =
      job.direction === 'in'
        ? into
        : job.direction === 'out'
          ? outOf
          : into === null || outOf === null
            ? null
            : into + outOf;
    const price = priceOf(id);
    const cost = Number.isNaN(price) ? null : price;
    const perTB = cost === null || gainedTB <= 0 ? null : cost / gainedTB;
    return { id, name, sort, gainedTB, cost, perTB, write, read, seconds, fits: needGB(job) <= gainedTB * 1000 };
  });
}
