import { Worker } from 'node:worker_threads';
import type { InputOf, ResultOf, WorkerMessage, WorkName } from './work';

/** Where the bundled worker lies; the start command says so. */
const workerFile = (): string => process.env.ASH_CRATE_WORKER ?? '.cache/worker/worker.mjs';
/** More than any of the work needs; one that runs away ends instead of taking the machine with it. MB. */
const MEMORY_MB = 1024;

/** The worker ended without a result: a fault of the program, never of what was put in. */
export class WorkerEnded extends Error {}

/**
 * Computes something in a thread of its own.
 * @param options.signal ends the thread at once; the promise is rejected with the signal's reason
 * @throws WorkerEnded where the thread dies; nothing else is harmed
 */
export function inWorker<N extends WorkName>(
  work: N,
  input: InputOf<N>,
  options: { signal?: AbortSignal; onProgress?: (share: number) => void; file?: string } = {}
): Promise<ResultOf<N>> {
  const { signal, onProgress, file = workerFile() } = options;
  return new Promise((done, fail) => {
    if (signal?.aborted) return fail(signal.reason as Error);
    const worker = new Worker(file, {
      workerData: { work, input },
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB }
    });
    const stop = () => {
      void worker.terminate();
      fail(signal!.reason as Error);
    };
    signal?.addEventListener('abort', stop, { once: true });
    const end = () => signal?.removeEventListener('abort', stop);
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
