import type { FilesystemId } from '../facts/filesystems.ts';

const KIB = 1024;

/**
 * Gives the allocation unit that systems make by themselves, bytes. exFAT: 32 KiB to 32 GiB, 128 KiB above. FAT32: 4 KiB to 8 GiB, doubled
 * to 32 KiB. NTFS: 4 KiB to 16 TiB, doubled with the size. All others: 4 KiB.
 * @param capacityTB TB (10^12 bytes)
 * @example defaultCluster('exfat', 2) // 131072
 */
export function defaultCluster(filesystem: FilesystemId, capacityTB: number): number {
  const gib = (capacityTB * 1e12) / 2 ** 30;
  if (filesystem === 'exfat') return gib <= 32 ? 32 * KIB : 128 * KIB;
  if (filesystem === 'fat32') return gib <= 8 ? 4 * KIB : gib <= 16 ? 8 * KIB : gib <= 32 ? 16 * KIB : 32 * KIB;
  if (filesystem === 'ntfs') return 4 * KIB * 2 ** Math.max(0, Math.ceil(Math.log2(gib / 1024 / 16)));
  return 4 * KIB;
}

/** What the ends of files leave unused. */
export type Slack = { bytes: number; files: number; perFile: number; share: number };

/**
 * Gives the room that the last clusters of files leave unused, from their sizes: sum of ceil(size / c) x c - size.
 * @param sizes bytes
 * @param cluster bytes
 * @example slackOf([1, 4096], 4096).bytes // 4095
 */
export function slackOf(sizes: readonly number[], cluster: number): Slack {
  let bytes = 0;
  let total = 0;
  for (const size of sizes) {
    bytes += Math.ceil(size / cluster) * cluster - size;
    total += size;
  }
  return {
    bytes,
    files: sizes.length,
    perFile: sizes.length > 0 ? bytes / sizes.length : 0,
    share: total > 0 ? bytes / total : 0
  };
}

/**
 * Estimates the same from the number of files and their mean size m, as sizes that fall off exponentially have it: a file takes
 * c / (1 - exp(-c / m)), of which m is used. For files far above the cluster that is c / 2.
 * @param mean bytes
 * @example Math.round(expectedSlack(1, 4096, 4096).perFile) // 2384
 */
export function expectedSlack(files: number, mean: number, cluster: number): Slack {
  const perFile = cluster / -Math.expm1(-cluster / mean) - mean;
  return { bytes: perFile * files, files, perFile, share: perFile / mean };
}
