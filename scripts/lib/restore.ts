import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { makeBackup, readBackup, restoreBackup } from '../../src/lib/server/repositories/backup.ts';
import { Problem } from '../../src/lib/server/problem.ts';
import { giveUp } from '../setup.mjs';
import { withDatabase } from './with-database.ts';

/** Puts a backup in the place of everything: `npm run restore -- file`. What was there is kept beside it first. */
const [file] = process.argv.slice(2);
if (!file) giveUp('Say which backup: npm run restore -- file');
const read = (path: string): Buffer => {
  try {
    return readFileSync(path);
  } catch {
    return giveUp(`There is no file ${path} that can be read.`);
  }
};
try {
  const backup = await readBackup(read(resolve(file)));
  await withDatabase(async (db, dataDir) => {
    const at = new Date().toISOString();
    const kept = join(dataDir, 'backups', `before-restore-${at.slice(0, 19).replace(/[:T]/g, '-')}.json.gz`);
    mkdirSync(join(dataDir, 'backups'), { recursive: true });
    writeFileSync(kept, await makeBackup(db, at), { mode: 0o600 });
    const { rows, madeAt } = await restoreBackup(db, backup);
    console.log(`Restored ${rows} rows of ${madeAt}. What was there before is in ${kept}.`);
  });
} catch (error) {
  // Here and not inside: by now a database that was started for this is stopped again.
  if (error instanceof Problem) giveUp(error.message);
  throw error;
}
process.exit(0);
