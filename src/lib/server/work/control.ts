import type { Knex } from 'knex';

/** What a long piece of work gets: it reports where it is, which is also where a cancel reaches it. */
export type TaskControl = {
  report(step: string, done: number, total: number): Promise<void>;
  /**
   * Marks the work as done, with its result, in the transaction that does it: so it is known as done where that is committed, and only
   * there, whatever becomes of the process. Throws where it was cancelled meanwhile.
   */
  commit(trx: Knex.Transaction, result: unknown): Promise<void>;
  /** Aborts when the task is cancelled: for work that does not report by itself. */
  signal: AbortSignal;
};

/** For what is done at once and watched by nobody. */
export const noControl: TaskControl = {
  report: async () => {},
  commit: async () => {},
  signal: new AbortController().signal
};
