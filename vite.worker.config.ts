import { defineConfig } from 'vite';

/** What worker threads of the server run: the core, and the archives with their database; nothing of pages. */
export default defineConfig({
  publicDir: false,
  build: {
    ssr: true,
    outDir: process.env.ASH_CRATE_WORKER_DIR ?? 'build/worker',
    emptyOutDir: true,
    rollupOptions: {
      input: { worker: 'src/lib/server/workers/worker.ts', archive: 'src/lib/server/workers/archive.worker.ts' },
      output: { entryFileNames: '[name].mjs' }
    }
  },
  // The driver of the database finds its parts by name as it runs: it is taken from where it is installed.
  ssr: { noExternal: true, external: ['knex', 'knex/lib/dialects/mysql2/index.js', 'mysql2'] }
});
