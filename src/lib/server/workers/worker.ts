import { parentPort, workerData } from 'node:worker_threads';
import { WORK, type WorkerMessage, type WorkName } from './functions';

/** Messages are told no oftener than this, ms: a page cannot show more. */
const EVERY_MS = 50;

const { work, input } = workerData as { work: WorkName; input: never };
const say = (message: WorkerMessage) => parentPort!.postMessage(message);
const begin = performance.now();
let last = 0;
const result = WORK[work](input, (share) => {
  const now = performance.now();
  if (now - last < EVERY_MS) return;
  last = now;
  say({ share });
});
say({ result, ms: performance.now() - begin });
