import type { z } from 'zod';
import { plainIssue } from './plain-words';
import type { FieldProblem } from './problem';

/** Zod's issues as the contract's fields: the path with dots, the message in one sentence. */
export function fieldsOf(error: z.ZodError): FieldProblem[] {
  return flatten(error.issues, []).slice(0, 100);
}

/** Where a value may have several shapes, the last shape is the one in full; its problems say more than "matches none". */
function flatten(issues: readonly z.core.$ZodIssue[], above: readonly PropertyKey[]): FieldProblem[] {
  return issues.flatMap((issue) => {
    const path = [...above, ...issue.path];
    const inner = issue.code === 'invalid_union' ? issue.errors.at(-1) : undefined;
    if (inner && inner.length > 0) return flatten(inner, path);
    return [{ path: path.map(String).join('.'), message: plainIssue(issue) }];
  });
}
