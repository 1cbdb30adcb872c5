import { DISK, FILE_COST_S } from '../facts/flash.ts';
import type { FilesystemId } from '../facts/filesystems.ts';
import type { LinkMode } from '../facts/link-modes.ts';
import { isTunnelled } from '../chain/modes.ts';
import { diskSize, type FilledDrive } from '../parts/fill/drive.ts';
import type { Host } from '../parts/host.ts';
import type { Job } from '../parts/job.ts';
import { capBand, scaleBand, type Band } from '../quantities/band.ts';
import { TB_PER_TIB, type GB, type MBps, type Seconds } from '../quantities/measures.ts';
import { diskRateAt, zoneTime } from './disk.ts';
import { fillOf, forecastCache, type CacheFill, type CacheForecast } from './flash-cache.ts';

/**
 * How long a job takes on a chain: one set of functions for plan, simulation and ranking. Heat is not in it; the pieces of a job are
 * what the thermal model follows.
 */

/** What a chain offers to a job. */
export type JobChain = {
  host: Host;
  drive: FilledDrive;
  mode: LinkMode;
  /** Everything but the drive itself: port, cable, bridge and slot. */
  link: { read: Band<MBps>; write: Band<MBps> };
  /** The whole chain, the drive included. */
  read: Band<MBps>;
  write: Band<MBps>;
  cache: CacheForecast;
  /** Free on the drive as it is sold, and what the filesystem leaves of all of it. */
  freeGB: GB;
  usableTiB: number;
  filesystem: FilesystemId;
  /** Whether the host writes without a cache of its own (Windows, quick removal). */
  quickRemoval: boolean;
  /** Of a hard disk: measured over forecast, 1 where nothing was measured. */
  diskFactor: { read: number; write: number };
};

export type JobDirection = 'in' | 'out';
export type End = 'low' | 'typical' | 'high';

/** Rates that were measured on this very chain, MB/s. */
export type MeasuredRates = { readMBps?: MBps | undefined; writeMBps?: MBps | undefined };

/** How far a measured rate may be off on another day. Estimate. */
const MEASURED_SPREAD = { low: 0.95, typical: 1, high: 1.05 } as const;

/** Puts measured rates in the place of the forecast: of a disk at the place where it is filled to, from where its zones follow. */
export function withMeasured(chain: JobChain, measured: MeasuredRates | undefined): JobChain {
  if (measured?.readMBps === undefined && measured?.writeMBps === undefined) return chain;
  const { drive, freeGB } = chain;
  const band = (value: number) => scaleBand(value, MEASURED_SPREAD.low, MEASURED_SPREAD.typical, MEASURED_SPREAD.high);
  const made: JobChain = { ...chain, link: { ...chain.link }, diskFactor: { ...chain.diskFactor } };
  for (const of of ['read', 'write'] as const) {
    const value = measured[of === 'read' ? 'readMBps' : 'writeMBps'];
    if (value === undefined) continue;
    if (drive.drive.media === 'hdd') {
      const { outer, inner } = diskEdges(drive, of);
      const here = diskRateAt(drive.drive.fillFraction ?? 0, outer.typical, inner.typical);
      const factor = value / Math.min(here, chain.link[of].typical);
      made.diskFactor[of] = factor;
      made.link[of] = scaleBand(factor, chain.link[of].low, chain.link[of].typical, chain.link[of].high);
    } else {
      made[of] = band(value);
      made.link[of] = made[of];
    }
  }
  if (measured.writeMBps !== undefined) made.cache = forecastCache(drive, made.write, freeGB);
  return made;
}

/** Gives the room that a job needs, GB; nothing where it only takes from the drive and states no room. */
export const needGB = (job: Job): GB =>
  Math.max(job.direction === 'out' ? 0 : job.transferGB, (job.capacityTB ?? 0) * 1000);

/** Gives what the filesystem leaves free on the drive, GB. */
export const usableFreeGB = (usableTiB: number, fillFraction: number | undefined): GB =>
  usableTiB * TB_PER_TIB * 1000 * (1 - (fillFraction ?? 0));

