import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { pathToFileURL } from 'node:url';
import { root, setUp } from './setup.mjs';

setUp();
// Bundled as for production: the loader that the other scripts run through would be measured too.
const { build } = await import('vite');
const bundle = (entry, name, plugins = []) =>
  build({
    root,
    configFile: false,
    logLevel: 'error',
    plugins,
    build: {
      ssr: entry,
      outDir: '.cache/bench',
      emptyOutDir: false,
      rollupOptions: { output: { entryFileNames: `${name}.mjs`, chunkFileNames: '[name]-[hash].mjs' } }
    }
  });
const run = (name, ...args) =>
  execFileSync(process.execPath, [`${root}/.cache/bench/${name}.mjs`, ...args], { encoding: 'utf8' }).trim();

const [commit] = process.argv.slice(2);
if (commit) {
  // `npm run bench -- <commit>`: the core of that commit is laid out beside this one, and both are timed in turn.
  const before = `${root}/.cache/before`;
  rmSync(before, { recursive: true, force: true });
  mkdirSync(before, { recursive: true });
  const archive = execFileSync('git', ['archive', commit, 'core', 'tests'], { cwd: root, maxBuffer: 1 << 28 });
  execFileSync('tar', ['-x', '-C', before], { input: archive });
  // A room may have had another name then.
  const doors = [['plan/plan'], ['compare/ranking/rank', 'rank/rank'], ['pads/propose', 'stack/propose']].map((names) =>
    names.find((name) => existsSync(`${before}/core/${name}.ts`))
  );
  writeFileSync(
    `${before}/doors.ts`,
    doors.map((door) => `export * from './core/${door}.ts';`).join('\n') +
      `\nexport { randomCrate } from './tests/random-crate.ts';\n`
  );
  await bundle(`${before}/doors.ts`, 'before', [
    {
      name: 'core-of-then',
      enforce: 'pre',
      resolveId: (id, importer) =>
        id.startsWith('#core/') && importer && dirname(importer).startsWith(before)
          ? `${before}/core/${id.slice('#core/'.length)}.ts`
          : null
    }
  ]);
  await bundle('bench/against.ts', 'against');
  console.log(run('against', `${root}/.cache/bench/before.mjs`));
} else {
  for (const name of ['plan', 'memory']) await bundle(`bench/${name}.ts`, name);
  await import(pathToFileURL(`${root}/.cache/bench/plan.mjs`).href);
  // Memory is measured in processes of their own: what ran before would count.
  for (const kind of ['mixed', 'plain']) console.log(`${kind}: ${run('memory', kind)}`);
}
