import type { RankInput } from '#core/compare/ranking/request';
import type { SimulateInput } from '#core/simulate/simulate';
import { untyped } from '../../../../tests/untyped';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { inWorker, WorkerEnded } from './run';

/** Stand-ins for the bundled worker: each says one thing about how threads end. */
const WORKERS = {
  answers: `import { parentPort, workerData } from 'node:worker_threads';
    parentPort.postMessage({ share: 0.5 });
    parentPort.postMessage({ result: workerData.input.hosts.length, ms: 7 });`,
  throws: `throw new Error('a fault');`,
  leaves: `process.exit(3);`,
  never: `setInterval(() => {}, 1000);`,
  hungry: `const all = []; for (;;) all.push(new Array(1e6).fill(1.5));`
};
let folder: string;
const file = (name: keyof typeof WORKERS) => join(folder, `${name}.mjs`);
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'ash-crate-workers-'));
  for (const [name, text] of Object.entries(WORKERS)) writeFileSync(join(folder, `${name}.mjs`), text);
});
afterAll(() => rmSync(folder, { recursive: true }));

const input = untyped<RankInput>({ hosts: [1, 2, 3] });
const simulation = untyped<SimulateInput>({ hosts: [1] });

describe('work in a thread of its own', () => {
  it('gives what came out, and says how far it is', async () => {
    const shares: number[] = [];
    const took: number[] = [];
    const told = { onProgress: (s: number) => shares.push(s), onComputed: (ms: number) => took.push(ms) };
    expect(await inWorker('rank', input, { file: file('answers'), ...told })).toBe(3);
    expect(shares).toEqual([0.5]);
    expect(took).toEqual([7]);
  });
  it.each(['throws', 'leaves', 'hungry'] as const)('a thread that %s is reported and harms nothing', async (name) => {
    await expect(inWorker('rank', input, { file: file(name) })).rejects.toBeInstanceOf(WorkerEnded);
    expect(await inWorker('rank', input, { file: file('answers') })).toBe(3);
  });
  it('ends at once when it is told to, before or while it runs', async () => {
    const controller = new AbortController();
    const running = inWorker('rank', input, { file: file('never'), signal: controller.signal });
    controller.abort(new Error('enough'));
    await expect(running).rejects.toThrow('enough');
    await expect(inWorker('rank', input, { file: file('never'), signal: controller.signal })).rejects.toThrow('enough');
  });
});

describe('many at once', () => {
  it('take turns, all come to their end, and one that waits can be cancelled', async () => {
    const blocked = new AbortController();
    // enough to fill every place
    const never = Array.from({ length: 64 }, () =>
      inWorker('rank', input, { file: file('never'), signal: blocked.signal }).catch((error: Error) => error.message)
    );
    const impatient = new AbortController();
    const waits = inWorker('rank', input, { file: file('answers'), signal: impatient.signal });
    impatient.abort(new Error('no longer wanted'));
    await expect(waits).rejects.toThrow('no longer wanted');
    blocked.abort(new Error('enough'));
    expect(new Set(await Promise.all(never))).toEqual(new Set(['enough']));
    const answers = Array.from({ length: 9 }, () => inWorker('rank', input, { file: file('answers') }));
    expect(await Promise.all(answers)).toEqual(Array.from({ length: 9 }, () => 3));
  });
  it('what may run for long leaves a place for what is short', async () => {
    const enough = new AbortController();
    const rankings = Array.from({ length: 12 }, () =>
      inWorker('rank', input, { file: file('never'), signal: enough.signal }).catch((error: Error) => error.message)
    );
    // answered while twelve rankings run or wait, none of which will ever end by itself
    expect(await inWorker('simulate', simulation, { file: file('answers') })).toBe(1);
    enough.abort(new Error('enough'));
    expect(new Set(await Promise.all(rankings))).toEqual(new Set(['enough']));
  });
  it('what takes longer than it may is ended with a sentence, and its place is free again', async () => {
    for (let i = 0; i < 8; i++)
      await expect(inWorker('rank', input, { file: file('never'), limitMs: 20 })).rejects.toMatchObject({
        code: 'too-large',
        message: 'This takes longer than 0.02 s; ask for less at once.'
      });
    expect(await inWorker('rank', input, { file: file('answers') })).toBe(3);
  });
});
