import { createServer } from 'vite';
import { join } from 'node:path';
import { root } from '../setup.mjs';
import { buildWorker } from './build.ts';
import { startDatabase } from './database.ts';
import { readEnvironment } from './environment.ts';

// For work on the program: its own data folder, so that a running Ash Crate is left alone.
const { dataDir, databaseUrl } = readEnvironment({ ASH_CRATE_DATA: '.data/dev', ...process.env });
const database = databaseUrl ? undefined : await startDatabase(dataDir);
process.env.ASH_CRATE_WORKER = buildWorker(join(root, '.cache', 'worker'));
process.env.DATABASE_URL = databaseUrl ?? database!.url;
const vite = await createServer({ root });
await vite.listen();
vite.printUrls();

async function stop(): Promise<void> {
  await vite.close();
  await database?.stop();
  process.exit(0);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());
