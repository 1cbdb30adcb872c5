import { z } from 'zod';
import { allocationUnit } from '../erase/allocation-unit.ts';
import { FILESYSTEM_IDS } from '../facts/filesystems.ts';

/** Systems that format a drive with tools of their own. */
export const FORMATTERS = ['macos', 'windows', 'linux', 'chromeos'] as const;
export type Formatter = (typeof FORMATTERS)[number];

export const VOLUME_USES = ['work', 'backup', 'exchange', 'archive', 'boot'] as const;
export type VolumeUse = (typeof VOLUME_USES)[number];
export const VOLUME_USE_LABEL: Record<VolumeUse, string> = {
  work: 'work on it',
  backup: 'backups',
  exchange: 'exchange',
  archive: 'archive',
  boot: 'start from it'
};

/** Most volumes that are planned on one disk. */
export const MOST_VOLUMES = 8;

const volumeName = z.string().min(1).max(63);
export const volumeSchema = z.strictObject({
  name: volumeName,
  filesystem: z.enum(FILESYSTEM_IDS),
  use: z.enum(VOLUME_USES),
  GB: z.number().positive().max(200_000).optional().describe('absent: what is left; with a shared container the quota')
});
export type Volume = z.infer<typeof volumeSchema>;

/** What is settled about formatting a drive; what is absent follows the advice. */
export const formatChoicesSchema = z.strictObject({
  system: z
    .strictObject({ family: z.enum(FORMATTERS), version: z.string().max(20).optional() })
    .optional()
    .describe('on which system it is formatted; absent: that of the build'),
  filesystem: z.enum(FILESYSTEM_IDS).optional(),
  scheme: z.enum(['gpt', 'mbr']).optional(),
  allocationUnit: z
    .union([allocationUnit(), z.literal('')])
    .optional()
    .describe('empty: as the system makes it'),
  name: volumeName.optional(),
  full: z.boolean().optional().describe('written over once, instead of quickly'),
  encryption: z.enum(['none', 'system', 'container']).optional(),
  keyPlace: z
    .string()
    .max(200)
    .regex(/^$|\S/, 'must hold something to read')
    .optional()
    .describe('where the recovery key lies; never the key itself'),
  policy: z.enum(['performance', 'quick-removal']).optional().describe('write cache, on Windows'),
  volumes: z.array(volumeSchema).max(MOST_VOLUMES).optional(),
  shared: z.boolean().optional().describe('volumes share the room of one container')
});
export type FormatChoices = z.infer<typeof formatChoicesSchema>;

/**
 * Tells whether a text looks like a recovery key or a password instead of a place: groups of digits or letters as systems give them.
 * @example looksLikeKey('123456-234567-345678-456789') // true
 */
export const looksLikeKey = (text: string): boolean => {
  const groups = text.trim().split(/[-\s]+/);
  const coded = groups.filter((group) => /^(?:\d{5,6}|[A-Z0-9]{4,6})$/.test(group) && /\d/.test(group));
  return coded.length >= 4 || /^\S{20,}$/.test(text.trim());
};
