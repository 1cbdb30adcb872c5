import type { FilesystemId } from '../facts/filesystems.ts';
import { compareVersions } from '../filesystem/versions.ts';
import { LISTING_COMMANDS } from '../listing/read.ts';
import type { Formatter } from '../sheets/format-choices.ts';
import type { Settled } from './settled.ts';

/** How a thing is done on one system: by clicks, and in a terminal where that can be said without naming a device. */
export type Way = { text: string; command?: string };

const before = ({ version }: Settled['system'], than: string): boolean =>
  version !== undefined && compareVersions(version, than) < 0;

/** What filesystems are called in the lists of each system. */
const MAC_NAMES: Partial<Record<FilesystemId, string>> = {
  apfs: 'APFS',
  'hfs+': 'Mac OS Extended (Journaled)',
  exfat: 'ExFAT',
  fat32: 'MS-DOS (FAT)'
};
const PLAIN_NAMES: Partial<Record<FilesystemId, string>> = {
  ntfs: 'NTFS',
  exfat: 'exFAT',
  fat32: 'FAT32',
  ext4: 'ext4',
  xfs: 'XFS',
  btrfs: 'Btrfs'
};

/**
 * Names a filesystem as the list of a system does.
 * @example nameIn('macos', 'hfs+') // 'Mac OS Extended (Journaled)'
 */
export const nameIn = (system: Formatter, filesystem: FilesystemId): string =>
  (system === 'macos' ? MAC_NAMES[filesystem] : PLAIN_NAMES[filesystem]) ?? filesystem;

/**
 * Says how the others are ejected.
 * @example ejectOthers({ family: 'linux' }).text.length > 0 // true
 */
export function ejectOthers({ family }: Settled['system']): Way {
  return {
    macos: { text: 'Eject every other external drive in the side bar of the Finder, and wait until its name is gone.' },
    windows: { text: 'Eject every other external drive by the symbol at the clock, and wait for the message.' },
    linux: { text: 'Eject every other external drive in the file manager, and wait until its name is gone.' },
    chromeos: { text: 'Eject every other drive in the Files app, by the arrow beside its name.' }
  }[family];
}

/**
 * Says how all devices are shown, and not only volumes.
 * @example showDevices({ family: 'linux' }).command?.startsWith('lsblk') // true
 */
export function showDevices(system: Settled['system']): Way {
  switch (system.family) {
    case 'macos':
      return {
        text: before(system, '10.11')
          ? 'Open Disk Utility: the list on the left shows devices, with their volumes indented below.'
          : before(system, '10.13')
            ? 'Open Disk Utility: the list on the left shows each device once, with its volumes below.'
            : 'Open Disk Utility, and choose View: Show All Devices. Without it the list shows volumes only.',
        command: LISTING_COMMANDS.macos
      };
    case 'windows':
      return {
        text: before(system, '10')
          ? 'Open Computer Management: Disk Management. The lower half shows disks, one row each.'
          : before(system, '11')
            ? 'Right-click Start, and choose Disk Management. The lower half shows disks, one row each.'
            : 'Right-click Start, and choose Disk Management; or Settings: System: Storage: Advanced storage settings: Disks & volumes. Each disk is one row.',
        command: LISTING_COMMANDS.windows
      };
    case 'linux':
      return {
        text: 'List the devices in a terminal, or open the disks tool of your desktop.',
        command: LISTING_COMMANDS.linux
      };
    case 'chromeos':
      return {
        text: 'Open the Files app: each drive stands in the list on the left by the name of its volume. ChromeOS shows no serial number: leave only this one plugged in.'
      };
  }
}

/** What the chosen partition scheme is called. */
const SCHEME_NAMES: Record<Formatter, Record<'gpt' | 'mbr', string>> = {
  macos: { gpt: 'GUID Partition Map', mbr: 'Master Boot Record' },
  windows: { gpt: 'GPT (GUID Partition Table)', mbr: 'MBR (Master Boot Record)' },
  linux: { gpt: 'GPT', mbr: 'MBR, also called msdos' },
  chromeos: { gpt: 'chosen by the system', mbr: 'chosen by the system' }
};

/**
 * Says how the scheme is chosen.
 * @example schemeWay(settled).text
 */
