import { z } from 'zod';
import { id, isoDate, text } from './form/field.ts';

/** What is known of a drive model behind a bridge: that it works well, or what goes wrong, and who says so. */
export const knownPairSchema = z.strictObject({
  driveId: id().optional(),
  drive: text('Drive model', 120).optional(),
  bridge: text('Bridge chip or board', 120),
  verdict: z.enum(['good', 'bad']).meta({ title: 'Verdict', labels: { good: 'works well', bad: 'gives trouble' } }),
  reason: text('Reason', 300),
  source: text('Source', 200).optional(),
  date: isoDate().meta({ title: 'Date' }).optional()
});

export type KnownPair = z.infer<typeof knownPairSchema>;

const plain = (name: string) => name.trim().toLowerCase().replace(/\s+/g, ' ');

/** Tells whether a noted pair is this drive behind this bridge: by the drive's id or name, and the bridge's name whatever its case. */
export function isPairOf(pair: KnownPair, drive: { id?: string; name: string }, bridge: string | undefined): boolean {
  if (bridge === undefined || plain(pair.bridge) !== plain(bridge)) return false;
  if (pair.driveId !== undefined && drive.id !== undefined) return pair.driveId === drive.id;
  return pair.drive !== undefined && plain(pair.drive) === plain(drive.name);
}
