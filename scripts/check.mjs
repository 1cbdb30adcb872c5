import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root, setUp } from './setup.mjs';

// `npm run check`: what can be told without running anything. What has not changed since is not looked at again.
setUp();
const bin = (name) => join(root, 'node_modules/.bin', name);
const cache = (name) => join(root, '.cache', name);
const CHECKS = [
  ['format', 'prettier', ['--check', '--cache', '--cache-location', cache('prettier'), '--log-level', 'warn', '.']],
  ['lint', 'eslint', ['--cache', '--cache-location', cache('eslint'), '--max-warnings', '0', '.']],
  ['core types', 'tsc', ['-p', 'core', '--incremental', '--tsBuildInfoFile', cache('core.tsbuildinfo')]],
  ['types', 'svelte-check', ['--tsconfig', './tsconfig.json', '--threshold', 'warning', '--output', 'human']]
];
const begun = Date.now();
const results = await Promise.all(
  CHECKS.map(
    ([name, command, args]) =>
      new Promise((done) => {
        let output = '';
        const child = spawn(process.execPath, [bin(command), ...args], { cwd: root });
        child.stdout.on('data', (data) => (output += data));
        child.stderr.on('data', (data) => (output += data));
        child.once('exit', (code) => {
          const seconds = ((Date.now() - begun) / 1000).toFixed(0);
          console.log(`${code === 0 ? 'ok    ' : 'FAILED'}  ${name} (${seconds} s)${code === 0 ? '' : `\n${output}`}`);
          done(code === 0);
        });
      })
  )
);
process.exit(results.every(Boolean) ? 0 : 1);
