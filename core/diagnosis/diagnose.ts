import { z } from 'zod';
import { causeSchema, QUESTIONS, UnknownAnswer, type TroubleAnswer } from './asking.ts';
import { beliefFrom, isSure, normalised, ranked, taken, type Belief } from './belief.ts';
import { bestChain, type Best } from './best.ts';
import { CAUSE_WORDS, type CauseCode } from './causes.ts';
import { fromTable, type Evidence } from './evidence.ts';
import { figuresEvidence } from './figures.ts';
import { gainsOf, nextFor, nextTestSchema, type Gains, type Weighed } from './next-test.ts';
import { conditionsEvidence, covered, figuresOf, impliedAnswers, sizeEvidence, type Observed } from './observed.ts';
import { MEASURED_PRIORS, PRIORS } from './priors.ts';
import { CANNOT_TELL, wordsFor, type Question, type Symptom } from './question.ts';
import { MEASURED_QUESTIONS } from './questions/measured.ts';
import { seriesEvidence } from './shapes.ts';
import type { Situation } from './situation.ts';
import { suspectEvidence, suspectsOf, suspectSchema } from './suspects.ts';
import { logEvidence } from './system-log.ts';

export const diagnosisSchema = z.strictObject({
  state: z.enum(['open', 'proven', 'cannot-tell']),
  causes: z.array(
    z.strictObject({
      cause: causeSchema,
      says: z.string(),
      remedy: z.string(),
      confidence: z.number().describe('a share of 1, among the causes that this build can have'),
      evidence: z.array(z.string()),
      evidenceAgainst: z.array(z.string()),
      nextTest: nextTestSchema.nullable().describe('what tells it best from the others'),
      of: z.enum(['drive', 'enclosure', 'cable']),
      backTo: z.string().optional(),
      ofPair: z.literal(true).optional()
    })
  ),
  next: nextTestSchema.nullable(),
  ruledOut: z.array(causeSchema).describe('less likely than one in a hundred'),
  contradictions: z.array(z.string()).describe('what does not go with the likeliest cause, though it should'),
  known: z.array(z.string()).describe('what was taken into account'),
  suspects: z.array(suspectSchema)
});
export type Diagnosis = z.infer<typeof diagnosisSchema>;

const GOES_AWAY: Partial<Record<CauseCode, number>> = {
  'unstable-link': 0.7,
  'no-power': 0.8,
  'bridge-firmware': 0.7,
  'not-seated': 0.5,
  'power-saving': 0.6,
  'lid-or-pad': 0.4,
  'thermal-throttle': 0.08
};

/** What is believed before anything is looked at: of a result, or of the symptoms that somebody names. */
function priorOf({ symptoms = [] }: Observed, measured: boolean, at: Situation): Belief {
  const named = symptoms.filter((symptom) => symptom !== 'slow');
  const weights: Partial<Record<CauseCode, number>> = {};
  const add = (of: Partial<Record<CauseCode, number>>, share: number) => {
    const entries = Object.entries(of) as [CauseCode, number][];
    const sum = entries.reduce((total, [, weight]) => total + weight, 0);
    for (const [cause, weight] of entries) weights[cause] = (weights[cause] ?? 0) + (share * weight) / sum;
  };
  if (named.length === 0 || measured)
    add(symptoms.includes('slow') ? PRIORS.slow : MEASURED_PRIORS, named.length === 0 ? 1 : 0.5);
  for (const symptom of named) add(PRIORS[symptom], 1 / named.length);
  return beliefFrom(weights, at);
}

/** What an outcome of a question says of each cause. */
const answerEvidence = (question: Question, outcome: number, at: Situation): Evidence => ({
  code: question.code,
  says: `${wordsFor(question.text, at)} ${wordsFor(question.outcomes[outcome]?.text ?? '', at)}.`,
  given: (cause) => (question.given[cause] ?? question.usual)[outcome] ?? 0
});

