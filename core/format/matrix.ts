import {
  FILESYSTEM_IDS,
  FILESYSTEMS,
  OS_FAMILIES,
  OS_LABEL,
  type FilesystemId,
  type OsFamily
} from '../facts/filesystems.ts';
import { MAKES } from '../erase/makers.ts';
import { SYSTEMS } from '../listing/device.ts';

/** What one system does with one filesystem. */
export type MatrixCell = {
  filesystem: FilesystemId;
  os: OsFamily;
  does: 'writes' | 'reads' | 'no';
  makes: boolean;
  /** From which version on, and what else is to be known. */
  note: string;
};
export type MatrixRow = {
  filesystem: FilesystemId;
  label: string;
  limits: string;
  source: string;
  cells: MatrixCell[];
};

function noteOf(id: FilesystemId, os: OsFamily): string {
  const support = FILESYSTEMS[id].writes[os] ?? FILESYSTEMS[id].reads[os];
  if (!support) return '';
  const parts = [
    support.since && `from ${support.since}`,
    support.sure && `for certain from ${support.sure}`,
    support.note
  ].filter((part) => part !== undefined && part !== '');
  return parts.join('; ');
}

const makesIt = (id: FilesystemId, os: OsFamily): boolean => {
  const system = SYSTEMS.find((one) => one === os);
  return system !== undefined && Object.hasOwn(MAKES[system], id);
};

const LIMITS: Record<FilesystemId, string> = {
  apfs: 'made for flash; on a turning disk it slows with age',
  'hfs+': 'no snapshots; Linux writes it only with the journal off',
  ntfs: 'the permissions of one Windows can lock out another',
  exfat: 'no journal, no permissions; large units waste room on small files',
  fat32: 'files up to 4 GiB less one byte; Windows makes at most 32 GiB',
  ext4: 'owners follow user numbers from computer to computer; 5 % kept back',
  xfs: 'owners follow user numbers; cannot be made smaller',
  btrfs: 'owners follow user numbers; checksums and snapshots'
};

/** Where it can be read up. */
const SOURCES: Record<FilesystemId, string> = {
  apfs: 'the published reference of APFS; release notes of macOS 10.13, iOS 13 and iPadOS 13',
  'hfs+': 'the published volume format of HFS Plus; the manual of its Linux driver',
  ntfs: 'the manuals of Windows; release notes of Linux 5.15 (ntfs3)',
  exfat: 'the published specification of exFAT; release notes of macOS 10.6.5, Linux 5.7 and Android 13',
  fat32: 'the published specification of FAT; the manual of the format tool of Windows',
  ext4: 'the manual of mkfs.ext4: 1.6 % tables, 5 % reserve',
  xfs: 'the manual of mkfs.xfs',
  btrfs: 'the manual of Btrfs'
};

/**
 * Lists every filesystem with what each system does with it, from which version on, its limits and where that is from.
 * @example filesystemMatrix().length // 8
 */
export const filesystemMatrix = (): MatrixRow[] =>
  FILESYSTEM_IDS.map((filesystem) => ({
    filesystem,
    label: FILESYSTEMS[filesystem].label,
    limits: LIMITS[filesystem],
    source: SOURCES[filesystem],
    cells: OS_FAMILIES.map((os) => ({
      filesystem,
      os,
      does: FILESYSTEMS[filesystem].writes[os] ? 'writes' : FILESYSTEMS[filesystem].reads[os] ? 'reads' : 'no',
      makes: makesIt(filesystem, os),
      note: noteOf(filesystem, os)
    }))
  }));

/**
 * Finds the rows and systems of the matrix that speak of what is looked for.
 * @example findInMatrix(filesystemMatrix(), 'exfat').rows.length // 1
 */
export function findInMatrix(rows: readonly MatrixRow[], text: string): { rows: MatrixRow[]; systems: OsFamily[] } {
  const wanted = text
    .toLowerCase()
    .split(/\s+/)
    .filter((word) => word !== '');
  const systems = OS_FAMILIES.filter((os) => wanted.some((word) => OS_LABEL[os].toLowerCase().includes(word)));
  const others = wanted.filter((word) => !OS_FAMILIES.some((os) => OS_LABEL[os].toLowerCase().includes(word)));
  const found = rows.filter(({ label, limits, source, cells }) =>
    others.every((word) =>
      [label, limits, source, ...cells.map(({ note }) => note)].join(' ').toLowerCase().includes(word)
    )
  );
  return { rows: found, systems: systems.length > 0 ? systems : [...OS_FAMILIES] };
}
