import { z } from 'zod';
import { FILESYSTEM_IDS, FILESYSTEMS } from '../facts/filesystems.ts';
import { id, isoDate, text } from '../parts/form/field.ts';
import { day, listed } from '../quantities/format.ts';
import { FORMATTERS, looksLikeKey, MOST_VOLUMES, volumeSchema } from '../sheets/format-choices.ts';
import type { Settled } from './settled.ts';

/** What was made of a drive, as it is kept with a build. */
export const formatRecordSchema = z.strictObject({
  system: z.strictObject({ family: z.enum(FORMATTERS), version: z.string().max(20).optional() }),
  filesystem: z.enum(FILESYSTEM_IDS),
  scheme: z.enum(['gpt', 'mbr']),
  allocationUnit: z.string().max(20).optional(),
  label: text('Name of the volume', 63),
  full: z.boolean(),
  encryption: z.enum(['none', 'system', 'container']),
  keyPlace: z
    .string()
    .max(200)
    .refine((text) => !looksLikeKey(text), 'looks like the key itself: write only where it lies, never the key')
    .meta({ title: 'Where the recovery key lies' })
    .optional(),
  policy: z.enum(['performance', 'quick-removal']).optional(),
  volumes: z.array(volumeSchema).max(MOST_VOLUMES).optional(),
  freeBytes: z.number().int().min(0).max(1e15).meta({ title: 'Free', unit: 'B' }).optional(),
  unitId: id().optional().describe('which item, where there are several alike'),
  note: z.string().max(500).optional()
});
export type FormatRecord = z.infer<typeof formatRecordSchema>;

/**
 * Makes the record of what is settled, to be kept or changed.
 * @example recordFrom(settle(anInput(), plan(anInput()), { name: 'A' }, '')).label // 'A'
 */
export const recordFrom = (settled: Settled): FormatRecord => ({
  system: { family: settled.system.family, ...(settled.system.version ? { version: settled.system.version } : {}) },
  filesystem: settled.filesystem,
  scheme: settled.scheme,
  ...(settled.allocationUnit ? { allocationUnit: settled.allocationUnit } : {}),
  label: settled.name,
  full: settled.full,
  encryption: settled.encryption,
  ...(settled.encryption !== 'none' && settled.keyPlace ? { keyPlace: settled.keyPlace } : {}),
  ...(settled.system.family === 'windows' ? { policy: settled.policy } : {}),
  ...(settled.volumes.length > 1 ? { volumes: [...settled.volumes] } : {})
});

/**
 * Says in one line what was made.
 * @example recordWords({ system: { family: 'linux' }, filesystem: 'exfat', scheme: 'gpt', label: 'SCANS', full: false, encryption: 'none' }) // 'exFAT, GPT, named SCANS'
 */
export function recordWords({ filesystem, scheme, label, encryption, policy, allocationUnit }: FormatRecord): string {
  const more = [
    allocationUnit && `units of ${allocationUnit}`,
    encryption === 'system' && 'encrypted by the system',
    encryption === 'container' && 'with an encrypted container',
    policy && (policy === 'performance' ? 'write cache on' : 'quick removal')
  ].filter((part) => part !== undefined && part !== false && part !== '');
  return [`${FILESYSTEMS[filesystem].label}, ${scheme.toUpperCase()}, named ${label}`, ...more].join(', ');
}

/**
 * Gives the conditions that a later result takes from it.
 * @example conditionsFrom({ system: { family: 'linux' }, filesystem: 'exfat', scheme: 'gpt', label: 'A', full: false, encryption: 'none' }).encrypted // false
 */
export const conditionsFrom = ({
  filesystem,
  encryption,
  policy
}: FormatRecord): {
  filesystem: FormatRecord['filesystem'];
  encrypted: boolean;
  writeCache?: 'performance' | 'quick-removal';
} => ({ filesystem, encrypted: encryption !== 'none', ...(policy ? { writeCache: policy } : {}) });

/** Another copy of what is on a drive. */
export const copySchema = z.strictObject({
  what: text('What', 120),
  where: text('Where', 120),
  at: isoDate().meta({ title: 'Made on' }),
  verified: z.boolean().meta({ title: 'Opened and compared' })
});
export type Copy = z.infer<typeof copySchema>;

/** What would be lost by erasing a drive, as somebody answered it. */
export const onItSchema = z.strictObject({
  anything: z.enum(['nothing', 'something', 'unknown']),
  since: isoDate().meta({ title: 'Last changed' }).optional(),
  copies: z.array(copySchema).max(12),
  unitId: id().optional(),
  note: z.string().max(500).optional()
});
export type OnIt = z.infer<typeof onItSchema>;

/** How much would be lost: `0` nothing, `1` what came since the copy, `2` perhaps all of it, `3` all of it, or nobody knows. */
export type Loss = { level: 0 | 1 | 2 | 3; says: string; todo: string };

/**
 * Judges what erasing would lose.
 * @param onIt null where nobody has answered yet
 * @example lossOf({ anything: 'nothing', copies: [] }).level // 0
 */
export function lossOf(onIt: OnIt | null): Loss {
  if (onIt === null || onIt.anything === 'unknown')
    return {
      level: 3,
      says: 'Nobody knows what is on it.',
      todo: 'Open it and look, with hidden files shown, before anything else.'
    };
  if (onIt.anything === 'nothing') return { level: 0, says: 'Nothing is on it that is needed.', todo: '' };
  const { copies, since } = onIt;
  if (copies.length === 0)
    return {
      level: 3,
      says: 'All of it would be lost: there is no other copy.',
      todo: 'Copy it to another drive, and open some of it there.'
    };
  const sure = copies.filter(({ verified }) => verified).sort((a, b) => b.at.localeCompare(a.at));
  const [newest] = sure;
  if (!newest)
    return {
      level: 2,
      says: `All of it may be lost: nobody has opened ${copies.length === 1 ? 'the copy' : 'the copies'} at ${listed(copies.map(({ where }) => where))}.`,
      todo: 'Open the copy, and compare some files with these.'
    };
  if (since !== undefined && newest.at < since)
    return {
      level: 1,
      says: `What came after ${day(newest.at)} would be lost: the last copy that was opened is older than what is on it.`,
      todo: 'Copy once more, and open what is new.'
    };
  return { level: 0, says: `A copy at ${newest.where}, of ${day(newest.at)}, was opened and compared.`, todo: '' };
}
