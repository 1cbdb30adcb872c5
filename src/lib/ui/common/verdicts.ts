import type { Severity, Verdict } from '#core/findings/finding';

/** A state is a colour, a shape and a word together, never colour alone. */
export const VERDICT_WORD: Record<Verdict, string> = {
  works: 'Works',
  limited: 'Works, limited',
  check: 'Check first',
  fails: 'Does not work'
};
export const SEVERITY_WORD: Record<Severity, string> = { note: 'Note', limit: 'Limit', check: 'Check', fail: 'Fails' };

export type Mark = 'pass' | 'note' | 'limit' | 'check' | 'fail';
export const VERDICT_MARK: Record<Verdict, Mark> = { works: 'pass', limited: 'limit', check: 'check', fails: 'fail' };
