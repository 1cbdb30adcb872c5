import type { FieldProblem } from '../problems/problem';

/** How far a long piece of work is. `done` of `total` steps; a task that has ended keeps its last word for a while. */
export type TaskState = {
  id: string;
  title: string;
  state: 'running' | 'done' | 'failed' | 'cancelled';
  done: number;
  total: number;
  step: string;
  result?: unknown;
  error?: { code: string; message: string; fields: readonly FieldProblem[] };
};
