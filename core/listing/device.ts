import { z } from 'zod';

export const SYSTEMS = ['linux', 'macos', 'windows'] as const;
export type ListedSystem = (typeof SYSTEMS)[number];

/** A whole device of a listing, as its system calls it. */
export const listedDeviceSchema = z.strictObject({
  device: z.string(),
  bytes: z.number().nullable().describe('null unless the listing gives them exactly'),
  approxGB: z.number().nullable(),
  model: z.string().optional(),
  serial: z.string().optional(),
  bus: z.string().optional(),
  mounts: z.array(z.string()),
  systemDisk: z.boolean().describe('a system runs from it, or holds its swap space or its homes there'),
  external: z.boolean().optional().describe('whether the listing shows it as external or removable; absent: not said'),
  partitioned: z.boolean().optional().describe('absent: not said for certain'),
  inSet: z.boolean().optional().describe('a member of a volume group, a RAID or an opened encryption')
});
export type ListedDevice = z.infer<typeof listedDeviceSchema>;

export const WARNING_CODES = ['look-alike', 'system-disk', 'in-use', 'size-differs', 'cut-off', 'unreadable'] as const;
export const listingWarningSchema = z.strictObject({
  code: z.enum(WARNING_CODES),
  message: z.string(),
  device: z.string().optional()
});
export type ListingWarning = z.infer<typeof listingWarningSchema>;

/** What one kind of listing gave: its devices, and how far it can be trusted. */
export type Reading = {
  system: ListedSystem;
  devices: ListedDevice[];
  /** Whether it says where the system runs. */
  showsSystem: boolean;
  /** Whether its end is missing; `cutDevice` is the device that may be incomplete for it. */
  cut: boolean;
  cutDevice?: string | undefined;
  /** Lines that look like the listing and could not be read. */
  unread: number;
};

/** Places where a Linux has what it runs from, what it starts from, and what its people work in. */
const LINUX_SYSTEM =
  /^(?:\/|\[SWAP\]|\/(?:boot|efi|usr|var|etc|root|tmp|nix|gnu|opt|sysroot|ostree|cdrom|rofs)(?:\/.*)?|\/home(?:\/[^/]+)?|\/run\/(?:live|archiso|initramfs|overlay|rootfsbase|miso)(?:\/.*)?|\/lib\/live(?:\/.*)?|\/isodevice|\/mnt\/wslg?(?:\/.*)?)$/;
const MAC_SYSTEM = /^(?:\/|\/System(?:\/.*)?|\/private(?:\/.*)?|\/Users(?:\/[^/]+)?)$/;

/**
 * Tells whether a system runs from what is mounted there.
 * @example isSystemMount('linux', '/boot/efi') // true
 */
export function isSystemMount(system: ListedSystem, mount: string): boolean {
  if (system === 'windows') return false;
  return (system === 'linux' ? LINUX_SYSTEM : MAC_SYSTEM).test(mount);
}

/** What is looked for in a listing. */
export const expectSchema = z.strictObject({
  capacityTB: z.number().positive().max(1000).optional(),
  bytes: z.number().int().positive().max(1e15).optional(),
  model: z.string().min(1).max(120).optional(),
  serial: z.string().min(1).max(80).optional(),
  caseSerial: z.string().min(1).max(80).optional().describe('as the case shows it, where its bridge has one of its own')
});
export type Expected = z.infer<typeof expectSchema>;