/** Gives what one file costs beside its bytes, s: by disk or flash, link, filesystem and removal policy. */
export function fileCost(
  { drive, mode, filesystem, quickRemoval }: Pick<JobChain, 'drive' | 'mode' | 'filesystem' | 'quickRemoval'>,
  way: JobDirection
): Band<Seconds> {
  if (drive.drive.media === 'hdd') return way === 'out' ? FILE_COST_S.diskRead : FILE_COST_S.diskWrite;
  if (quickRemoval && way === 'in') return FILE_COST_S.quickRemoval;
  const light = filesystem === 'exfat' || filesystem === 'fat32';
  return isTunnelled(mode) && !light ? FILE_COST_S.tunnel : FILE_COST_S.usb;
}

/** The other end of a copy: what it lets through at all, and the write cache that it falls off, if it has one. */
export type HostEnd = { MBps: MBps; cliffGB: GB | null; after: MBps };

/** Finds what the host's own disk does to a way; an unknown one is taken to keep up. */
export function hostEnd({ internalDisk: disk }: Host, way: JobDirection, rate: MBps): HostEnd {
  if (!disk) return { MBps: Infinity, cliffGB: null, after: Infinity };
  if (way === 'in') return { MBps: disk.readMBps, cliffGB: null, after: disk.readMBps };
  const after = disk.postCacheWriteMBps;
  // Its cliff counts where its cache and the rate after it are known and the drive feeds it faster than that.
  return disk.cacheGB === undefined || after === undefined || Math.min(rate, disk.writeMBps) <= after
    ? { MBps: disk.writeMBps, cliffGB: null, after: disk.writeMBps }
    : { MBps: disk.writeMBps, cliffGB: disk.cacheGB, after };
}

/**
 * Gives the rates of a hard disk at its two edges with what is uncertain about them, MB/s: a stated edge holds within some percent for
 * another disk of the model, an unstated one within its class.
 */
export function diskEdges(drive: FilledDrive, of: 'read' | 'write'): { outer: Band<MBps>; inner: Band<MBps> } {
  const { disk, readMBps, writeMBps } = drive.drive;
  const own = drive[of];
  const spread = DISK.stated;
  const around = (value: number) => scaleBand(value, spread.low, spread.typical, spread.high);
  const known = disk?.outerMBps !== undefined || readMBps !== undefined || (of === 'write' && writeMBps !== undefined);
  const usual = DISK.outerMBps[diskSize(drive.drive)];
  const outer = known
    ? around(own.high)
    : { low: (own.high * usual.low) / usual.typical, typical: own.high, high: (own.high * usual.high) / usual.typical };
  if (disk?.innerMBps !== undefined) {
    const inner = around(own.low);
    return { outer, inner: { ...inner, high: Math.min(inner.high, outer.high), low: Math.min(inner.low, outer.low) } };
  }
  const { innerShare } = DISK;
  return {
    outer,
    inner: { low: outer.low * innerShare.low, typical: own.low, high: outer.high * innerShare.high }
  };
}

/**
 * Finds where on a hard disk a volume begins, as a share of the capacity from the outer edge. What is written goes on where the disk is
 * filled to; what is read lies somewhere in what is filled. Where nobody says how full it is, it is typically taken from the outer
 * edge, and at worst at the inner one.
 */
export function diskStart({ drive }: FilledDrive, volumeGB: GB, way: JobDirection, end: End): number {
  const share = Math.min(1, volumeGB / (drive.capacityTB * 1000));
  const filled = drive.fillFraction;
  if (filled === undefined) return end === 'low' ? 1 - share : 0;
  if (way === 'in') return filled;
  const last = Math.max(0, filled - share);
  return end === 'low' ? last : end === 'high' ? 0 : last / 2;
}

/** A stretch of one way of a job at one rate. */
export type Stretch = {
  work: 'write' | 'post' | 'read';
  GB: GB;
  MBps: MBps;
  /** The cache that ends it, where a throttled rate would end it later. */
  fills?: CacheFill;
};

