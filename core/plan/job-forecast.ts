/* eslint-disable @typescript-eslint/no-non-null-assertion -- one way for each direction */
import type { Job } from '../parts/job.ts';
import {
  cacheBehindHost,
  hostEnd,
  needGB,
  stretchesOf,
  usableFreeGB,
  directionsOf,
  directionTime,
  type End,
  type JobChain,
  type JobDirection,
  type DirectionTime
} from '../throughput/job-time.ts';
import type { CacheForecast } from '../throughput/flash-cache.ts';
import { followThrottling, type ThrottleTimeline } from '../thermal/throttling/timeline.ts';
import type { Phase } from '../thermal/throttling/phase-volume.ts';
import type { ThrottleLimits } from '../thermal/throttling/throttle.ts';
import type { Setting } from '../thermal/model/setting.ts';
import { mayThrottle } from '../thermal/forecast/when-throttled.ts';
import type { PlanReport } from './report.ts';

export type JobForecast = Omit<NonNullable<PlanReport['job']>, 'ways'>;

/** One way of a job: where its time goes, and which end sets the pace. Typical figures. */
export type JobWay = {
  direction: JobDirection;
  seconds: number;
  MBps: number;
  /** What most of the time is spent on. */
  limitedBy: 'files' | 'host-disk' | 'host-disk-cache' | 'drive-cache' | 'drive' | 'link' | 'heat';
  /** Seconds spent on bytes before a cliff, on bytes after it, on opening and closing files, and lost to throttling. */
  spent: { bytes: number; afterCliff: number; files: number; throttled: number };
};

const secondsOf = ({ before, after, files }: DirectionTime): number => before + after + files;

/** Turns the pieces of the ways into phases for the thermal model: the time for files is spread over the bytes. */
const phasesOf = (job: Job, chain: JobChain, ways: readonly DirectionTime[], end: End): Phase[] => {
  const phases: Phase[] = [];
  for (const way of ways)
    for (const { work, GB, MBps, fills } of stretchesOf(chain, way, end)) {
      const phase: Phase = {
        activity: work,
        rate: MBps,
        perMB: way.files / (job.transferGB * 1000),
        volumeMB: GB * 1000
      };
      if (fills) phase.fills = fills;
      phases.push(phase);
    }
  return phases;
};

/** A job on a chain in the typical case, before any heat: its ways and phases, and the cache as the host's own disk feeds it. */
export type TypicalJob = { fed: CacheForecast; ways: DirectionTime[]; phases: Phase[] };

const waysAt = (job: Job, chain: JobChain, fed: CacheForecast, end: End): DirectionTime[] =>
  directionsOf(job).map((way) => directionTime(job, chain, fed, { way, end }));

/** Works a job out in the typical case, before any heat. */
export function typicalJob(job: Job, chain: JobChain): TypicalJob {
  const fed = cacheBehindHost(chain);
  const ways = waysAt(job, chain, fed, 'typical');
  return { fed, ways, phases: phasesOf(job, chain, ways, 'typical') };
}

/** How the build warms, at the setting for each end of a band; without the ends only the typical case is followed. */
export type JobHeat = { limits: ThrottleLimits | null; typical: Setting; ends?: { slow: Setting; fast: Setting } };

/** Adds what throttling costs to the time of some ways: followed only where a phase could ever get hot enough. */
function underHeat(
  ways: readonly DirectionTime[],
  phases: readonly Phase[],
  setting: Setting | undefined,
  limits: ThrottleLimits | null
): { seconds: number; timeline: ThrottleTimeline | null } {
  let plain = 0;
  for (const way of ways) plain += secondsOf(way);
  if (!setting || !mayThrottle(setting, phases, limits)) return { seconds: plain, timeline: null };
  const timeline = followThrottling(setting, phases, limits);
  return { seconds: timeline.throttleAtS === null ? plain : timeline.seconds, timeline };
}

