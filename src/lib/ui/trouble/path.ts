import { counted } from '#core/quantities/format';
import type { TroubleAnswer } from '#core/diagnosis/asking';

/** How long a look takes, as a person says it. */
export const minuteWords = (minutes: number): string =>
  minutes < 0.8
    ? 'less than a minute'
    : minutes < 100
      ? `about ${counted(Math.round(minutes), 'minute')}`
      : `about ${counted(Math.round(minutes / 60), 'hour')}`;

/**
 * The answers of a search in an address: `test:outcome` one after the other, with a point between.
 * Codes hold letters, digits and hyphens only.
 */
export const answersToText = (answers: readonly TroubleAnswer[]): string =>
  answers.map(({ test, outcome }) => `${test}:${outcome}`).join('.');

/** Reads answers from an address; what is no answer is left out, with everything after it. */
export function answersFromText(text: string | null): TroubleAnswer[] {
  const answers: TroubleAnswer[] = [];
  for (const part of (text ?? '').split('.').slice(0, 6)) {
    const match = /^([a-z0-9-]{1,40}):([a-z0-9-]{1,40})$/.exec(part);
    if (!match?.[1] || !match[2]) break;
    answers.push({ test: match[1], outcome: match[2] });
  }
  return answers;
}
