import { type Band, band } from '../quantities/band.ts';

export const OS_FAMILIES = [
  'macos',
  'windows',
  'linux',
  'ipados',
  'ios',
  'android',
  'chromeos',
  'console',
  'camera',
  'tv',
  'car',
  'router'
] as const;
export type OsFamily = (typeof OS_FAMILIES)[number];

export const OS_LABEL: Record<OsFamily, string> = {
  macos: 'macOS',
  windows: 'Windows',
  linux: 'Linux',
  ipados: 'iPadOS',
  ios: 'iOS',
  android: 'Android',
  chromeos: 'ChromeOS',
  console: 'game console',
  camera: 'camera',
  tv: 'TV',
  car: 'car',
  router: 'router'
};

export const FILESYSTEM_IDS = ['apfs', 'hfs+', 'ntfs', 'exfat', 'fat32', 'ext4', 'xfs', 'btrfs'] as const;
export type FilesystemId = (typeof FILESYSTEM_IDS)[number];

/**
 * From which version on; `since` absent means every version. Linux versions are kernel versions. `sure`: known for certain from that
 * version on, before it by the maker's choice. `software`: an add-on filesystem gives it to older versions.
 */
export type Support = { since?: string; sure?: string; software?: boolean; note?: string };
export type FilesystemFacts = {
  label: string;
  writes: Partial<Record<OsFamily, Support>>;
  reads: Partial<Record<OsFamily, Support>>;
  journaled: boolean;
  /** Largest file, GB; absent where no drive of today reaches it. */
  maxFileGB?: number;
  /** Largest volume that this system's own tools make, GB. */
  maxFormatGB?: Partial<Record<OsFamily, number>>;
  /** Share of the capacity that the filesystem itself takes. */
  overhead: Band;
  /** Which systems tell the drive what was freed: over every link that passes it, or through tunnels for certain and over USB seldom. A system that is not named: not known. */
  trim: Partial<Record<OsFamily, 'any-link' | 'tunnel' | 'never'>>;
  media: 'any' | 'ssd';
  source: string;
};

/** 4 GiB - 1 B in decimal GB. */
export const FAT32_MAX_FILE_GB = (2 ** 32 - 1) / 1e9;

export const FILESYSTEMS: Record<FilesystemId, FilesystemFacts> = {
  apfs: {
    label: 'APFS',
    writes: { macos: { since: '10.13' }, ipados: { since: '13' }, ios: { since: '13' } },
    reads: {},
    journaled: true,
    overhead: band(0.002, 0.003, 0.004),
    trim: { macos: 'tunnel' },
    media: 'ssd',
    source: 'copy-on-write, snapshots, encryption; macOS 10.13, iPadOS 13 and iOS 13 on'
  },
  'hfs+': {
    label: 'Mac OS Extended (journaled)',
    writes: { macos: {} },
    reads: { linux: { note: 'writes only with the journal off' }, router: { note: 'some do' } },
    journaled: true,
    overhead: band(0.001, 0.003, 0.006),
    trim: { macos: 'tunnel' },
    media: 'any',
    source: 'every macOS; the choice for hard disks there'
  },
  ntfs: {
    label: 'NTFS',
    writes: {
      windows: {},
      linux: { since: '5.15', software: true, note: 'older kernels through FUSE' },
      router: { note: 'most do' }
    },
    reads: { macos: {}, chromeos: {}, tv: { note: 'many do' } },
    journaled: true,
    overhead: band(0.0002, 0.0005, 0.001),
    trim: { windows: 'any-link', linux: 'any-link' },
    media: 'any',
    source: 'Windows; Linux 5.15 (ntfs3); macOS, ChromeOS and many TVs read only'
  },
  exfat: {
    label: 'exFAT',
    writes: {
      windows: {},
      macos: { since: '10.6.5' },
      linux: { since: '5.7', software: true, note: 'older kernels through FUSE' },
      ipados: { since: '13' },
      ios: { since: '13' },
      android: { sure: '13' },
      chromeos: {},
      console: {},
      camera: { note: 'with cards above 32 GB' },
      tv: {},
      router: { note: 'most do' }
    },
    reads: { car: { note: 'newer ones' } },
    journaled: false,
    overhead: band(0.0001, 0.0003, 0.0005),
    trim: { linux: 'any-link', macos: 'never' },
    media: 'any',
    source: 'no journal, no permissions; macOS 10.6.5, Linux 5.7 on'
  },
  fat32: {
    label: 'FAT32',
    // Phones and tablets take drives at all from 13 on.
    writes: {
      ...Object.fromEntries(OS_FAMILIES.map((family) => [family, {}])),
      ipados: { since: '13' },
      ios: { since: '13' }
    },
    reads: {},
    journaled: false,
    maxFileGB: FAT32_MAX_FILE_GB,
    maxFormatGB: { windows: 32 * 1.073741824 },
    overhead: band(0.0005, 0.001, 0.002),
    trim: { linux: 'any-link', macos: 'never' },
    media: 'any',
    source: 'files up to 4 GiB - 1 B; Windows formats at most 32 GB by default'
  },
  ext4: {
    label: 'ext4',
    writes: { linux: {}, router: { note: 'those that run Linux' } },
    reads: {},
    journaled: true,
    overhead: band(0.016, 0.066, 0.066),
    trim: { linux: 'any-link' },
    media: 'any',
    source: '1.6 % tables and 5 % reserve; ownership follows user numbers between computers'
  },
  xfs: {
    label: 'XFS',
    writes: { linux: {} },
    reads: {},
    journaled: true,
    overhead: band(0.005, 0.01, 0.02),
    trim: { linux: 'any-link' },
    media: 'any',
    source: 'large files; ownership follows user numbers between computers'
  },
  btrfs: {
    label: 'Btrfs',
    writes: { linux: {} },
    reads: {},
    journaled: true,
    overhead: band(0.005, 0.01, 0.02),
    trim: { linux: 'any-link' },
    media: 'any',
    source: 'checksums and snapshots; ownership follows user numbers between computers'
  }
};

/** The partition that macOS puts before a GPT volume, GB. */
export const EFI_PARTITION_GB = 0.2;
/** An MBR addresses 2^32 sectors of 512 B. */
export const MBR_MAX_TB = (2 ** 32 * 512) / 1e12;