export function schemeWay({ system, scheme }: Settled): Way {
  const name = SCHEME_NAMES[system.family][scheme];
  switch (system.family) {
    case 'macos':
      return { text: `Select the device at the top of its tree, press Erase, and choose the scheme ${name}.` };
    case 'windows':
      return {
        text: `In the row of that disk, right-click each of its volumes: Delete Volume. Then right-click the box with its number: Initialize, or Convert, to ${name}.`
      };
    case 'linux':
      return { text: `Make an empty partition table: ${name}.` };
    case 'chromeos':
      return { text: 'Right-click the drive: Format device. ChromeOS chooses the scheme itself.' };
  }
}

/**
 * Says how the filesystem is chosen.
 * @example filesystemWay(settled).text
 */
export function filesystemWay({ system, filesystem, allocationUnit, encryption, variant }: Settled): Way {
  const base = nameIn(system.family, filesystem);
  if (system.family === 'macos') {
    const kind = [
      variant === 'case-sensitive' && 'Case-sensitive',
      encryption === 'system' && filesystem === 'apfs' && 'Encrypted'
    ].filter(Boolean);
    return { text: `Choose the format ${base}${kind.length > 0 ? ` (${kind.join(', ')})` : ''}.` };
  }
  const unit = allocationUnit ? `, with an allocation unit of ${allocationUnit}` : '';
  if (system.family === 'windows')
    return {
      text: `Right-click what is unallocated: New Simple Volume. Choose ${base}${unit || ', with the default allocation unit'}.`
    };
  if (system.family === 'chromeos') return { text: `Choose ${base}.` };
  return { text: `Make one partition over all of it, and ${base} in it${unit}.` };
}

/**
 * Says how quick and full are told apart there.
 * @param media full makes sense on a disk, and little on flash
 * @example quickWay(settled, 'hdd').text
 */
export function quickWay({ system, full, encryption }: Settled, media: 'nvme' | 'sata-ssd' | 'hdd'): Way {
  const where = {
    macos: full
      ? 'Press Security Options, and move the slider one step to the right.'
      : 'Leave Security Options alone: the erase is quick.',
    windows: full ? 'Take the tick off “Perform a quick format”.' : 'Leave the tick at “Perform a quick format”.',
    linux: full
      ? 'Write zeros over the partition before the filesystem is made.'
      : 'Make the filesystem as it is: that is quick.',
    chromeos: 'The format is always quick there.'
  }[system.family];
  if (full && media !== 'hdd')
    return { text: `${where} On flash this writes the whole drive once: a test, and no safe erasure.` };
  return encryption === 'none' || !full ? { text: where } : { text: `${where} With encryption a quick one is enough.` };
}

/**
 * Says how the drive is encrypted.
 * @example encryptWay(settled).text
 */
export function encryptWay({ system, encryption, filesystem }: Settled): Way {
  if (encryption === 'container')
    return {
      text: 'Make an encrypted container on the drive with a program that all of your systems have, and open it once on each of them.'
    };
  switch (system.family) {
    case 'macos':
      return {
        text:
          filesystem === 'apfs'
            ? 'Give the password of the encrypted volume when it is asked for, twice.'
            : 'In the Finder, right-click the volume: Encrypt. Give the password, twice.'
      };
    case 'windows':
      return {
        text: 'Right-click the volume in the Explorer: turn on the drive encryption of Windows. Professional editions make it, every edition opens it.'
      };
    case 'linux':
      return {
        text: 'Make LUKS on the partition first, open it, and make the filesystem inside. The disks tool of your desktop does it in one.'
      };
    case 'chromeos':
      return { text: 'ChromeOS encrypts no external drive: do this on another system.' };
  }
}

/**
 * Says how the drive is ejected at the end.
 * @example ejectWay({ family: 'linux' }).text
 */
export function ejectWay({ family }: Settled['system']): Way {
  return {
    macos: { text: 'Eject it in the Finder, wait until its name is gone, unplug it and plug it in again.' },
    windows: { text: 'Eject it by the symbol at the clock, wait for the message, unplug it and plug it in again.' },
    linux: {
      text: 'Unmount and power it off in the file manager, wait for the message, unplug it and plug it in again.'
    },
    chromeos: { text: 'Eject it in the Files app, unplug it and plug it in again.' }
  }[family];
}
