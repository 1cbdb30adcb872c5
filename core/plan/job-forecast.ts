import type { FilesystemId } from '../facts/filesystems.ts';
import { schoolChoice, type HouseRules } from '../facts/schools.ts';
import { isTunnelled } from '../link/modes.ts';
import type { LinkMode } from '../facts/link-modes.ts';
import type { FilledDrive } from '../parts/fill.ts';
import type { Host } from '../parts/host.ts';
import type { Job } from '../parts/job.ts';
import { capBand, type Band } from '../quantities/band.ts';
import { TB_PER_TIB } from '../quantities/unit.ts';
import { fillOf, forecastCache, type CacheForecast } from '../throughput/flash-cache.ts';
import { fileCost } from '../throughput/job-time.ts';
import { zoneTime } from '../throughput/disk.ts';
import { march, type March, type Phase } from '../thermal/march.ts';
import type { Limits, Setting } from '../thermal/throttle.ts';
import { mayThrottle } from '../thermal/warmth.ts';
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
  limitedBy: 'files' | 'host-disk' | 'host-disk-cache' | 'drive-cache' | 'drive' | 'link' | 'heat';
  /** Seconds spent on bytes before a cliff, on bytes after it, on opening and closing files, and lost to throttling. */
  spent: { bytes: number; afterCliff: number; files: number; throttled: number };
};

/** What a volume needs to hold at least, GB. */
export const needGB = (job: Job): number => Math.max(job.transferGB, (job.capacityTB ?? 0) * 1000);

/** What the filesystem leaves free on the drive, GB. */
export const usableFreeGB = (usableTiB: number, fillFraction: number | undefined): number =>
  usableTiB * TB_PER_TIB * 1000 * (1 - (fillFraction ?? 0));

/** What one file costs beside its bytes on this build, s. */
export function fileCostOf({ host, drive, mode, filesystem, rules }: Offer, direction: 'read' | 'write'): Band {
  const quickRemoval = host.os.family === 'windows' && schoolChoice('write-cache', rules) === 'quick-removal';
  return fileCost(drive.drive.media === 'hdd', isTunnelled(mode), filesystem, quickRemoval, direction);
}

/** One direction of a job at one end of its bands: its phases, and how long they take without any throttling. */
type Way = { direction: 'in' | 'out'; phases: Phase[]; seconds: number; spent: Omit<JobWay['spent'], 'throttled'> };
type End = 'low' | 'typical' | 'high';
/** Slow rates go with dear files. */
const COST_AT: Record<End, End> = { low: 'high', typical: 'typical', high: 'low' };

/** Where the time of one direction goes without any throttling, at one end of the bands. */
type Spent = { burst: number; rest: number; fastGB: number; bytes: number; afterCliff: number; files: number };

function spentOn(job: Job, offer: Offer, fed: CacheForecast, direction: 'in' | 'out', end: End): Spent {
  const { host, drive, read, write } = offer;
  const writes = direction === 'in';
  const { burst, cliffGB, after } = withHostDisk(
    host,
    writes ? write : read,
    writes ? fed : null,
    writes ? 'write' : 'read'
  );
  const volume = job.transferGB;
  const files = (job.files ?? 1) * fileCostOf(offer, writes ? 'write' : 'read')[COST_AT[end]];
  const fast = cliffGB === null || cliffGB[end] > volume ? volume : cliffGB[end];
  const rest = Math.min(after[end], burst[end]);
  let bytes = (fast * 1000) / burst[end];
  if (drive.drive.media === 'hdd' && end === 'typical') {
    // From where the disk is filled to inwards: the mean over the whole disk is for a disk that is filled whole.
    const own = writes ? drive.write : drive.read;
    const cap = burst.typical < own.typical ? burst.typical : Infinity;
    const filled = drive.drive.fillFraction ?? 0;
    bytes = zoneTime(volume, filled, drive.drive.capacityTB * 1000, own.high, own.low, cap);
  }
  return { burst: burst[end], rest, fastGB: fast, bytes, afterCliff: ((volume - fast) * 1000) / rest, files };
}

function wayOf(job: Job, offer: Offer, fed: CacheForecast, direction: 'in' | 'out', end: End): Way {
  const { rest, fastGB, bytes, afterCliff, files } = spentOn(job, offer, fed, direction, end);
  const writes = direction === 'in';
  const volume = job.transferGB;
  const perMB = files / (volume * 1000);
  const phases: Phase[] = [];
  if (fastGB > 0) {
    const first: Phase = {
      work: writes ? 'write' : 'read',
      rate: (fastGB * 1000) / bytes,
      perMB,
      volumeMB: fastGB * 1000
    };
    const fills = writes && volume > fastGB ? fillOf(offer.drive, offer.freeGB, end) : null;
    if (fills) first.fills = fills;
    phases.push(first);
  }
  if (volume > fastGB)
    phases.push({ work: writes ? 'post' : 'read', rate: rest, perMB, volumeMB: (volume - fastGB) * 1000 });
  return { direction, phases, seconds: bytes + afterCliff + files, spent: { bytes, afterCliff, files } };
}

