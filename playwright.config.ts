import { defineConfig } from '@playwright/test';

const port = 4319;

export default defineConfig({
  testDir: 'e2e',
  testMatch: '**/*.e2e.ts',
  outputDir: 'test-results',
  timeout: 90_000,
  expect: { timeout: 20_000 },
  // Most of the time a browser waits: three keep two processors busy.
  workers: 3,
  retries: 0,
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_FILE ? [['dot'], ['json']] : [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost',
        '--disable-dev-shm-usage',
        '--disable-background-networking',
        '--disable-component-update',
        '--no-first-run'
      ]
    }
  },
  // A restore replaces what the other tests use, and faults stop their database: they come last, each alone.
  projects: [
    // Before anything is changed: every page as the demo ships it.
    { name: 'walk', testMatch: '**/walk.e2e.ts' },
    {
      name: 'journeys',
      testIgnore: [
        '**/walk.e2e.ts',
        '**/faults.e2e.ts',
        '**/backup.e2e.ts',
        '**/endurance.e2e.ts',
        '**/full-disk.e2e.ts',
        '**/away.e2e.ts',
        '**/processes.e2e.ts',
        '**/large.e2e.ts'
      ],
      dependencies: ['walk']
    },
    { name: 'backup', testMatch: '**/backup.e2e.ts', dependencies: ['journeys'] },
    { name: 'faults', testMatch: '**/faults.e2e.ts', dependencies: ['journeys', 'backup'] },
    // A program of its own each.
    {
      name: 'programs',
      testMatch: ['**/full-disk.e2e.ts', '**/away.e2e.ts', '**/processes.e2e.ts', '**/large.e2e.ts'],
      dependencies: ['faults']
    },
    // Last and alone: they take all the machine has, and count an answer that comes late as none.
    { name: 'endurance', testMatch: '**/endurance.e2e.ts', dependencies: ['programs'] }
  ],
  webServer: {
    // What it writes as an error is kept for the walk to look at; `exec`, so that the signal reaches it.
    command: 'mkdir -p .cache && exec node scripts/start.mjs 2> .cache/e2e-errors.log',
    url: `http://127.0.0.1:${port}/api/health`,
    timeout: 180_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 8_000 },
    env: { PORT: String(port), ASH_CRATE_DATA: '.data/e2e' }
  }
});