/** Questions that can be asked of this build, with the symptoms that it has. */
function askable(observed: Observed, at: Situation): Question[] {
  const symptoms: readonly Symptom[] = ['slow', 'disconnects', ...(observed.symptoms ?? [])];
  return [
    ...QUESTIONS.filter((question) => question.for.some((symptom) => symptoms.includes(symptom))),
    ...MEASURED_QUESTIONS
  ].filter(({ applies }) => applies?.(at) ?? true);
}

/** What was tried, by question. @throws UnknownAnswer for what this build is not asked */
function answersTo(questions: readonly Question[], tried: readonly TroubleAnswer[]): Map<string, string> {
  tried.forEach(({ test, outcome }, index) => {
    const question = questions.find(({ code }) => code === test);
    if (!question) throw new UnknownAnswer(index, 'test');
    if (outcome !== CANNOT_TELL && !question.outcomes.some((one) => one.outcome === outcome))
      throw new UnknownAnswer(index, 'outcome');
  });
  return new Map(tried.map(({ test, outcome }) => [test, outcome]));
}

/** Evidence of everything that was measured or read. */
function seenIn(observed: Observed, at: Situation, best: Best): Evidence[] {
  const { analysis, direction = 'write', log, symptoms, history } = observed;
  return [
    ...figuresEvidence(figuresOf(observed), best),
    ...(analysis ? seriesEvidence(analysis, direction, best, observed.case) : []),
    ...sizeEvidence(observed, best),
    ...conditionsEvidence(observed, at),
    ...(log ? logEvidence(log) : []),
    ...(history ? suspectEvidence(history) : []),
    ...(symptoms?.includes('disconnects')
      ? [fromTable('goes-away', 'It goes away while it works.', { usual: 0.01, given: GOES_AWAY })]
      : [])
  ];
}

/**
 * What several features of one series say together is surer than their tables, taken one by one, let it be: shares are raised to a power
 * that was fitted to made-up faults of other seeds than it is judged by. Source: Guo, Pleiss, Sun, Weinberger, "On calibration of modern
 * neural networks" (2017), temperature scaling.
 */
const SHARPER = 1.3;
const sharper = (belief: Belief): Belief =>
  normalised(new Map([...belief].map(([cause, share]) => [cause, share ** SHARPER])));

/** Weighs everything that is known, and what somebody tried. @throws UnknownAnswer for what this build is not asked */
function weigh(observed: Observed, at: Situation, best: Best): Weighed {
  const evidence = seenIn(observed, at, best);
  const implied = impliedAnswers(observed, at, best);
  const hidden = covered(observed);
  const questions = askable(observed, at);
  const tried = answersTo(questions, observed.tried ?? []);
  const measured = evidence.length > 0;
  const open: Question[] = [];
  for (const question of questions) {
    const said = tried.get(question.code) ?? implied.get(question.code);
    const outcome = question.outcomes.findIndex((one) => one.outcome === said);
    if (outcome >= 0) evidence.push(answerEvidence(question, outcome, at));
    else if (said !== CANNOT_TELL && !hidden.has(question.code)) open.push(question);
  }
  const belief = evidence.reduce(taken, priorOf(observed, measured, at));
  return { belief: observed.analysis?.enough ? sharper(belief) : belief, evidence, open };
}

/** Speaks for a cause where it is seen with it so many times as often as with the others; against it where so many times less. */
const SPEAKS = 1.5;
const AGAINST = 1 / 3;

function forAndAgainst(
  cause: CauseCode,
  { belief, evidence }: Weighed
): { evidence: string[]; evidenceAgainst: string[] } {
  const said = { evidence: [] as string[], evidenceAgainst: [] as string[] };
  const others = [...belief].filter(([other]) => other !== cause);
  const sum = others.reduce((total, [, share]) => total + share, 0) || 1;
  for (const { says, given } of evidence) {
    const own = given(cause);
    const best = Math.max(...[...belief.keys()].map(given));
    // Against the others as they are believed without this: a rough mean over all of them.
    const usual = others.reduce((total, [other]) => total + given(other), 0) / Math.max(1, others.length);
    const near = others.reduce((total, [other, share]) => total + given(other) * share, 0) / sum;
    if (own > SPEAKS * Math.min(usual, Math.max(near, usual / 4)) && own >= best / 20) said.evidence.push(says);
    else if (own < AGAINST * best && own < usual) said.evidenceAgainst.push(says);
  }
  return said;
}

