import { z } from 'zod';
import { triedAnswerSchema, causeSchema, QUESTIONS, UnknownAnswer, type TroubleAnswer } from './asking.ts';
import { after, beliefFrom, gainOf, isSure, normalised, ranked, rowOf, type Belief } from './belief.ts';
import { CAUSE_WORDS, type CauseCode } from './causes.ts';
import { diagnose, sharesOf } from './diagnose.ts';
import { PRIORS } from './priors.ts';
import { CANNOT_TELL, wordsFor, type Question, type Symptom } from './question.ts';
import type { Situation } from './situation.ts';

/** Most questions up to an end. */
export const MOST_QUESTIONS = 6;

export const troubleAnswersSchema = z
  .array(triedAnswerSchema)
  .max(MOST_QUESTIONS)
  .refine((answers) => new Set(answers.map(({ test }) => test)).size === answers.length, 'answers one test twice');
export const troubleReportSchema = z.strictObject({
  ask: z
    .strictObject({
      test: z.string(),
      text: z.string(),
      minutes: z.number(),
      tools: z.array(z.string()),
      outcomes: z.array(z.strictObject({ outcome: z.string(), text: z.string() }))
    })
    .nullable(),
  causes: z.array(
    z.strictObject({
      cause: causeSchema,
      says: z.string().describe('what is the matter, in a sentence'),
      evidence: z.array(z.string()).describe('what speaks for it'),
      because: z.string().describe('both in one'),
      of: z.enum(['drive', 'enclosure', 'cable']).describe('the part that it lies with'),
      remedy: z.string(),
      confidence: z.number().describe('a share of 1, among the causes that a build like this can have'),
      backTo: z.string().optional().describe('code of the step of the run sheet to go back to'),
      ofPair: z.literal(true).optional().describe('lies with drive and bridge together')
    })
  ),
  end: z.enum(['cause', 'cannot-tell']).nullable().describe('null while there is something to ask'),
  wouldTell: z
    .array(z.strictObject({ text: z.string(), minutes: z.number(), tools: z.array(z.string()) }))
    .describe('what would tell, where it cannot be told with what is at hand'),
  known: z.array(z.strictObject({ test: z.string(), text: z.string() })).describe('what the build already says'),
  path: z.array(z.strictObject({ test: z.string(), text: z.string(), answer: z.string() }))
});
export type TroubleReport = z.infer<typeof troubleReportSchema>;

/** At the end of the questions this is still worth being called the cause. */
const LIKELY = 0.6;
/** A question that tells less than this, in bits, is not asked. */
const LEAST_BITS = 0.06;
/** Nor one that tells less than this share of what the best one tells; the fewer questions are left, the more. */
const shareOfBest = (asked: number): number => 0.15 + 0.55 * (asked / (MOST_QUESTIONS - 1)) ** 2;

/** Everything that was answered, by the build itself or by a person. */
type Taken = {
  belief: Belief;
  left: Question[];
  evidence: { question: Question; outcome: number }[];
  known: TroubleReport['known'];
  path: TroubleReport['path'];
  least: number;
};

/** Kinds of effort, by their most minutes: looking, swapping a cable, opening the case, leaving it running. */
const EFFORTS = [1, 5, 20, Infinity] as const;
/** Gives the kind of effort that so many minutes are: 0 for looking, up. */
export const effortOf = (minutes: number): number => EFFORTS.findIndex((most) => minutes <= most);

/**
 * Chooses what to ask next: of those that tell much, the ones of the least effort, and of these the one that tells most; never one of less
 * effort than the one before it, so that the path runs from the cheapest to the dearest.
 */
function nextOf({ belief, left, least, path }: Taken): Question | undefined {
  const rated = left
    .filter(({ minutes }) => effortOf(minutes) >= least)
    .map((question) => ({ question, effort: effortOf(question.minutes), bits: gainOf(belief, question) }));
  const best = Math.max(0, ...rated.map(({ bits }) => bits));
  const worth = rated.filter(({ bits }) => bits >= Math.max(LEAST_BITS, best * shareOfBest(path.length)));
  return worth.sort((a, b) => a.effort - b.effort || b.bits - a.bits)[0]?.question;
}

