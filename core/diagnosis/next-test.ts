import { z } from 'zod';
import { after, gainOf, normalised, ranked, type Belief } from './belief.ts';
import type { CauseCode } from './causes.ts';
import type { Evidence } from './evidence.ts';
import { CAUSE_NAMES } from './names.ts';
import { wordsFor, type Question } from './question.ts';
import type { Situation } from './situation.ts';
import { causeSchema } from './asking.ts';
import { PROTOCOL_IDS } from '../results/protocol-ids.ts';

export const nextTestSchema = z.strictObject({
  test: z.string(),
  text: z.string(),
  minutes: z.number(),
  tools: z.array(z.string()),
  protocol: z.enum(PROTOCOL_IDS).optional().describe('the way of measuring that it is done with'),
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

/** What each question tells of all causes, in bits: the same whichever two of them are to be told apart. */
export type Gains = ReadonlyMap<Question, number>;

/** Tells how many bits each open question is expected to tell. */
export const gainsOf = ({ belief, open }: Weighed): Gains =>
  new Map(open.map((question) => [question, gainOf(belief, question)]));

/** Rates a question by how much it tells apart two causes, and all of them, for the minutes that it takes. */
function worthOf(question: Question, all: number, pair: Belief, sum: number): { bits: number; worth: number } {
  const between = pair.size === 2 ? sum * gainOf(pair, question) : all;
  return { bits: Math.max(all, between), worth: (all + between) / 2 / (question.minutes + GETTING_THERE) };
}

/**
 * Chooses what tells a cause best from the likeliest of the others, for its minutes.
 * @returns null where nothing tells enough
 */
export function nextFor(cause: CauseCode | undefined, weighed: Weighed, gains: Gains, at: Situation): NextTest | null {
  const { belief, open } = weighed;
  const [first] = ranked(belief);
  const own = cause ?? first?.[0];
  const pair = ranked(belief).filter(
    ([code], i, order) => code === own || code === order.find(([o]) => o !== own)?.[0]
  );
  const sum = pair.reduce((total, [, share]) => total + share, 0);
  const shares = normalised(new Map(pair));
  const [found] = open
    .map((question) => ({ question, ...worthOf(question, gains.get(question) ?? 0, shares, sum) }))
    .filter(({ bits }) => bits >= LEAST_BITS)
    .sort((a, b) => b.worth - a.worth);
  if (!found) return null;
  const { question } = found;
  const points = question.outcomes.map((_, i) => ranked(after(belief, question, i))[0]?.[0] ?? 'healthy');
  return {
    test: question.code,
    text: wordsFor(question.text, at),
    minutes: question.minutes,
    tools: [...(question.tools ?? [])],
    ...(question.protocol ? { protocol: question.protocol } : {}),
    because: becauseOf(points),
    outcomes: question.outcomes.map(({ outcome, text }, i) => ({
      outcome,
      text: wordsFor(text, at),
      points: points[i] ?? 'healthy'
    }))
  };
}

/** Says which causes the outcomes of a test point to. */
function becauseOf(points: readonly CauseCode[]): string {
  const names = [...new Set(points)].map((cause) => `“${CAUSE_NAMES[cause] ?? cause}”`);
  return names.length === 1
    ? `It makes ${names[0]} surer, or less sure.`
    : `It tells ${names.slice(0, -1).join(', ')} from ${names.at(-1)}.`;
}
