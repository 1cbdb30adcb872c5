import { seeded } from '../../../core/quantities/random.ts';
import { spawn } from 'node:child_process';
import { createWriteStream, existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setTimeout as sleep } from 'node:timers/promises';
import { gunzipSync } from 'node:zlib';
import { checkBackup } from '../../../src/lib/server/repositories/archive/backup.ts';
import { root } from '../../setup.mjs';
import { argumentsOf, Program } from './program.ts';

/**
 * Rounds of ending application, database or both at once, under four writers, and in the middle of an import, a restore and a backup.
 * After each: is everything there that was acknowledged, and is anything half there?
 */
const KINDS = ['application', 'database', 'both', 'again while starting', 'import', 'restore', 'backup'] as const;
const WRITERS = 4;
const UNITS = 3;
const IMPORTED = 4000;

const { count, seed } = argumentsOf(35);
const random = seeded(seed);
const program = new Program();
const total = { acknowledged: 0, lost: 0, half: 0, failedStarts: 0, refused: 0 };
/** Parts that were acknowledged and must be there. */
let parts = new Set<string>();
/** Marks of three units each that were added at once, with whether that was acknowledged. */
let trios = new Map<string, boolean>();
let crateId = '';
let modelId = '';
let counter = 0;

const drive = (name: string) => ({ kind: 'drive', name, media: 'nvme', formFactor: 'm2', capacityTB: 1 });

async function write(until: () => boolean): Promise<void> {
  while (!until()) {
    const name = `p${++counter}`;
    const made = await program.send('POST', `/api/crates/${crateId}/models`, { spec: drive(name) });
    if (made.status === 201) {
      parts.add(name);
      total.acknowledged += 1;
    } else total.refused += 1;
    const mark = `m${++counter}`;
    const unit = { modelId, state: 'owned', location: mark };
    const three = await program.send('POST', `/api/crates/${crateId}/units/many`, { count: UNITS, unit });
    trios.set(mark, three.status === 201);
    if (three.status === 201) total.acknowledged += 1;
    else {
      total.refused += 1;
      await sleep(20);
    }
  }
}

const names = async (): Promise<Set<string>> => {
  const { data } = await program.send<{ spec: { name: string } }[]>('GET', `/api/crates/${crateId}/models`);
  return new Set(data.map(({ spec }) => spec.name));
};

/** What was acknowledged and is not there; what is there by halves. */
async function check(inSafetyCopy: ReadonlySet<string> | null): Promise<void> {
  const there = inSafetyCopy ?? (await names());
  for (const name of parts) if (!there.has(name)) total.lost += 1;
  const imported = [...there].filter((name) => name.startsWith('import')).length;
  if (imported % IMPORTED !== 0) total.half += 1;
  if (inSafetyCopy) return;
  const { data } = await program.send<{ unit: { location?: string } }[]>('GET', `/api/crates/${crateId}/units`);
  const found = new Map<string, number>();
  for (const { unit } of data) found.set(unit.location ?? '', (found.get(unit.location ?? '') ?? 0) + 1);
  for (const [mark, acknowledged] of trios) {
    const n = found.get(mark) ?? 0;
    if (n !== 0 && n !== UNITS) total.half += 1;
    if (acknowledged && n === 0) total.lost += 1;
  }
}

const backups = () => join(program.dataDir, 'backups');
const newest = (begin: string): string | undefined =>
  existsSync(backups())
    ? readdirSync(backups())
        .filter((name) => name.startsWith(begin) && name.endsWith('.gz'))
        .sort()
        .map((name) => join(backups(), name))
        .at(-1)
    : undefined;
/** Names of parts in a safety copy. */
const kept = (path: string): Set<string> =>
  new Set(
    gunzipSync(readFileSync(path))
      .toString()
      .split('\n')
      .filter((line) => line.startsWith('{"table":"models"'))
      .map((line) => (JSON.parse(line) as { row: { name: string } }).row.name)
  );

