import { createHash } from 'node:crypto';
import { readFileSync, statSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:net';
import { join } from 'node:path';
import { giveUp } from '../setup.mjs';

/**
 * One process per data folder. The lock is a name in the kernel (an abstract socket), so that it is gone the moment its holder
 * is, however it ended: no stale file, and two starters cannot both have it.
 */
export async function lockDataFolder(dataDir: string, address: string): Promise<Server> {
  const { dev, ino } = statSync(dataDir);
  const name = `\0ash-crate-${createHash('sha256').update(`${dev}:${ino}`).digest('hex').slice(0, 32)}`;
  const note = join(dataDir, 'running.txt');
  const server = createServer((socket) => socket.destroy());
  await new Promise<void>((done) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code !== 'EADDRINUSE') throw error;
      let where = '';
      try {
        where = `, at ${readFileSync(note, 'utf8').trim()}`;
      } catch {
        // the holder has not written it yet
      }
      giveUp(`Ash Crate is already running on the data folder ${dataDir}${where}.`);
    });
    server.listen(name, done);
  });
  server.unref();
  writeFileSync(note, `${address}\n`);
  return server;
}
