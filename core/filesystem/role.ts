import type { FilesystemId } from '../facts/filesystems.ts';
import { ruleName, chosenOption, type HouseRules, type HouseRuleId } from '../house-rules/house-rules.ts';
import type { Os } from '../parts/host.ts';
import type { Job } from '../parts/job.ts';
import { compareVersions } from './versions.ts';

/** A purpose for which a system wants a filesystem of its own, whoever else uses the drive. */
export type Role = {
  role: 'boot' | 'backup';
  /** The one that stands first, and all that can do it at all. */
  filesystem: FilesystemId;
  able: readonly FilesystemId[];
  because: string;
  /** Why everything else is passed over. */
  refusal: string;
  school?: HouseRuleId | undefined;
};

const from = (os: Os, version: string): boolean =>
  os.version === undefined || compareVersions(os.version, version) >= 0;

function bootOf(host: Os, media: 'nvme' | 'sata-ssd' | 'hdd'): Role | null {
  const refusal = 'cannot be started from here';
  const boot = (filesystem: FilesystemId, able: readonly FilesystemId[], because: string): Role => ({
    role: 'boot',
    filesystem,
    able,
    because,
    refusal
  });
  switch (host.family) {
    case 'macos':
      return from(host, '10.14') || (from(host, '10.13') && media !== 'hdd')
        ? boot('apfs', ['apfs'], 'macOS starts from nothing else since 10.14, hard disks included')
        : boot('hfs+', ['hfs+'], 'what macOS of this age starts from');
    case 'windows':
      return boot('ntfs', ['ntfs'], 'Windows starts from nothing else');
    case 'linux':
      return boot(
        'ext4',
        ['ext4', 'xfs', 'btrfs'],
        'what most Linux systems start from; its installer may make another'
      );
    default:
      return null;
  }
}

function backupOf(host: Os, rules: HouseRules | undefined): Role | null {
  const refusal = 'the system’s own backup refuses it';
  switch (host.family) {
    case 'macos':
      if (!from(host, '11'))
        return {
          role: 'backup',
          filesystem: 'hfs+',
          able: ['apfs', 'hfs+'],
          because: 'a backup target for macOS before 11, whose backup knows nothing else',
          refusal
        };
      return {
        role: 'backup',
        filesystem: chosenOption('mac-backup', rules) as 'apfs' | 'hfs+',
        able: ['apfs', 'hfs+'],
        because: ruleName('mac-backup', rules),
        refusal,
        school: 'mac-backup'
      };
    case 'windows':
      return {
        role: 'backup',
        filesystem: 'ntfs',
        able: ['ntfs'],
        because: 'the versioned backup of Windows wants NTFS',
        refusal
      };
    default:
      return null;
  }
}

/**
 * Finds the role of a drive: what its computer starts from, else what it makes its own versioned backups on.
 * @returns null where the job has neither purpose, or the system makes no difference
 */
export function roleOf(
  host: Os,
  media: 'nvme' | 'sata-ssd' | 'hdd',
  job: Job | undefined,
  rules: HouseRules | undefined
): Role | null {
  if (!job) return null;
  if (job.purposes.includes('boot')) return bootOf(host, media);
  return job.purposes.includes('backup') ? backupOf(host, rules) : null;
}