/**
 * Gives the typical time of a job, throttling included, s: the one figure that a ranking needs of it.
 * @param thermal null where nothing of this build ever gets hot enough to throttle
 */
export function jobSeconds(job: Job, chain: JobChain, thermal: JobHeat | null): number {
  const fed = cacheBehindHost(chain);
  const ways = waysAt(job, chain, fed, 'typical');
  if (thermal) return underHeat(ways, phasesOf(job, chain, ways, 'typical'), thermal.typical, thermal.limits).seconds;
  let seconds = 0;
  for (const way of ways) seconds += secondsOf(way);
  return seconds;
}

/**
 * Forecasts how long the job takes, and whether the write cache ends in the middle of it, or the drive throttles.
 * @returns the forecast, and the march through the typical case where there was one
 */
export function forecastJob(
  job: Job,
  chain: JobChain,
  { fed, ways, phases }: TypicalJob,
  thermal: JobHeat
): { forecast: JobForecast; timeline: ThrottleTimeline | null } {
  const at = (end: End, setting: Setting | undefined) => {
    const made = waysAt(job, chain, fed, end);
    return underHeat(made, setting ? phasesOf(job, chain, made, end) : [], setting, thermal.limits).seconds;
  };
  const typical = underHeat(ways, phases, thermal.typical, thermal.limits);
  const slow = at('low', thermal.ends?.slow);
  const fast = at('high', thermal.ends?.fast);
  return {
    timeline: typical.timeline,
    forecast: {
      seconds: {
        low: Math.min(fast, typical.seconds),
        typical: typical.seconds,
        high: Math.max(slow, typical.seconds)
      },
      cliffReached:
        job.direction !== 'out' && fed.typicalCliff && fed.cliffAtGB !== null && job.transferGB > fed.cliffAtGB.typical,
      throttleReached: (typical.timeline?.throttleAtS ?? null) !== null,
      fits: needGB(job) <= usableFreeGB(chain.usableTiB, chain.drive.drive.fillFraction)
    }
  };
}

/** What each end of one direction could do, MB/s. */
type Ends = { disk: boolean; own: number; link: number; other: number; through: number };

/** A disk that is slower than its link by less than this is held back by the link. */
const CLEARLY_SLOWER = 0.98;

/** Says what most of the time of one direction is spent on, and which end sets the pace. */
function limitOf({ way, before, after, files }: DirectionTime, ends: Ends): JobWay['limitedBy'] {
  const { disk, own, link, other, through } = ends;
  if (files > before + after) return 'files';
  if (after > before) return way === 'in' && !disk ? 'drive-cache' : 'host-disk-cache';
  if (disk) {
    if (own < Math.min(link, other) * CLEARLY_SLOWER) return 'drive';
    return other < link ? 'host-disk' : 'link';
  }
  if (other < through) return 'host-disk';
  return own <= through ? 'drive' : 'link';
}

/** Says of each way of a job where the time goes and which end limits, in the typical case. */
export function jobWays(job: Job, chain: JobChain, ways: readonly DirectionTime[], throttledSeconds: number): JobWay[] {
  const { host, drive } = chain;
  const disk = drive.drive.media === 'hdd';
  const made = directionsOf(job).map((direction, at): JobWay => {
    const way = ways[at]!;
    const seconds = secondsOf(way);
    const of = direction === 'in' ? 'write' : 'read';
    const through = chain[of].typical;
    const other = hostEnd(host, direction, through).MBps;
    // What a disk does where the work is; its mean over the whole of it says nothing there.
    const own = disk ? (way.fastGB * 1000) / way.before : drive[of].typical;
    const link = disk ? chain.link[of].typical : through;
    const limitedBy = limitOf(way, { disk, own, link, other, through });
    return {
      direction,
      seconds,
      MBps: (job.transferGB * 1000) / seconds,
      limitedBy,
      spent: { bytes: way.before, afterCliff: way.after, files: way.files, throttled: 0 }
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
