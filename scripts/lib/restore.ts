import { accessSync, constants } from 'node:fs';
import { resolve } from 'node:path';
import { safetyCopyPath } from '../../src/lib/server/transfer/safety-copy.ts';
import { checkBackup, restoreBackup } from '../../src/lib/server/repositories/archive/backup.ts';
import { Problem } from '../../src/lib/server/problems/problem.ts';
import { noControl } from '../../src/lib/server/work/control.ts';
import { giveUp } from '../setup.mjs';
import { withDatabase } from './with-database.ts';

/** Puts a backup in the place of everything: `npm run restore -- file`. What was there is kept beside it first. */
const [file] = process.argv.slice(2);
if (!file) giveUp('Say which backup: npm run restore -- file');
const path = resolve(file);
try {
  accessSync(path, constants.R_OK);
} catch {
  giveUp(`There is no file ${path} that can be read.`);
}
try {
  const checked = await checkBackup(path);
  await withDatabase(async (db, dataDir) => {
    const at = new Date().toISOString();
    const safetyCopy = await safetyCopyPath(at, dataDir);
    const { rows, madeAt, kept } = await restoreBackup(db, { path, checked, safetyCopy, at }, noControl);
    console.log(`Restored ${rows} rows of ${madeAt}. What was there before is in ${kept}.`);
  });
} catch (error) {
  // Here and not inside: by now a database that was started for this is stopped again.
  if (error instanceof Problem) giveUp(error.message);
  throw error;
}
process.exit(0);
