import { FILESYSTEMS, type FilesystemId, type OsFamily } from '../facts/filesystems.ts';
import { chosenOption, type HouseRules } from '../house-rules/house-rules.ts';
import type { Job } from '../parts/job.ts';
import { SIMPLE } from './scheme.ts';

/** Systems that share APFS. */
export const APPLE: readonly OsFamily[] = ['macos', 'ipados', 'ios'];

/** Which systems open the encryption of a filesystem's own system. */
export const OPENS: Partial<Record<FilesystemId, readonly OsFamily[]>> = {
  apfs: APPLE,
  'hfs+': ['macos'],
  ntfs: ['windows'],
  ext4: ['linux'],
  xfs: ['linux'],
  btrfs: ['linux']
};

/** Says how a drive is encrypted for these systems. */
function encryptedHow(id: FilesystemId, families: readonly OsFamily[]): string {
  if (families.some((family) => SIMPLE.includes(family)))
    return 'a simple device cannot open it: encrypt what is copied off it';
  const native = OPENS[id];
  return native && families.every((family) => native.includes(family))
    ? `${FILESYSTEMS[id].label} with the system’s own encryption, switched on when it is formatted`
    : 'no native encryption spans these systems: an encrypted container on it, made with a program that all of them have';
}

/**
 * Says what encrypting the drive means with this filesystem, where the job asks for it, or where it is carried and does not say.
 * No native scheme spans macOS, Windows and Linux.
 * @example encryptionFor('exfat', ['macos'], undefined, undefined) // null
 */
export function encryptionFor(
  id: FilesystemId,
  families: readonly OsFamily[],
  job: Job | undefined,
  rules: HouseRules | undefined
): { because: string; effect: string; advised: boolean } | null {
  const advised = job?.encrypt === undefined && job?.carried === true;
  if (!job?.encrypt && !advised) return null;
  if (advised && chosenOption('encrypt', rules) !== 'yes') {
    const effect = 'it stays readable for whoever finds it';
    return { because: `not encrypted: ${effect}`, effect, advised };
  }
  const effect = encryptedHow(id, families);
  return {
    because: `encryption ${advised ? 'is advisable for a carried drive' : 'as the job asks'}: ${effect}`,
    effect,
    advised
  };
}
