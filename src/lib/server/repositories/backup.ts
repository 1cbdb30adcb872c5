import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import type { Knex } from 'knex';
import { z } from 'zod';
import { MIGRATIONS } from '../db/migrations';
import { Problem } from '../problem';
import type { Work } from '../tasks';

/**
 * A backup is the whole database, undo history included: gzipped JSON with a digest over its tables, so that a damaged file is
 * refused before anything is touched. Which migrations it was made with stands in it: one of a newer program is refused too.
 */
const TABLES = [
  'crates',
  'counters',
  'models',
  'jobs',
  'builds',
  'units',
  'quotes',
  'rates',
  'pairs',
  'runs',
  'observations',
  'files',
  'attachments',
  'revisions',
  'events'
] as const;
const FORMAT = 'ash-crate-backup';
/** A backup of more than this, unpacked, is refused: it would not fit into memory. */
const UNPACKED = 1_500_000_000;

const backupSchema = z.strictObject({
  format: z.literal(FORMAT),
  formatVersion: z.literal(1),
  madeAt: z.iso.datetime(),
  migrations: z.array(z.string()),
  sha256: z.string(),
  tables: z.partialRecord(z.enum(TABLES), z.array(z.record(z.string(), z.unknown())))
});
export type Backup = z.infer<typeof backupSchema>;

const digest = (tables: unknown) => createHash('sha256').update(JSON.stringify(tables)).digest('hex');
const migrationNames = () => MIGRATIONS.map(({ name }) => name);

/** Values as JSON has them: a content as base64, everything else as it is. */
const out = (value: unknown) => (Buffer.isBuffer(value) ? { base64: value.toString('base64') } : value);
function back(value: unknown): unknown {
  if (value === null || typeof value !== 'object') return value;
  if ('base64' in value && Object.keys(value).length === 1) return Buffer.from(String(value.base64), 'base64');
  return JSON.stringify(value);
}

export async function makeBackup(db: Knex, at: string): Promise<Buffer> {
  const tables: Record<string, Record<string, unknown>[]> = {};
  // One snapshot: what is saved meanwhile is in the next backup, and never half in this one.
  await db.transaction(
    async (trx) => {
      for (const table of TABLES) {
        const rows: Record<string, unknown>[] = await trx(table);
        tables[table] = rows.map((row) =>
          Object.fromEntries(Object.entries(row).map(([column, value]) => [column, out(value)]))
        );
      }
    },
    { isolationLevel: 'repeatable read' }
  );
  const backup = {
    format: FORMAT,
    formatVersion: 1,
    madeAt: at,
    migrations: migrationNames(),
    sha256: digest(tables),
    tables
  };
  return promisify(gzip)(JSON.stringify(backup));
}

/** Reads a backup without touching anything.
 *  @throws Problem `bad-input` where it is none, is damaged, or was made by a newer program */
export async function readBackup(content: Buffer): Promise<Backup> {
  const refuse = (message: string) => new Problem('bad-input', message, [{ path: 'content', message }]);
  let data: unknown;
  try {
    data = JSON.parse((await promisify(gunzip)(content, { maxOutputLength: UNPACKED })).toString('utf8'));
  } catch {
    throw refuse('This is no backup of Ash Crate, or it is damaged.');
  }
  const parsed = backupSchema.safeParse(data);
  if (!parsed.success) throw refuse('This is no backup of Ash Crate, or it is damaged.');
  const backup = parsed.data;
  if (digest((data as { tables: unknown }).tables) !== backup.sha256)
    throw refuse('The backup is damaged: its digest does not match. Nothing was changed.');
  const known = new Set(migrationNames());
  const newer = backup.migrations.filter((name) => !known.has(name));
  if (newer.length > 0)
    throw refuse(`The backup was made by a newer Ash Crate (${newer.join(', ')}). Nothing was changed.`);
  return backup;
}

const BATCH = 200;

/** Puts a backup in the place of everything that is in the database: all of it in one transaction, or nothing. */
export async function restoreBackup(db: Knex, backup: Backup, work?: Work): Promise<{ rows: number; madeAt: string }> {
  const total = TABLES.reduce((n, table) => n + (backup.tables[table]?.length ?? 0), 0);
  let done = 0;
  await db.transaction(async (trx) => {
    for (const table of [...TABLES].reverse()) await trx(table).delete();
    for (const table of TABLES) {
      const rows = backup.tables[table] ?? [];
      const wide = table === 'files' || table === 'builds' || table === 'revisions';
      const size = table === 'files' ? 1 : wide ? 50 : BATCH;
      for (let i = 0; i < rows.length; i += size) {
        const batch = rows.slice(i, i + size);
        await trx(table).insert(
          batch.map((row) => Object.fromEntries(Object.entries(row).map(([column, value]) => [column, back(value)])))
        );
        done += batch.length;
        await work?.report(`Writing ${table}`, done, total);
      }
    }
  });
  return { rows: done, madeAt: backup.madeAt };
}