const textOf = (question: Question, outcome: number, at: Situation): string =>
  wordsFor(question.outcomes[outcome]?.text ?? '', at);

/** Nothing that was measured makes a cause impossible that somebody may still find. */
const LEAST_SHARE = 0.004;

/**
 * What a result says of what is slow: as it was judged with its series, else by its figures. Nothing when nothing was measured, or another
 * symptom is meant.
 */
function measuredShares(symptom: Symptom, at: Situation): Belief | undefined {
  if (symptom !== 'slow' || !at.results) return undefined;
  const judged = at.judged ?? sharesOf(diagnose(at, { results: at.results }));
  const causes = beliefFrom(PRIORS.slow, at);
  return normalised(new Map([...causes].map(([cause, share]) => [cause, (judged[cause] ?? 0) + LEAST_SHARE * share])));
}

/** Takes in what the build already says. */
function begun(symptom: Symptom, at: Situation): Taken {
  const measured = measuredShares(symptom, at);
  const taken: Taken = {
    belief: measured ?? beliefFrom(PRIORS[symptom], at),
    left: [],
    evidence: [],
    known: [],
    path: [],
    least: 0
  };
  for (const question of QUESTIONS) {
    if (!question.for.includes(symptom) || !(question.applies?.(at) ?? true)) continue;
    const said = question.known?.(at);
    const outcome = question.outcomes.findIndex((o) => o.outcome === said);
    if (outcome === -1) {
      taken.left.push(question);
      continue;
    }
    // What was measured is weighed with all of this already; it is only told.
    if (!measured) taken.belief = after(taken.belief, question, outcome);
    taken.evidence.push({ question, outcome });
    taken.known.push({ test: question.code, text: `${wordsFor(question.text, at)} ${textOf(question, outcome, at)}.` });
  }
  return taken;
}

/** Takes in what a person answered, in order. */
function answered(taken: Taken, answers: readonly TroubleAnswer[], at: Situation): void {
  for (const [index, { test, outcome: said }] of answers.entries()) {
    const question = taken.left.find(({ code }) => code === test);
    if (!question) throw new UnknownAnswer(index, 'test');
    const outcome = question.outcomes.findIndex((o) => o.outcome === said);
    if (outcome === -1 && said !== CANNOT_TELL) throw new UnknownAnswer(index, 'outcome');
    taken.left = taken.left.filter((other) => other !== question);
    taken.least = Math.max(taken.least, effortOf(question.minutes));
    taken.path.push({
      test,
      text: wordsFor(question.text, at),
      answer: outcome === -1 ? cannotTell(question) : textOf(question, outcome, at)
    });
    if (outcome === -1) continue;
    taken.belief = after(taken.belief, question, outcome);
    taken.evidence.push({ question, outcome });
  }
}

/** What speaks for a cause: every outcome that is seen with it clearly more often than with the others. */
function evidenceFor(cause: CauseCode, { belief, evidence }: Taken, at: Situation): string[] {
  const others = [...belief.keys()].filter((other) => other !== cause);
  const speaks = evidence.filter(({ question, outcome }) => {
    const own = rowOf(question, cause)[outcome] ?? 0;
    const usual = others.reduce((sum, other) => sum + (rowOf(question, other)[outcome] ?? 0), 0) / (others.length || 1);
    return own > usual * 1.4;
  });
  return speaks.map(({ question, outcome }) => `“${wordsFor(question.text, at)}” – ${textOf(question, outcome, at)}`);
}

