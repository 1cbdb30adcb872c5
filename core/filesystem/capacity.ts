import { EFI_PARTITION_GB, FILESYSTEMS, type FilesystemId } from '../facts/filesystems.ts';
import { tebibytes, type TB, type TiB } from '../quantities/measures.ts';

/** Gives marketed TB -> TiB -> less what the filesystem takes (and the small partition that macOS puts first). Headroom is not taken off. */
export function usableTiB(capacity: TB, filesystem: FilesystemId, madeOnMac: boolean): TiB {
  const partition = madeOnMac ? tebibytes(EFI_PARTITION_GB / 1000) : 0;
  return Math.max(0, (tebibytes(capacity) - partition) * (1 - FILESYSTEMS[filesystem].overhead.typical));
}