/** One way of a job without any throttling: up to a cliff and after it, and the time of its files. */
export type DirectionTime = {
  way: JobDirection;
  before: Seconds;
  after: Seconds;
  files: Seconds;
  fastGB: GB;
  restGB: GB;
};

/** At the slow end of the bands files cost most. */
const COST_AT: Record<End, End> = { low: 'high', typical: 'typical', high: 'low' };

/**
 * Works out one way of a job at one end of the bands: up to a cliff and after it, capped by link and host disk everywhere.
 * @param fed the drive's cache as the host's own disk feeds it
 */
// eslint-disable-next-line complexity -- disk and flash side by side, so that their caps can be compared
export function directionTime(
  job: Job,
  chain: JobChain,
  fed: CacheForecast,
  { way, end }: { way: JobDirection; end: End }
): DirectionTime {
  const { host, drive } = chain;
  const writes = way === 'in';
  const of = writes ? 'write' : 'read';
  const volume = job.transferGB;
  const files = (job.files ?? 1) * fileCost(chain, way)[COST_AT[end]];
  const disk = drive.drive.media === 'hdd';
  const link = disk ? chain.link[of] : chain[of];
  const other = hostEnd(host, way, link.typical);
  const cap = Math.min(link[end], other.MBps);
  const cliffGB = writes && !disk ? (fed.cliffAtGB?.[end] ?? null) : other.cliffGB;
  const fastGB = cliffGB === null || cliffGB > volume ? volume : cliffGB;
  const restGB = volume - fastGB;
  const afterCap = Math.min(cap, other.after);
  if (disk) {
    const { outer, inner } = diskEdges(drive, of);
    const factor = chain.diskFactor[of];
    const capacityGB = drive.drive.capacityTB * 1000;
    const zones = { capacityGB, outer: outer[end] * factor, inner: inner[end] * factor };
    const from = diskStart(drive, volume, way, end);
    const before = zoneTime(fastGB, from, zones, cap);
    const after = restGB > 0 ? zoneTime(restGB, Math.min(1, from + fastGB / capacityGB), zones, afterCap) : 0;
    return { way, before, after, files, fastGB, restGB };
  }
  const before = (fastGB * 1000) / cap;
  const after = (restGB * 1000) / (writes ? Math.min(fed.sustained[end], cap) : afterCap);
  return { way, before, after, files, fastGB, restGB };
}

/** Gives the pieces of a way, for the thermal model to follow. */
export function stretchesOf(
  { drive, freeGB }: Pick<JobChain, 'drive' | 'freeGB'>,
  { way, before, after, fastGB, restGB }: DirectionTime,
  end: End
): Stretch[] {
  const writes = way === 'in';
  const disk = drive.drive.media === 'hdd';
  const pieces: Stretch[] = [];
  if (fastGB > 0) {
    const piece: Stretch = { work: writes ? 'write' : 'read', GB: fastGB, MBps: (fastGB * 1000) / before };
    const fills = writes && restGB > 0 ? fillOf(drive, freeGB, end) : null;
    if (fills) piece.fills = fills;
    pieces.push(piece);
  }
  if (restGB > 0)
    pieces.push({
      work: writes && !disk ? 'post' : writes ? 'write' : 'read',
      GB: restGB,
      MBps: (restGB * 1000) / after
    });
  return pieces;
}

const WAYS = { in: ['in'], out: ['out'], both: ['in', 'out'] } as const;
/** Gives the ways of a job in the order of the work: onto the drive, then from it. */
export const directionsOf = (job: Job): readonly JobDirection[] => WAYS[job.direction];

/** Gives the cache forecast with the write capped by what the host's own disk reads. */
export function cacheBehindHost({
  host,
  drive,
  write,
  cache,
  freeGB
}: Pick<JobChain, 'host' | 'drive' | 'write' | 'cache' | 'freeGB'>): CacheForecast {
  const source = host.internalDisk?.readMBps ?? Infinity;
  return source >= write.high ? cache : forecastCache(drive, capBand(write, source), freeGB);
}
