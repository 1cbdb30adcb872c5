import { pathToFileURL } from 'node:url';
import { root, setUp } from './setup.mjs';

setUp();
// Bundled as for production: the loader that the other scripts run through would be measured too.
const { build } = await import('vite');
await build({
  root,
  configFile: false,
  logLevel: 'error',
  build: { ssr: 'bench/plan.ts', outDir: '.cache/bench', rollupOptions: { output: { entryFileNames: 'plan.mjs' } } }
});
await import(pathToFileURL(`${root}/.cache/bench/plan.mjs`).href);
