import { FILE_COST_S } from '../facts/flash.ts';
import type { Band } from '../quantities/band.ts';
import type { Seconds } from '../quantities/unit.ts';
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
