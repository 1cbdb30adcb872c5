import { rm, writeFile } from 'node:fs/promises';
import { Readable } from 'node:stream';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { parentPort, workerData } from 'node:worker_threads';
import type { Knex } from 'knex';
import { connect } from '../db/connection';
import { problemOf } from '../db/errors';
import { backupLines, checkBackup, restoreBackup } from '../repositories/archive/backup';
import { checkBundle, openBundle } from '../repositories/archive/bundle';
import { bundlePieces, bundleStream } from '../repositories/archive/bundle-write';
import { packedLines, readWrapped } from '../repositories/archive/lines';
import { commitTask } from '../repositories/task-rows';
import type { TaskControl } from '../work/control';
import type { ArchiveWork, FromArchive, ToArchive } from './archive';

/** Reads and writes backups and bundles away from the thread that serves pages, with a connection of its own. */
const { work, databaseUrl } = workerData as { work: ArchiveWork; databaseUrl: string };
const port = parentPort!;
const say = (message: FromArchive, transfer: ArrayBuffer[] = []) => port.postMessage(message, transfer);

class Stopped extends Error {}
let stopped = false;
let more: () => void = () => {};
port.on('message', (message: ToArchive) => {
  if (message === 'stop') stopped = true;
  more();
});

/** Messages are told no oftener than this, ms. */
const EVERY_MS = 100;
let last = 0;
/** How often memory is asked back while an archive is read, ms. */
const COLLECT_MS = 250;
let lastCollected = 0;
const unheard = new AbortController().signal;
const report: TaskControl['report'] = async (step, done, total) => {
  if (stopped) throw new Stopped();
  const now = performance.now();
  if (now - lastCollected > COLLECT_MS) {
    collect();
    lastCollected = now;
  }
  if (now - last < EVERY_MS) return;
  last = now;
  say({ step, done, total });
};
const workOf = (taskId: string): TaskControl => ({
  signal: unheard,
  report,
  async commit(trx, result) {
    if (stopped || !(await commitTask(trx, taskId, result))) throw new Stopped();
  }
});

/**
 * Memory outside of the heap is given back late: buffers of tens of megabytes pile up that nobody needs any more. Here, where nobody waits,
 * it is asked for now and then.
 */
setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc') as () => void;
const COLLECT_EVERY = 4_000_000;

/** Gives a stream on piece by piece, each when the last one was taken. */
async function give(stream: Readable): Promise<null> {
  let sinceCollected = 0;
  for await (const piece of stream as AsyncIterable<Buffer>) {
    sinceCollected += piece.length;
    if (sinceCollected > COLLECT_EVERY) {
      collect();
      sinceCollected = 0;
    }
    const taken = new Promise<void>((done) => (more = done));
    const bytes = new Uint8Array(piece);
    say({ piece: bytes }, [bytes.buffer]);
    await taken;
    if (stopped) throw new Stopped();
  }
  return null;
}

/** The archive of an upload: as it came, or out of the JSON that wraps it. */
async function unwrapped(path: string, wrapped: boolean): Promise<string> {
  if (!wrapped) return path;
  const content = await readWrapped(path);
  const inner = `${path}.inner`;
  await writeFile(inner, content, { mode: 0o600 });
  return inner;
}

async function doIt(db: Knex): Promise<unknown> {
  switch (work.do) {
    case 'backup':
      return give(packedLines(backupLines(db, work.at)));
    case 'bundle':
      return give(
        work.form === 'stream'
          ? bundleStream(db, work.crateId, work.at)
          : Readable.from(bundlePieces(db, work.crateId, work.at), { objectMode: false })
      );
    case 'restore': {
      const path = await unwrapped(work.path, work.wrapped);
      try {
        const checked = await checkBackup(path, report);
        say({ checked: true });
        const { safetyCopy, at } = work;
        return await restoreBackup(db, { path, checked, safetyCopy, at }, workOf(work.taskId));
      } finally {
        if (path !== work.path) await rm(path, { force: true });
      }
    }
    case 'open': {
      const checked = await checkBundle(work.path, report);
      say({ checked: true });
      return openBundle(db, { path: work.path, checked, at: work.at }, workOf(work.taskId));
    }
  }
}

const db = connect(databaseUrl, { patient: true });
try {
  const result = await doIt(db);
  say({ result });
} catch (error) {
  if (error instanceof Stopped) say({ stopped: true });
  else {
    const problem = problemOf(error);
    if (!problem) console.error(error);
    say({
      problem: problem
        ? { code: problem.code, message: problem.message, fields: problem.fields, details: problem.details }
        : null
    });
  }
} finally {
  await db.destroy();
  port.close();
}
