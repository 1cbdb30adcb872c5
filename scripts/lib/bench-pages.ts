import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root } from '../setup.mjs';
import { LARGE } from '../../bench/pages/large-crate.ts';
import { fillLargeCrate } from '../../bench/pages/large-crate.ts';
import { measurePages } from '../../bench/pages/measure.ts';
import { withDatabase } from './with-database.ts';

const PORT = '4329';
const address = `http://127.0.0.1:${PORT}`;
const dataDir = process.env.ASH_CRATE_DATA ?? '.data/bench';
Object.assign(process.env, { ASH_CRATE_DATA: dataDir });

/** Starts the program as everybody starts it, and waits until it answers. */
async function started(): Promise<() => Promise<void>> {
  const child = spawn(process.execPath, [join(root, 'scripts/start.mjs')], {
    env: { ...process.env, PORT },
    stdio: ['ignore', 'ignore', 'inherit']
  });
  const ended = new Promise<void>((done) => child.once('exit', () => done()));
  for (;;) {
    if (child.exitCode !== null) throw new Error('The program did not start.');
    if (
      await fetch(`${address}/api/health`).then(
        ({ ok }) => ok,
        () => false
      )
    )
      break;
    await new Promise((done) => setTimeout(done, 500));
  }
  return async () => {
    child.kill('SIGTERM');
    await ended;
  };
}

const stop = await started();
try {
  const [large, demo] = await withDatabase(async (db) => {
    const crateId = await fillLargeCrate(db, LARGE);
    const of = async (where: Record<string, unknown>) => {
      const crate = (await db('crates').where(where).first('id', 'slug')) as { id: string; slug: string };
      const build = (await db('builds').where({ crate_id: crate.id }).orderBy('tag').first('tag')) as { tag: string };
      return { slug: crate.slug, tag: build.tag };
    };
    return Promise.all([of({ id: crateId }), of({ demo: true })]);
  });
  await measurePages(address, { demo: demo!, large: large! });
} finally {
  await stop();
}
process.exit(0);
