import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { giveUp, root } from '../setup.mjs';

const SOURCES = [
  'src',
  'core',
  'static',
  'package-lock.json',
  'svelte.config.js',
  'vite.config.ts',
  'vite.worker.config.ts',
  'carbon.ts',
  'page-files.ts',
  'tsconfig.json'
];

function* filesBelow(path: string): Generator<string> {
  const entries = readdirSync(path, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1));
  for (const entry of entries) {
    const below = join(path, entry.name);
    if (entry.isDirectory()) yield* filesBelow(below);
    else yield below;
  }
}

/** A digest of everything that goes into the build; tests aside. */
function sourceDigest(): string {
  const hash = createHash('sha256');
  for (const source of SOURCES) {
    const path = join(root, source);
    if (!existsSync(path)) continue;
    const files = source.includes('.') ? [path] : filesBelow(path);
    for (const file of files)
      if (!file.endsWith('.test.ts'))
        hash.update(file.slice(root.length)).update('\0').update(readFileSync(file)).update('\0');
  }
  return hash.digest('hex');
}

/** Builds for production where the sources have changed since the last build. */
export function buildIfChanged(): void {
  const stamp = join(root, 'build', '.sources');
  const digest = sourceDigest();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === digest) return;
  console.log('Building; this takes about half a minute …');
  run([]);
  buildWorker(join(root, 'build', 'worker'));
  writeFileSync(stamp, digest);
}

/** Bundles what worker threads run. @returns the file */
export function buildWorker(into: string): string {
  run(['--config', 'vite.worker.config.ts'], { ASH_CRATE_WORKER_DIR: into });
  return join(into, 'worker.mjs');
}

function run(args: readonly string[], env: Record<string, string> = {}): void {
  const vite = join(root, 'node_modules', 'vite', 'bin', 'vite.js');
  const result = spawnSync(process.execPath, [vite, 'build', '--logLevel', 'warn', ...args], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, ...env, NODE_ENV: 'production' }
  });
  if (result.status !== 0) giveUp(`${result.stdout}${result.stderr}\nThe build failed; the lines above say where.`);
}
