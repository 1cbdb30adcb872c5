import { Worker } from 'node:worker_threads';
import { Problem, type FieldProblem, type ProblemCode } from '../problems/problem';
import { isDocument } from '../repositories/archive/lines';
import { WorkerEnded } from './run';

/** What is done with an archive. Paths are files of this machine that the caller made. */
export type ArchiveWork =
  | { do: 'backup'; at: string }
  | { do: 'bundle'; crateId: string; at: string; form: 'stream' | 'document' }
  | { do: 'restore'; path: string; wrapped: boolean; safetyCopy: string; at: string; taskId: string }
  | { do: 'open'; path: string; at: string; taskId: string };

export type FromArchive =
  | { step: string; done: number; total: number }
  | { piece: Uint8Array }
  | { checked: true }
  | { result: unknown }
  | { stopped: true }
  | {
      problem: {
        code: ProblemCode;
        message: string;
        fields: readonly FieldProblem[];
        details: Record<string, unknown>;
      } | null;
    };
export type ToArchive = 'more' | 'stop';

const workerFile = (): string => process.env.ASH_CRATE_ARCHIVE_WORKER ?? '.cache/worker/archive.mjs';
/** Heap, MB. Lines are read and written one at a time; a document of an earlier version has to be held as a whole. */
const MEMORY_MB = { written: 64, lines: 128, document: 2048 };

function begin(work: ArchiveWork, memory: keyof typeof MEMORY_MB): Worker {
  return new Worker(workerFile(), {
    workerData: { work, databaseUrl: process.env.DATABASE_URL },
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB[memory], maxYoungGenerationSizeMb: 16 }
  });
}

const failure = (message: FromArchive & object): Error | undefined => {
  if (!('problem' in message)) return undefined;
  const { problem } = message;
  return problem
    ? new Problem(problem.code, problem.message, problem.fields, problem.details)
    : new WorkerEnded('The work on an archive failed.');
};
/** A worker that ran out of memory held more than any archive does. */
const ended = (error: Error & { code?: string }): Error =>
  error.code === 'ERR_WORKER_OUT_OF_MEMORY'
    ? new Problem('bad-input', 'It holds more than fits into memory. Nothing was changed.', [
        { path: 'content', message: 'holds too much' }
      ])
    : new WorkerEnded(error.message, { cause: error });

/**
 * Does something with an archive in a thread of its own.
 * @param options.onChecked told once all of it was looked through and nothing has been changed yet
 * @throws Problem for what is wrong with the archive; WorkerEnded for a fault of the program
 */
export async function workOnArchive(
  work: ArchiveWork,
  options: {
    signal: AbortSignal;
    onProgress(step: string, done: number, total: number): void;
    onChecked(): void;
  }
): Promise<unknown> {
  const path = 'path' in work ? work.path : '';
  const wrapped = 'wrapped' in work && work.wrapped;
  const memory = wrapped || (await isDocument(path)) ? 'document' : 'lines';
  return new Promise((done, fail) => {
    const worker = begin(work, memory);
    const stop = () => worker.postMessage('stop' satisfies ToArchive);
    options.signal.addEventListener('abort', stop, { once: true });
    worker.on('message', (message: FromArchive) => {
      if ('step' in message) options.onProgress(message.step, message.done, message.total);
      else if ('checked' in message) options.onChecked();
      else if ('result' in message) done(message.result);
      else if ('stopped' in message) fail(options.signal.reason as Error);
      else fail(failure(message));
    });
    worker.on('error', (error) => fail(ended(error)));
    worker.on('exit', () => {
      options.signal.removeEventListener('abort', stop);
      fail(new WorkerEnded('The work on an archive ended without a result.'));
    });
  });
}

/**
 * An archive as it is being made: each piece is asked for when the last one was taken, so that no more than one waits.
 * @throws Problem where it fails before its first piece
 */
export async function streamArchive(work: ArchiveWork): Promise<ReadableStream<Uint8Array>> {
  const worker = begin(work, 'written');
  let take: ((piece: Uint8Array | null) => void) | undefined;
  let broken: ((error: Error) => void) | undefined;
  const next = () =>
    new Promise<Uint8Array | null>((done, fail) => {
      take = done;
      broken = fail;
    });
  worker.on('message', (message: FromArchive) => {
    if ('piece' in message) take?.(message.piece);
    else if ('result' in message) take?.(null);
    else broken?.(failure(message) ?? new WorkerEnded('The work on an archive stopped.'));
  });
  worker.on('error', (error) => broken?.(ended(error)));
  worker.on('exit', () => broken?.(new WorkerEnded('The work on an archive ended before its end.')));
  let waiting = await next();
  return new ReadableStream<Uint8Array>({
    async pull(controller) {
      if (waiting === null) return controller.close();
      controller.enqueue(waiting);
      const coming = next();
      worker.postMessage('more' satisfies ToArchive);
      waiting = await coming;
      if (waiting === null) controller.close();
    },
    cancel: () => void worker.terminate()
  });
}
