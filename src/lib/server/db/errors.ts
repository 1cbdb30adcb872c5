import { Problem } from '../problems/problem';
import { diskFullSentence } from '../machine/disk';
import { isDatabaseAway } from './connection';

type SqlError = Error & { code?: string; errno?: number; sqlMessage?: string };

const codeOf = (error: unknown): string => (error instanceof Error ? ((error as SqlError).code ?? '') : '');

/** Two writers waited for each other and the database ended one of them; doing it again is right. */
export const isDeadlock = (error: unknown): boolean =>
  codeOf(error) === 'ER_LOCK_DEADLOCK' || codeOf(error) === 'ER_CHECKREAD';

/** A row stayed locked for longer than a request should wait. */
export const isLockWait = (error: unknown): boolean => codeOf(error) === 'ER_LOCK_WAIT_TIMEOUT';

const DISK_FULL = new Set(['ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ER_ERROR_ON_WRITE', 'ENOSPC', 'EE_DISK_FULL']);
/** Whether an error says that there is no room left on the disk. */
export const isDiskFull = (error: unknown): boolean =>
  error instanceof Error &&
  (DISK_FULL.has(codeOf(error)) ||
    /No space left on device|The table '[^']{1,200}' is full/.test((error as SqlError).sqlMessage ?? error.message));

const BUSY = 'Someone else is writing here just now, and it takes long. Nothing was changed; try again in a moment.';
export const busy = (message = BUSY) => new Problem('busy', message);

/** What is unique, by the end of its key's name: what to say when it is taken. */
const TAKEN: readonly [RegExp, string, string][] = [
  [/units_crate_id_tag/, 'tag', 'The tag is taken by another item of this crate.'],
  [/builds_tag/, 'tag', 'The tag is taken by another build.'],
  [/crates_slug/, 'name', 'Another crate got this address at the same moment; try again.']
];

/** Says what is taken already, by the key that was met. */
function taken(error: Error): Problem {
  const key = (error as SqlError).sqlMessage ?? error.message;
  const [, path, message] = TAKEN.find(([name]) => name.test(key)) ?? [];
  return new Problem(
    'conflict',
    message ?? 'This is there already; somebody else was first.',
    path ? [{ path, message: 'is taken' }] : []
  );
}

const hangs = () =>
  new Problem('in-use', 'Something else hangs on this by now; remove that first. Nothing was changed.');
const gone = () =>
  new Problem('conflict', 'What this belongs to has been deleted in the meantime. Nothing was changed.');
const unstorable = () => new Problem('bad-input', 'A value cannot be stored as it is. Nothing was changed.');

/** What to say when a constraint is met, by the code of the database. */
const CONSTRAINTS: Partial<Record<string, () => Problem>> = {
  ER_ROW_IS_REFERENCED: hangs,
  ER_ROW_IS_REFERENCED_2: hangs,
  ER_NO_REFERENCED_ROW: gone,
  ER_NO_REFERENCED_ROW_2: gone,
  ER_DATA_TOO_LONG: unstorable,
  ER_CONSTRAINT_FAILED: unstorable,
  ER_TRUNCATED_WRONG_VALUE_FOR_FIELD: unstorable,
  ER_WARN_DATA_OUT_OF_RANGE: unstorable,
  ER_NET_PACKET_TOO_LARGE: () =>
    new Problem('too-large', 'This is larger than what can be stored at once. Nothing was changed.')
};

/**
 * Finds the expected failure behind an error of the database or its driver: a constraint that was met, a lock, a full disk, a database
 * that is away. @returns undefined where it is a fault of the program
 */
export function problemOf(error: unknown): Problem | undefined {
  if (error instanceof Problem) return error;
  if (!(error instanceof Error)) return undefined;
  if (isDiskFull(error)) return new Problem('disk-full', diskFullSentence());
  if (isDatabaseAway(error)) return new Problem('database-away', diskFullSentence({ onlyIfFull: true }));
  if (isDeadlock(error) || isLockWait(error)) return busy();
  const code = codeOf(error) ?? '';
  return code === 'ER_DUP_ENTRY' ? taken(error) : CONSTRAINTS[code]?.();
}
