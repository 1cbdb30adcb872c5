import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { connect } from '../../src/lib/server/db/connection.ts';
import { migrate } from '../../src/lib/server/db/migrations.ts';
import { startDatabase } from './database.ts';
import { readEnvironment } from './environment.ts';

/**
 * Runs something on the database of the data folder: the one that is running there, or one that is started for it and
 * stopped again.
 */
export async function withDatabase<T>(work: (db: Knex, dataDir: string) => Promise<T>): Promise<T> {
  const { dataDir, databaseUrl } = readEnvironment();
  mkdirSync(dataDir, { recursive: true });
  const running = databaseUrl ?? runningIn(dataDir);
  const own = running && (await answers(running)) ? undefined : await startDatabase(dataDir);
  const db = connect(own?.url ?? running!, { patient: true });
  try {
    await migrate(db);
    return await work(db, dataDir);
  } finally {
    await db.destroy();
    // A database that was here before is left to the application that uses it.
    if (own && !own.adopted) await own.stop();
  }
}

function runningIn(dataDir: string): string | undefined {
  const [note, secret] = [join(dataDir, 'mariadb.json'), join(dataDir, 'mariadb.secret')];
  if (!existsSync(note) || !existsSync(secret)) return undefined;
  let port: number | undefined;
  try {
    ({ port } = JSON.parse(readFileSync(note, 'utf8')) as { port?: number });
  } catch {
    return undefined; // torn: the start finds out by itself
  }
  if (!port) return undefined;
  return `mysql://ashcrate:${readFileSync(secret, 'utf8').trim()}@127.0.0.1:${port}/ashcrate`;
}

async function answers(url: string): Promise<boolean> {
  const db = connect(url);
  try {
    await db.raw('select 1');
    return true;
  } catch {
    return false;
  } finally {
    await db.destroy();
  }
}
