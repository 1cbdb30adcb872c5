import { CAUSE_WORDS, type CauseCode } from '#core/diagnosis/causes';
import { PRIORS } from '#core/diagnosis/priors';
import { SYMPTOMS, type Symptom } from '#core/diagnosis/question';
import type { Situation } from '#core/diagnosis/situation';
import { QUESTIONS, type TroubleAnswer } from '#core/diagnosis/asking';
import { effortOf, MOST_QUESTIONS, trouble } from '#core/diagnosis/trouble';

/** What of a build decides its paths: two that agree in it are asked the same and end alike, but for names. */
const signature = (symptom: Symptom, at: Situation): string =>
  JSON.stringify([
    symptom,
    QUESTIONS.filter((q) => q.for.includes(symptom)).map((q) => [q.applies?.(at) ?? true, q.known?.(at) ?? null]),
    Object.keys(PRIORS[symptom]).map((cause) => CAUSE_WORDS[cause as CauseCode].applies?.(at) ?? true)
  ]);

type Walked = { ends: number; faults: string[] };

/** Walks every path of a symptom on a build from some answers on. By plain comparison: there are hundreds of thousands of ends. */
function walkFrom(
  symptom: Symptom,
  at: Situation,
  answers: readonly TroubleAnswer[],
  effort: number,
  walked: Walked
): void {
  const report = trouble(symptom, at, answers);
  const wrong = (what: string) => walked.faults.push(`${symptom} ${JSON.stringify(answers)}: ${what}`);
  if (!report.ask) {
    walked.ends += 1;
    if (report.end === null) wrong('has neither a question nor an end');
    if (report.end === 'cause') {
      const [cause] = report.causes;
      if (!cause || cause.remedy.length < 20) wrong('ends in a cause without a remedy');
      if (cause?.backTo && !at.steps.has(cause.backTo))
        wrong(`leads back to ${cause.backTo}, which is not on the sheet`);
    } else if (report.causes.length === 0) wrong('names nothing that it could be');
    return;
  }
  const { test, minutes, outcomes } = report.ask;
  if (answers.length >= MOST_QUESTIONS) wrong('asks once too often');
  if (answers.some((answer) => answer.test === test)) wrong(`asks ${test} twice`);
  if (report.known.some((one) => one.test === test)) wrong(`asks ${test}, which the build says`);
  if (effortOf(minutes) < effort) wrong(`asks ${test} after something dearer`);
  for (const { outcome } of outcomes) walkFrom(symptom, at, [...answers, { test, outcome }], effortOf(minutes), walked);
}

/** Walks every path of every symptom on some builds; paths that two builds share are walked once. */
export function walkAll(situations: readonly Situation[]): Walked & { kinds: number } {
  const seen = new Set<string>();
  const walked: Walked = { ends: 0, faults: [] };
  for (const at of situations)
    for (const symptom of SYMPTOMS) {
      const key = signature(symptom, at);
      if (seen.has(key)) continue;
      seen.add(key);
      walkFrom(symptom, at, [], 0, walked);
    }
  return { ...walked, kinds: seen.size };
}
