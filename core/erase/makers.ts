import type { FilesystemId } from '../facts/filesystems.ts';
import type { ListedSystem } from '../listing/device.ts';

/** What each system makes with its own tools; `package` is what a Linux installs for it. */
export const MAKES: Record<ListedSystem, Partial<Record<FilesystemId, { tool: string; package?: string }>>> = {
  linux: {
    ext4: { tool: 'mkfs.ext4' },
    xfs: { tool: 'mkfs.xfs', package: 'xfsprogs' },
    btrfs: { tool: 'mkfs.btrfs', package: 'btrfs-progs' },
    exfat: { tool: 'mkfs.exfat', package: 'exfatprogs' },
    ntfs: { tool: 'mkfs.ntfs', package: 'ntfs-3g' },
    fat32: { tool: 'mkfs.vfat', package: 'dosfstools' }
  },
  macos: {
    apfs: { tool: 'APFS' },
    'hfs+': { tool: 'JHFS+' },
    exfat: { tool: 'ExFAT' },
    fat32: { tool: 'FAT32' }
  },
  windows: {
    ntfs: { tool: 'NTFS' },
    exfat: { tool: 'exFAT' },
    fat32: { tool: 'FAT32' }
  }
};

/**
 * Tells whether a system makes a filesystem with its own tools.
 * @example makes('windows', 'ext4') // false
 */
export const makes = (system: ListedSystem, filesystem: FilesystemId): boolean =>
  Object.hasOwn(MAKES[system], filesystem);
