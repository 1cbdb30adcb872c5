import { CAUSE_WORDS, type CauseCode } from './causes.ts';
import type { Evidence } from './evidence.ts';
import type { Question } from './question.ts';
import type { Situation } from './situation.ts';

/** Shares of causes; they add up to 1. */
export type Belief = Map<CauseCode, number>;

/**
 * Makes shares add up to 1.
 * @param belief shares of any sum above 0
 */
export const normalised = (belief: Belief): Belief => {
  const sum = [...belief.values()].reduce((a, b) => a + b, 0);
  return new Map([...belief].map(([cause, share]) => [cause, share / sum]));
};

/**
 * Takes weights of causes as what is believed before anything is asked, without those that a build cannot have.
 * @param weights of any sum
 */
export function beliefFrom(weights: Partial<Record<CauseCode, number>>, at: Situation): Belief {
  const causes = (Object.entries(weights) as [CauseCode, number][]).filter(
    ([cause]) => CAUSE_WORDS[cause].applies?.(at) ?? true
  );
  return normalised(new Map(causes));
}

/** Finds how often each outcome of a question is seen with a cause. */
export const rowOf = (question: Question, cause: CauseCode): readonly number[] =>
  question.given[cause] ?? question.usual;

/** Takes an outcome in: each share times how often that outcome is seen with the cause (Bayes), made to add up to 1 again. */
export function after(belief: Belief, question: Question, outcome: number): Belief {
  return normalised(
    new Map([...belief].map(([cause, share]) => [cause, share * (rowOf(question, cause)[outcome] ?? 0)]))
  );
}

const entropy = (belief: Belief): number =>
  [...belief.values()].reduce((sum, share) => (share > 0 ? sum - share * Math.log2(share) : sum), 0);

/**
 * Tells how many bits a question is expected to tell: the entropy of the shares less what is left of it, over the outcomes. Of an outcome
 * with the joint shares x = share * likelihood and their sum w, w times the entropy that is left is w log w - sum(x log x).
 */
export function gainOf(belief: Belief, question: Question): number {
  let left = 0;
  for (let outcome = 0; outcome < question.outcomes.length; outcome++) {
    let [weight, sum] = [0, 0];
    for (const [cause, share] of belief) {
      const joint = share * (rowOf(question, cause)[outcome] ?? 0);
      if (joint <= 0) continue;
      weight += joint;
      sum += joint * Math.log2(joint);
    }
    if (weight > 0) left += weight * Math.log2(weight) - sum;
  }
  return entropy(belief) - left;
}

/** Puts causes in order, the likeliest first. */
export const ranked = (belief: Belief): [CauseCode, number][] => [...belief].sort((a, b) => b[1] - a[1]);

/** Sure enough to say so: this share, and so many times the next. */
const SURE = 0.9;
const SURE_RATIO = 4;

/** Tells whether one cause is likely enough, and far enough ahead of the next, to be named. */
export function isSure(belief: Belief): boolean {
  const [[, first] = ['healthy', 0], [, second] = ['healthy', 0]] = ranked(belief);
  return first >= SURE && first >= second * SURE_RATIO;
}

/** No single thing makes a cause impossible: what is entered can be wrong. */
const LEAST_LIKELY = 1e-4;

/** Takes evidence in: each share times how likely it is with its cause, made to add up to 1 again. */
export function taken(belief: Belief, evidence: Evidence): Belief {
  const most = Math.max(...[...belief.keys()].map(evidence.given));
  if (!(most > 0)) return belief;
  return normalised(
    new Map([...belief].map(([cause, share]) => [cause, share * Math.max(evidence.given(cause) / most, LEAST_LIKELY)]))
  );
}
