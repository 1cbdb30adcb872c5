import { EFI_PARTITION_GB, FILESYSTEMS, type FilesystemId } from '../facts/filesystems.ts';
import { tebibytes, type TB, type TiB } from '../quantities/unit.ts';

/** Marketed TB -> TiB -> less what the filesystem takes (and the small partition that macOS puts first). Headroom is not taken off. */
export function usableTiB(capacity: TB, filesystem: FilesystemId, madeOnMac: boolean): TiB {
  const partition = madeOnMac ? tebibytes(EFI_PARTITION_GB / 1000) : 0;
  return Math.max(0, (tebibytes(capacity) - partition) * (1 - FILESYSTEMS[filesystem].overhead.typical));
}

/**
 * Mean space lost in the last cluster of a file, kB, for exponentially spread sizes: c / (1 - exp(-c / m)) - m.
 * Half a cluster only where files are much larger than a cluster.
 * @throws RangeError for sizes that are not positive
 */
export function slackPerFile(clusterKB: number, meanFileKB: number): number {
  if (!(clusterKB > 0 && meanFileKB > 0)) throw new RangeError('sizes must be positive');
  return clusterKB / (1 - Math.exp(-clusterKB / meanFileKB)) - meanFileKB;
}
