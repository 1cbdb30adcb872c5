import { FILESYSTEMS, OS_LABEL, type FilesystemId, type OsFamily } from '../facts/filesystems.ts';
import { listed } from '../quantities/format.ts';
import { accessOf } from './access.ts';
import { OPENS } from './encryption.ts';
import type { Systems } from './advise.ts';

/** What a filesystem has beside reach, in the words of what is lost without it. */
const HAS = {
  journal: 'the journal: a pulled cable can cost the volume instead of the last file',
  permissions: 'permissions and owners of files',
  snapshots: 'snapshots, to which one can go back',
  checksums: 'checksums: silent damage goes unnoticed',
  'large-files': 'some speed with very large files',
  'small-files': 'room, where there are many small files',
  seeks: 'speed on a turning disk as it ages',
  'any-size': 'files above 4 GiB',
  shrinks: 'the possibility to make it smaller later',
  'in-place': 'speed of files that are changed in place, as those of databases are'
} as const;
type Trait = keyof typeof HAS;

const TRAITS: Record<FilesystemId, readonly Trait[]> = {
  apfs: ['journal', 'permissions', 'snapshots', 'small-files', 'any-size', 'shrinks'],
  'hfs+': ['journal', 'permissions', 'seeks', 'small-files', 'any-size', 'shrinks', 'in-place'],
  ntfs: ['journal', 'permissions', 'small-files', 'any-size', 'shrinks', 'in-place'],
  exfat: ['any-size', 'in-place'],
  fat32: ['in-place'],
  ext4: ['journal', 'permissions', 'small-files', 'any-size', 'shrinks', 'in-place'],
  xfs: ['journal', 'permissions', 'large-files', 'small-files', 'any-size', 'in-place'],
  btrfs: ['journal', 'permissions', 'snapshots', 'checksums', 'small-files', 'any-size', 'shrinks']
};

/** Traits that count on one kind of drive only. */
const onlyOn = (trait: Trait, media: 'nvme' | 'sata-ssd' | 'hdd'): boolean => trait !== 'seeks' || media === 'hdd';

/** Whose own a filesystem is: that system alone checks and repairs it fully. */
const OWN: Partial<Record<FilesystemId, OsFamily>> = {
  apfs: 'macos',
  'hfs+': 'macos',
  ntfs: 'windows',
  ext4: 'linux',
  xfs: 'linux',
  btrfs: 'linux'
};

/** Computers and phones that one may meet later, beside those of the job. */
const MET: readonly OsFamily[] = ['windows', 'macos', 'linux', 'ipados', 'android', 'tv'];

/** Which systems write the one and not the other. */
function reachLost(id: FilesystemId, first: FilesystemId, families: readonly OsFamily[]): OsFamily[] {
  const writes = (of: FilesystemId, family: OsFamily) => accessOf(of, { family }).can === 'writes';
  return MET.filter((family) => !families.includes(family) && writes(first, family) && !writes(id, family));
}

/**
 * Says in one sentence what is lost by another filesystem than the first.
 * @param encrypt whether the drive is to be encrypted
 * @example lossesOf('exfat', 'ntfs', { families: ['windows'], writers: [], readers: [] }, 'nvme', false).startsWith('You lose the journal') // true
 */
// eslint-disable-next-line max-params -- two filesystems, and what they are compared for
export function lossesOf(
  id: FilesystemId,
  first: FilesystemId,
  { families, writers }: Systems,
  media: 'nvme' | 'sata-ssd' | 'hdd',
  encrypt: boolean
): string {
  const lost: string[] = TRAITS[first].flatMap((trait) =>
    TRAITS[id].includes(trait) || !onlyOn(trait, media) ? [] : [HAS[trait]]
  );
  const native = (of: FilesystemId) => families.every((family) => OPENS[of]?.includes(family));
  if (encrypt && native(first) && !native(id)) lost.push('the system’s own encryption');
  const own = OWN[first];
  if (own && families.includes(own) && OWN[id] !== own)
    lost.push(`the full check and repair by ${OS_LABEL[own]} itself`);
  const addOn = writers.find((os) => accessOf(id, os).old);
  if (addOn) lost.push(`simplicity: ${OS_LABEL[addOn.family]} ${addOn.version} needs software for it`);
  const unreached = reachLost(id, first, families).map((family) => OS_LABEL[family]);
  if (unreached.length > 0) lost.push(`what ${listed(unreached)} could write later`);
  const name = FILESYSTEMS[id].label;
  return lost.length === 0
    ? `You lose nothing that this job asks for; ${name} only stands behind by the order of preference.`
    : `You lose ${lost.join('; ')}.`;
}
