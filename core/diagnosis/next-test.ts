import { z } from 'zod';
import { after, gainOf, normalised, ranked, type Belief } from './belief.ts';
import type { CauseCode } from './causes.ts';
import type { Evidence } from './evidence.ts';
import { CAUSE_NAMES } from './names.ts';
import { wordsFor, type Question } from './question.ts';
import type { Situation } from './situation.ts';
import { causeSchema } from './asking.ts';

export const nextTestSchema = z.strictObject({
  test: z.string(),
  text: z.string(),
  minutes: z.number(),
  tools: z.array(z.string()),
  because: z.string().describe('which causes it tells apart'),
  outcomes: z.array(
    z.strictObject({ outcome: z.string(), text: z.string(), points: causeSchema.describe('the likeliest cause then') })
  )
});
export type NextTest = z.infer<typeof nextTestSchema>;

/** What is believed, by what, and what can still be asked. */
export type Weighed = { belief: Belief; evidence: Evidence[]; open: Question[] };

/** What is told by a question for each minute; a few minutes go on finding one’s way in any case. */
const GETTING_THERE = 4;
/** A question that tells less than this, in bits, is not asked. */
const LEAST_BITS = 0.04;

/** Rates a question by how much it tells apart the first two, and all of them, for the minutes that it takes. */
function worthOf(question: Question, belief: Belief, pair: readonly CauseCode[]): { bits: number; worth: number } {
  const bits = gainOf(belief, question);
  const shares = pair.map((cause): [CauseCode, number] => [cause, belief.get(cause) ?? 0]);
  const sum = shares.reduce((total, [, share]) => total + share, 0);
  const between = pair.length === 2 && sum > 0 ? sum * gainOf(normalised(new Map(shares)), question) : bits;
  return { bits: Math.max(bits, between), worth: (bits + between) / 2 / (question.minutes + GETTING_THERE) };
}

/**
 * Chooses what tells a cause best from the one after it, for its minutes; of the likeliest where none is named.
 * @returns null where nothing tells enough
 */
export function nextFor(cause: CauseCode | undefined, { belief, open }: Weighed, at: Situation): NextTest | null {
  const order = ranked(belief).map(([code]) => code);
  const own = cause ?? order[0];
  const rival = order.find((code) => code !== own);
  const pair = [own, rival].filter((code) => code !== undefined);
  const rated = open
    .map((question) => ({ question, ...worthOf(question, belief, pair) }))
    .filter(({ bits }) => bits >= LEAST_BITS)
    .sort((a, b) => b.worth - a.worth);
  const [found] = rated;
  if (!found) return null;
  const { question } = found;
  return {
    test: question.code,
    text: wordsFor(question.text, at),
    minutes: question.minutes,
    tools: [...(question.tools ?? [])],
    because: becauseOf(question, belief),
    outcomes: question.outcomes.map(({ outcome, text }, i) => ({
      outcome,
      text: wordsFor(text, at),
      points: ranked(after(belief, question, i))[0]?.[0] ?? 'healthy'
    }))
  };
}

function becauseOf(question: Question, belief: Belief): string {
  const points = [...new Set(question.outcomes.map((_, i) => ranked(after(belief, question, i))[0]?.[0] ?? 'healthy'))];
  const names = points.map((cause) => CAUSE_NAMES[cause] ?? cause);
  return names.length === 1
    ? `It makes “${names[0]}” surer, or less sure.`
    : `It tells ${names
        .slice(0, -1)
        .map((name) => `“${name}”`)
        .join(', ')} from “${names.at(-1)}”.`;
}
