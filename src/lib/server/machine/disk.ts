import { statfsSync } from 'node:fs';
import { DATABASE_AWAY } from '../problems/problem';

/** With less than this free nothing more is written: a database that runs out of disk stops in the middle of its own upkeep. */
export const RESERVE_BYTES = 24_000_000;

export const dataFolder = (): string => process.env.ASH_CRATE_DATA ?? '.data';

/** Bytes free on the disk of the data folder; undefined where that cannot be told (no such folder, a database elsewhere). */
export function freeBytes(folder = dataFolder()): number | undefined {
  try {
    const { bavail, bsize } = statfsSync(folder);
    return bavail * bsize;
  } catch {
    return undefined;
  }
}

const inMB = (bytes: number) => `${Math.floor(bytes / 1e6)} MB`;

/** What is said when there is no room: how much is free, where, and that it goes on by itself. */
export function diskFullSentence(options: { onlyIfFull?: boolean; free?: number } = {}): string {
  const free = options.free ?? freeBytes();
  if (options.onlyIfFull && (free === undefined || free >= RESERVE_BYTES)) return DATABASE_AWAY;
  const room = free === undefined ? '' : ` (${inMB(free)} free, ${inMB(RESERVE_BYTES)} needed)`;
  return `The disk that holds the data folder is full${room}. This was not saved; what was saved before is safe. Free some space; Ash Crate goes on by itself.`;
}
