import { spawnSync } from 'node:child_process';
import { expect, test } from '@playwright/test';

// The short forms of `npm run crash`, `npm run fuzz` and `npm run soak`, each on a data folder of its own.
test.describe.configure({ mode: 'serial' });
const run = (script: string, count: number) =>
  spawnSync(process.execPath, [`scripts/${script}.mjs`, String(count)], { encoding: 'utf8', timeout: 240_000 });
const lastLine = (text: string) => text.trim().split('\n').at(-1) ?? '';

for (const [script, count, sentence] of [
  // one round of each kind: application, database, both, again while starting, import, restore, backup
  ['crash', 7, /^7 rounds: [1-9]\d* writes acknowledged, 0 lost, 0 half-written, 0 failed restarts/],
  ['fuzz', 900, /^900 requests over \d+ operations and 300 over pages, seed \d+: 0 x 5xx, 0 hangs over 5 s, 0 traces/],
  ['soak', 2000, /^2000 requests, seed \d+: after 1000 .* 0 failed$/]
] as const)
  test(`${script}, in short: ${count} of them`, () => {
    test.setTimeout(300_000);
    const { status, stdout, stderr } = run(script, count);
    console.log(lastLine(stdout));
    expect(lastLine(stdout), `${stdout.slice(-3000)}\n${stderr.slice(-2000)}`).toMatch(sentence);
    expect(status).toBe(0);
  });
