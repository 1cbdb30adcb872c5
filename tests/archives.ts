import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { gunzipSync, gzipSync } from 'node:zlib';
import { createHash } from 'node:crypto';
import { checkBackup, makeBackupFile, restoreBackup } from '../src/lib/server/repositories/archive/backup';
import { checkBundle, openBundle } from '../src/lib/server/repositories/archive/bundle';
import { bundlePieces, bundleStream } from '../src/lib/server/repositories/archive/bundle-write';
import { noControl } from '../src/lib/server/work/control';

const folder = mkdtempSync(join(tmpdir(), 'ash-crate-archives-'));
let made = 0;
/** A new file with this content. */
export function fileOf(content: string | Buffer): string {
  const path = join(folder, `archive-${++made}`);
  writeFileSync(path, content);
  return path;
}

type Entry = Record<string, unknown>;
/** A bundle as the document that other programs read. */
export type Document = Record<string, Entry[]> & { crate: Entry };

export async function bundleOf(db: Knex, crateId: string, at: string): Promise<Document> {
  let text = '';
  for await (const piece of bundlePieces(db, crateId, at)) text += piece;
  return JSON.parse(text) as Document;
}
export async function packedBundleOf(db: Knex, crateId: string, at: string): Promise<Buffer> {
  const pieces: Buffer[] = [];
  for await (const piece of bundleStream(db, crateId, at)) pieces.push(piece as Buffer);
  return Buffer.concat(pieces);
}
export async function openFrom(db: Knex, content: string | Buffer | object, at: string) {
  const path = fileOf(typeof content === 'string' || Buffer.isBuffer(content) ? content : JSON.stringify(content));
  return openBundle(db, { path, checked: await checkBundle(path), at }, noControl);
}

/** Everything in a database, as the file of a backup. */
export async function backupOf(db: Knex, at: string): Promise<Buffer> {
  const path = join(folder, `backup-${++made}`);
  await makeBackupFile(db, path, at);
  return readFileSync(path);
}
export async function restoreFrom(db: Knex, content: Buffer, at: string) {
  const path = fileOf(content);
  const safetyCopy = join(folder, `safety-${++made}`);
  const done = await restoreBackup(db, { path, checked: await checkBackup(path), safetyCopy, at }, noControl);
  return { ...done, safetyCopy: readFileSync(safetyCopy) };
}

/** The lines of a packed archive without the closing one. */
export const linesOf = (content: Buffer): Entry[] =>
  gunzipSync(content)
    .toString()
    .trim()
    .split('\n')
    .slice(0, -1)
    .map((line) => JSON.parse(line) as Entry);

/** Lines as an archive with the digest that belongs to them: what somebody could forge. */
export function forged(lines: readonly Entry[]): Buffer {
  const text = lines.map((line) => `${JSON.stringify(line)}\n`).join('');
  const sha256 = createHash('sha256').update(text).digest('hex');
  return gzipSync(`${text}${JSON.stringify({ end: true, lines: lines.length, sha256 })}\n`);
}
/** What a line of an archive holds of a table, for changing it; its counts follow. */
export function changed(content: Buffer, table: string, change: (rows: Entry[]) => Entry[]): Buffer {
  const lines = linesOf(content);
  const rows = change(lines.filter((line) => line.table === table).map((line) => structuredClone(line.row) as Entry));
  const counts = structuredClone(lines.find((line) => line.counts)!.counts) as Record<string, number>;
  counts[table] = rows.length;
  const at = lines.findIndex((line) => line.table === table);
  const kept = lines.filter((line) => line.table !== table && !line.counts);
  kept.splice(at, 0, ...rows.map((row) => ({ table, row })));
  return forged([...kept, { counts }]);
}
/** A backup in the one-document form of earlier versions. */
export function asDocument(content: Buffer): Buffer {
  const lines = linesOf(content);
  const tables: Record<string, Entry[]> = {};
  for (const { table, row } of lines as { table?: string; row: Entry }[]) if (table) (tables[table] ??= []).push(row);
  const { format, madeAt, migrations } = lines[0]!;
  const sha256 = createHash('sha256').update(JSON.stringify(tables)).digest('hex');
  return gzipSync(JSON.stringify({ format, formatVersion: 1, madeAt, migrations, sha256, tables }));
}