const saved = join(program.dataDir, 'saved.gz');
async function save(): Promise<void> {
  const response = await fetch(`${program.address}/api/backup`);
  await pipeline(Readable.fromWeb(response.body as Parameters<typeof Readable.fromWeb>[0]), createWriteStream(saved));
}

/** Sends what is under way when everything ends. */
async function begin(kind: (typeof KINDS)[number]): Promise<void> {
  if (kind === 'import') {
    const text = `Name,Media,Form factor,Capacity\n${Array.from({ length: IMPORTED }, (_, i) => `import ${counter} ${i},nvme,m2,1`).join('\n')}\n`;
    await program.send('POST', `/api/crates/${crateId}/import`, { what: 'models', kind: 'drive', format: 'csv', text });
  } else if (kind === 'restore')
    await fetch(`${program.address}/api/restore?confirm=${encodeURIComponent('replace everything')}`, {
      method: 'POST',
      headers: { 'content-type': 'application/gzip' },
      body: readFileSync(saved)
    }).catch(() => {});
  else if (kind === 'backup') {
    const child = spawn(process.execPath, ['scripts/backup.mjs'], {
      cwd: root,
      env: { ...process.env, ASH_CRATE_DATA: program.dataDir },
      stdio: 'ignore'
    });
    setTimeout(() => child.kill('SIGKILL'), 300 + random() * 1500).unref();
  }
}

await program.startOrThrow();
crateId = String((await program.send('POST', '/api/crates', { name: 'Crash' })).data.id);
modelId = String((await program.send('POST', `/api/crates/${crateId}/models`, { spec: drive('base') })).data.id);
await save();
console.log(`${count} rounds, seed ${seed}, on ${program.dataDir}`);

for (let round = 0; round < count; round++) {
  const kind = KINDS[round % KINDS.length]!;
  let over = false;
  const before = newest('before-restore');
  const writers = Array.from({ length: WRITERS }, () => write(() => over));
  await sleep(100 + random() * 400);
  await begin(kind);
  await sleep(random() * 1200);
  const both = kind !== 'application' && kind !== 'database';
  if (both || kind === 'application') program.kill('application');
  if (both ? random() < 0.6 : kind === 'database') program.kill('database');
  over = true;
  await Promise.all(writers);
  if (kind !== 'database') {
    await program.gone();
    if (kind === 'again while starting') {
      program.launch();
      await sleep(random() * 1500);
      program.kill('application');
      await program.gone();
    }
    program.launch();
  }
  if (!(await program.answers(60_000))) {
    total.failedStarts += 1;
    console.log(`round ${round + 1}, ${kind}: no answer for a minute\n${program.said}`);
    break;
  }
  const copy = newest('before-restore');
  const replaced = kind === 'restore' && copy !== before && ![...(await names())].some((name) => parts.has(name));
  if (replaced) {
    // The new state is the saved one; what was acknowledged since is in the copy, to the last write.
    await check(kept(copy!));
    const there = await names();
    if (there.size !== 1) total.half += 1;
    [parts, trios] = [new Set(), new Map()];
  } else await check(null);
  for (const name of existsSync(backups()) ? readdirSync(backups()) : [])
    if (name.endsWith('.gz'))
      await checkBackup(join(backups(), name)).catch(() => {
        total.half += 1;
        console.log(`${name} (${statSync(join(backups(), name)).size} bytes) is no whole backup`);
      });
  console.log(
    `round ${round + 1}, ${kind}${replaced ? ' (restored)' : ''}: acknowledged ${total.acknowledged}, lost ${total.lost}, half-written ${total.half}, failed restarts ${total.failedStarts}`
  );
}
writeFileSync(join(root, '.cache', 'crash.json'), JSON.stringify({ rounds: count, seed, ...total }));
console.log(
  `${count} rounds: ${total.acknowledged} writes acknowledged, ${total.lost} lost, ${total.half} half-written, ${total.failedStarts} failed restarts; ${total.refused} writes were refused or had no answer`
);
await program.stop();
process.exit(total.lost + total.half + total.failedStarts > 0 ? 1 : 0);
