import { withAnswers } from '../assembly/answers.ts';
import { runSheet } from '../assembly/run-sheet.ts';
import type { PlanInput } from '../plan/report.ts';
import type { Entry } from '../sheets/progress.ts';
import type { RunSheet } from '../sheets/sheet.ts';
import { choicesMade } from './settled.ts';
import { formatSheet } from './sheet.ts';

export const SHEET_KINDS = ['assemble', 'format'] as const;
export type SheetKind = (typeof SHEET_KINDS)[number];

/** What a stored sheet is of: its kind, its items, and what its build is called. */
export type SheetMeant = {
  kind: SheetKind;
  unitIds: readonly string[];
  from?: 'ready-made' | undefined;
  title: string;
};

/**
 * Makes a stored sheet as its parts and its answers make it now.
 * @param parts the parts of its build, as a plan takes them
 * @example composeSheet(anInput(), { kind: 'format', unitIds: [], title: 'Scan day' }, []).stages.length // 4
 */
export function composeSheet(
  parts: PlanInput,
  { kind, unitIds, from, title }: SheetMeant,
  entries: readonly Pick<Entry, 'answer'>[]
): RunSheet {
  const units = Math.max(1, unitIds.length);
  return kind === 'format'
    ? formatSheet(parts, { choices: choicesMade(entries), title, units })
    : runSheet(withAnswers(parts, entries), { units, from });
}
