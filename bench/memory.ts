import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { rank } from '#core/compare/ranking/rank';
import { randomCrate } from '../tests/random-crate.ts';

/**
 * What the largest ranking takes as the application runs it: in a thread of its own, alone in a process that does nothing else, so
 * that the peak of the process is the ranking's. Prints; nothing here is a pass or a fail.
 */
const SIZES = { hosts: 5, portsEach: 4, cables: 30, enclosures: 200, drives: 200 };
const ROUNDS = 5;

if (isMainThread) {
  const crate = randomCrate(11, SIZES, { plain: process.argv[2] === 'plain' });
  const before = process.resourceUsage().maxRSS / 1000;
  const times: number[] = [];
  let last = { took: 0, summary: '' };
  for (let i = 0; i < ROUNDS; i++) {
    last = await new Promise<typeof last>((done, fail) => {
      const worker = new Worker(new URL(import.meta.url), { workerData: crate });
      worker.on('message', done);
      worker.on('error', fail);
    });
    times.push(last.took);
  }
  const median = [...times].sort((a, b) => a - b)[Math.floor(ROUNDS / 2)]!;
  const peak = process.resourceUsage().maxRSS / 1000;
  console.log(
    `in a new worker each time: ${median.toFixed(0)} ms (${Math.min(...times).toFixed(0)} to ${Math.max(...times).toFixed(0)}); ${last.summary}; peak of the whole process ${peak.toFixed(0)} MB (${before.toFixed(0)} before)`
  );
} else {
  const crate = workerData as Parameters<typeof rank>[0];
  const from = performance.now();
  const { considered, accepted, frontier, rejected } = rank({ ...crate, limit: 0 });
  const took = performance.now() - from;
  parentPort!.postMessage({
    took,
    summary: `${(considered / 1e6).toFixed(1)} million, ${accepted} accepted, frontier of ${frontier.length}, ${rejected.length} reasons`
  });
}
