import { mkdir, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';

/** Writes a backup under the data folder: whole or not at all. @returns the path of the file */
export async function keepSafetyCopy(content: Buffer, at: string): Promise<string> {
  const folder = join(process.env.ASH_CRATE_DATA ?? '.data', 'backups');
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const path = join(folder, `before-restore-${at.slice(0, 23).replace(/[:.T]/g, '-')}.json.gz`);
  await writeFile(`${path}.part`, content, { mode: 0o600 });
  await rename(`${path}.part`, path);
  return path;
}
