import { z } from 'zod';
import type { Analysis } from '../analysis/report.ts';
import { quantity } from '../quantities/format.ts';
import type { Conditions } from '../results/conditions.ts';
import type { PairResults } from '../results/run.ts';
import { after, beliefFrom, gainOf, isSure, normalised, ranked, type Belief } from './belief.ts';
import { bestOf, type Best } from './best.ts';
import { CAUSE_WORDS, type CauseCode } from './causes.ts';
import { fromTable, type Evidence } from './evidence.ts';
import { figuresEvidence, type Figure } from './figures.ts';
import { MEASURED_PRIORS, PRIORS } from './priors.ts';
import { CANNOT_TELL, wordsFor, type Question, type Symptom } from './question.ts';
import { MEASURED_QUESTIONS } from './questions/measured.ts';
import { seriesEvidence, shapeOf, type CaseTemperatures } from './shapes.ts';
import type { Situation } from './situation.ts';
import { suspectsOf, suspectSchema, type History, type Suspect } from './suspects.ts';
import { logEvidence } from './system-log.ts';
import { causeSchema, QUESTIONS, UnknownAnswer, type TroubleAnswer } from './trouble.ts';

/** Everything that a diagnosis can be given. */
export type Observed = {
  results?: PairResults | undefined;
  analysis?: Analysis | undefined;
  direction?: 'read' | 'write' | undefined;
  case?: CaseTemperatures | undefined;
  symptoms?: readonly Symptom[] | undefined;
  conditions?: Partial<Conditions> | undefined;
  negotiatedGbps?: number | undefined;
  log?: string | undefined;
  tried?: readonly TroubleAnswer[] | undefined;
  history?: History | undefined;
};

