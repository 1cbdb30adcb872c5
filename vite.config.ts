import { sveltekit } from '@sveltejs/kit/vite';
import { defineConfig } from 'vitest/config';
import { carbon } from './carbon.ts';
import { pageFiles } from './page-files.ts';

export default defineConfig({
  plugins: [sveltekit(), ...carbon(), pageFiles()],
  worker: { format: 'es' },
  server: { host: '127.0.0.1', port: 4311, strictPort: true },
  test: {
    // One for each processor: the default leaves one of two idle.
    maxWorkers: '100%',
    projects: [
      {
        extends: true,
        test: {
          name: 'unit',
          // What is tested here keeps nothing between two calls: its files need no world of their own each.
          isolate: false,
          include: ['core/**/*.test.ts', 'src/**/*.test.ts', 'tests/**/*.test.ts', 'scripts/**/*.test.ts'],
          exclude: ['**/*.db.test.ts']
        }
      },
      {
        extends: true,
        test: {
          name: 'repository',
          include: ['src/**/*.db.test.ts'],
          globalSetup: ['tests/database.setup.ts'],
          // Whoever seeds the demo while another one does on the same two processors waits for a while.
          testTimeout: 60_000,
          hookTimeout: 90_000
        }
      }
    ]
  }
});
