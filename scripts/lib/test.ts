import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { root } from '../setup.mjs';
import { buildIfChanged } from './build.ts';

/** Every check of the project, one after the other, and one closing line that adds them up. */
type Count = { passed: number; failed: number };
const total: Count = { passed: 0, failed: 0 };
const results = join(root, '.cache');
const bin = (name: string) => join(root, 'node_modules', '.bin', name);

function run(
  command: string,
  args: string[],
  env: Record<string, string> = {}
): Promise<{ code: number; output: string }> {
  return new Promise((done) => {
    const child = spawn(command, args, {
      cwd: root,
      env: { ...process.env, FORCE_COLOR: '0', ...env },
      stdio: ['ignore', 'pipe', 'pipe']
    });
    let output = '';
    child.stdout.on('data', (chunk: Buffer) => (output += chunk.toString()));
    child.stderr.on('data', (chunk: Buffer) => (output += chunk.toString()));
    child.on('close', (code) => done({ code: code ?? 1, output }));
  });
}

function add(name: string, count: Count, seconds: number, output: string): void {
  total.passed += count.passed;
  total.failed += count.failed;
  if (count.failed > 0) console.log(output.trim());
  console.log(
    `${count.failed > 0 ? 'FAILED' : 'ok'}  ${name}: ${count.passed} passed, ${count.failed} failed (${seconds.toFixed(0)} s)`
  );
}

const timed = async <T>(work: () => Promise<T>): Promise<[T, number]> => {
  const from = performance.now();
  return [await work(), (performance.now() - from) / 1000];
};

/** A check without a count of its own is one that passes or fails. */
async function check(name: string, command: string, args: string[]): Promise<void> {
  const [{ code, output }, seconds] = await timed(() => run(command, args));
  add(name, code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 }, seconds, output);
}

/** A runner that writes its counts into a file; without that file, or without a test in it, it has failed. */
async function suite<Report>(
  name: string,
  command: string,
  args: string[],
  file: string,
  env: Record<string, string>,
  read: (report: Report) => Count
): Promise<void> {
  rmSync(file, { force: true });
  const [{ code, output }, seconds] = await timed(() => run(command, args, env));
  let count: Count = { passed: 0, failed: 0 };
  try {
    count = read(JSON.parse(readFileSync(file, 'utf8')) as Report);
  } catch {
    // no report: said below
  }
  if (count.failed === 0 && (code !== 0 || count.passed === 0)) count.failed = 1;
  add(name, count, seconds, output);
}

mkdirSync(results, { recursive: true });
await run(process.execPath, [join(root, 'node_modules/@sveltejs/kit/svelte-kit.js'), 'sync']);

await Promise.all([
  check('formatting', bin('prettier'), [
    '--check',
    '--cache',
    '--cache-location',
    join(results, 'prettier'),
    '--log-level',
    'warn',
    '.'
  ]),
  check('core types, without DOM or Node', bin('tsc'), ['-p', 'core'])
]);
await Promise.all([
  check('lint', bin('eslint'), ['--cache', '--cache-location', join(results, 'eslint'), '--max-warnings', '0', '.']),
  check('types', bin('svelte-check'), ['--tsconfig', './tsconfig.json', '--threshold', 'warning', '--output', 'human'])
]);

const vitestCounts = (report: { numPassedTests: number; numFailedTests: number }) => ({
  passed: report.numPassedTests,
  failed: report.numFailedTests
});
// Both at once: while one waits for the database the other computes.
const vitestReport = join(results, 'vitest.json');
await suite(
  'unit tests, and repository tests on MariaDB',
  bin('vitest'),
  ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${vitestReport}`],
  vitestReport,
  {},
  vitestCounts
);

buildIfChanged();
rmSync(join(root, '.data', 'e2e'), { recursive: true, force: true });
const browser = join(results, 'browser.json');
await suite(
  'browser tests on the production build',
  bin('playwright'),
  ['test'],
  browser,
  { PLAYWRIGHT_JSON_OUTPUT_FILE: browser },
  (report: { stats: { expected: number; unexpected: number; flaky: number } }) => ({
    passed: report.stats.expected,
    failed: report.stats.unexpected + report.stats.flaky
  })
);

console.log(`${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed === 0 ? 0 : 1);