const nextTestSchema = z.strictObject({
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

/** Rates of results, as figures of the chain. Where a series was read its own levels stand for what it wrote or read. */
function figuresOf({ results, analysis, direction }: Observed): Figure[] {
  const figures: Figure[] = [];
  const put = (of: Figure['of'], MBps: number | undefined, atFirst?: boolean) => {
    if (MBps !== undefined && MBps > 0) figures.push({ of, MBps, ...(atFirst ? { atFirst } : {}) });
  };
  const level = analysis?.enough ? firstLevel(analysis) : undefined;
  // An even series shows what the cause makes of the rate; one that changes begins with what the chain can do.
  if (level !== undefined && direction && analysis) put(direction, level, shapeOf(analysis) !== 'flat');
  if (direction !== 'read' || level === undefined) put('read', results?.readMBps);
  if (direction !== 'write' || level === undefined) {
    put('write', results?.writeMBps);
    put('sustained', results?.sustainedWriteMBps);
  }
  put('random4kRead', results?.random4kReadMBps);
  put('random4kWrite', results?.random4kWriteMBps);
  put('copyIn', results?.copyInMBps);
  put('copyOut', results?.copyOutMBps);
  return figures;
}

/** The level that a series has before anything falls; of a disk the middle of its curve. */
function firstLevel(analysis: Analysis): number | undefined {
  if (analysis.zone) return (analysis.zone.outerMBps + analysis.zone.innerMBps) / 2;
  if (analysis.throttle) return analysis.throttle.highMBps;
  if (analysis.steps[0]) return analysis.steps[0].beforeMBps;
  // Between dips and stops it runs as fast as it can.
  return analysis.irregular || analysis.dips || analysis.dropouts.length > 0
    ? Math.max(...analysis.plateau.map(({ MBps }) => MBps), 0) || undefined
    : analysis.median || undefined;
}

/** Speeds that a system shows, as outcomes of the question for it. */
function shownSpeed(gbps: number | undefined, best: Best): string | undefined {
  if (gbps === undefined) return undefined;
  if (gbps < 1) return 'usb2';
  if (gbps <= 5) return best.mode === 'usb-5g' ? 'planned' : '5g';
  if (gbps <= 10) return best.mode === 'usb-10g' ? 'planned' : '10g';
  return 'planned';
}

/** Answers that conditions and parts give by themselves. */
function impliedBy({ conditions, negotiatedGbps }: Observed, at: Situation, best: Best): Map<string, string> {
  const implied = new Map<string, string>();
  for (const { code, known, applies } of QUESTIONS) {
    const said = (applies?.(at) ?? true) ? known?.({ ...at, results: undefined }) : undefined;
    if (said !== undefined) implied.set(code, said);
  }
  const put = (code: string, outcome: string | undefined) => outcome !== undefined && implied.set(code, outcome);
  put('listed-speed', shownSpeed(negotiatedGbps, best));
  if (conditions?.writeCache === 'performance') put('policy', 'better');
  if (conditions?.writeCache === 'quick-removal') put('policy', 'quick');
  if (conditions?.fillPercent !== undefined) put('how-full', conditions.fillPercent > 90 ? 'full' : 'room');
  if (conditions?.encrypted !== undefined) put('encrypted-volume', conditions.encrypted ? 'yes' : 'no');
  return implied;
}

/** A test of a few numbers writes no more than its cache holds, mostly. */
const SHORT_TEST = { unknown: 0.3, within: 0.03, beyond: 0.6 } as const;

/** Whether what was written can have filled the cache at all. */
function sizeEvidence({ conditions, results, analysis }: Observed, best: Best): Evidence[] {
  if (analysis?.enough || results?.writeMBps === undefined || !best.cliffGB) return [];
  const written = conditions?.testGB === undefined ? undefined : conditions.testGB * (conditions.repeats ?? 1);
  const may = written === undefined ? 'unknown' : written < best.cliffGB.low * 0.8 ? 'within' : 'beyond';
  const says = {
    unknown: 'How much was written is not known; most such tests stay within the cache.',
    within: `No more than ${quantity(written ?? 0, 'GB')} was written, less than the cache holds.`,
    beyond: `${quantity(written ?? 0, 'GB')} was written, more than the cache may hold.`
  }[may];
  return [fromTable('test-size', says, { usual: 0.6, given: { 'slc-cliff': SHORT_TEST[may] } })];
}

/** What conditions and parts say that no question asks for. */
function conditionsEvidence({ conditions }: Observed, { hands }: Situation): Evidence[] {
  const evidence: Evidence[] = [];
  if (hands.input.drive.disk?.recording === 'smr')
    evidence.push(fromTable('shingled', 'The disk is a shingled one.', { usual: 0.25, given: { 'smr-rewrite': 0.9 } }));
  if (conditions?.indexing === true)
    evidence.push(
      fromTable('indexing', 'It was still being indexed.', { usual: 0.15, given: { 'background-load': 0.7 } })
    );
  if (conditions?.indexing === false)
    evidence.push(
      fromTable('not-indexing', 'It was not being indexed.', { usual: 0.8, given: { 'background-load': 0.4 } })
    );
  if (conditions?.source === 'memory')
    evidence.push(
      fromTable('from-memory', 'The data came from memory, not from a disk.', {
        usual: 0.6,
        given: { 'host-disk-cliff': 0.02 }
      })
    );
  if (conditions?.source === 'internal' || conditions?.target === 'internal')
    evidence.push(
      fromTable('with-internal', 'The computer’s own disk was the other side.', {
        usual: 0.4,
        given: { 'host-disk-cliff': 0.9 }
      })
    );
  return evidence;
}

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

/** Questions that something that was measured answers better. */
function covered({ analysis }: Observed, figures: readonly Figure[]): Set<string> {
  const codes = new Set<string>();
  if (figures.some(({ of }) => of === 'read')) codes.add('reads-at');
  if (figures.some(({ of }) => of === 'read') && figures.some(({ of }) => of === 'write')) codes.add('read-or-write');
  if (analysis?.enough) codes.add('how-it-falls');
  return codes;
}

type Weighed = { belief: Belief; evidence: Evidence[]; open: Question[] };

/** What an outcome of a question says of each cause. */
const answerEvidence = (question: Question, outcome: number, at: Situation): Evidence => ({
  code: question.code,
  says: `${wordsFor(question.text, at)} ${wordsFor(question.outcomes[outcome]?.text ?? '', at)}.`,
  given: (cause) => (question.given[cause] ?? question.usual)[outcome] ?? 0
});

/** No single thing makes a cause impossible: what is entered can be wrong. */
const LEAST_LIKELY = 1e-4;

function taken(belief: Belief, evidence: Evidence): Belief {
  const most = Math.max(...[...belief.keys()].map(evidence.given));
  if (!(most > 0)) return belief;
  return normalised(
    new Map([...belief].map(([cause, share]) => [cause, share * Math.max(evidence.given(cause) / most, LEAST_LIKELY)]))
  );
}

/** Questions that can be asked of this build, with the symptoms that it has. */
function askable(observed: Observed, at: Situation): Question[] {
  const symptoms: readonly Symptom[] = ['slow', 'disconnects', ...(observed.symptoms ?? [])];
  return [
    ...QUESTIONS.filter((question) => question.for.some((symptom) => symptoms.includes(symptom))),
    ...MEASURED_QUESTIONS
  ].filter(({ applies }) => applies?.(at) ?? true);
}

/** Weighs everything that is known, and what somebody tried. @throws UnknownAnswer for what this build is not asked */
function weigh(observed: Observed, at: Situation, best: Best): Weighed {
  const figures = figuresOf(observed);
  const evidence: Evidence[] = [
    ...figuresEvidence(figures, best),
    ...(observed.analysis ? seriesEvidence(observed.analysis, observed.direction ?? 'write', best, observed.case) : []),
    ...sizeEvidence(observed, best),
    ...conditionsEvidence(observed, at),
    ...(observed.log ? logEvidence(observed.log) : []),
    ...suspectEvidence(observed.history)
  ];
  if (observed.symptoms?.includes('disconnects'))
    evidence.push(fromTable('goes-away', 'It goes away while it works.', { usual: 0.01, given: GOES_AWAY }));
  const implied = impliedBy(observed, at, best);
  const hidden = covered(observed, figures);
  const open: Question[] = [];
  const questions = askable(observed, at);
  const tried = new Map((observed.tried ?? []).map(({ test, outcome }) => [test, outcome]));
  (observed.tried ?? []).forEach(({ test, outcome }, index) => {
    const question = questions.find(({ code }) => code === test);
    if (!question) throw new UnknownAnswer(index, 'test');
    if (outcome !== CANNOT_TELL && !question.outcomes.some((one) => one.outcome === outcome))
      throw new UnknownAnswer(index, 'outcome');
  });
  for (const question of questions) {
    const said = tried.get(question.code) ?? implied.get(question.code);
    const outcome = question.outcomes.findIndex((one) => one.outcome === said);
    if (outcome >= 0) evidence.push(answerEvidence(question, outcome, at));
    else if (said !== CANNOT_TELL && !hidden.has(question.code)) open.push(question);
  }
  const measured = figures.length > 0 || observed.analysis?.enough === true || evidence.length > 0;
  return { belief: evidence.reduce(taken, priorOf(observed, measured, at)), evidence, open };
}

/** Causes that lie with a part that is suspect across builds. */
const OF_PART: Record<Suspect['part'], readonly CauseCode[]> = {
  cable: ['usb2-fallback', '5g-port-or-cable', '10g-fallback', 'unstable-link', 'not-detected-link'],
  port: ['usb2-fallback', '5g-port-or-cable', '10g-fallback', 'unstable-link', 'no-power', 'host-write-ceiling'],
  host: ['host-write-ceiling', 'host-disk-cliff', 'write-cache-off', 'background-load', '5g-port-or-cable'],
  enclosure: ['bulk-only', 'pad-no-contact', 'bridge-firmware', 'two-lane-limit', 'thermal-throttle', 'unstable-link'],
  drive: ['drive-nearly-full', 'smr-rewrite', 'weak-surface', 'slc-cliff', 'drive-faulty', 'thermal-throttle']
};

/** What other builds say of the parts of this one. */
function suspectEvidence(history: History | undefined): Evidence[] {
  if (!history) return [];
  const own = history[0]?.ids ?? {};
  return suspectsOf(history)
    .filter(({ part, id, share }) => own[part] === id && share >= 0.5)
    .map(({ part, because, share }) =>
      fromTable(`suspect-${part}`, because, {
        usual: 0.25,
        given: Object.fromEntries(OF_PART[part].map((cause) => [cause, 0.25 + 0.7 * share]))
      })
    );
}

/** What is told by a question for each minute; a few minutes go on finding one’s way in any case. */
const GETTING_THERE = 8;
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

function nextFor(cause: CauseCode | undefined, { belief, open }: Weighed, at: Situation): NextTest | null {
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

/** Short names of causes, as bars and buttons carry them. */
export const CAUSE_NAMES: Partial<Record<CauseCode, string>> = {
  'usb2-fallback': 'fell back to USB 2.0',
  '5g-port-or-cable': 'port or cable of 5 Gb/s',
  '10g-fallback': 'fell back to 10 Gb/s',
  'bulk-only': 'bulk-only transport',
  'write-cache-off': 'write cache is off',
  'slc-cliff': 'fast cache is full',
  'host-disk-cliff': 'the other disk is slow',
  'thermal-throttle': 'too hot',
  'pad-no-contact': 'pad without contact',
  'two-lane-limit': 'two lanes only',
  'host-write-ceiling': 'the computer writes slowly',
  'drive-nearly-full': 'drive nearly full',
  'smr-rewrite': 'shingled disk, rewriting',
  'weak-surface': 'weak places',
  'background-load': 'something else uses it',
  'encryption-cost': 'cost of encryption',
  'unstable-link': 'loose contact or cable',
  'no-power': 'too little power',
  'bridge-firmware': 'firmware of the bridge',
  'not-seated': 'not seated well',
  'power-saving': 'put to sleep',
  'lid-or-pad': 'lid or pads press',
  healthy: 'nothing is wrong'
};

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
  const best = bestOf(at.hands.input);
  const weighed = weigh(observed, at, best);
  const { belief, evidence } = weighed;
  const order = ranked(belief);
  const sure = isSure(belief) && evidence.length > 0;
  const next = sure ? null : nextFor(undefined, weighed, at);
  const named = order.filter(([, share], i) => i === 0 || share >= WORTH_NAMING).slice(0, MOST_CAUSES);
  return {
    state: sure ? 'proven' : next ? 'open' : 'cannot-tell',
    causes: named.map(([cause, confidence]) => causeReport(cause, confidence, weighed, at)),
    next,
    ruledOut: order.filter(([, share]) => share < RULED_OUT).map(([cause]) => cause),
    contradictions: contradictionsOf(weighed),
    known: evidence.map(({ says }) => says),
    suspects: observed.history ? suspectsOf(observed.history) : []
  };
}

function causeReport(
  cause: CauseCode,
  confidence: number,
  weighed: Weighed,
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
    nextTest: nextFor(cause, weighed, at),
    of,
    ...(step ? { backTo: step } : {}),
    ...(ofPair ? { ofPair } : {})
  };
}
