import { rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { TestProject } from 'vitest/node';
import { startDatabase } from '../scripts/lib/database.ts';

declare module 'vitest' {
  export interface ProvidedContext {
    databaseUrl: string;
  }
}

/** A MariaDB for the repository tests, kept between runs; every test file makes a database of its own in it. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const folder = fileURLToPath(new URL('../.data/test', import.meta.url));
  rmSync(`${folder}/running.txt`, { force: true });
  const database = await startDatabase(folder, true);
  project.provide('databaseUrl', database.url);
  return () => database.stop();
}
