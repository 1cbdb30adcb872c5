import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('..', import.meta.url));

function filesBelow(folder: string): string[] {
  return readdirSync(join(root, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return filesBelow(path);
    return /\.(ts|svelte)$/.test(entry.name) && !/\.test\.ts$/.test(entry.name) ? [path] : [];
  });
}

/** Every module that a file imports, as a path of the project where it is one. */
function importsOf(file: string): string[] {
  const text = readFileSync(join(root, file), 'utf8');
  const found = [
    ...text.matchAll(
      /(?:^|\n)\s*(?:import|export)\s[^'"]*?from\s+'([^']+)'|import\('([^']+)'\)|(?:^|\n)\s*import\s+'([^']+)'/g
    )
  ].map((m) => m[1] ?? m[2] ?? m[3]!);
  return found.map((name) =>
    name.startsWith('.')
      ? relative(root, join(root, file, '..', name))
      : name.startsWith('#core/')
        ? name.replace('#core/', 'core/')
        : name.startsWith('$lib/')
          ? name.replace('$lib/', 'src/lib/')
          : name
  );
}

/** Rooms in the order of the work: each may use those before it. */
const CORE_ORDER = [
  'quantities',
  'facts',
  'house-rules',
  'parts',
  'findings',
  'listing',
  'erase',
  'box-text',
  'tables',
  'chain',
  'throughput',
  'pads',
  'thermal',
  'filesystem',
  'cost',
  'plan',
  'series',
  'results',
  'analysis',
  'sheets',
  'assembly',
  'format',
  'diagnosis',
  'protocols',
  'simulate',
  'temperature-logs',
  'build',
  'compare',
  'answers'
];
const SERVER_ORDER = [
  'problems',
  'machine',
  'photos',
  'work',
  'db',
  'repositories',
  'workers',
  'planning',
  'transfer',
  'demo',
  'tasks',
  'rig',
  'api',
  'pages'
];
/** Libraries of the core beside zod, each with the one file that uses it: least squares, eigenvalues. */
const LIBRARIES: Record<string, string> = {
  'ml-levenberg-marquardt': 'core/temperature-logs/fit.ts',
  'ml-matrix': 'core/thermal/model/bodies.ts'
};
const folderOf = (path: string) => path.split('/')[1]!;

describe('the core', () => {
  const files = filesBelow('core');
  it('has files to look at', () => expect(files.length).toBeGreaterThan(40));

  it.each(files)('%s imports only the core and zod, and only from folders above its own', (file) => {
    for (const target of importsOf(file)) {
      const library = target === 'zod' || LIBRARIES[target] === file;
      expect(library || target.startsWith('core/'), `${file} imports ${target}`).toBe(true);
      if (library) continue;
      const [own, other] = [folderOf(file), folderOf(target)];
      expect(CORE_ORDER, own).toContain(own);
      expect(CORE_ORDER.indexOf(other), `${file} imports ${target}`).toBeLessThanOrEqual(CORE_ORDER.indexOf(own));
      expect(target, 'within the core paths are relative and end in .ts').toMatch(/\.ts$/);
    }
  });
});

describe('the interface', () => {
  const files = filesBelow('src/lib/ui');
  it('has files to look at', () => expect(files.length).toBeGreaterThan(15));

  it.each(files)('%s knows the core and itself, fetches nothing and reaches no server', (file) => {
    for (const target of importsOf(file)) {
      const allowed =
        target.startsWith('core/') ||
        target.startsWith('src/lib/ui/') ||
        ['svelte', 'carbon-components-svelte', 'plotly.js', 'plotly.js-cartesian-dist-min'].includes(target) ||
        target.startsWith('carbon-icons-svelte/');
      expect(allowed, `${file} imports ${target}`).toBe(true);
    }
    expect(readFileSync(join(root, file), 'utf8'), file).not.toMatch(/\bfetch\(|\{@html/);
  });

  it('names colours in one file only', () => {
    const offenders = [...files, ...filesBelow('src/routes')].filter(
      (file) => /#[0-9a-f]{3,8}\b/i.test(styleOf(file)) && !file.endsWith('theme.css')
    );
    expect(offenders).toEqual([]);
  });
});

/** The style block of a component, without the masks in which a colour only means opaque. */
function styleOf(file: string): string {
  const style = /<style>([\s\S]*)<\/style>/.exec(readFileSync(join(root, file), 'utf8'))?.[1] ?? '';
  return style.replace(/mask:[^;]*;/g, '');
}

describe('what a page does with the server', () => {
  const files = filesBelow('src/lib/client');
  it('has files to look at', () => expect(files.length).toBeGreaterThan(8));

  it.each(files)('%s knows the core, the interface and itself, and no server', (file) => {
    for (const target of importsOf(file))
      expect(
        ['core/', 'src/lib/ui/', 'src/lib/client/', 'svelte', '$app/'].some((start) => target.startsWith(start)) ||
          // What waits is kept in the browser's own store, under keys that rise with time.
          ['idb', 'ulid'].includes(target),
        `${file} imports ${target}`
      ).toBe(true);
  });
});

describe('server and routes', () => {
  const server = filesBelow('src/lib/server');
  const routes = filesBelow('src/routes');
  it('have files to look at', () => expect([server.length > 10, routes.length > 30]).toEqual([true, true]));

  it.each(server)('%s takes nothing from the interface', (file) => {
    for (const target of importsOf(file))
      expect(target.startsWith('src/lib/ui/') || target.startsWith('src/routes/'), `${file} imports ${target}`).toBe(
        false
      );
  });

  it.each(server)('%s stands in a room, and uses only rooms before its own', (file) => {
    const room = (path: string) => path.split('/')[3]!;
    expect(SERVER_ORDER, file).toContain(room(file));
    for (const target of importsOf(file).filter((path) => path.startsWith('src/lib/server/')))
      expect(SERVER_ORDER.indexOf(room(target)), `${file} imports ${target}`).toBeLessThanOrEqual(
        SERVER_ORDER.indexOf(room(file))
      );
  });

  it.each(server.filter((f) => !/\/(repositories|db)\//.test(f)))('%s holds no SQL', (file) => {
    expect(readFileSync(join(root, file), 'utf8')).not.toMatch(/\bdb\('|trx\('|\.insert\(|\.whereIn\(/);
  });

  it.each(routes)('%s reaches the server only from server files', (file) => {
    if (/\+(server|page\.server|layout\.server)\.ts$/.test(file)) return;
    for (const target of importsOf(file))
      expect(target.startsWith('src/lib/server/'), `${file} imports ${target}`).toBe(false);
  });
});
