import { defineConfig } from 'vite';

/** The bundle that worker threads of the server run: the core, and nothing of pages or database. */
export default defineConfig({
  publicDir: false,
  build: {
    ssr: 'src/lib/server/workers/worker.ts',
    outDir: process.env.ASH_CRATE_WORKER_DIR ?? 'build/worker',
    emptyOutDir: true,
    rollupOptions: { output: { entryFileNames: 'worker.mjs' } }
  },
  ssr: { noExternal: true }
});
