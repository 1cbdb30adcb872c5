import { z } from 'zod';
import {
  listedDeviceSchema,
  listingWarningSchema,
  SYSTEMS,
  type Expected,
  type ListedDevice,
  type ListingWarning,
  type Reading
} from './device.ts';
import { plainSerial } from './identity.ts';
import { readPartitionTables } from './linux-others.ts';
import { readLsblk } from './lsblk.ts';
import { readMacos } from './macos.ts';
import { matchDevice } from './match.ts';
import { tidy } from './text.ts';
import { readWindows } from './windows.ts';

/** Most lines and brackets, and most devices, that a listing has which anybody means. */
const MOST_MARKS = 12_000;
const MOST_DEVICES = 200;

/** Longest listing that is read, characters. */
export const LONGEST_LISTING = 1_000_000;

export const listingReportSchema = z.strictObject({
  system: z.enum(SYSTEMS).nullable(),
  devices: z.array(listedDeviceSchema),
  showsSystem: z.boolean().describe('whether the listing says where the system runs'),
  cutDevice: z.string().optional().describe('the device that may be incomplete, because the listing is cut there'),
  match: z.strictObject({
    device: z.string().nullable(),
    sure: z.boolean(),
    because: z.array(z.string())
  }),
  warnings: z.array(listingWarningSchema)
});
export type ListingReport = z.infer<typeof listingReportSchema>;

/** What shows the devices of each system with their serials and where it runs, each in one line. */
export const LISTING_COMMANDS: Record<(typeof SYSTEMS)[number], string> = {
  linux: 'lsblk -b -o NAME,SIZE,TYPE,TRAN,RM,MODEL,SERIAL,MOUNTPOINTS',
  macos:
    'diskutil list; diskutil info /; system_profiler SPUSBDataType SPThunderboltDataType SPNVMeDataType SPSerialATADataType',
  windows:
    'Get-Disk | Select-Object Number,FriendlyName,SerialNumber,Size,BusType,PartitionStyle,IsBoot,IsSystem | ConvertTo-Json'
};

const EMPTY: Reading = { system: 'linux', devices: [], showsSystem: false, cut: false, unread: 1 };

/** Whether a text has more lines than any listing, or more within one another. */
const isTooMuch = (text: string): boolean => {
  let marks = 0;
  for (const char of text) if ((char === '\n' || char === '{' || char === '[') && ++marks > MOST_MARKS) return true;
  return false;
};

/** Reads a text by whichever system it is from; a listing that was read is better than one that only looks like it. */
function readingOf(text: string): { reading: Reading; known: boolean } {
  if (isTooMuch(text)) return { reading: EMPTY, known: false };
  let like: Reading | null = null;
  for (const read of [readLsblk, readMacos, readPartitionTables, readWindows]) {
    const reading = read(text);
    if (reading && reading.devices.length > MOST_DEVICES) return { reading: EMPTY, known: false };
    if (reading && reading.devices.length > 0) return { reading, known: true };
    like ??= reading;
  }
  return { reading: like ?? EMPTY, known: like !== null };
}

/** Devices that a hand could take for each other: one size, and no serial that tells them apart. */
function alikeOf(devices: readonly ListedDevice[]): ListedDevice[][] {
  const groups: ListedDevice[][] = [];
  for (const device of devices) {
    if (device.systemDisk) continue;
    const group = groups.find(([first]) => {
      if (!first) return false;
      const nearly =
        first.approxGB !== null &&
        device.approxGB !== null &&
        Math.abs(first.approxGB - device.approxGB) <= 0.02 * Math.max(first.approxGB, device.approxGB);
      const oneSerial =
        first.serial !== undefined &&
        device.serial !== undefined &&
        plainSerial(first.serial) === plainSerial(device.serial);
      return nearly || oneSerial;
    });
    if (group) group.push(device);
    else groups.push([device]);
  }
  return groups.filter(({ length }) => length > 1);
}

function warningsOf({ devices, cut, unread }: Reading): ListingWarning[] {
  const warnings: ListingWarning[] = [];
  for (const group of alikeOf(devices))
    warnings.push({
      code: 'look-alike',
      message: `${group.map(({ device }) => device).join(', ')} are of one size or one serial number: tell them apart by the serial number on the label.`
    });
  for (const { device, systemDisk, mounts } of devices) {
    if (systemDisk)
      warnings.push({
        code: 'system-disk',
        device,
        message: `A system runs from ${device}: it is never erased from here.`
      });
    else if (mounts.length > 0)
      warnings.push({
        code: 'in-use',
        device,
        message: `${device} is in use: ${mounts.slice(0, 3).join(', ')}${mounts.length > 3 ? ' and more' : ''}. Look at what is on it first.`
      });
  }
  if (cut)
    warnings.push({
      code: 'cut-off',
      message: 'The end of the listing, or of a cell in it, is missing: list again, in a wider window.'
    });
  if (unread > 0 || devices.length === 0)
    warnings.push({
      code: 'unreadable',
      message: 'Not all of this could be read as a list of devices. Paste the whole output of one command.'
    });
  return warnings;
}

/**
 * Reads what a system lists of its disks, as text or JSON, and finds the one that is meant.
 * @param text as it was pasted, at most 10^6 characters
 * @example readListing('', {}).system // null
 */
export function readListing(text: string, expect: Expected = {}): ListingReport {
  const { reading, known } = readingOf(tidy(text));
  const { match, warnings } = matchDevice(reading.devices, expect);
  return {
    system: known ? reading.system : null,
    devices: reading.devices,
    showsSystem: reading.showsSystem,
    ...(reading.cutDevice ? { cutDevice: reading.cutDevice } : {}),
    match,
    warnings: [...warningsOf(reading), ...warnings]
  };
}
