import { createWriteStream } from 'node:fs';
import { mkdir, readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { newId } from '../db/change';
import { dataFolder, diskFullSentence, freeBytes, RESERVE_BYTES } from '../machine/disk';
import { Problem } from '../problems/problem';

const folder = () => join(dataFolder(), 'incoming');

/** What came in with a request, in a file of the data folder until it is dropped. */
export type Upload = { path: string; type: string; bytes: number; drop(): Promise<void> };

/**
 * Keeps the body of a request in a file, piece by piece, however large it is.
 * @throws Problem `too-large` beyond the limit; `disk-full` where there is no room for it
 */
export async function keepUpload(
  body: ReadableStream<Uint8Array> | null,
  about: { type: string; length: number; limit: number }
): Promise<Upload> {
  const { type, length, limit } = about;
  const tooLarge = () => new Problem('too-large', `The body is larger than ${limit / 1e6} MB.`);
  if (length > limit) throw tooLarge();
  const free = freeBytes();
  if (free !== undefined && free < length + RESERVE_BYTES) throw new Problem('disk-full', diskFullSentence({ free }));
  await mkdir(folder(), { recursive: true, mode: 0o700 });
  const path = join(folder(), newId());
  const drop = () => rm(path, { force: true });
  let bytes = 0;
  try {
    await pipeline(
      body ? Readable.fromWeb(body as Parameters<typeof Readable.fromWeb>[0]) : Readable.from([]),
      async function* (pieces: AsyncIterable<Uint8Array>) {
        for await (const piece of pieces) {
          bytes += piece.length;
          if (bytes > limit) throw tooLarge();
          yield piece;
        }
      },
      createWriteStream(path, { mode: 0o600 })
    );
  } catch (error) {
    await drop();
    throw error;
  }
  return { path, type, bytes, drop };
}

/** What a process left behind when it ended: uploads, and safety copies of restores that came to nothing. */
export async function dropLeftovers(): Promise<void> {
  await rm(folder(), { recursive: true, force: true });
  const backups = join(dataFolder(), 'backups');
  const names = await readdir(backups).catch(() => []);
  for (const name of names)
    if (name.startsWith('before-restore-') && name.endsWith('.part')) await rm(join(backups, name), { force: true });
}
