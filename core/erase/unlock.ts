import { z } from 'zod';
import { FILESYSTEM_IDS } from '../facts/filesystems.ts';
import { SYSTEMS, type ListedDevice, type ListedSystem } from '../listing/device.ts';
import { LEAST_IDENTITY, plainSerial, sameSerial, sameSize, tellingSerial } from '../listing/identity.ts';
import { capacity } from '../quantities/format.ts';
import { allocationUnit, clusterBytes } from './allocation-unit.ts';
import { LISTING_COMMANDS, readListing, LONGEST_LISTING, type ListingReport } from '../listing/read.ts';
import { canAsk, eraseCommands, PLACEHOLDER, type Proof, type ShellQuote } from './commands.ts';
import { makes } from './makers.ts';
import { volumeNameProblem } from './volume-name.ts';

/** How long a listing holds, minutes: names of devices move when something is plugged. */
export const LISTING_MINUTES = 10;

export const eraseRequestSchema = z
  .strictObject({
    text: z.string().max(LONGEST_LISTING, 'is longer than any listing'),
    device: z.string().min(1).max(120),
    identity: z.string().max(120),
    at: z.iso.datetime().optional().describe('when the listing was made'),
    filesystem: z.enum(FILESYSTEM_IDS),
    scheme: z.enum(['gpt', 'mbr']),
    name: z.string().max(255),
    system: z.enum(SYSTEMS).optional().describe('the system of the sheet; a listing of another one unlocks nothing'),
    allocationUnit: allocationUnit().optional(),
    variant: z.literal('case-sensitive').optional(),
    full: z.boolean().optional()
  })
  .superRefine(({ name, filesystem }, ctx) => {
    const problem = volumeNameProblem(name, filesystem);
    if (problem) ctx.addIssue({ code: 'custom', path: ['name'], message: problem });
  });
export type EraseRequest = z.infer<typeof eraseRequestSchema>;

export const LOCK_CODES = ['identity', 'alike', 'system-disk', 'unsure', 'old'] as const;
export const eraseReportSchema = z.strictObject({
  unlocked: z.boolean(),
  code: z.enum(LOCK_CODES).optional(),
  why: z.string(),
  commands: z.array(z.string())
});
export type EraseReport = z.infer<typeof eraseReportSchema>;
/** The drive of the build for which a disk is erased: what a device must not differ from. */
export type DriveOfBuild = {
  tag: string;
  capacityTB: number;
  /** Of its items, as their labels and as their cases show them. */
  serials: readonly string[];
  /** Whether the build was changed since the listing was matched. */
  changed: boolean;
};

type Lock = { code: (typeof LOCK_CODES)[number]; why: string };

/** Writes a device as the listing of its system calls it. */
function canonical(system: ListedSystem, text: string): string {
  const said = text.trim();
  if (system === 'windows') {
    const number = /^(?:\\\\[.?]\\)?(?:PHYSICALDRIVE|Disk\s*)?(\d{1,3})$/i.exec(said)?.[1];
    return number === undefined ? said : `Disk ${Number(number)}`;
  }
  return said.startsWith('/dev/') ? said : `/dev/${said}`;
}

/** Says why a device of a listing cannot be unlocked at all, whatever is typed. */
function lockOf(device: ListedDevice, report: ListingReport, system: ListedSystem): Lock | null {
  if (device.systemDisk)
    return { code: 'system-disk', why: 'A system runs from this disk: it is never erased from here.' };
  if (report.warnings.some(({ code }) => code === 'unreadable'))
    return { code: 'unsure', why: 'The listing could not be read whole. Paste the whole output of one command.' };
  if (report.cutDevice === device.device)
    return { code: 'unsure', why: 'The listing ends within this device: list again, the whole of it.' };
  if (device.inSet)
    return {
      code: 'unsure',
      why: 'This disk belongs to a volume group, a RAID or an opened encryption: take it out of that first.'
    };
  if (!report.showsSystem && device.external !== true && device.partitioned !== false)
    return {
      code: 'unsure',
      why: `The listing does not say where the system runs, nor that this disk is external. This shows it: ${LISTING_COMMANDS[system]}`
    };
  return null;
}

/** How far a device may be from what its build states, as a share: a bridge that keeps a part back is no reason to refuse, another drive is. */
const SIZE_SHARE = 0.1;

/** Says why a device cannot be the drive of its build. */
function lockOfBuild(device: ListedDevice, { tag, capacityTB, serials, changed }: DriveOfBuild): Lock | null {
  if (changed)
    return {
      code: 'old',
      why: `${tag} was changed since this list was pasted: load the page again, and look whether it is still this drive.`
    };
  const wanted = capacityTB * 1000;
  if (device.approxGB !== null && Math.abs(device.approxGB - wanted) > SIZE_SHARE * wanted)
    return {
      code: 'unsure',
      why: `This device has ${capacity(device.approxGB / 1000)}, the drive of ${tag} ${capacity(capacityTB)}: another drive, or the parts of the build were changed since.`
    };
  const listed = tellingSerial(device);
  return listed !== undefined && serials.length > 0 && !serials.some((serial) => sameSerial(listed, serial))
    ? {
        code: 'unsure',
        why: `No item of this drive has the serial number of this device: note it on the item “as the case shows it”, or take the drive that is in ${tag}.`
      }
    : null;
}

