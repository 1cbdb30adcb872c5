// What a new machine lacks: Node's version, Debian packages, npm packages. Plain JavaScript without packages, for none
// may be installed yet. Whatever is there already is skipped.
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { accessSync, constants, existsSync, readFileSync, writeFileSync } from 'node:fs';
import { delimiter, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url));

/** One clear sentence, and out. */
export function giveUp(sentence) {
  console.error(sentence);
  process.exit(1);
}

// Servers live in /usr/sbin, which is not on every user's PATH.
const folders = [...(process.env.PATH ?? '').split(delimiter), '/usr/sbin', '/usr/bin', '/usr/local/sbin'];

export function findProgram(name) {
  for (const folder of folders) {
    const path = join(folder, name);
    try {
      accessSync(path, constants.X_OK);
      return path;
    } catch {
      // look in the next folder
    }
  }
  return undefined;
}

function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    giveUp(`Ash Crate needs Node 20.19 or later; this is ${process.versions.node}.`);
  }
}

function ensureDebianPackages(wanted) {
  const missing = wanted.filter(({ programs }) => !programs.every(findProgram)).flatMap(({ packages }) => packages);
  if (missing.length === 0) return;
  const names = missing.join(' ');
  const isRoot = process.getuid?.() === 0;
  const sudo = isRoot ? [] : ['sudo', '-n'];
  if (!findProgram('apt-get'))
    giveUp(`Missing: ${names}. Install them with this system's package manager, then start again.`);
  if (!isRoot && (!findProgram('sudo') || spawnSync('sudo', ['-n', 'true']).status !== 0)) {
    giveUp(`Missing: ${names}. Run “sudo apt-get install --no-install-recommends ${names}”, then start again.`);
  }
  console.log(`Installing ${names} …`);
  const run = (...words) => spawnSync(words[0], words.slice(1), { stdio: ['ignore', 'ignore', 'inherit'] }).status;
  run(...sudo, 'apt-get', 'update', '-qq');
  const status = run(
    ...sudo,
    'env',
    'DEBIAN_FRONTEND=noninteractive',
    'apt-get',
    'install',
    '-y',
    '-qq',
    '--no-install-recommends',
    ...missing
  );
  if (status !== 0) giveUp(`Installing ${names} failed; the lines above say why.`);
}

function ensureNodePackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const stamp = join(root, 'node_modules', '.installed-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.log('Installing npm packages …');
  try {
    execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
      cwd: root,
      stdio: ['ignore', 'ignore', 'inherit']
    });
  } catch {
    giveUp('“npm ci” failed; the lines above say why.');
  }
  writeFileSync(stamp, lock);
}

const DATABASE = {
  programs: ['mariadbd', 'mariadb-install-db', 'my_print_defaults'],
  packages: ['mariadb-server-core', 'mariadb-client-core']
};
const BROWSER = { programs: ['chromium'], packages: ['chromium'] };

/** @param {{ browser?: boolean }} options whether the browser for the tests is wanted too */
export function setUp({ browser = false } = {}) {
  checkNode();
  const ownDatabase = !process.env.DATABASE_URL;
  ensureDebianPackages([...(ownDatabase ? [DATABASE] : []), ...(browser ? [BROWSER] : [])]);
  ensureNodePackages();
}

/** Runs a TypeScript file of this folder in this process. */
export async function runTypeScript(file) {
  const { register } = await import('tsx/esm/api');
  register();
  await import(new URL(file, import.meta.url).href);
}
