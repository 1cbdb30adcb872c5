import { z } from 'zod';
import { CAUSES } from './causes.ts';
import { SYMPTOMS, type Question } from './question.ts';
import { CONTACT_QUESTIONS } from './questions/contact.ts';
import { FIT_QUESTIONS } from './questions/fit.ts';
import { VOLUME_QUESTIONS } from './questions/volume.ts';
import { WORK_QUESTIONS } from './questions/work.ts';

/** Everything that can be asked or tried, the one table behind every diagnosis. */
export const QUESTIONS: readonly Question[] = [
  ...FIT_QUESTIONS,
  ...CONTACT_QUESTIONS,
  ...VOLUME_QUESTIONS,
  ...WORK_QUESTIONS
];

const word = z.string().regex(/^[a-z0-9-]{1,40}$/, 'must be a code of small letters, digits and hyphens');
export const symptomSchema = z.enum(SYMPTOMS);
export const causeSchema = z.enum(CAUSES);
export const triedAnswerSchema = z.strictObject({ test: word, outcome: word });
export type TroubleAnswer = z.infer<typeof triedAnswerSchema>;

/** An answer that belongs to no question of this build and symptom. */
export class UnknownAnswer extends Error {
  /** @param index which answer; `what` is wrong with it */
  constructor(
    readonly index: number,
    readonly what: 'test' | 'outcome'
  ) {
    super(`answers.${index}.${what}`);
  }
}