/** Digits of a number of bytes, as people part them. */
const digits = (text: string): string => text.replace(/[\s.,'_]|bytes?$/gi, '');

/** Checks what was typed against what only this device shows. */
function proofOf(identity: string, device: ListedDevice, report: ListingReport): Proof | Lock {
  const others = report.devices.filter((other) => other !== device);
  const serial = tellingSerial(device);
  if (serial !== undefined) {
    // A shorter one with which this begins may be the same, cut off.
    if (
      others.some((other) => (tellingSerial(other) ?? '') !== '' && serial.startsWith(plainSerial(other.serial ?? '')))
    )
      return {
        code: 'alike',
        why: 'Two devices show this serial number. Unplug one of them, and paste a new listing.'
      };
    const typed = plainSerial(identity);
    if (typed.length < LEAST_IDENTITY || !serial.endsWith(typed))
      return {
        code: 'identity',
        why: `Type the end of the serial number of this device, ${LEAST_IDENTITY} characters or more, from its label or its case.`
      };
    if (others.some((other) => other.serial !== undefined && plainSerial(other.serial).endsWith(typed)))
      return { code: 'alike', why: 'The serial number of another device ends so too: type more of it.' };
    return { serial: (device.serial ?? '').trim() };
  }
  if (others.some((other) => sameSize(other, device)))
    return {
      code: 'alike',
      why: 'This device shows no serial number to go by, and another one has its size. Unplug one of them, and paste a new listing.'
    };
  if (device.bytes === null)
    return {
      code: 'identity',
      why: 'This device shows no serial number to go by, and its size is rounded. List it with its exact bytes.'
    };
  if (report.warnings.some(({ code }) => code === 'cut-off'))
    return { code: 'unsure', why: 'The listing is cut: another device of this size may be missing. List again.' };
  return digits(identity) === String(device.bytes)
    ? { bytes: device.bytes }
    : { code: 'identity', why: 'This device shows no serial number to go by: type its exact size in bytes.' };
}

/** What makes a request void before any device is looked at. */
function voidOf({ at, system }: EraseRequest, report: ListingReport, now: string): Lock | null {
  if (at !== undefined) {
    const age = Date.parse(now) - Date.parse(at);
    if (age > LISTING_MINUTES * 60_000 || age < -60_000)
      return {
        code: 'old',
        why: `The listing is older than ${LISTING_MINUTES} minutes, in which names can move: list again.`
      };
  }
  if (report.system === null)
    return {
      code: 'unsure',
      why: 'This is no list of devices that can be read. Paste the whole output of one command.'
    };
  if (system !== undefined && system !== report.system)
    return { code: 'unsure', why: 'The listing is of another system than the one the drive is formatted on.' };
  return null;
}

const isLock = (value: Proof | Lock): value is Lock => 'code' in value;

/**
 * Gives the commands that erase a device, once what was typed proves which one is meant. Until then, and for a disk from which a system
 * runs for good, they name no device but a placeholder on which they fail.
 * @param now ISO time; the clock is the caller's
 * @param ofBuild the drive that is meant, where it is known: a device that cannot be it stays locked
 * @throws RangeError where the system does not make this filesystem
 * @example eraseFor({ text: '', device: 'sda', identity: '', filesystem: 'ext4', scheme: 'gpt', name: 'A' }, '2026-11-27T10:00:00.000Z', (t) => `'${t}'`).unlocked // false
 */
// eslint-disable-next-line complexity -- one line for each reason to stay locked
export function eraseFor(request: EraseRequest, now: string, quote: ShellQuote, ofBuild?: DriveOfBuild): EraseReport {
  const report = readListing(request.text);
  const { filesystem, scheme, name } = request;
  // A text that is no listing is locked in the words of a system that makes this filesystem.
  const system = request.system ?? report.system ?? SYSTEMS.find((one) => makes(one, filesystem)) ?? 'linux';
  if (!makes(system, filesystem)) throw new RangeError('this system does not make that filesystem with its own tools');
  const { variant, full, allocationUnit: unit } = request;
  const order = { system, filesystem, scheme, name, variant, full, unitBytes: unit ? clusterBytes(unit) : undefined };
  const locked = ({ code, why }: Lock): EraseReport => ({
    unlocked: false,
    code,
    why,
    commands: eraseCommands({ ...order, device: placeholderOf(system), proof: null }, quote)
  });
  const nothing = voidOf(request, report, now);
  if (nothing) return locked(nothing);
  const wanted = canonical(system, request.device);
  const found = report.devices.filter(({ device }) => device === wanted);
  const [device] = found;
  if (!device || found.length > 1)
    return locked({ code: 'unsure', why: 'The listing has no whole device of this name.' });
  const lock = lockOf(device, report, system) ?? (ofBuild ? lockOfBuild(device, ofBuild) : null);
  if (lock) return locked(lock);
  const proof = proofOf(request.identity, device, report);
  if (isLock(proof)) return locked(proof);
  if (!canAsk(system, proof) || !/^(?:\/dev\/[A-Za-z0-9]+|Disk \d{1,3})$/.test(device.device))
    return locked({
      code: 'unsure',
      why: 'The serial number holds characters that no command can be trusted with: use the steps by hand.'
    });
  return {
    unlocked: true,
    why: `${device.device} is the device whose ${'serial' in proof ? 'serial number' : 'exact size'} was typed. Each command asks it once more, and stops where the answer differs.`,
    commands: eraseCommands({ ...order, device: device.device, proof }, quote)
  };
}

const placeholderOf = (system: ListedSystem): string =>
  system === 'windows' ? `Disk ${PLACEHOLDER}` : `/dev/${PLACEHOLDER}`;
