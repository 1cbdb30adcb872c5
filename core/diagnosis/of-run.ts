import { isEventful, type RunPhase, type RunStretch, type SampledRun } from '../analysis/of-run.ts';
import type { Conditions } from '../results/conditions.ts';
import type { ProtocolId } from '../results/protocol-ids.ts';
import type { PairResults } from '../results/run.ts';
import type { Settings } from '../results/settings.ts';
import type { Series } from '../series/series.ts';
import type { CauseCode } from './causes.ts';
import { diagnose, type Diagnosis } from './diagnose.ts';
import type { Observed } from './observed.ts';
import type { FoundLater } from './found.ts';
import { cacheToo, judgedWords, type RunSentence } from './sentence.ts';
import type { CaseTemperatures } from './shapes.ts';
import type { Situation } from './situation.ts';
import type { History } from './suspects.ts';
import { UnknownAnswer } from './asking.ts';

/** A run of a build, with everything that it can be judged by. */
export type JudgedRun = {
  protocol: ProtocolId;
  results: PairResults;
  conditions: Partial<Conditions>;
  settings?: Settings | null | undefined;
  /** Stretches of its series, where it has one, and temperatures of its case. */
  stretches?: readonly RunStretch[] | undefined;
  case?: CaseTemperatures | undefined;
  found?: FoundLater | null | undefined;
  history?: History | undefined;
};

/** A run as it is judged: its stretches, the causes, and what is said first. */
export type Judgement = { stretches: readonly RunStretch[]; diagnosis: Diagnosis; sentence: RunSentence };

/** Protocols whose data comes from memory, unless the conditions say otherwise. */
const MADE_UP: readonly ProtocolId[] = ['pair-check', 'loop', 'soak', 'retest', 'acceptance', 'sweep'];

/** Protocols that write one size again and again. */
const ROUNDS: readonly ProtocolId[] = ['pair-check', 'loop', 'retest'];
/** Protocols that copy, and what the other side is. */
const COPIES: Partial<Record<ProtocolId, 'internal' | 'other'>> = { copy: 'internal', 'cross-copy': 'other' };

/** What a protocol says of its conditions by itself. */
function conditionsOf({
  protocol,
  conditions,
  settings
}: Pick<JudgedRun, 'protocol' | 'conditions' | 'settings'>): Partial<Conditions> {
  return {
    ...(MADE_UP.includes(protocol) ? { source: 'memory' as const } : {}),
    ...(protocol === 'copy' ? { source: 'internal' as const } : {}),
    ...(settings?.GB !== undefined && ROUNDS.includes(protocol)
      ? { testGB: settings.GB, repeats: settings.rounds ?? 1 }
      : {}),
    ...conditions
  };
}

/** The stretch that tells most: the longest in which something happened, else the longest. */
function tellingOf(stretches: readonly RunStretch[]): RunStretch | undefined {
  const longest = (list: readonly RunStretch[]) =>
    [...list].sort((a, b) => b.analysis.stats.samples - a.analysis.stats.samples)[0];
  const enough = stretches.filter(({ analysis }) => analysis.enough);
  return longest(enough.filter(isEventful)) ?? longest(enough);
}

/** Answers that were kept before the build was changed may be to what is not asked any more: they are left out. */
function diagnosed(at: Situation, observed: Observed): Diagnosis {
  try {
    return diagnose(at, observed);
  } catch (error) {
    if (!(error instanceof UnknownAnswer)) throw error;
    const tried = observed.tried?.filter((_, i) => i !== error.index) ?? [];
    return diagnosed(at, { ...observed, tried });
  }
}

/**
 * Gives what the series of a run is read by: conditions that its protocol implies, and the forecast of its build.
 * @example sampledRun({ protocol: 'soak', conditions: {} }, situationOf(anInput()), { t: [1], MBps: [100] }).conditions.source // 'memory'
 */
export function sampledRun(
  run: Pick<JudgedRun, 'protocol' | 'conditions' | 'settings'>,
  at: Situation,
  series: Series,
  phases?: readonly RunPhase[]
): SampledRun {
  const { thermal, throughput } = at.report;
  const { read, write } = throughput;
  return {
    protocol: run.protocol,
    conditions: conditionsOf(run),
    series,
    phases,
    startC: thermal?.startC ?? undefined,
    predicted: { ...(read ? { read } : {}), ...(write ? { write } : {}) }
  };
}

/**
 * Judges a run of a build: reads its series, weighs the causes, and says first what came out.
 * @param at what the build says by itself
 * @example judgeRun({ protocol: 'pair-check', results: { readMBps: 39, writeMBps: 37 }, conditions: {} }, situationOf(anInput())).diagnosis.causes[0].cause // 'usb2-fallback'
 */
export function judgeRun(run: JudgedRun, at: Situation): Judgement {
  const { results, stretches = [], found, history } = run;
  const conditions = conditionsOf(run);
  const telling = tellingOf(stretches);
  const observed: Observed = {
    results,
    conditions,
    ...(telling ? { analysis: telling.analysis, direction: telling.direction } : {}),
    ...(telling && run.case ? { case: { ...run.case, t: run.case.t.map((t) => t - telling.fromS) } } : {}),
    copies: COPIES[run.protocol],
    ...found,
    history
  };
  const diagnosis = diagnosed(at, observed);
  const rest = telling && besideTheCache(telling, diagnosis);
  if (!rest) return { stretches, diagnosis, sentence: judgedWords(diagnosis, results, telling) };
  const further = diagnosed(at, { ...observed, analysis: rest.analysis });
  const sentence = judgedWords(further, results, rest);
  return { stretches, diagnosis: further, sentence: { ...sentence, text: `${sentence.text}${cacheToo(telling)}` } };
}

/**
 * What is left of a stretch once a cache that was full has been told, where something else happened in it too: one thing at a time is
 * weighed.
 */
function besideTheCache(stretch: RunStretch, { causes: [first] }: Diagnosis): RunStretch | undefined {
  if (first?.cause !== 'slc-cliff') return undefined;
  const { analysis } = stretch;
  const steps = analysis.steps.filter(({ kind }) => kind === 'throttle');
  const rest = { ...stretch, analysis: { ...analysis, steps, cliff: null } };
  return isEventful(rest) ? rest : undefined;
}

/** What a build that was measured asks for, where it asks for anything; null where all is as it should be, or has its known reason. */
export type Advice = { cause: CauseCode; text: string; next: string };

/**
 * Says what to do after a run: the remedy of what is proven, else the test that tells most.
 * @param below whether anything was slower than its forecast
 * @example adviceOf(judgeRun({ protocol: 'pair-check', results: { readMBps: 3400, writeMBps: 3400 }, conditions: {} }, situationOf(anInput())), false) // null
 */
export function adviceOf({ diagnosis, sentence }: Judgement, below: boolean): Advice | null {
  const [first] = diagnosis.causes;
  if (!first || sentence.tone === 'sound' || sentence.tone === 'known') return null;
  if (sentence.tone === 'fault') return { cause: first.cause, text: sentence.text, next: first.remedy };
  if (first.cause === 'healthy' && !below) return null;
  return {
    cause: first.cause,
    text: sentence.text,
    next: diagnosis.next ? `Find out next: ${diagnosis.next.text}` : first.remedy
  };
}
