import type { FilesystemId } from '../facts/filesystems.ts';
import { schoolChoice, type HouseRules } from '../facts/schools.ts';
import { isTunnelled } from '../link/modes.ts';
import type { LinkMode } from '../facts/link-modes.ts';
import type { FilledDrive } from '../parts/fill.ts';
import type { Host } from '../parts/host.ts';
import type { Job } from '../parts/job.ts';
import { capBand, type Band } from '../quantities/band.ts';
import { TB_PER_TIB } from '../quantities/unit.ts';
import { forecastCache, type CacheForecast } from '../throughput/flash-cache.ts';
import { fileCost, jobTime } from '../throughput/job-time.ts';
import type { PlanReport } from './report.ts';

export type JobForecast = Omit<NonNullable<PlanReport['job']>, 'ways'>;

/** The other end of a copy: the host's own disk bounds it, and falls off a cache of its own. */
function withHostDisk(host: Host, burst: Band, cache: CacheForecast | null, direction: 'read' | 'write') {
  const disk = host.internalDisk;
  if (direction === 'write') {
    const source = disk?.readMBps;
    return {
      burst: source === undefined ? burst : capBand(burst, source),
      cliffGB: cache?.cliffAtGB ?? null,
      after: cache && source !== undefined ? capBand(cache.sustained, source) : (cache?.sustained ?? burst)
    };
  }
  if (!disk) return { burst, cliffGB: null, after: burst };
  const into = capBand(burst, disk.writeMBps);
  const after = disk.postCacheWriteMBps;
  // The host's cliff, where its cache and the rate after it are known and the drive feeds it faster than that.
  if (disk.cacheGB === undefined || after === undefined || into.typical <= after)
    return { burst: into, cliffGB: null, after: into };
  return {
    burst: into,
    cliffGB: { low: disk.cacheGB, typical: disk.cacheGB, high: disk.cacheGB },
    after: capBand(into, after)
  };
}

function addBands(a: Band, b: Band): Band {
  return { low: a.low + b.low, typical: a.typical + b.typical, high: a.high + b.high };
}

/** What the whole chain of one build offers to a job. */
export type Offer = {
  host: Host;
  drive: FilledDrive;
  mode: LinkMode;
  read: Band;
  write: Band;
  cache: CacheForecast;
  /** Free on the drive as it is sold, and as the filesystem gives it. */
  freeGB: number;
  usableTiB: number;
  filesystem: FilesystemId;
  rules: HouseRules | undefined;
};

/** One way of a job: where its time goes, and which end sets the pace. Typical figures. */
export type JobWay = {
  direction: 'in' | 'out';
  seconds: number;
  MBps: number;
  /** What most of the time is spent on. */
  limitedBy: 'files' | 'host-disk' | 'host-disk-cache' | 'drive-cache' | 'drive' | 'link';
  /** Seconds spent on bytes before a cliff, on bytes after it, and on opening and closing files. */
  spent: { bytes: number; afterCliff: number; files: number };
};

/** What a volume needs to hold at least, GB. */
export const needGB = (job: Job): number => Math.max(job.transferGB, (job.capacityTB ?? 0) * 1000);

/** What the filesystem leaves free on the drive, GB. */
export const usableFreeGB = (usableTiB: number, fillFraction: number | undefined): number =>
  usableTiB * TB_PER_TIB * 1000 * (1 - (fillFraction ?? 0));

/** What one file costs beside its bytes on this build, by direction. */
function fileCostsOf({ host, drive, mode, filesystem, rules }: Offer): (direction: 'read' | 'write') => Band {
  const quickRemoval = host.os.family === 'windows' && schoolChoice('write-cache', rules) === 'quick-removal';
  return (direction) => fileCost(drive.drive.media === 'hdd', isTunnelled(mode), filesystem, quickRemoval, direction);
}

/**
 * How long the job takes, and whether the write cache ends in the middle of it.
 * @returns the forecast, and the cache as the host's own disk feeds it
 */
export function forecastJob(job: Job, offer: Offer): { forecast: JobForecast; fed: CacheForecast } {
  const { host, drive, read, write, cache, freeGB, usableTiB } = offer;
  const perFile = fileCostsOf(offer);
  // The host's own disk feeds the cache slower only where it is the slower one.
  const source = host.internalDisk?.readMBps ?? Infinity;
  const fed = source >= write.high ? cache : forecastCache(drive, capBand(write, source), freeGB);
  const into = () => jobTime(job.transferGB, job.files ?? 1, withHostDisk(host, write, fed, 'write'), perFile('write'));
  const outOf = () => jobTime(job.transferGB, job.files ?? 1, withHostDisk(host, read, null, 'read'), perFile('read'));
  const seconds = job.direction === 'in' ? into() : job.direction === 'out' ? outOf() : addBands(into(), outOf());
  return {
    fed,
    forecast: {
      seconds,
      cliffReached:
        job.direction !== 'out' && fed.typicalCliff && fed.cliffAtGB !== null && job.transferGB > fed.cliffAtGB.typical,
      // No thermal forecast yet, so nothing is claimed about throttling.
      throttleReached: null,
      fits: needGB(job) <= usableFreeGB(usableTiB, drive.drive.fillFraction)
    }
  };
}

/** The ways of a job one by one: where the time goes and which end limits, in the typical case. */
export function jobWays(job: Job, offer: Offer, fed: CacheForecast): JobWay[] {
  const { host, drive, read, write } = offer;
  const perFile = fileCostsOf(offer);
  const files = job.files ?? 1;
  const way = (direction: 'in' | 'out'): JobWay => {
    const writes = direction === 'in';
    const through = writes ? write : read;
    const { burst, cliffGB, after } = withHostDisk(host, through, writes ? fed : null, writes ? 'write' : 'read');
    const fast = cliffGB === null ? job.transferGB : Math.min(job.transferGB, cliffGB.typical);
    const spent = {
      bytes: (fast * 1000) / burst.typical,
      afterCliff: ((job.transferGB - fast) * 1000) / Math.min(after.typical, burst.typical),
      files: files * perFile(writes ? 'write' : 'read').typical
    };
    const seconds = spent.bytes + spent.afterCliff + spent.files;
    const other = burst.typical < through.typical;
    const own = writes ? drive.write : drive.read;
    const limitedBy =
      spent.files > spent.bytes + spent.afterCliff
        ? 'files'
        : spent.afterCliff > spent.bytes
          ? writes
            ? 'drive-cache'
            : 'host-disk-cache'
          : other
            ? 'host-disk'
            : own.typical <= through.typical
              ? 'drive'
              : 'link';
    return { direction, seconds, MBps: (job.transferGB * 1000) / seconds, limitedBy, spent };
  };
  return job.direction === 'both' ? [way('in'), way('out')] : [way(job.direction)];
}
