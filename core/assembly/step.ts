import type { Ask, SheetStep } from '../sheets/sheet.ts';
import { partsKey, type For, type Hands } from './hands.ts';

/** A step before it has its id: `of` are the parts that it is done to, `at` tells two steps of one code apart. */
export type StepDraft = Omit<SheetStep, 'id'> & { of: readonly For[]; at?: string };

/** A stage before its steps have their ids. */
export type StageDraft = {
  id: string;
  title: string;
  steps: readonly StepDraft[];
  asks?: readonly Ask[];
  check: string;
};

/** Composes a stage for a build; nothing where the build has no such stage. */
export type StageOf = (hands: Hands) => StageDraft | undefined;

type More = Partial<Omit<StepDraft, 'code' | 'text' | 'of'>>;

/**
 * Writes a step down.
 * @param of the parts that it is done to
 * @example step('dry-fit', 'Close the case.', ['pads']).code // 'dry-fit'
 */
export const step = (code: string, text: string, of: readonly For[] = [], more: More = {}): StepDraft => ({
  code,
  text,
  of,
  ...more
});

/** Keeps the steps that a build has. */
export const having = (...steps: readonly (StepDraft | false | undefined)[]): StepDraft[] =>
  steps.filter((draft): draft is StepDraft => draft !== false && draft !== undefined);

/** Gives a step its id: its code, where it is done, and the parts that it is done to. */
export function toStep({ of, at, ...draft }: StepDraft, hands: Hands): SheetStep {
  const key = partsKey(hands, of);
  return { id: `${draft.code}${at ? `:${at}` : ''}${key ? `.${key}` : ''}`, ...draft };
}
