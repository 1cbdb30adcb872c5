import type { PlanInput } from '../plan/report.ts';
import type { Entry } from '../sheets/progress.ts';

/**
 * Puts what was answered on a sheet into the enclosure, where the enclosure itself does not say: a part that was deleted since keeps nothing.
 * @example withAnswers(anInput(), []).enclosure.retention // undefined
 */
export function withAnswers(input: PlanInput, entries: readonly Pick<Entry, 'answer'>[]): PlanInput {
  const said: Record<string, unknown> = {};
  for (const { answer } of entries) if (answer && answer.question !== 'format') said[answer.question] = answer.value;
  if (Object.keys(said).length === 0) return input;
  return { ...input, enclosure: { ...said, ...input.enclosure } as PlanInput['enclosure'] };
}