/** Clearly against: so many times less likely than with another cause. */
const CONTRADICTS = 1 / 15;

/** What does not go with the likeliest cause, though everything else does. */
function contradictionsOf({ belief, evidence }: Weighed): string[] {
  const [first] = ranked(belief);
  if (!first) return [];
  return evidence
    .filter(({ given }) => given(first[0]) < CONTRADICTS * Math.max(...[...belief.keys()].map(given)))
    .map(({ says }) => says);
}

const HEALTHY = {
  says: 'It is as fast as this chain can be: nothing is wrong.',
  remedy: 'Nothing to do.'
} as const;

/** Causes that are worth a bar. */
const WORTH_NAMING = 0.03;
const MOST_CAUSES = 5;
const RULED_OUT = 0.01;

/**
 * Weighs what was measured, seen, read and tried into causes with their confidence, and says what to do next to tell the likeliest from
 * the one after it. Bayes over explicit tables (`priors.ts`, `figures.ts`, `shapes.ts`, `system-log.ts`, `questions/`).
 * @param at what the build says by itself
 * @throws UnknownAnswer where something was tried that this build is not asked for
 * @example diagnose(situationOf(anInput()), { results: { readMBps: 38, writeMBps: 36 } }).causes[0].cause // 'usb2-fallback'
 */
export function diagnose(at: Situation, observed: Observed): Diagnosis {
  const best = bestChain(at.hands.input);
  const weighed = weigh(observed, at, best);
  const { belief, evidence } = weighed;
  const order = ranked(belief);
  const contradictions = contradictionsOf(weighed);
  // What does not go together proves nothing, however sure the rest is: something of it was read off wrong.
  const sure = isSure(belief) && evidence.length > 0 && contradictions.length === 0;
  const gains = gainsOf(weighed);
  const next = sure ? null : nextFor(undefined, weighed, gains, at);
  const named = order.filter(([, share], i) => i === 0 || share >= WORTH_NAMING).slice(0, MOST_CAUSES);
  return {
    state: sure ? 'proven' : next ? 'open' : 'cannot-tell',
    causes: named.map(([cause, confidence]) => causeReport([cause, confidence], weighed, gains, at)),
    next,
    ruledOut: order.filter(([, share]) => share < RULED_OUT).map(([cause]) => cause),
    contradictions,
    known: evidence.map(({ says }) => says),
    suspects: observed.history ? suspectsOf(observed.history) : []
  };
}

function causeReport(
  [cause, confidence]: [CauseCode, number],
  weighed: Weighed,
  gains: Gains,
  at: Situation
): Diagnosis['causes'][number] {
  const words = cause === 'healthy' ? { ...CAUSE_WORDS.healthy, ...HEALTHY } : CAUSE_WORDS[cause];
  const { backTo, ofPair, of = 'drive' } = words;
  const step = backTo?.find((code) => at.steps.has(code));
  return {
    cause,
    says: wordsFor(words.says, at),
    remedy: wordsFor(words.remedy, at),
    confidence: Math.round(confidence * 1000) / 1000,
    ...forAndAgainst(cause, weighed),
    nextTest: nextFor(cause, weighed, gains, at),
    of,
    ...(step ? { backTo: step } : {}),
    ...(ofPair ? { ofPair } : {})
  };
}

/**
 * Gives the shares of the likeliest causes by their codes.
 * @example sharesOf({ causes: [] }) // {}
 */
export const sharesOf = ({ causes }: Pick<Diagnosis, 'causes'>): Partial<Record<CauseCode, number>> =>
  Object.fromEntries(causes.map(({ cause, confidence }) => [cause, confidence]));
