import { FILESYSTEMS, type FilesystemId } from '../facts/filesystems.ts';

/** How many characters the name of a volume may have: what the filesystem holds, or the tools of most systems give it. */
export const NAME_LIMIT: Record<FilesystemId, number> = {
  apfs: 63,
  'hfs+': 27,
  ntfs: 32,
  exfat: 11,
  fat32: 11,
  ext4: 16,
  xfs: 12,
  btrfs: 63
};

/** Names that mean something else where they are typed. */
const RESERVED = /^(?:con|prn|aux|nul|com\d|lpt\d|device)$/i;

/**
 * Says what is wrong with the name of a volume: every system shows letters, digits, _ and -, and takes them in commands.
 * @returns nothing where it can be given
 * @example volumeNameProblem('SCANS', 'fat32') // undefined
 */
export function volumeNameProblem(name: string, filesystem: FilesystemId): string | undefined {
  const limit = NAME_LIMIT[filesystem];
  if (name.length === 0) return 'must have a letter or a digit at least';
  if (!/^[A-Za-z0-9_-]+$/.test(name)) return 'may hold letters A to Z, digits, _ and -, and nothing else';
  if (name.startsWith('-')) return 'must not begin with -, which commands take for an option';
  if (name.length > limit)
    return `must have at most ${limit} characters: ${FILESYSTEMS[filesystem].label} holds no longer name everywhere`;
  return RESERVED.test(name) ? 'is a word that systems keep for themselves' : undefined;
}

/**
 * Suggests a name for a volume, out of the name of a build or a job.
 * @example suggestVolumeName('Curator’s project drive', 'exfat') // 'CURATORS-PR'
 */
export function suggestVolumeName(words: string, filesystem: FilesystemId): string {
  const plain = words
    .normalize('NFKD')
    .replace(/[\u0300-\u036f'’]/g, '')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .slice(0, NAME_LIMIT[filesystem])
    .split('-')
    .filter((part) => part !== '')
    .join('-');
  // Old filesystems keep capitals only.
  const name = filesystem === 'fat32' || filesystem === 'exfat' ? plain.toUpperCase() : plain;
  return volumeNameProblem(name, filesystem) === undefined ? name : 'DRIVE';
}
