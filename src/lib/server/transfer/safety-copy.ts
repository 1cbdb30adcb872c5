import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { dataFolder } from '../machine/disk';

/** Where what is there before a restore is kept, under the data folder. @returns the path of a file that is not there yet */
export async function safetyCopyPath(at: string, dataDir = dataFolder()): Promise<string> {
  const folder = join(dataDir, 'backups');
  await mkdir(folder, { recursive: true, mode: 0o700 });
  return join(folder, `before-restore-${at.slice(0, 23).replace(/[:.T]/g, '-')}.jsonl.gz`);
}
