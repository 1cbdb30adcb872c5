import { mkdirSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { makeBackupFile } from '../../src/lib/server/repositories/archive/backup.ts';
import { withDatabase } from './with-database.ts';

/** Writes everything in the database into one file: `npm run backup [-- file]`. Whole, or not there. */
await withDatabase(async (db, dataDir) => {
  const at = new Date().toISOString();
  const name = `ash-crate-${at.slice(0, 19).replace(/[:T]/g, '-')}.jsonl.gz`;
  const path = process.argv[2] ? resolve(process.argv[2]) : join(dataDir, 'backups', name);
  mkdirSync(dirname(path), { recursive: true });
  await makeBackupFile(db, path, at);
  console.log(`Backup written to ${path} (${(statSync(path).size / 1e6).toFixed(1)} MB).`);
});
process.exit(0);
