import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import { Problem } from '../problems/problem';
import type { InputOf, ResultOf, WorkerMessage, WorkName } from './functions';

/** Where the bundled worker lies; the start command says so. */
const workerFile = (): string => process.env.ASH_CRATE_WORKER ?? '.cache/worker/worker.mjs';
/** More than any of the work needs; one that runs away ends instead of taking the machine with it. MB. */
const MEMORY_MB = 1024;

/** The worker ended without a result: a fault of the program, never of what was put in. */
export class WorkerEnded extends Error {}

/** More at once would only take turns on the same processors, and hold memory meanwhile. */
const MOST_AT_ONCE = Math.max(2, availableParallelism());
/** What may run for long leaves one place for what is short. */
const LONG: ReadonlySet<WorkName> = new Set(['rank']);
const places = { all: 0, long: 0 };
const waiting: { long: boolean; go: () => void }[] = [];
const hasPlace = (long: boolean) => places.all < MOST_AT_ONCE && (!long || places.long < MOST_AT_ONCE - 1);
const take = (long: boolean) => {
  places.all += 1;
  if (long) places.long += 1;
};

/** Waits for a turn. @returns gives it back; asking twice does nothing */
async function turn(work: WorkName, signal: AbortSignal | undefined): Promise<() => void> {
  const long = LONG.has(work);
  if (hasPlace(long)) take(long);
  else
    await new Promise<void>((done, fail) => {
      const next = {
        long,
        go: () => {
          signal?.removeEventListener('abort', leave);
          done();
        }
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
    places.all -= 1;
    if (long) places.long -= 1;
    // Handed on at once, so that nobody slips in between.
    const at = waiting.findIndex((next) => hasPlace(next.long));
    if (at < 0) return;
    const [next] = waiting.splice(at, 1);
    take(next!.long);
    next!.go();
  };
}

/** Nothing that is asked for takes longer; what does was made to. */
const LIMIT_MS: Record<WorkName, number> = {
  rank: 120_000,
  simulate: 30_000,
  rig: 60_000,
  read: 60_000,
  analyse: 60_000
};

/**
 * Computes something in a thread of its own.
 * @param options.onComputed is told how long the computing itself took, without the thread, ms
 * @param options.signal ends the thread at once; the promise is rejected with the signal's reason
 * @throws Problem `too-large` where it takes longer than such work may; WorkerEnded where the thread dies; nothing else is harmed
 */
export async function inWorker<N extends WorkName>(
  work: N,
  input: InputOf<N>,
  options: {
    signal?: AbortSignal;
    onProgress?: (share: number) => void;
    onComputed?: (ms: number) => void;
    file?: string;
    limitMs?: number;
  } = {}
): Promise<ResultOf<N>> {
  const { signal, onProgress, onComputed, file = workerFile(), limitMs = LIMIT_MS[work] } = options;
  if (signal?.aborted) throw signal.reason as Error;
  const giveBack = await turn(work, signal);
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
    const limit = setTimeout(() => {
      void worker.terminate();
      fail(new Problem('too-large', `This takes longer than ${limitMs / 1000} s; ask for less at once.`));
    }, limitMs);
    const end = () => {
      clearTimeout(limit);
      signal?.removeEventListener('abort', stop);
      giveBack();
    };
    worker.on('message', (message: WorkerMessage) => {
      if ('share' in message) return onProgress?.(message.share);
      end();
      onComputed?.(message.ms);
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