function causeReport(
  [cause, confidence]: [CauseCode, number],
  taken: Taken,
  at: Situation
): TroubleReport['causes'][number] {
  const { remedy, backTo, ofPair, of = 'drive' } = CAUSE_WORDS[cause];
  const step = backTo?.find((code) => at.steps.has(code));
  const says = wordsFor(CAUSE_WORDS[cause].says, at);
  const evidence = evidenceFor(cause, taken, at);
  return {
    cause,
    says,
    evidence,
    because: evidence.length === 0 ? says : `${says} What speaks for it: ${evidence.join('; ')}.`,
    remedy: wordsFor(remedy, at),
    confidence: Math.round(confidence * 1000) / 1000,
    of,
    ...(step ? { backTo: step } : {}),
    ...(ofPair ? { ofPair } : {})
  };
}

/** What somebody says who can tell or try nothing. */
const cannotTell = ({ tools }: Question): string => (tools ? 'I cannot try that' : 'I cannot tell');

/** What a question takes for this build: with the driver, where its case is held by screws or may be. */
function toolsFor({ tools = [], opens }: Question, { hands: { opening } }: Situation): string[] {
  const screwed = opens === true && (opening === 'screws' || opening === undefined);
  return screwed ? [...tools, 'a screwdriver for the case'] : [...tools];
}

const askReport = (question: Question, at: Situation): TroubleReport['ask'] => ({
  test: question.code,
  text: wordsFor(question.text, at),
  minutes: question.minutes,
  tools: toolsFor(question, at),
  outcomes: [
    ...question.outcomes.map(({ outcome, text: said }) => ({ outcome, text: wordsFor(said, at) })),
    { outcome: CANNOT_TELL, text: cannotTell(question) }
  ]
});

/** Causes that are still worth naming while it goes on, and at an open end. */
const WORTH_NAMING = 0.05;
const MOST_CAUSES = 4;
const MOST_WAYS = 3;

/**
 * Says what to look at next for a symptom, or what the matter is. Bayes over the one table of questions: shares of causes, each answer
 * times how often it is seen with them; asked is the cheapest of what tells much, at most six, up to a cause or to what would tell.
 * @param answers what was looked at so far, in order
 * @throws UnknownAnswer where an answer belongs to no question that this build is asked
 * @example trouble('slow', situationOf(anInput()), []).ask.test // 'listed-speed'
 */
export function trouble(symptom: Symptom, at: Situation, answers: readonly TroubleAnswer[]): TroubleReport {
  const taken = begun(symptom, at);
  answered(taken, answers, at);
  const { belief, known, path } = taken;
  const order = ranked(belief);
  const over = isSure(belief) || answers.length >= MOST_QUESTIONS;
  const ask = over ? undefined : nextOf(taken);
  const found = !ask && (order[0]?.[1] ?? 0) >= LIKELY;
  const named = found ? order.slice(0, 1) : order.filter(([, share]) => share >= WORTH_NAMING).slice(0, MOST_CAUSES);
  return {
    ask: ask ? askReport(ask, at) : null,
    causes: named.map((entry) => causeReport(entry, taken, at)),
    end: ask ? null : found ? 'cause' : 'cannot-tell',
    wouldTell: ask || found ? [] : waysLeft(belief, taken, at),
    known,
    path
  };
}

/** What would tell, of what was not tried or could not be: by how much it tells. */
function waysLeft(belief: Belief, { left, path, evidence }: Taken, at: Situation): TroubleReport['wouldTell'] {
  const told = new Set(evidence.map(({ question }) => question.code));
  const skipped = QUESTIONS.filter(({ code }) => !told.has(code) && path.some(({ test }) => test === code));
  return [...left, ...skipped]
    .map((question) => ({ question, bits: gainOf(belief, question) }))
    .filter(({ bits }) => bits > 0.02)
    .sort((a, b) => b.bits - a.bits)
    .slice(0, MOST_WAYS)
    .map(({ question }) => ({
      text: wordsFor(question.text, at),
      minutes: question.minutes,
      tools: toolsFor(question, at)
    }));
}
