import { mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { makeBackup } from '../../src/lib/server/repositories/backup.ts';
import { withDatabase } from './with-database.ts';

/** Writes everything in the database into one file: `npm run backup [-- file]`. */
await withDatabase(async (db, dataDir) => {
  const at = new Date().toISOString();
  const name = `ash-crate-${at.slice(0, 19).replace(/[:T]/g, '-')}.json.gz`;
  const path = process.argv[2] ? resolve(process.argv[2]) : join(dataDir, 'backups', name);
  const content = await makeBackup(db, at);
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(`${path}.part`, content, { mode: 0o600 });
  renameSync(`${path}.part`, path); // whole, or not there
  console.log(`Backup written to ${path} (${(content.length / 1e6).toFixed(1)} MB).`);
});
process.exit(0);
