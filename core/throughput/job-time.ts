import { FILE_COST_S } from '../facts/flash.ts';
import type { Band } from '../quantities/band.ts';
import type { GB, MBps, Seconds } from '../quantities/unit.ts';
import type { FilesystemId } from '../facts/filesystems.ts';

/** Which per-file cost holds: by disk or flash, by link, by filesystem and by the removal policy. Seconds a file. */
export function fileCost(
  isDisk: boolean,
  tunnelled: boolean,
  filesystem: FilesystemId,
  quickRemoval: boolean,
  direction: 'read' | 'write'
): Band<Seconds> {
  if (isDisk) return direction === 'read' ? FILE_COST_S.diskRead : FILE_COST_S.diskWrite;
  if (quickRemoval && direction === 'write') return FILE_COST_S.quickRemoval;
  return tunnelled && filesystem !== 'exfat' && filesystem !== 'fat32' ? FILE_COST_S.tunnel : FILE_COST_S.usb;
}

/**
 * Time of a transfer with a cache in its way: the first `cliffGB` at the burst rate, the rest at the rate after it.
 * @param cliffGB null where the rate never falls
 */
export function transferTime(volume: GB, burst: MBps, cliffGB: GB | null, after: MBps): Seconds {
  const fast = cliffGB === null ? volume : Math.min(volume, cliffGB);
  return (fast * 1000) / burst + ((volume - fast) * 1000) / Math.min(after, burst);
}

export type OneWay = { burst: Band<MBps>; cliffGB: Band<GB> | null; after: Band<MBps> };

/** A transfer and its files: bytes / rate + files x cost. The bad ends go together, and so do the good ones. */
export function jobTime(volume: GB, files: number, way: OneWay, perFile: Band<Seconds>): Band<Seconds> {
  const { burst, cliffGB, after } = way;
  return {
    low: transferTime(volume, burst.high, cliffGB?.high ?? null, after.high) + files * perFile.low,
    typical: transferTime(volume, burst.typical, cliffGB?.typical ?? null, after.typical) + files * perFile.typical,
    high: transferTime(volume, burst.low, cliffGB?.low ?? null, after.low) + files * perFile.high
  };
}
