import { labelAt } from './plain-words';

/** An expected failure: mapped to a status and the contract's error shape once, at the edge. */
export type ProblemCode =
  | 'bad-input'
  | 'not-found'
  | 'conflict'
  | 'in-use'
  | 'drive-busy'
  | 'implausible'
  | 'too-large'
  | 'wrong-type'
  | 'foreign-origin'
  | 'busy'
  | 'database-away'
  | 'disk-full';

const STATUS: Record<ProblemCode, number> = {
  'bad-input': 400,
  implausible: 400,
  'foreign-origin': 403,
  'not-found': 404,
  conflict: 409,
  'in-use': 409,
  'drive-busy': 409,
  'too-large': 413,
  'wrong-type': 415,
  busy: 503,
  'database-away': 503,
  'disk-full': 507
};

export type FieldProblem = { path: string; message: string };

export class Problem extends Error {
  readonly status: number;
  constructor(
    readonly code: ProblemCode,
    message: string,
    readonly fields: readonly FieldProblem[] = [],
    /** What the page needs to offer a way on: both versions of a conflict, the alarms of a result. */
    readonly details: Record<string, unknown> = {}
  ) {
    super(message);
    this.status = STATUS[code];
  }
}

/** @throws Problem `bad-input` when there is anything wrong, each at its path below `under` */
export function refuse(problems: readonly FieldProblem[], under = ''): void {
  const [first] = problems;
  if (!first) return;
  const fields = problems.map(({ path, message }) => ({ path: `${under}${path}`, message }));
  throw new Problem('bad-input', `${labelAt(undefined, fields[0]!.path)} ${first.message}.`, fields);
}

export const DATABASE_AWAY =
  'The database is not answering. It is being started again; nothing that was saved is lost.';

export const notFound = (what: string) => new Problem('not-found', `There is no such ${what}.`);