const WAYS = { in: ['in'], out: ['out'], both: ['in', 'out'] } as const;
const directionsOf = (job: Job): readonly ('in' | 'out')[] => WAYS[job.direction];

/** What the drive's cache does when the host's own disk feeds it, where that is the slower one. */
export function fedBy({
  host,
  drive,
  write,
  cache,
  freeGB
}: Pick<Offer, 'host' | 'drive' | 'write' | 'cache' | 'freeGB'>): CacheForecast {
  const source = host.internalDisk?.readMBps ?? Infinity;
  return source >= write.high ? cache : forecastCache(drive, capBand(write, source), freeGB);
}

/** The phases of a job in the order of the work: onto the drive, then from it. */
export const phasesOf = (job: Job, offer: Offer, fed: CacheForecast, end: End = 'typical'): Phase[] =>
  directionsOf(job).flatMap((direction) => wayOf(job, offer, fed, direction, end).phases);

/** How the build warms, at the setting for each end of a band; without the ends only the typical case is followed. */
export type JobWarmth = { limits: Limits | null; typical: Setting; ends?: { slow: Setting; fast: Setting } };

/** Time of a job with throttling, and what came of it: followed only where some phase could ever get hot enough. */
function timeOf(
  ways: readonly Way[],
  setting: Setting | undefined,
  limits: Limits | null
): { seconds: number; marched: March | null } {
  const plain = ways.reduce((sum, way) => sum + way.seconds, 0);
  const phases = ways.flatMap((way) => way.phases);
  if (!setting || !mayThrottle(setting, phases, limits)) return { seconds: plain, marched: null };
  const marched = march(setting, phases, limits);
  return { seconds: marched.throttleAtS === null ? plain : marched.seconds, marched };
}

/**
 * Typical time of a job, throttling included: the one figure that a ranking needs of it.
 * @param warmth null where nothing of this build ever gets hot enough to throttle
 */
export function jobSeconds(job: Job, offer: Offer, warmth: JobWarmth | null): number {
  const fed = fedBy(offer);
  if (warmth) {
    const ways = directionsOf(job).map((direction) => wayOf(job, offer, fed, direction, 'typical'));
    return timeOf(ways, warmth.typical, warmth.limits).seconds;
  }
  let seconds = 0;
  for (const direction of directionsOf(job)) {
    const { bytes, afterCliff, files } = spentOn(job, offer, fed, direction, 'typical');
    seconds += bytes + afterCliff + files;
  }
  return seconds;
}

/**
 * How long the job takes, and whether the write cache ends in the middle of it, or the drive throttles.
 * @returns the forecast, the cache as the host's own disk feeds it, and the march through the typical case where there was one
 */
export function forecastJob(
  job: Job,
  offer: Offer,
  warmth: JobWarmth
): { forecast: JobForecast; fed: CacheForecast; marched: March | null } {
  const { drive, usableTiB } = offer;
  const fed = fedBy(offer);
  const at = (end: End, setting: Setting | undefined) =>
    timeOf(
      directionsOf(job).map((direction) => wayOf(job, offer, fed, direction, end)),
      setting,
      warmth.limits
    );
  const typical = at('typical', warmth.typical);
  const slow = at('low', warmth.ends?.slow).seconds;
  const fast = at('high', warmth.ends?.fast).seconds;
  return {
    fed,
    marched: typical.marched,
    forecast: {
      seconds: {
        low: Math.min(fast, typical.seconds),
        typical: typical.seconds,
        high: Math.max(slow, typical.seconds)
      },
      cliffReached:
        job.direction !== 'out' && fed.typicalCliff && fed.cliffAtGB !== null && job.transferGB > fed.cliffAtGB.typical,
      throttleReached: (typical.marched?.throttleAtS ?? null) !== null,
      fits: needGB(job) <= usableFreeGB(usableTiB, drive.drive.fillFraction)
    }
  };
}

/** The ways of a job one by one: where the time goes and which end limits, in the typical case. */
export function jobWays(job: Job, offer: Offer, fed: CacheForecast, throttledSeconds: number): JobWay[] {
  const { host, drive, read, write } = offer;
  const made = directionsOf(job).map((direction): JobWay => {
    const { seconds, spent } = wayOf(job, offer, fed, direction, 'typical');
    const writes = direction === 'in';
    const through = writes ? write : read;
    const { burst } = withHostDisk(host, through, null, writes ? 'write' : 'read');
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
    return {
      direction,
      seconds,
      MBps: (job.transferGB * 1000) / seconds,
      limitedBy,
      spent: { ...spent, throttled: 0 }
    };
  });
  // What throttling costs is shared out as the bytes are.
  const plain = made.reduce((sum, way) => sum + way.seconds, 0);
  const lost = throttledSeconds - plain;
  if (lost <= 1e-9) return made;
  return made.map((way) => {
    const share = (lost * way.seconds) / plain;
    const seconds = way.seconds + share;
    return {
      ...way,
      seconds,
      MBps: (job.transferGB * 1000) / seconds,
      limitedBy: share > way.seconds ? 'heat' : way.limitedBy,
      spent: { ...way.spent, throttled: share }
    };
  });
}
