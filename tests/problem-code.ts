import { Problem } from '../src/lib/server/problems/problem';

/** How some work ended: `done`, the code of an expected failure, or the text of an unexpected one. */
export const problemCode = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (error: unknown) => (error instanceof Problem ? error.code : String(error))
  );
