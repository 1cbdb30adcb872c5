import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { InputOf, ResultOf, WorkerMessage, WorkName } from './work';

/** Where the bundled worker lies; the start command says so. */
const workerFile = (): string => process.env.ASH_CRATE_WORKER ?? '.cache/worker/worker.mjs';
/** More than any of the work needs; one that runs away ends instead of taking the machine with it. MB. */
const MEMORY_MB = 1024;

/** The worker ended without a result: a fault of the program, never of what was put in. */
export class WorkerEnded extends Error {}

/** More at once would only take turns on the same processors, and hold memory meanwhile. */
const MOST_AT_ONCE = Math.max(2, availableParallelism());
let running = 0;
const waiting: (() => void)[] = [];

/** Waits for a turn. @returns gives it back; asking twice does nothing */
async function turn(signal: AbortSignal | undefined): Promise<() => void> {
  if (running < MOST_AT_ONCE) running += 1;
  else
    await new Promise<void>((go, fail) => {
      const next = () => {
        signal?.removeEventListener('abort', leave);
        go();
      };
      const leave = () => {
        waiting.splice(waiting.indexOf(next), 1);
        fail(signal!.reason as Error);
      };
      waiting.push(next);
      signal?.addEventListener('abort', leave, { once: true });
    });
  let given = false;
  return () => {
    if (given) return;
    given = true;
    // Handed on, so that nobody slips in between.
    const next = waiting.shift();
    if (next) next();
    else running -= 1;
  };
}

/**
 * Computes something in a thread of its own.
 * @param options.signal ends the thread at once; the promise is rejected with the signal's reason
 * @throws WorkerEnded where the thread dies; nothing else is harmed
 */
export async function inWorker<N extends WorkName>(
  work: N,
  input: InputOf<N>,
  options: { signal?: AbortSignal; onProgress?: (share: number) => void; file?: string } = {}
): Promise<ResultOf<N>> {
  const { signal, onProgress, file = workerFile() } = options;
  if (signal?.aborted) throw signal.reason as Error;
  const giveBack = await turn(signal);
  // It may have been told to stop in the meantime.
  if (signal?.aborted) {
    giveBack();
    throw signal.reason as Error;
  }
  return new Promise<ResultOf<N>>((done, fail) => {
    const worker = new Worker(file, {
      workerData: { work, input },
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB }
    });
    const stop = () => {
      void worker.terminate();
      fail(signal!.reason as Error);
    };
    signal?.addEventListener('abort', stop, { once: true });
    const end = () => {
      signal?.removeEventListener('abort', stop);
      giveBack();
    };
    worker.on('message', (message: WorkerMessage) => {
      if ('share' in message) return onProgress?.(message.share);
      end();
      done(message.result as ResultOf<N>);
      void worker.terminate();
    });
    worker.on('error', (error) => {
      end();
      fail(new WorkerEnded(error.message, { cause: error }));
    });
    // After a result or an error this changes nothing any more.
    worker.on('exit', (code) => {
      end();
      fail(new WorkerEnded(`The worker ended with ${code} before it had a result.`));
    });
  });
}
