import { execFileSync } from 'node:child_process';
import { pathToFileURL } from 'node:url';
import { root, setUp } from './setup.mjs';

setUp();
// Bundled as for production: the loader that the other scripts run through would be measured too.
const { build } = await import('vite');
for (const name of ['plan', 'memory'])
  await build({
    root,
    configFile: false,
    logLevel: 'error',
    build: {
      ssr: `bench/${name}.ts`,
      outDir: '.cache/bench',
      emptyOutDir: false,
      rollupOptions: { output: { entryFileNames: `${name}.mjs`, chunkFileNames: '[name]-[hash].mjs' } }
    }
  });
await import(pathToFileURL(`${root}/.cache/bench/plan.mjs`).href);
// Memory is measured in processes of their own: what ran before would count.
for (const kind of ['mixed', 'plain'])
  console.log(
    `${kind}: ${execFileSync(process.execPath, [`${root}/.cache/bench/memory.mjs`, kind], { encoding: 'utf8' }).trim()}`
  );
